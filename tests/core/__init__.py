"""The core by itself: no database, no server, no page."""

import os

RANDOM = int(os.environ.get("YOISHO_RANDOM", "100"))
"""Random camps and random classes that are tried; `make fuzz` tries 300 of each."""
