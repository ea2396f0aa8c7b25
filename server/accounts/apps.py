from typing import Any

from allauth.usersessions.apps import UserSessionsConfig
from django.apps import AppConfig
from django.http import HttpRequest


class AccountsConfig(AppConfig):
    name = "server.accounts"
    label = "accounts"


def _keep(request: HttpRequest, **_more: Any) -> None:
    from allauth.usersessions.models import UserSession

    UserSession.objects.create_from_request(request)


class OpenSessions(UserSessionsConfig):  # type: ignore[misc]
    """Where a member is signed in. Theirs put every sign-in behind a look at each of the member's open sessions, 7 ms
    each: ours leaves those that have ended to whoever lists them, and to the daily clearing."""

    def ready(self) -> None:
        from allauth.account.signals import user_logged_in
        from allauth.usersessions.signals import on_user_logged_in

        super().ready()
        user_logged_in.disconnect(on_user_logged_in)
        user_logged_in.connect(_keep)
