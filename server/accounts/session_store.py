"""Open sessions as Django's own store keeps them, looked up with every request."""

from typing import Any

from django.contrib.sessions.backends import db
from django.contrib.sessions.models import Session
from django.utils import timezone

from server.prepared import Prepared

OPEN = Prepared(
    lambda: Session.objects.filter(session_key="").filter(expire_date__gt=timezone.now()).values_list("session_data")
)


class SessionStore(db.SessionStore):
    def load(self) -> dict[str, Any]:
        found = OPEN.row(self.session_key, timezone.now())
        if found is None:
            self._session_key = None
            return {}
        kept: dict[str, Any] = self.decode(found[0])
        return kept
