"""Trends, what the logs teach, and what to do next time."""

from collections.abc import Iterator
from datetime import timedelta
from typing import Annotated

from django.http import HttpRequest
from django.utils import timezone
from ninja import Query, Router

from server.accounts.current import club_of
from server.accounts.models import Club
from server.bench.circumstances import circumstances_of
from server.errors import Message
from server.logbook.models import LogEntry
from server.review import schemas
from server.review.models import Calibration
from server.review.relearn import relearn
from server.review.seen import logs_of
from server.review.trends import trends
from server.roster.api import the_person
from server.roster.models import Group, Person
from yoisho.judgement.targets import TARGETS
from yoisho.review.pain import told as pain_told
from yoisho.review.progression import Go, next_time
from yoisho.session.document import from_document, to_document

router = Router(tags=["review"])
RECENT = timedelta(weeks=6)
MOST_SHOWN = 3
MOST_GOES = 6


@router.get("/trends", response={200: schemas.TrendsOut, 404: Message}, operation_id="trends")
def trends_of(
    request: HttpRequest,
    weeks: Annotated[int, Query(ge=1, le=52)] = 12,
    person_id: int | None = None,
    group_id: int | None = None,
) -> schemas.TrendsOut:
    """The last weeks of a person, a group or the club."""
    club = club_of(request)
    person = the_person(club, person_id) if person_id is not None else None
    group = Group.objects.find(club, "group", pk=group_id) if group_id is not None else None
    return trends(club, weeks, person, group)


def _learned(person: Person) -> schemas.LearnedOut:
    kept: Calibration | None = getattr(person, "calibration", None)
    if kept is None:
        logged = logs_of(person).exists()
        if logged:
            relearn(person.pk)
        return schemas.LearnedOut(
            on=person.learns, working=logged, logs=0, before=[], after=[], effective_draws=None, forecast_before={},
            forecast_after={},
        )  # fmt: skip
    working = not kept.holds(person.to_core_unlearned())
    if working:
        # A year has turned, or the engine is another: nothing else has asked for it.
        relearn(person.pk)
    return schemas.LearnedOut(
        on=person.learns,
        working=working,
        logs=kept.logs,
        before=kept.before,
        after=kept.after,
        effective_draws=kept.effective_draws,
        forecast_before=kept.forecasts["before"],
        forecast_after=kept.forecasts["after"],
    )


@router.get("/people/{person_id}/learned", response={200: schemas.LearnedOut, 404: Message}, operation_id="learned")
def learned(request: HttpRequest, person_id: int) -> schemas.LearnedOut:
    """What the person's logs have taught."""
    return _learned(the_person(club_of(request), person_id))


@router.put("/people/{person_id}/learned", response={200: schemas.LearnedOut, 404: Message}, operation_id="learn")
def learn(request: HttpRequest, person_id: int, body: schemas.LearnsIn) -> schemas.LearnedOut:
    """Whether what their logs teach is used."""
    person = the_person(club_of(request), person_id)
    person.learns = body.on
    person.save(update_fields=["learns"])
    return _learned(person)


@router.put("/log/{entry_id}/evidence", response={200: Message, 404: Message}, operation_id="leave_out")
def leave_out(request: HttpRequest, entry_id: int, body: schemas.LeftOutIn) -> Message:
    """Whether something is learned from an entry."""
    entry = LogEntry.objects.find(club_of(request), "log entry", pk=entry_id)
    entry.left_out = body.left_out
    entry.save(update_fields=["left_out"])
    return Message(detail="Left out of what is learned." if body.left_out else "Learned from again.")


def _go(entry: LogEntry) -> Go:
    fades = [part["measured"] for part in (entry.result.done or {}).get("fades", []) if part["measured"] is not None]
    return Go(
        finished=entry.done_efforts >= entry.planned_efforts,
        rpe=entry.rpe,
        expected_rpe=entry.planned_rpe,
        fade=max(fades, default=None),
        pain=tuple(pain_told(flag["where"], flag["side"]) for flag in entry.pain),
    )


def _done_lately(club: Club, person: Person) -> Iterator[list[LogEntry]]:
    """The person's last sessions, each with the goes of the plan as it was done last, newest first."""
    rows = LogEntry.objects.of(club).filter(result__person=person, started_at__gte=timezone.now() - RECENT)
    held: dict[int, list[LogEntry]] = {}
    for entry in rows.filter(result__run__session__isnull=False).select_related("result__run__session"):
        goes = held.setdefault(entry.run.session_id or 0, [])
        if not goes or goes[0].run.document == entry.run.document:
            goes.append(entry)
    for goes in list(held.values())[:MOST_SHOWN]:
        session = goes[0].run.session
        if session and session.target in TARGETS and session.document == goes[0].run.document:
            yield goes[:MOST_GOES]


@router.get(
    "/people/{person_id}/next", response={200: list[schemas.NextTimeOut], 404: Message}, operation_id="next_time"
)
def next_times(request: HttpRequest, person_id: int) -> list[schemas.NextTimeOut]:
    """What to do with the person's last sessions the next time, save those that were changed since."""
    club = club_of(request)
    person = the_person(club, person_id)
    core, around = person.to_core(), circumstances_of(person, None)
    found = []
    for goes in _done_lately(club, person):
        session = goes[0].run.session
        assert session is not None
        told = next_time(
            core, from_document(session.document), session.target, [_go(each) for each in reversed(goes)], around
        )
        found.append(
            schemas.NextTimeOut(
                session_id=session.pk,
                title=str(session),
                target=session.target,
                step=told.step,
                name=told.name,
                reason=told.reason,
                changes=list(told.changes),
                document=to_document(told.session),
            )
        )
    return found
