"""Weeks of a person, a group or the club, from sums that each entry keeps: few questions, however long it was."""

from collections.abc import Iterable
from datetime import date, datetime, time, timedelta
from typing import Any

from django.db.models import Count, F, FloatField, Q, QuerySet, Sum
from django.db.models.functions import Abs, TruncDate
from django.utils import timezone

from server.accounts.models import Club
from server.logbook.models import LIMB_FIELDS, STORE_FIELDS, SUMMED, LogEntry
from server.review.schemas import TrendPoint, TrendRating, TrendsOut, TrendTest, TrendWeek
from server.roster.models import FieldTest, Group, Person
from server.roster.page import repeatability_of
from yoisho.engine.readout import RPE_WITHIN
from yoisho.review.load import CRITICISM, LONG_DAYS
from yoisho.review.repeats import FIELD_TESTS
from yoisho.review.trends import Block, Day, block_of, ceiling, weeks_of

MOST_RATINGS = 400


def _days(entries: QuerySet[LogEntry], heads: int) -> dict[date, Day]:
    """What was done each day, a head, in one question."""
    sums = {name: Sum(name) for name in SUMMED}
    rows: Iterable[Any] = (
        entries.annotate(on=TruncDate("started_at"))
        .values("on")
        .annotate(
            sessions=Count("pk"),
            load=Sum(F("rpe") * F("done_s") / 60.0, output_field=FloatField()),
            planned=Sum(F("planned_rpe") * F("planned_s") / 60.0, output_field=FloatField()),
            hard=Count("pk", filter=Q(result__lactic=True)),
            **sums,
        )
        .order_by()
    )
    return {
        row["on"]: Day(
            row["sessions"],
            row["planned"] / heads,
            row["load"] / heads,
            {limb: row[name] / heads for limb, name in LIMB_FIELDS.items()},
            {store: (row[name] or 0.0) / heads for store, name in STORE_FIELDS.items()},
            row["hard"] > 0,
        )
        for row in rows
    }


def _inside(entries: QuerySet[LogEntry]) -> tuple[int, int]:
    """Sessions rated inside the range that was expected, and all of which something was."""
    told = (
        entries.filter(left_out=False)
        .annotate(off=Abs(F("rpe") - F("planned_rpe")))
        .aggregate(inside=Count("pk", filter=Q(off__lte=RPE_WITHIN)), rated=Count("pk"))
    )
    return told["inside"], told["rated"]


def _ratings(entries: QuerySet[LogEntry]) -> list[TrendRating]:
    rows = (
        entries.filter(left_out=False)
        .order_by("started_at")
        .values_list("pk", "started_at", "result__run__title", "rpe", "planned_rpe")
    )
    return [
        TrendRating(
            entry_id=pk, started_at=at, title=title, rpe=rpe,
            low=max(0.0, expected - RPE_WITHIN), high=min(10.0, expected + RPE_WITHIN),
        )
        for pk, at, title, rpe, expected in rows[:MOST_RATINGS]
    ]  # fmt: skip


def _tests(person: Person, first: date) -> list[TrendTest]:
    tests = list(FieldTest.objects.filter(person=person, on__gte=first).order_by("on"))
    known = repeatability_of(person.club, {test.kind for test in tests})
    return [
        TrendTest(
            on=test.on, kind=test.kind, value=test.value,
            error=known[test.kind].error * (test.value if FIELD_TESTS[test.kind].relative else 1.0),
        )
        for test in tests
    ]  # fmt: skip


def trends(club: Club, weeks: int, person: Person | None, group: Group | None) -> TrendsOut:
    """The last weeks of a person, of a group, or of everybody."""
    today = timezone.localdate()
    first = today - timedelta(days=today.weekday(), weeks=weeks - 1)
    entries = LogEntry.objects.filter(club=club)
    if person:
        entries = entries.filter(result__person=person)
    elif group:
        entries = entries.filter(result__person__in=group.people.values("pk"))
    begins = timezone.make_aware(datetime.combine(first, time()))
    inside_weeks = entries.filter(started_at__gte=begins)
    people = inside_weeks.aggregate(people=Count("result__person", distinct=True))["people"]
    heads = 1 if person else max(1, people)
    days = _days(entries.filter(started_at__gte=begins - timedelta(days=2 * LONG_DAYS)), heads)
    told = weeks_of(days, weeks, today)
    block = block_of(told, days, person.to_core_unlearned().level) if person else _of_many(people)
    inside, rated = _inside(inside_weeks)
    return TrendsOut(
        who=person.name if person else group.name if group else club.name,
        people=people,
        title=block.title,
        sentence=block.sentence,
        points=[TrendPoint(**vars(point)) for point in block.points],
        weeks=[TrendWeek(**vars(week)) for week in told],
        ceilings={limb: ceiling(limb, person.to_core_unlearned().level) for limb in LIMB_FIELDS} if person else {},
        tests=_tests(person, first) if person else [],
        ratings=_ratings(inside_weeks) if person else [],
        inside=inside,
        rated=rated,
        criticism=CRITICISM,
    )


def _of_many(people: int) -> Block:
    if not people:
        return Block("Nothing logged", "Nobody has logged a session in these weeks.", ())
    who = "1 person" if people == 1 else f"{people} people"
    return Block(f"Of {who}", "Sums are a head, of those who logged something in these weeks.", ())
