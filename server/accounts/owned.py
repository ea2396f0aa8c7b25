"""What belongs to a club: every query starts from it, so that nothing can be read across clubs."""

from typing import Any, TypeVar

from django.db import models

from server.accounts.models import Club
from server.errors import not_found

Theirs = TypeVar("Theirs", bound=models.Model)


class Owned(models.Manager[Theirs]):
    """The manager of everything that has a club."""

    def of(self, club: Club) -> models.QuerySet[Theirs]:
        return self.get_queryset().filter(club=club)

    def perhaps(self, club: Club, pk: int | None) -> Theirs | None:
        """The club's own with that id; None where there is none, or none is asked for."""
        return None if pk is None else self.of(club).filter(pk=pk).first()

    def find(self, club: Club, what: str, **which: Any) -> Theirs:
        """The club's own. 404, with what it is called, where it is not the club's."""
        found = self.of(club).filter(**which).first()
        if found is None:
            raise not_found(what)
        found.club = club  # type: ignore[attr-defined]  # known already: it need not be asked for
        return found
