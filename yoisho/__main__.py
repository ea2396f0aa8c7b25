import sys

from yoisho.cli import main

sys.exit(main())
