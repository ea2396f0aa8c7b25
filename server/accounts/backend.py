from typing import Any

from allauth.account.auth_backends import AuthenticationBackend

from server.accounts.models import User
from server.bounded import Bound

hashing = Bound(at_once=1, waiting=20)
"""Passwords that a process looks at: a crowd at the door takes no more of the processor than that."""


class CoachBackend(AuthenticationBackend):  # type: ignore[misc]
    """As allauth's own, with the club in the same breath: every request asks whose it is."""

    def authenticate(self, request: Any, **credentials: Any) -> Any:
        """Raises `BusyError` where too many wait already."""
        return hashing(super().authenticate)(request, **credentials)

    def get_user(self, user_id: Any) -> User | None:
        # Of one there is no order to ask for, which `first` would.
        found = next(iter(User.objects.select_related("club").filter(pk=user_id)), None)
        return found if found is not None and self.user_can_authenticate(found) else None
