"""Load the demo club. Does nothing where it is there already, so that nothing a visitor did is lost."""

from dataclasses import asdict
from datetime import time, timedelta
from typing import Any
from uuid import uuid4

from django.core.management import call_command
from django.core.management.base import BaseCommand
from django.db import transaction
from django.utils import timezone

from server.accounts.api import DEMO_COACH
from server.accounts.models import Club, Role, User
from server.combinations.models import BookEntry
from server.demo import hall
from server.logbook.models import LogEntry
from server.roster.models import FieldTest, Group, Knock, Limit, Person
from server.runs.models import Result, Run
from server.runs.schemas import RecordIn, StretchIn
from server.sessions.models import Session, Version
from server.today.models import Planned
from yoisho.answers.log import logged
from yoisho.engine.person import Person as CorePerson
from yoisho.runs.plan import Plan
from yoisho.runs.simulated import simulate
from yoisho.session import shorthand
from yoisho.session.document import Session as CoreSession
from yoisho.session.document import drill_to_dict, to_document
from yoisho.session.timeline import Timeline
from yoisho.strikes import notation


class Command(BaseCommand):
    help = "Bring the database up to date and load the demo club, unless it is there already."

    def handle(self, *args: Any, **options: Any) -> None:
        call_command("migrate", verbosity=0)
        with transaction.atomic():
            self._load()

    def _load(self) -> None:
        if User.objects.filter(username=DEMO_COACH).exists():
            return
        club = Club.objects.create(name=hall.CLUB)
        coach = User(
            username=DEMO_COACH, first_name=hall.COACH_FIRST, last_name=hall.COACH_LAST, club=club, role=Role.OWNER
        )
        coach.set_unusable_password()
        coach.save()
        groups = {name: Group.objects.create(club=club, name=name) for name in hall.GROUPS}
        people = {someone.name: _person(club, coach, groups, someone) for someone in hall.PEOPLE}
        sessions = {planned.title: _session(club, coach, people[planned.person], planned) for planned in hall.SESSIONS}
        for due in hall.PLANNED:
            _plan(club, coach, due, sessions[due.title], groups, people)
        for entry in hall.BOOK:
            drill = drill_to_dict(notation.read_drill(entry.text))
            BookEntry.objects.create(club=club, name=entry.name, drill=drill, tags=list(entry.tags), note=entry.note)
        self.stdout.write(f"Demo data loaded: {hall.CLUB}, {len(people)} people, {len(hall.SESSIONS)} sessions")


ENTERED = ("name", "sport", "level", "sex", "mass_kg", "vo2max_ml_kg_min", "heart_rate_lowering_medication", "rule_set",
           "stance")  # fmt: skip


def _person(club: Club, coach: User, groups: dict[str, Group], someone: hall.DemoPerson) -> Person:
    today = timezone.localdate()
    known: dict[str, Any] = {name: getattr(someone, name) for name in ENTERED}
    if someone.days_to_fight is not None:
        known["fight_on"] = today + timedelta(days=someone.days_to_fight)
    if someone.screening is not None:
        active, disease, cleared = someone.screening
        known |= {"screened_on": today - timedelta(days=40), "screening_active": active, "screening_disease": disease}
        if cleared:
            known["cleared_on"] = today - timedelta(days=365 - someone.cleared_days_left)
            known["cleared_by"] = "Dr A. Holm"
    person = Person.objects.create(club=club, birth_year=today.year - someone.age, **known)
    person.groups.set([groups[name] for name in someone.groups])
    for test in someone.tests:
        on = today - timedelta(days=test.days_ago)
        FieldTest.objects.create(
            person=person, kind=test.kind, on=on, value=test.value, counts=list(test.counts) if test.counts else None,
            where=test.where, counted_by=test.counted_by,
        )  # fmt: skip
    person.take_tests()
    for limit in someone.limits:
        until = None if limit.days is None else today + timedelta(days=limit.days)
        Limit.objects.create(
            person=person, kind=limit.kind, limb=limit.limb, most=limit.most, period=limit.period, until=until,
            set_by=limit.set_by,
        )  # fmt: skip
    if someone.knocked_days_ago is not None:
        Knock.objects.create(person=person, on=today - timedelta(days=someone.knocked_days_ago), noted_by=coach)
    return person


def _record(who: CorePerson, timeline: Timeline, done_s: int, seed: int) -> RecordIn:
    """What a simulated strap and sensor would have kept of a run that was stopped after so many seconds."""
    told = simulate(who, timeline, seed)
    return RecordIn(
        played=[StretchIn(from_s=0, to_s=done_s)],
        heart=[(second, bpm) for second, bpm in enumerate(told.heart[:done_s]) if bpm is not None],
        strikes=[at for at in told.strikes if at < done_s],
        simulated=True,
    )


def _plan(
    club: Club,
    coach: User,
    due: hall.DemoPlanned,
    session: Session,
    groups: dict[str, Group],
    people: dict[str, Person],
) -> None:
    series, today = uuid4(), timezone.localdate()
    for week in range(hall.WEEKS_PLANNED):
        row = Planned.objects.create(
            club=club, session=session, on=today + timedelta(weeks=week), at=time.fromisoformat(due.at),
            group=groups[due.group] if due.group else None, series=series, planned_by=coach,
        )  # fmt: skip
        row.people.set([people[name] for name in due.people])


def _session(club: Club, coach: User, person: Person, planned: hall.DemoSession) -> Session:
    core = CoreSession(
        planned.title, shorthand.read_parts("\n".join(f"{name}: {text}" for name, text in planned.parts))
    )
    document = to_document(core)
    state = {"person": person, "target": planned.target, "document": document, "tags": list(planned.tags)}
    saved = Session.objects.create(club=club, saved_by=coach, **state)
    begun = timezone.now() - timedelta(days=20)
    Version.objects.create(session=saved, saved_by=coach, revision=1, begun_at=begun, saved_at=begun, **state)
    plan, who = Plan(core), person.to_core()
    for number, run in enumerate(planned.runs):
        done_s = round(plan.timeline.total_s * run.done_frac)
        record = _record(who, plan.timeline, done_s, seed=saved.pk * 10 + number)
        found = logged(who, plan, record.to_core(), done_s)
        kept = Run.objects.create(
            club=club, run_id=uuid4(), session=saved, revision=1, title=planned.title, document=document, person=person,
            coach=coach,
        )  # fmt: skip
        result = Result.objects.create(
            run=kept,
            person=person,
            record=record.model_dump(mode="json"),
            devices_simulated=True,
            done=asdict(found.done) if found.done else None,
            lactic=found.lactic,
            expected_limbs=found.volume.limbs,
            expected_heights=found.volume.heights,
        )
        LogEntry.objects.create(
            club=club,
            result=result,
            started_at=timezone.now().replace(hour=18, minute=20, second=0) - timedelta(days=run.days_ago),
            planned_s=found.planned_s,
            planned_efforts=found.planned_efforts,
            planned_rpe=found.planned_rpe,
            done_s=done_s,
            done_efforts=sum(end <= done_s for _, end in plan.efforts),
            rpe=run.rpe,
            note=run.note,
            simulated=True,
        )
    return saved
