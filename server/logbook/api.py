from datetime import datetime, timedelta
from typing import Annotated
from uuid import UUID

from django.http import HttpRequest
from django.utils import timezone
from ninja import Router, Schema
from pydantic import AwareDatetime, Field, StrictInt

from server.accounts.current import club
from server.errors import Faults, FieldError, Message, not_found
from server.floor.api import efforts_of
from server.logbook.models import LogEntry
from server.roster.api import core_of, find_person
from server.sessions.api import find_session
from yoisho.engine.bouts import session_rpe
from yoisho.engine.person import Person as CorePerson
from yoisho.engine.readout import NoWorkError, read
from yoisho.judgement.cautions import is_lactic
from yoisho.session.document import from_document
from yoisho.session.shorthand import write
from yoisho.session.timeline import Timeline, unroll

router = Router(tags=["logbook"])
LONGEST_RUN_S = 6 * 3600


class LogIn(Schema):
    session_id: int
    person_id: int | None = None
    started_at: AwareDatetime
    done_s: Annotated[StrictInt, Field(ge=0, le=LONGEST_RUN_S)]
    done_efforts: Annotated[StrictInt, Field(ge=0, le=5000)]
    rpe: Annotated[StrictInt, Field(ge=0, le=10)]
    note: str = Field("", max_length=4000)


class LogOut(Schema):
    id: int
    session_id: int | None
    title: str
    person: str | None
    text: list[str]
    started_at: datetime
    planned_s: int
    planned_efforts: int
    planned_rpe: float
    planned_load: float
    done_s: int
    done_efforts: int
    rpe: int
    load: float
    note: str
    simulated: bool


def _out(entry: LogEntry) -> LogOut:
    session = from_document(entry.document)
    return LogOut(
        id=entry.pk,
        session_id=entry.session_id,
        title=entry.title,
        person=entry.person.name if entry.person else None,
        text=[write(part.tree) for part in session.parts],
        started_at=entry.started_at,
        planned_s=entry.planned_s,
        planned_efforts=entry.planned_efforts,
        planned_rpe=entry.planned_rpe,
        planned_load=entry.planned_rpe * entry.planned_s / 60,
        done_s=entry.done_s,
        done_efforts=entry.done_efforts,
        rpe=entry.rpe,
        load=entry.rpe * entry.done_s / 60,
        note=entry.note,
        simulated=entry.simulated,
    )


def expectation(who: CorePerson, timeline: Timeline, done_s: int) -> tuple[bool, float]:
    """Whether what was done of a session counts as lactic work for the person, and the strikes expected of it."""
    done = Timeline(tuple(interval for interval in timeline.intervals if interval.start_s < done_s))
    try:
        reading = read(who, done, ranges=False)
    except NoWorkError:
        return False, 0.0
    return is_lactic(reading), reading.figures["strikes"].value


@router.get("/log", response=list[LogOut], operation_id="log")
def log(request: HttpRequest) -> list[LogOut]:
    """What was done, newest first."""
    return [_out(entry) for entry in LogEntry.objects.filter(club=club(request)).select_related("person")[:200]]


@router.get("/log/{entry_id}", response={200: LogOut, 404: Message}, operation_id="log_entry")
def log_entry(request: HttpRequest, entry_id: int) -> LogOut:
    entry = LogEntry.objects.filter(club=club(request), pk=entry_id).select_related("person").first()
    if entry is None:
        raise not_found("log entry")
    return _out(entry)


@router.put("/runs/{run_id}/log", response={200: LogOut, 404: Message, 422: Faults}, operation_id="save_log")
def save_log(request: HttpRequest, run_id: UUID, body: LogIn) -> LogOut:
    """Log a run. The same run sent again replaces its entry, so that a retry never makes two."""
    own = club(request)
    session = find_session(own, body.session_id)
    document = from_document(session.document)
    if not document.parts:
        raise FieldError(["body", "session_id"], "This session has no parts, so nothing was run.", "log")
    if body.started_at > timezone.now() + timedelta(minutes=10):
        raise FieldError(["body", "started_at"], "The start lies in the future. Check this device's clock.", "log")
    timeline = unroll(*(part.tree for part in document.parts))
    efforts = efforts_of(timeline)
    if body.done_efforts > len(efforts):
        raise FieldError(
            ["body", "done_efforts"], f"The plan has {len(efforts)} efforts; give {len(efforts)} or fewer.", "log"
        )
    someone = find_person(own, body.person_id)
    lactic, strikes = expectation(core_of(someone), timeline, body.done_s)
    entry, _ = LogEntry.objects.update_or_create(
        club=own,
        run_id=run_id,
        defaults={
            "session": session,
            "person": someone,
            "title": document.title,
            "document": session.document,
            "started_at": body.started_at,
            "planned_s": timeline.total_s,
            "planned_efforts": len(efforts),
            "planned_rpe": session_rpe(timeline),
            "done_s": body.done_s,
            "done_efforts": body.done_efforts,
            "rpe": body.rpe,
            "lactic": lactic,
            "expected_strikes": strikes,
            "note": body.note,
        },
    )
    return _out(entry)
