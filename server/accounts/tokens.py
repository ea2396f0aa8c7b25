"""Tokens of the API: made by somebody for programs of their own, shown once, taken back at any time."""

import hashlib
import secrets
from datetime import date, datetime, timedelta
from typing import Annotated, Literal

from django.http import HttpRequest
from django.utils import timezone
from ninja import Router, Schema, Status
from pydantic import Field, StringConstraints

from server.accounts.current import coach
from server.accounts.models import ApiToken
from server.accounts.scopes import ABOUT, SCOPES
from server.days import Day
from server.errors import Faults, FieldError, Message, not_found

router = Router(tags=["accounts"])
BEGINS = "yoi_"
"""So that whoever finds one in a file knows what it is."""
LONGEST = timedelta(days=366)
MOST = 20


def fingerprint_of(token: str) -> str:
    return hashlib.sha256(token.encode()).hexdigest()


class TokenIn(Schema):
    name: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=60)]
    scopes: Annotated[list[Literal[tuple(SCOPES)]], Field(min_length=1)]  # type: ignore[valid-type]
    last_day: Day


class TokenOut(Schema):
    id: int
    name: str
    scopes: list[str]
    last_day: date
    over: bool
    made_at: datetime
    used_on: date | None


class MadeToken(TokenOut):
    token: str
    """Shown this once: only its fingerprint is kept."""


class ScopeOut(Schema):
    id: str
    about: str


class TokensOut(Schema):
    tokens: list[TokenOut]
    scopes: list[ScopeOut]


def _told(each: ApiToken) -> dict[str, object]:
    own = {name: getattr(each, name) for name in ("name", "scopes", "last_day", "made_at", "used_on")}
    return {"id": each.pk, "over": each.last_day < timezone.localdate(), **own}


@router.get("/tokens", response=TokensOut, operation_id="api_tokens")
def tokens(request: HttpRequest) -> dict[str, object]:
    """One's own tokens, and what a token may be made for."""
    scopes = [{"id": scope, "about": about} for scope, about in ABOUT.items()]
    return {"tokens": [_told(each) for each in coach(request).tokens.all()], "scopes": scopes}


@router.post("/tokens", response={201: MadeToken, 422: Faults}, operation_id="make_api_token")
def make_token(request: HttpRequest, body: TokenIn) -> Status[dict[str, object]]:
    """A token with scopes and an end."""
    user, today = coach(request), timezone.localdate()
    if not today <= body.last_day <= today + LONGEST:
        raise FieldError(["body", "last_day"], "Choose a last day between today and a year from now.", "date")
    if user.tokens.count() >= MOST:
        raise FieldError(["body"], f"You have {MOST} tokens. Take back one that is not used any more.", "token")
    token = BEGINS + secrets.token_urlsafe(32)
    made = ApiToken.objects.create(
        user=user, name=body.name, fingerprint=fingerprint_of(token), scopes=sorted(set(body.scopes)),
        last_day=body.last_day,
    )  # fmt: skip
    return Status(201, {**_told(made), "token": token})


@router.delete("/tokens/{token_id}", response={204: None, 404: Message}, operation_id="take_back_api_token")
def take_back(request: HttpRequest, token_id: int) -> Status[None]:
    """From now on it opens nothing."""
    gone, _ = coach(request).tokens.filter(pk=token_id).delete()
    if not gone:
        raise not_found("token")
    return Status(204, None)
