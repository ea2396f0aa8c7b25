from typing import Any

from allauth.account.auth_backends import AuthenticationBackend

from server.accounts.models import User


class CoachBackend(AuthenticationBackend):  # type: ignore[misc]
    """As allauth's own, with the club in the same breath: every request asks whose it is."""

    def get_user(self, user_id: Any) -> User | None:
        found = User.objects.select_related("club").filter(pk=user_id).first()
        return found if found is not None and self.user_can_authenticate(found) else None
