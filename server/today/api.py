"""The day of the hall: what is planned and done, what to mind, what to bring, and the load of the week."""

from collections import defaultdict
from datetime import date, datetime, time, timedelta
from typing import Annotated, Any
from uuid import UUID, uuid4

from django.db import transaction
from django.db.models import Q
from django.http import HttpRequest
from django.utils import timezone
from ninja import Router, Schema, Status
from pydantic import Field

from server.accounts.current import club_of, coach
from server.accounts.models import Club
from server.accounts.once import once
from server.bench.circumstances import circumstances_for
from server.bench.gate import discreet
from server.days import Day, WallTime
from server.errors import Faults, FieldError, Message
from server.logbook.models import LogEntry
from server.pages import Told
from server.roster.api import everything
from server.roster.models import Group, Person
from server.sessions.api import find_session
from server.today.models import Planned
from server.today.plan import Read, Somebody, people_of, read_once
from server.today.waiting import DAYS_BACK, Waiting, waiting_of
from yoisho.answers.columns import Block
from yoisho.answers.day import Brought, bring, expected_load, minded
from yoisho.judgement.cautions import Severity
from yoisho.judgement.targets import TARGETS, TargetId

router = Router(tags=["today"])
LONGEST_AHEAD = timedelta(days=366)
MOST_PEOPLE = 200


class PlanIn(Schema):
    session_id: int
    on: Day
    at: WallTime
    group_id: int | None = None
    people: Annotated[list[int], Field(max_length=MOST_PEOPLE)]
    """Besides those of the group."""
    until: Day | None = None
    """Repeated every week up to that day; None for once."""


class Rated(Told):
    people: int
    """Who have logged it."""
    rpe: float
    """Their mean."""
    expected: float


class PlannedOut(Told):
    id: int
    session_id: int
    title: str
    on: date
    at: WallTime
    total_s: int
    target: TargetId
    purpose: str
    group: str | None
    people: list[Somebody]
    """Who trains and is not archived, of the group and by name."""
    repeats: bool
    blocks: list[Block]
    done: Rated | None


class Minded(Told):
    person_id: int | None
    name: str
    session: str
    severity: Severity
    seal: str
    text: str
    cure: str


class DayLoad(Told):
    on: date
    planned: float
    """Expected, of all who are to come."""
    done: float


class TodayOut(Told):
    on: date
    planned: list[PlannedOut]
    tomorrow: list[PlannedOut]
    waiting: list[Waiting]
    """Of today and the days before, what is over and nobody has rated; empty of another day."""
    bring: list[Brought]
    week: list[DayLoad]


def _rows(club: Club, first: date, last: date) -> list[Planned]:
    rows = Planned.objects.of(club).filter(on__gte=first, on__lte=last).select_related("session", "group")
    return list(rows.prefetch_related("people", "away", "group__people"))


def _done(planned: Planned, entries: list[LogEntry]) -> Rated | None:
    rated = [entry for entry in entries if entry.run.session_id == planned.session_id]
    if not rated:
        return None
    count = len(rated)
    return Rated(
        people=count,
        rpe=sum(entry.rpe for entry in rated) / count,
        expected=sum(entry.planned_rpe for entry in rated) / count,
    )


def _out(planned: Planned, read: Read, entries: list[LogEntry]) -> PlannedOut:
    timeline = read.timeline
    return PlannedOut(
        id=planned.pk,
        session_id=planned.session_id,
        title=read.session.title,
        on=planned.on,
        at=planned.at,
        total_s=timeline.total_s,
        target=planned.session.target,
        purpose=TARGETS[planned.session.target].name,
        group=planned.group.name if planned.group else None,
        people=[Somebody.of(who) for who in people_of(planned)],
        repeats=planned.series is not None,
        blocks=[Block(seconds=each.seconds, demand_frac=each.demand_frac) for each in timeline.intervals],
        done=_done(planned, entries),
    )


def _logged(club: Club, first: date, last: date) -> dict[date, list[LogEntry]]:
    """What was logged on each day, by the clock of the club."""
    zone = timezone.get_current_timezone()
    begin = datetime.combine(first, time.min, zone)
    end = datetime.combine(last + timedelta(days=1), time.min, zone)
    found: dict[date, list[LogEntry]] = defaultdict(list)
    entries = LogEntry.objects.of(club).filter(started_at__gte=begin, started_at__lt=end)
    told = ("started_at", "rpe", "planned_rpe", "done_s", "result__person_id", "result__run__session_id")
    for entry in entries.select_related("result__run").only(*told):
        found[timezone.localdate(entry.started_at)].append(entry)
    return found


def _week(
    club: Club, day: date, rows: list[Planned], read: dict[int, Read], logged: dict[date, list[LogEntry]]
) -> list[DayLoad]:
    first = _first_of_week(club, day)
    loads = []
    for number in range(7):
        on = first + timedelta(days=number)
        planned = sum(
            expected_load(read[row.session_id].session.parts) * max(1, len(people_of(row)))
            for row in rows
            if row.on == on
        )
        done = sum(entry.rpe * entry.done_s / 60 for entry in logged[on])
        loads.append(DayLoad(on=on, planned=planned, done=done))
    return loads


def _waiting(
    day: date, rows: list[Planned], read: dict[int, Read], logged: dict[date, list[LogEntry]]
) -> list[Waiting]:
    if day != timezone.localdate():
        return []
    days = [day - timedelta(days=back) for back in range(DAYS_BACK + 1)]
    recent = [row for row in rows if row.on in days]
    return waiting_of(recent, read, [entry for on in days for entry in logged[on]])


def _first_of_week(club: Club, day: date) -> date:
    return day - timedelta(days=(day.weekday() - club.first_weekday) % 7)


@router.get("/today", response=TodayOut, operation_id="today")
def today(request: HttpRequest, on: Day | None = None) -> TodayOut:
    """A day of the hall: today, or another."""
    club = club_of(request)
    day = on or timezone.localdate()
    first = _first_of_week(club, day)
    last = max(first + timedelta(days=6), day + timedelta(days=1))
    since = min(first, day - timedelta(days=DAYS_BACK))
    rows, logged = _rows(club, since, last), _logged(club, since, last)
    read = read_once(rows)
    due = [row for row in rows if row.on == day]
    here = [(read[row.session_id].timeline, max(1, len(people_of(row)))) for row in due]
    return TodayOut(
        on=day,
        planned=[_out(row, read[row.session_id], logged[day]) for row in due],
        tomorrow=[_out(row, read[row.session_id], []) for row in rows if row.on == day + timedelta(days=1)],
        waiting=_waiting(day, rows, read, logged),
        bring=bring(here),
        week=_week(club, day, rows, read, logged),
    )


@router.get("/today/mind", response=list[Minded], operation_id="mind_today")
def mind_today(
    request: HttpRequest, on: Day | None = None, wbgt_c: Annotated[float | None, Field(ge=-20, le=60)] = None
) -> list[Minded]:
    """Every caution about the people of a day and the day itself, the stops first, each once a person.

    An assistant hears of the stops alone.
    """
    user = coach(request)
    club = user.own_club
    day = on or timezone.localdate()
    rows = _rows(club, day, day)
    ids = {who.pk for row in rows for who in people_of(row)}
    people = {who.pk: who for who in everything(Person.objects.of(club).filter(pk__in=ids))}
    around = circumstances_for(club, list(people.values()), wbgt_c)
    found: dict[tuple[int | None, str], Minded] = {}
    read = read_once(rows)
    for row in rows:
        session, timeline = read[row.session_id].session, read[row.session_id].timeline
        for who in people_of(row):
            for each in minded(people[who.pk].to_core(), timeline, row.session.target, around[who.pk]):
                if not user.trains and each.severity != "stop":
                    continue
                of_all = each.rule == "heat"
                key = (None if of_all else who.pk), each.rule
                text, cure = discreet(user, each.rule, each.text, each.cure)
                found.setdefault(
                    key,
                    Minded(
                        person_id=key[0], name="Everybody" if of_all else who.name, session=session.title,
                        severity=each.severity, seal=each.seal, text=text, cure=cure,
                    ),
                )  # fmt: skip
    order = {"stop": 0, "caution": 1, "note": 2}
    return sorted(found.values(), key=lambda each: (order[each.severity], each.name))


def _days(body: PlanIn) -> list[date]:
    if body.until is None:
        return [body.on]
    if body.until < body.on:
        raise FieldError(["body", "until"], "The last day comes after the first.", "day")
    if body.until - body.on > LONGEST_AHEAD:
        raise FieldError(["body", "until"], "A year ahead is the most. Give an earlier last day.", "day")
    return [body.on + timedelta(weeks=week) for week in range((body.until - body.on).days // 7 + 1)]


@router.post(
    "/planned",
    response={201: list[PlannedOut], 404: Message, 409: Message, 422: Faults},
    operation_id="plan_session",
)
@once
def plan_session(request: HttpRequest, body: PlanIn) -> Status[list[PlannedOut]]:
    """A session gets a day and an hour, and those it is for; every week where it repeats."""
    user = coach(request)
    club = user.own_club
    session = find_session(club, body.session_id)
    if body.on < timezone.localdate() - timedelta(days=7):
        raise FieldError(["body", "on"], "That day is more than a week ago. Log what was done instead.", "day")
    group = Group.objects.find(club, "group", pk=body.group_id) if body.group_id is not None else None
    people = list(Person.objects.of(club).filter(pk__in=body.people))
    if len(people) < len(set(body.people)):
        raise FieldError(["body", "people"], "Somebody of these is not there any more. Choose again.", "person")
    days = _days(body)
    series = uuid4() if len(days) > 1 else None
    with transaction.atomic():
        rows = []
        for on in days:
            row = Planned.objects.create(
                club=club, session=session, on=on, at=body.at, group=group, series=series, planned_by=user
            )
            row.people.set(people)
            rows.append(row)
    read = Read(session.document)
    return Status(201, [_out(row, read, []) for row in rows])


@router.delete("/planned/{planned_id}", response={200: PlanIn, 404: Message}, operation_id="take_off")
def take_off(request: HttpRequest, planned_id: int, following: bool = False) -> PlanIn:
    """Off the plan: this one, or with all that follow it from week to week. What comes back plans it again."""
    row = Planned.objects.find(club_of(request), "planned session", pk=planned_id)
    gone: Any = Planned.objects.filter(pk=row.pk)
    if following and isinstance(row.series, UUID):
        gone = Planned.objects.filter(Q(pk=row.pk) | Q(series=row.series, on__gt=row.on))
    last = gone.order_by("-on").first()
    back = PlanIn(
        session_id=row.session_id, on=row.on, at=row.at, group_id=row.group_id,
        people=[who.pk for who in row.people.all()], until=last.on if last and last.on > row.on else None,
    )  # fmt: skip
    gone.delete()
    return back
