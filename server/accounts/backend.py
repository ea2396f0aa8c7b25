from typing import Any

from django.contrib.auth.backends import ModelBackend

from server.accounts.models import User


class CoachBackend(ModelBackend):
    """As Django's own, with the club in the same breath: every request asks whose it is."""

    def get_user(self, user_id: Any) -> User | None:
        found = User.objects.select_related("club").filter(pk=user_id).first()
        return found if found is not None and self.user_can_authenticate(found) else None
