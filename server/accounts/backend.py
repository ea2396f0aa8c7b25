from typing import Any

from allauth.account.auth_backends import AuthenticationBackend

from server.accounts.models import Club, User
from server.bounded import Bound
from server.prepared import Prepared

hashing = Bound(at_once=1, waiting=20)
"""Passwords that a process looks at: a crowd at the door takes no more of the processor than that."""

MEMBER = Prepared(lambda: User.objects.select_related("club").filter(pk=0))
USER, CLUB = ([field.attname for field in model._meta.concrete_fields] for model in (User, Club))
"""What stands in its row, in this order."""


class CoachBackend(AuthenticationBackend):  # type: ignore[misc]
    """As allauth's own, with the club in the same breath: every request asks whose it is."""

    def authenticate(self, request: Any, **credentials: Any) -> Any:
        """Raises `BusyError` where too many wait already."""
        return hashing(super().authenticate)(request, **credentials)

    def get_user(self, user_id: Any) -> User | None:
        row = MEMBER.row(user_id)
        if row is None:
            return None
        found = User.from_db(None, USER, row[: len(USER)])
        found.club = Club.from_db(None, CLUB, row[len(USER) :]) if found.club_id else None
        return found if self.user_can_authenticate(found) else None
