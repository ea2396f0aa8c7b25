"""The demo club, as it is made."""

from datetime import time, timedelta
from typing import Any
from uuid import uuid4

from django.utils import timezone

from server.accounts.api import DEMO_COACH
from server.accounts.models import Club, Role, User
from server.combinations.models import BookEntry
from server.demo import hall
from server.demo.camp import load_camp
from server.demo.classes import load_class
from server.demo.history import add_entry, hidden_of, load_history, saved
from server.roster.models import FieldTest, Group, Knock, Limit, Person
from server.runs.models import Run
from server.sessions.models import Session
from server.today.models import Planned
from yoisho.runs.plan import Plan
from yoisho.runs.simulated import kept_of
from yoisho.session import shorthand
from yoisho.session.document import Session as CoreSession
from yoisho.session.document import drill_to_dict, to_document
from yoisho.strikes import notation


def load(weeks: int) -> str:
    """Everything of the demo; says in words what is there now."""
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
    load_history(club, coach, people, weeks)
    if weeks == hall.WEEKS_OF_HISTORY:
        load_camp(club, coach, people, sessions[hall.LIKED])
        load_class(club, coach, groups[hall.DOCKERS[0]])
    return f"Demo data loaded: {hall.CLUB}, {len(people)} people, {len(hall.SESSIONS)} sessions"


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
    session = saved(
        club, coach, timedelta(days=20),
        person=person, target=planned.target, document=document, tags=list(planned.tags),
    )  # fmt: skip
    plan = Plan(core)
    for number, run in enumerate(planned.runs):
        done_s = round(plan.timeline.total_s * run.done_frac)
        record = kept_of(hidden_of(person), plan.timeline, done_s, session.pk * 10 + number, ("strap", "sensor"))
        at = timezone.now().replace(hour=18, minute=20, second=0) - timedelta(days=run.days_ago)
        kept = Run(club=club, run_id=uuid4(), session=session, revision=1, title=planned.title, document=document,
                   person=person, coach=coach)  # fmt: skip
        add_entry(kept, person, plan, record, done_s, at, run.rpe, run.note)
    return session
