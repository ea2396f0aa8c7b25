from typing import Annotated, Literal
from zoneinfo import available_timezones

from allauth.account.adapter import get_adapter
from django.conf import settings
from django.http import HttpRequest
from ninja import Router, Schema
from ninja.errors import HttpError
from pydantic import AfterValidator, Field

from server.accounts.adapter import enter
from server.accounts.current import coach
from server.accounts.models import Club, Role, User
from server.errors import Message
from yoisho.strikes.schools import DEFAULT_SCHOOL, SCHOOLS

router = Router(tags=["accounts"])
DEMO_COACH = "demo-coach"


class Welcome(Schema):
    signed_in: bool
    role: Role | None = None
    fresh: bool = False
    """There is no club here yet: whoever has the code opens one."""
    email: str | None = None
    """With which they sign in."""
    password: bool = False
    """Whether they sign in with one; the demo coach does not."""
    coach_id: int | None = None
    club_id: int | None = None
    coach: str | None = None
    club: str | None = None
    school: str = DEFAULT_SCHOOL
    """Which punches the numbers beyond six are."""
    emergency_number: str = "112"
    last_lactic_days: int = 9
    """Days before a fight that the club's school puts the last hard lactic day at."""
    time_zone: str = "UTC"
    first_weekday: int = 0
    """On which the club's week begins: 0 is Monday, 6 Sunday."""
    demo: bool


def _known_zone(name: str) -> str:
    if name not in available_timezones():
        raise ValueError("no time zone is called so; write it as Europe/Oslo or America/Bogota")
    return name


TimeZone = Annotated[str, AfterValidator(_known_zone)]


class ClubIn(Schema):
    """What is left out stays as it is."""

    school: Literal[tuple(SCHOOLS)] | None = None  # type: ignore[valid-type]
    emergency_number: Annotated[str, Field(pattern=r"^[0-9 +*#()-]{2,20}$")] | None = None
    last_lactic_days: Annotated[int, Field(ge=7, le=14)] | None = None
    time_zone: TimeZone | None = None
    first_weekday: Annotated[int, Field(ge=0, le=6)] | None = None


def welcome(request: HttpRequest) -> Welcome:
    user = request.user
    if not isinstance(user, User) or user.club is None:
        return Welcome(signed_in=False, demo=settings.DEMO, fresh=not Club.objects.exists())
    club = user.club
    return Welcome(
        signed_in=True,
        role=Role(user.role),
        email=user.email or None,
        password=user.has_usable_password(),
        coach_id=user.pk,
        club_id=club.pk,
        coach=user.get_full_name(),
        club=club.name,
        school=club.school,
        emergency_number=club.emergency_number,
        last_lactic_days=club.last_lactic_days,
        time_zone=club.time_zone,
        first_weekday=club.first_weekday,
        demo=settings.DEMO,
    )


@router.get("/me", response=Welcome, auth=None, operation_id="me")
def me(request: HttpRequest) -> Welcome:
    """Who is signed in, if anybody."""
    return welcome(request)


@router.post("/demo", response={200: Welcome, 404: Message}, auth=None, operation_id="enter_demo")
def enter_demo(request: HttpRequest) -> Welcome:
    """Enter as the demo coach. Only where the demo is on."""
    user = User.objects.filter(username=DEMO_COACH).first() if settings.DEMO else None
    if user is None:
        raise HttpError(404, "There is no demo here. Start one with `make demo`.")
    enter(request, user, "demo")
    return welcome(request)


@router.post("/sign-out", response=Welcome, operation_id="sign_out")
def sign_out(request: HttpRequest) -> Welcome:
    get_adapter(request).logout(request)
    return welcome(request)


class CoachOut(Schema):
    id: int
    name: str


@router.get("/coaches", response=list[CoachOut], operation_id="coaches")
def coaches(request: HttpRequest) -> list[CoachOut]:
    """The coaches of the club, without whoever asks."""
    user = coach(request)
    others = user.own_club.coaches.exclude(pk=user.pk).order_by("first_name", "last_name")
    return [CoachOut(id=each.pk, name=each.known_as) for each in others]


@router.put("/club", response={200: Welcome, 403: Message}, operation_id="save_club")
def save_club(request: HttpRequest, body: ClubIn) -> Welcome:
    """The club's settings. What is stored does not change: techniques are stored, and shown in the club's school."""
    club = coach(request).own_club
    changes = body.model_dump(exclude_none=True)
    for name, value in changes.items():
        setattr(club, name, value)
    club.save(update_fields=list(changes))
    return welcome(request)
