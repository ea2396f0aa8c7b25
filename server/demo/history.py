"""Twelve weeks of the demo hall, made by the engine itself, and marked as simulated.

Everybody has capacities that are hidden from what is entered of them: what they did is what those would do.
"""

import zlib
from dataclasses import asdict
from datetime import datetime, time, timedelta
from random import Random
from typing import Any
from uuid import uuid4

from django.utils import timezone

from server.accounts.models import Club, User
from server.demo import hall
from server.logbook.models import LogEntry
from server.roster.models import Person
from server.runs.models import Result, Run
from server.runs.schemas import RecordIn
from server.sessions.models import Session, Version
from yoisho.answers.log import logged
from yoisho.engine.person import Person as CorePerson
from yoisho.engine.readout import expected_rpe, try_reading
from yoisho.runs.plan import Plan
from yoisho.runs.record import Record
from yoisho.runs.simulated import felt, hidden, kept_of
from yoisho.session import shorthand
from yoisho.session.document import Session as CoreSession
from yoisho.session.document import to_document


def _seed(*words: object) -> int:
    """The same for the same words, on every machine."""
    return zlib.crc32(" ".join(map(str, words)).encode())


def hidden_of(person: Person) -> CorePerson:
    """Whom somebody of the demo really is."""
    return hidden(person.to_core(), _seed(person.name))


def add_entry(
    run: Run, person: Person, plan: Plan, record: Record, done_s: int, at: datetime, rpe: int, note: str = ""
) -> None:
    """One person's run and what is told of it, as the log keeps them."""
    found = logged(person.to_core(), plan, record, done_s)
    run.save()
    told = RecordIn(
        played=[{"from_s": 0, "to_s": done_s}],  # type: ignore[list-item]
        heart=[(at_s, round(bpm)) for at_s, bpm in record.heart],
        strikes=None if record.strikes is None else list(record.strikes),
        simulated=True,
    )
    devices = bool(record.heart) or record.strikes is not None
    result = Result.objects.create(
        run=run, person=person, record=told.model_dump(mode="json"), devices_simulated=devices,
        done=asdict(found.done) if found.done else None, lactic=found.lactic,
        expected_limbs=found.volume.limbs, expected_heights=found.volume.heights,
    )  # fmt: skip
    entry = LogEntry.objects.create(
        club=run.club, result=result, started_at=at, planned_s=found.planned_s, planned_efforts=found.planned_efforts,
        planned_rpe=found.planned_rpe, done_s=done_s, done_efforts=sum(end <= done_s for _, end in plan.efforts),
        rpe=rpe, note=note, simulated=True,
    )  # fmt: skip
    entry.take_sums(found.minutes)


def saved(club: Club, coach: User, began: timedelta, **state: Any) -> Session:
    """A session as it is now, with the one version it has had since it was begun so long ago."""
    session = Session.objects.create(club=club, saved_by=coach, **state)
    begun = timezone.now() - began
    Version.objects.create(session=session, saved_by=coach, revision=1, begun_at=begun, saved_at=begun, **state)
    return session


def load_history(club: Club, coach: User, people: dict[str, Person], weeks: int) -> None:
    """What each group did in so many weeks, until yesterday."""
    if not weeks:
        return
    today = timezone.localdate()
    monday = today - timedelta(days=today.weekday())
    who = {someone.name: someone for someone in hall.PEOPLE}
    real = {name: hidden_of(person) for name, person in people.items()}
    for training in hall.HISTORY:
        plans = [
            Plan(CoreSession(training.title, shorthand.read_parts(training.lines(step))))
            for step in range(len(training.steps))
        ]
        documents = [to_document(plan.session) for plan in plans]
        session = saved(
            club, coach, timedelta(weeks=hall.WEEKS_OF_HISTORY),
            target=training.target, document=documents[-1], tags=[training.group],
        )  # fmt: skip
        there = [name for name in people if training.group in who[name].groups and name not in training.but]
        felt_as = {
            (name, step): expected_rpe(try_reading(real[name], plan.timeline))
            for name in there
            for step, plan in enumerate(plans)
        }
        for week in range(weeks):
            step = min((hall.WEEKS_OF_HISTORY - weeks + week) // hall.WEEKS_A_STEP, len(plans) - 1)
            on = monday + timedelta(weeks=week - weeks + 1, days=training.weekday)
            if on >= today:
                continue
            at = timezone.make_aware(datetime.combine(on, time(training.hour, 10)))
            for name in there:
                seed = _seed(name, training.title, week)
                knocked = who[name].knocked_days_ago
                if Random(seed).random() < hall.MISSED_SHARE or (knocked and on > today - timedelta(days=knocked)):
                    continue
                plan, person = plans[step], people[name]
                done_s = plan.timeline.total_s
                run = Run(club=club, run_id=uuid4(), session=session, revision=1, title=training.title,
                          document=documents[step], person=person, coach=coach)  # fmt: skip
                record = kept_of(real[name], plan.timeline, done_s, seed, training.devices)
                add_entry(run, person, plan, record, done_s, at, felt(felt_as[name, step], seed))
