"""Tell the one-time code that opens the club, as long as there is none. Nothing is told afterwards."""

from typing import Any

from django.core.management.base import BaseCommand
from django.db import transaction

from server.accounts.codes import fingerprint, new_code
from server.accounts.models import Club, SetUpCode


class Command(BaseCommand):
    help = "Print a new one-time set-up code while no club exists."
    requires_system_checks = ()
    """It is a step of starting, and loads nothing that it need not."""

    def handle(self, *args: Any, **options: Any) -> None:
        with transaction.atomic():
            SetUpCode.objects.all().delete()
            if Club.objects.exists():
                return
            code = new_code()
            SetUpCode.objects.create(fingerprint=fingerprint(code))
        self.stdout.write(code)
