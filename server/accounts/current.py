"""Who asks, and for which club."""

from django.http import HttpRequest
from ninja.errors import HttpError

from server.accounts.models import Club, User


def coach(request: HttpRequest) -> User:
    user = request.user
    if not isinstance(user, User) or user.club is None:
        raise HttpError(403, "This account belongs to no club. Ask whoever runs the club's account to add it.")
    return user


def club_of(request: HttpRequest) -> Club:
    return coach(request).own_club
