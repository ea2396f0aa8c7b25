"""What was planned and is over, and nobody has rated yet: how hard it was is told with one touch."""

from collections.abc import Iterable
from datetime import date, datetime, timedelta
from typing import Annotated
from uuid import NAMESPACE_OID, UUID, uuid5

from django.http import HttpRequest
from django.utils import timezone
from ninja import Router, Schema, Status
from pydantic import Field, StrictInt

from server.accounts.current import club_of, coach
from server.accounts.models import Club
from server.days import WallTime
from server.errors import Message, not_found
from server.logbook.api import save
from server.logbook.models import LogEntry
from server.logbook.schemas import LogIn
from server.pages import Told
from server.roster.api import the_person
from server.roster.models import Person
from server.runs.models import Run
from server.runs.schemas import RunIn
from server.today.models import Planned
from server.today.plan import Read, Somebody, people_of
from yoisho.runs.plan import Plan
from yoisho.session.document import from_document

router = Router(tags=["today"])
DAYS_BACK = 2
"""So long what was not logged is asked for."""


class Waiting(Told):
    planned_id: int
    title: str
    on: date
    at: WallTime
    person: Somebody


class RateIn(Schema):
    rpe: Annotated[StrictInt, Field(ge=0, le=10)]


class RateOut(Schema):
    entry_id: int
    rpe: int
    planned_rpe: float


def _begins(planned: Planned) -> datetime:
    return datetime.combine(planned.on, planned.at, timezone.get_current_timezone())


def waiting_of(rows: Iterable[Planned], read: dict[int, Read], entries: Iterable[LogEntry]) -> list[Waiting]:
    """Of whom a log is wanted: they were to come, it is over, and there is none of that session on that day."""
    now = timezone.now()
    told = {(entry.run.session_id, entry.result.person_id, timezone.localdate(entry.started_at)) for entry in entries}
    found = []
    for row in rows:
        title, length_s = read[row.session_id].session.title, read[row.session_id].timeline.total_s
        if _begins(row) + timedelta(seconds=length_s) >= now:
            continue
        away = set(row.away.all())
        found += [
            Waiting(planned_id=row.pk, title=title, on=row.on, at=row.at, person=Somebody.of(who))
            for who in people_of(row)
            if who not in away and (row.session_id, who.pk, row.on) not in told
        ]
    return found


def _found(club: Club, planned_id: int, person_id: int) -> tuple[Planned, Person]:
    """Somebody who is to come to what is planned; 404 where it is not so."""
    row = Planned.objects.find(club, "planned session", pk=planned_id)
    person = the_person(club, person_id)
    if person not in people_of(row):
        raise not_found("athlete in this session")
    return row, person


def _run_id(row: Planned, person: Person) -> UUID:
    """The same for the same: rated again, it is the same entry."""
    return uuid5(NAMESPACE_OID, f"planned {row.pk} {person.pk}")


@router.put(
    "/planned/{planned_id}/people/{person_id}/rpe",
    response={200: RateOut, 404: Message},
    operation_id="rate_planned",
)
def rate_planned(request: HttpRequest, planned_id: int, person_id: int, body: RateIn) -> RateOut:
    """What was planned was done whole, and so hard. Told again it replaces what was told."""
    user = coach(request)
    row, person = _found(user.own_club, planned_id, person_id)
    plan = Plan(from_document(row.session.document))
    entry = save(
        user,
        _run_id(row, person),
        LogIn(
            run=RunIn(
                session_id=row.session_id,
                revision=row.session.revision,
                document=row.session.document,
                person_id=person.pk,
            ),
            person_id=person.pk,
            started_at=_begins(row),
            done_s=plan.timeline.total_s,
            done_efforts=len(plan.efforts),
            rpe=body.rpe,
            note="",
        ),
    )
    return RateOut(entry_id=entry.pk, rpe=entry.rpe, planned_rpe=entry.planned_rpe)


@router.delete(
    "/planned/{planned_id}/people/{person_id}/rpe", response={204: None, 404: Message}, operation_id="unrate_planned"
)
def unrate_planned(request: HttpRequest, planned_id: int, person_id: int) -> Status[None]:
    """It was told by mistake: it waits again."""
    club = club_of(request)
    Run.objects.of(club).filter(run_id=_run_id(*_found(club, planned_id, person_id))).delete()
    return Status(204, None)


@router.put(
    "/planned/{planned_id}/people/{person_id}/away", response={204: None, 404: Message}, operation_id="note_away"
)
def note_away(request: HttpRequest, planned_id: int, person_id: int, away: bool) -> Status[None]:
    """They were not there, or were after all."""
    row, person = _found(club_of(request), planned_id, person_id)
    if away:
        row.away.add(person)
    else:
        row.away.remove(person)
    return Status(204, None)
