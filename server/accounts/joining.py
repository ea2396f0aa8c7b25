"""Opening a club, and joining one: the only ways to an account."""

from datetime import timedelta
from typing import Annotated

from django.conf import settings
from django.core.exceptions import ValidationError
from django.core.mail import send_mail
from django.core.validators import validate_email
from django.db import transaction
from django.http import HttpRequest
from django.template.loader import render_to_string
from django.utils import timezone
from ninja import Router, Schema, Status
from ninja.errors import HttpError
from ninja.pagination import paginate
from pydantic import AfterValidator, AwareDatetime, Field, StringConstraints

from server.accounts.adapter import enter, mailed, new_account
from server.accounts.api import Welcome, welcome
from server.accounts.codes import fingerprint, new_code
from server.accounts.current import club_of, coach
from server.accounts.models import Club, Invitation, Role, SetUpCode, User
from server.errors import Faults, FieldError, Message, not_found
from server.pages import Listed, Pages

router = Router(tags=["accounts"])
MOST_TRIES = 10
INVITED_FOR = timedelta(days=7)

Named = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=120)]


def _mailable(address: str) -> str:
    """One that a mail can be sent to: its domain, in whatever letters, can be written as names on the net are."""
    try:
        validate_email(address)
    except ValidationError:
        raise ValueError("no mail can be sent to this; write it as name@harbour.example") from None
    return address


Email = Annotated[
    str,
    StringConstraints(strip_whitespace=True, to_lower=True, pattern=r"^[^@\s]+@[^@\s]+\.[^@\s]+$", max_length=150),
    AfterValidator(_mailable),
]
Password = Annotated[str, Field(min_length=1, max_length=200)]


class Account(Schema):
    name: Named
    email: Email
    """To sign in with."""
    password: Password


class SetUpIn(Account):
    code: Annotated[str, Field(max_length=60)]
    club: Named


class InvitationIn(Schema):
    name: Named
    """Whom it is for."""
    role: Role
    email: Email | None = None
    """Where it is sent; left out, the link is handed on by whoever invites."""


class InvitationOut(Schema):
    id: int
    name: str
    email: str
    role: Role
    until: AwareDatetime
    used: bool
    over: bool


class InvitationMade(InvitationOut):
    path: str
    """Of the page that it opens, once. It is told only now."""
    sent: bool
    """Whether a mail with it is on its way."""


class Invited(Schema):
    club: str
    name: str
    email: str
    role: Role


class MemberOut(Schema):
    id: int
    name: str
    email: str
    role: Role
    active: bool
    """Who is not can sign in no more."""
    me: bool


class MemberIn(Schema):
    role: Role
    active: bool


@router.post("/set-up", response={201: Welcome, 409: Message, 422: Faults}, auth=None, operation_id="set_up")
def set_up(request: HttpRequest, body: SetUpIn) -> Status[Welcome]:
    """The first visitor opens the club, with the code that the server has told whoever started it."""
    wrong = FieldError(["body", "code"], "This is not the code. It stands where the server was started; start it again "
                       "for a new one.", "code")  # fmt: skip
    with transaction.atomic():
        known = SetUpCode.objects.select_for_update().first()
        if Club.objects.exists():
            raise HttpError(409, "There is a club here already. Ask its owner for an invitation.")
        if known is None or known.tries >= MOST_TRIES:
            raise wrong
        right = known.fingerprint == fingerprint(body.code)
        if not right:
            known.tries += 1
            known.save(update_fields=["tries"])
        else:
            club = Club.objects.create(name=body.club)
            user = new_account(name=body.name, email=body.email, password=body.password, club=club, role=Role.OWNER)
            SetUpCode.objects.all().delete()
    if not right:
        raise wrong
    enter(request, user, "password", email=user.email)
    return Status(201, welcome(request))


def _out(invitation: Invitation) -> InvitationOut:
    return InvitationOut(
        id=invitation.pk,
        name=invitation.name,
        email=invitation.email,
        role=Role(invitation.role),
        until=invitation.until,
        used=invitation.used_at is not None,
        over=invitation.until < timezone.now(),
    )


@router.get("/invitations", response=list[InvitationOut], operation_id="invitations")
@paginate(Pages)
def invitations(request: HttpRequest) -> Listed:
    return Listed(Invitation.objects.filter(club=club_of(request)), _out)


@router.post("/invitations", response={201: InvitationMade, 422: Faults}, operation_id="invite")
def invite(request: HttpRequest, body: InvitationIn) -> Status[InvitationMade]:
    """A link for one person, that works once, for a week; sent by mail where an address is told."""
    user, code = coach(request), new_code(20)
    made = Invitation.objects.create(
        club=user.own_club,
        role=body.role,
        name=body.name,
        email=body.email or "",
        fingerprint=fingerprint(code),
        made_by=user,
        until=timezone.now() + INVITED_FOR,
    )
    path = f"/join/{code}"
    sent = bool(made.email) and _sent(made, f"{settings.ADDRESS or request.build_absolute_uri('/').rstrip('/')}{path}")
    return Status(201, InvitationMade(**_out(made).model_dump(), path=path, sent=sent))


def _sent(invitation: Invitation, link: str) -> bool:
    """Whether the mail with the link went out."""
    by = invitation.made_by.known_as if invitation.made_by else "The owner"
    told = {"name": invitation.name, "by": by, "club": invitation.club.name, "role": invitation.role, "link": link}
    title, text = f"{invitation.club.name} invites you", render_to_string("invitation.txt", told)
    return mailed("invitation", lambda: send_mail(title, text, None, [invitation.email]))


@router.delete("/invitations/{invitation_id}", response={204: None, 404: Message}, operation_id="take_back_invitation")
def take_back_invitation(request: HttpRequest, invitation_id: int) -> Status[None]:
    gone, _ = Invitation.objects.filter(club=club_of(request), pk=invitation_id).delete()
    if not gone:
        raise not_found("invitation")
    return Status(204, None)


def _invitation(code: str) -> Invitation:
    """The invitation of a code; 404 with the reason where it opens nothing."""
    found = Invitation.objects.select_related("club").filter(fingerprint=fingerprint(code)).first()
    if found is None:
        raise HttpError(404, "There is no such invitation. Check the link, or ask for a new one.")
    if found.used_at is not None:
        raise HttpError(404, "This invitation was used already: each works once. Sign in, or ask for a new one.")
    if found.until < timezone.now():
        raise HttpError(404, "This invitation is over: each holds for a week. Ask for a new one.")
    return found


@router.get("/join/{code}", response={200: Invited, 404: Message}, auth=None, operation_id="invitation")
def invitation(request: HttpRequest, code: str) -> Invited:
    """To which club an invitation leads."""
    found = _invitation(code)
    return Invited(club=found.club.name, name=found.name, email=found.email, role=Role(found.role))


@router.post("/join/{code}", response={201: Welcome, 404: Message, 422: Faults}, auth=None, operation_id="join")
def join(request: HttpRequest, code: str, body: Account) -> Status[Welcome]:
    """An account for whoever was invited."""
    with transaction.atomic():
        Invitation.objects.select_for_update().filter(fingerprint=fingerprint(code)).first()
        found = _invitation(code)
        user = new_account(
            name=body.name,
            email=body.email,
            password=body.password,
            club=found.club,
            role=Role(found.role),
            confirmed=body.email == found.email,
        )
        found.used_at, found.used_by = timezone.now(), user
        found.save(update_fields=["used_at", "used_by"])
    enter(request, user, "password", email=user.email)
    return Status(201, welcome(request))


def _member(user: User, me: User) -> MemberOut:
    return MemberOut(
        id=user.pk,
        name=user.known_as,
        email=user.email,
        role=Role(user.role),
        active=user.is_active,
        me=user.pk == me.pk,
    )


@router.get("/members", response=list[MemberOut], operation_id="members")
@paginate(Pages)
def members(request: HttpRequest) -> Listed:
    me = coach(request)
    return Listed(me.own_club.coaches.order_by("first_name", "last_name", "pk"), lambda user: _member(user, me))


@router.put("/members/{member_id}", response={200: MemberOut, 404: Message, 422: Faults}, operation_id="save_member")
def save_member(request: HttpRequest, member_id: int, body: MemberIn) -> MemberOut:
    """What a member may, and whether they may come in at all. One owner always stays."""
    me = coach(request)
    with transaction.atomic():
        Club.objects.select_for_update().get(pk=me.own_club.pk)
        user = me.own_club.coaches.filter(pk=member_id).first()
        if user is None:
            raise not_found("member")
        others = me.own_club.coaches.filter(role=Role.OWNER, is_active=True).exclude(pk=user.pk)
        if not (body.role == Role.OWNER and body.active) and not others.exists():
            raise FieldError(["body", "role"], "A club needs an owner who can come in. Make somebody else owner first.",
                             "owner")  # fmt: skip
        user.role, user.is_active = body.role, body.active
        user.save(update_fields=["role", "is_active"])
    return _member(user, me)
