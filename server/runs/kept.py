"""Runs as the club keeps them: begun once, with the plan as it stood."""

from uuid import UUID

from server.accounts.models import Club, User
from server.errors import FieldError
from server.roster.models import Person
from server.runs.models import Run
from server.runs.schemas import RunIn
from server.sessions.documents import core_session
from server.sessions.models import Session
from yoisho.plain import sentence
from yoisho.runs.plan import Plan
from yoisho.session.document import Session as CoreSession
from yoisho.session.document import from_document, to_document
from yoisho.session.interval import SessionError


def plan_for(session: CoreSession, people: int, *where: str) -> Plan:
    """The plan for so many people. One that is too long or too large for them is a 422 there."""
    plan = Plan(session, people)
    try:
        _ = plan.timeline
    except SessionError as error:
        raise FieldError(list(where), sentence(error), "people") from error
    return plan


def begin(club: Club, coach: User, run_id: UUID, told: RunIn) -> Run:
    """The run with that id, kept from what is told of it where it is not known yet.

    The first word stands: the plan of a run does not change. A session or a person that is gone takes nothing with it.
    """
    found = Run.objects.of(club).filter(run_id=run_id).first()
    if found is not None:
        return found
    session = core_session(told.document, "run")
    plan_for(session, told.people, "body", "run", "people")
    run, _ = Run.objects.get_or_create(
        club=club,
        run_id=run_id,
        defaults={
            "session": Session.objects.perhaps(club, told.session_id),
            "revision": told.revision,
            "title": session.title,
            "document": to_document(session),
            "people": told.people,
            "person": Person.objects.perhaps(club, told.person_id),
            "coach": coach,
        },
    )
    return run


def find_run(club: Club, run_id: UUID) -> Run:
    return Run.objects.find(club, "run", run_id=run_id)


def plan_of(run: Run) -> Plan:
    return Plan(from_document(run.document), run.people)
