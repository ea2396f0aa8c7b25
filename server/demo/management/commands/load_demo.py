"""Load the demo club. Does nothing where it is there already, so that nothing a visitor did is lost."""

from typing import Any

from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandParser
from django.db import transaction

from server.accounts.api import DEMO_COACH
from server.accounts.models import User
from server.demo.hall import WEEKS_OF_HISTORY


class Command(BaseCommand):
    help = "Bring the database up to date and load the demo club, unless it is there already."

    # Checks look through every address of the app, which loads all of it: as the server starts it does.
    requires_system_checks = ()

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--weeks", type=int, default=WEEKS_OF_HISTORY, help="of history; 0 for none")

    def handle(self, *args: Any, **options: Any) -> None:
        call_command("migrate", verbosity=0)
        if User.objects.filter(username=DEMO_COACH).exists():
            return
        # What simulates and solves takes seconds to load: where the demo is there already, it starts without.
        from server.demo.loading import load

        with transaction.atomic():
            self.stdout.write(load(options["weeks"]))
