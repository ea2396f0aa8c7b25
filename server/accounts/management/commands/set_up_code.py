"""Tell the one-time code that opens the club, as long as there is none. Nothing is told afterwards."""

from typing import Any

from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandParser
from django.db import transaction

from server.accounts.codes import fingerprint, new_code
from server.accounts.models import Club, SetUpCode


class Command(BaseCommand):
    help = "Print a new one-time set-up code while no club exists."
    requires_system_checks = ()
    """It is a step of starting, and loads nothing that it need not."""

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--migrate", action="store_true", help="bring the database up to date first")

    def handle(self, *args: Any, **options: Any) -> None:
        if options["migrate"]:
            call_command("migrate", verbosity=0)
        with transaction.atomic():
            SetUpCode.objects.all().delete()
            if Club.objects.exists():
                return
            code = new_code()
            SetUpCode.objects.create(fingerprint=fingerprint(code))
        self.stdout.write(code)
