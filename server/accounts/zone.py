"""Days and hours are those of the club."""

from collections.abc import Callable
from zoneinfo import ZoneInfo

from django.http import HttpRequest, HttpResponse
from django.utils import timezone

from server.accounts.models import User


class ClubZone:
    """Answers a member's question by the clock of their club."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]):
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        if not request.path.startswith("/api/") or not isinstance(request.user, User) or request.user.club is None:
            return self.get_response(request)
        with timezone.override(ZoneInfo(request.user.club.time_zone)):
            return self.get_response(request)
