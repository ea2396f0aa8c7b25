#!/usr/bin/env python
import os
import sys

from server.start import loading

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "server.settings")
with loading():
    import django
    from django.core.management import execute_from_command_line

    django.setup()
execute_from_command_line(sys.argv)
