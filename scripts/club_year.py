"""A year of a club: 100 people, 3,000 sessions, 15,000 logs, as a busy hall leaves them. In the database of the
environment, beside what is there; `GETS` are what its screens ask for."""

from datetime import timedelta
from random import Random
from uuid import uuid4

from django.db import transaction
from django.utils import timezone

from server.accounts.models import Club, User
from server.logbook.models import LogEntry
from server.roster.models import Person
from server.runs.models import Result, Run
from server.sessions.models import Session, Version
from yoisho.session.document import Part, to_document
from yoisho.session.document import Session as Document
from yoisho.session.shorthand import read

PEOPLE, SESSIONS, WEEKS, A_WEEK = 100, 3000, 50, 3
LINES = (
    ("5:00 flow", "{n} x (20 all out / 10 rest)", "3:00 flow"),
    ("6:00 flow, 2:00 rest", "{n} x (3:00 technique bag [1-2-3b, slip, 2]) rest 1:00"),
    ("10:00 flow", "3 x ({n} x (30 power [1-2] / 30 rest)) rest 3:00", "5:00 flow"),
)
TARGETS = ("lactic-capacity", "aerobic-power", "sprint-power")
GETS = (
    "today", "today/mind", "sessions?limit=200", "sessions?limit=200&offset=2800", "people?limit=200", "groups",
    "log?limit=30", "log?limit=30&offset=14000", "trends?weeks=52", "trends?weeks=12", "combinations", "camps",
    "classes", "classes/needs", "members", "live", "letters", "sent-back", "vocabulary", "me",
)  # fmt: skip


@transaction.atomic
def fill() -> Club:
    random = Random(1)
    club, coach = Club.objects.get(), User.objects.order_by("pk").first()
    known = {"club": club, "level": "club", "birth_year": 1990, "mass_kg": 70.0}
    people = Person.objects.bulk_create([Person(name=f"Athlete {number}", **known) for number in range(PEOPLE)])
    day, now = timedelta(days=1), timezone.now()
    plans = []
    for number in range(SESSIONS):
        lines = LINES[number % len(LINES)]
        parts = tuple(Part(f"Part {place}", read(line.format(n=4 + number % 9))) for place, line in enumerate(lines))
        plans.append(to_document(Document(f"Session {number}", parts)))
    sessions = Session.objects.bulk_create(
        [
            Session(club=club, target=TARGETS[number % 3], document=plan, saved_by=coach, tags=["rounds"],
                    person=random.choice(people) if number % 2 else None)
            for number, plan in enumerate(plans)
        ]
    )  # fmt: skip
    Version.objects.bulk_create(
        [
            Version(session=each, revision=1, document=each.document, target=each.target, saved_by=coach, begun_at=now,
                    saved_at=now)
            for each in sessions
        ]
    )  # fmt: skip
    done = [
        (who, now - (1 + 7 * week + 2 * each) * day)
        for who in people
        for week in range(WEEKS)
        for each in range(A_WEEK)
    ]
    run_of = [random.choice(sessions) for _ in done]
    runs = Run.objects.bulk_create(
        [
            Run(club=club, run_id=uuid4(), person=who, session=session, title=session.document["title"],
                document=session.document, revision=1, coach=coach)
            for session, (who, _) in zip(run_of, done, strict=True)
        ]
    )  # fmt: skip
    results = Result.objects.bulk_create(
        [Result(run=run, person=who) for run, (who, _) in zip(runs, done, strict=True)]
    )
    sums = {"planned_s": 2700, "planned_efforts": 8, "planned_rpe": 7, "done_s": 2700, "done_efforts": 8}
    limbs = {"left_hand": 400, "right_hand": 500, "aerobic_min": 12, "lactic_min": 4, "sprint_min": 1}
    LogEntry.objects.bulk_create(
        [
            LogEntry(club=club, result=result, started_at=at, rpe=random.randint(4, 9), note="", **sums, **limbs)
            for result, (_, at) in zip(results, done, strict=True)
        ]
    )
    return club
