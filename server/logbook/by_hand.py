"""A session that was not planned here, for one person or a whole class: a line of shorthand, or just its minutes."""

from datetime import datetime
from typing import Annotated, Literal
from uuid import uuid4

from django.db import transaction
from django.http import HttpRequest
from ninja import Router, Schema, Status
from pydantic import Field, StrictInt, model_validator

from server.accounts.current import coach
from server.accounts.models import User
from server.accounts.once import once
from server.days import Instant
from server.errors import Faults, FieldError, Message
from server.logbook.api import save
from server.logbook.models import LIMB_FIELDS, STORE_FIELDS, SUMMED, LogEntry
from server.logbook.schemas import LogIn
from server.runs.schemas import RunIn
from yoisho.judgement.targets import TARGETS
from yoisho.runs.plan import Plan
from yoisho.session import shorthand
from yoisho.session.document import Part, Session, to_document
from yoisho.session.interval import Interval
from yoisho.strikes.line import LineError

router = Router(tags=["logbook"])
MOST_PEOPLE = 60
KNOWN = "Not planned here: only its minutes and the ratings are known."


class RatedIn(Schema):
    person_id: int
    rpe: Annotated[StrictInt, Field(ge=0, le=10)]


class ByHandIn(Schema):
    text: Annotated[str, Field(max_length=2000)] = ""
    minutes: Annotated[StrictInt, Field(ge=1, le=240)] | None = None
    """Where what was done is not known any better."""
    purpose: Literal[tuple(TARGETS)]  # type: ignore[valid-type]
    started_at: Instant
    rated: Annotated[list[RatedIn], Field(min_length=1, max_length=MOST_PEOPLE)]

    @model_validator(mode="after")
    def _something_was_done(self) -> "ByHandIn":
        if bool(self.text.strip()) == (self.minutes is not None):
            raise ValueError("Give a line of shorthand, or the minutes; one of them.")
        return self


class ByHandOut(Schema):
    logged: int


def _session(body: ByHandIn, school: str) -> Session:
    title = TARGETS[body.purpose].name.capitalize()
    if body.minutes is not None:
        return Session(title, (Part("Session", Interval(60 * body.minutes, "freestyle"), purpose=body.purpose),))
    try:
        if shorthand.names_parts(body.text):
            return Session(title, shorthand.read_parts(body.text, school))
        return Session(title, (Part("Session", shorthand.read(body.text, school), purpose=body.purpose),))
    except LineError as error:
        message = f"Character {error.position + 1}: {error.message}"
        raise FieldError(["body", "text"], message, "shorthand") from error


def _one(user: User, session: Session, started_at: datetime, rated: RatedIn, unknown: bool) -> None:
    plan = Plan(session)
    entry: LogEntry = save(
        user,
        uuid4(),
        LogIn(
            run=RunIn(document=to_document(session), person_id=rated.person_id),
            person_id=rated.person_id,
            started_at=started_at,
            done_s=plan.timeline.total_s,
            done_efforts=len(plan.efforts),
            rpe=rated.rpe,
            note=KNOWN if unknown else "",
        ),
    )
    if unknown:
        # Nothing is known of its strikes and stores, and nothing is learned from it.
        entry.left_out = True
        for name in LIMB_FIELDS.values():
            setattr(entry, name, 0.0)
        for name in STORE_FIELDS.values():
            setattr(entry, name, None)
        entry.save(update_fields=["left_out", *SUMMED])
        result = entry.result
        result.expected_limbs, result.expected_heights, result.lactic = {}, {}, False
        result.save(update_fields=["expected_limbs", "expected_heights", "lactic"])


@router.post("/by-hand", response={201: ByHandOut, 404: Message, 409: Message, 422: Faults}, operation_id="by_hand")
@once
def by_hand(request: HttpRequest, body: ByHandIn) -> Status[ByHandOut]:
    """The same session for each of those who were there, each with a rating. All are logged, or none."""
    user = coach(request)
    session = _session(body, user.own_club.school)
    with transaction.atomic():
        for rated in body.rated:
            _one(user, session, body.started_at, rated, body.minutes is not None)
    return Status(201, ByHandOut(logged=len(body.rated)))
