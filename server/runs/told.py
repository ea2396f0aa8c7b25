"""The plan of a run as it is told to whoever runs it."""

from server.accounts.models import Club
from server.roster.api import core_of
from server.roster.models import Person
from server.runs.ahead import speak_later
from server.runs.called import settings_of
from server.runs.schemas import CallSettings, RunPlan
from server.runs.speech import speeches
from server.sessions.models import Session
from yoisho.answers.floor import floor_plan
from yoisho.runs.calls import KINDS
from yoisho.runs.cues import SOUNDS
from yoisho.runs.plan import Plan
from yoisho.session.document import to_document


def plan_out(plan: Plan, club: Club, session: Session | None, revision: int, person: Person | None) -> RunPlan:
    """All that a device needs to run it: a session of the club as it stands, or a run as it was begun."""
    settings = settings_of(session)
    floor = floor_plan(plan, core_of(person), settings)
    speech = speeches(call.text for call in floor.calls)
    if speech.missing and session:
        speak_later(session.pk)
    return RunPlan(
        **vars(floor),
        session_id=session.pk if session else None,
        revision=revision,
        document=to_document(plan.session),
        person_id=person.pk if person else None,
        person=person.name if person else None,
        speech=speech.files,
        silent=speech.silent,
        call_settings=CallSettings(
            muted=[kind for kind in (*KINDS, *SOUNDS) if kind in settings.muted],
            combination_every_s=settings.combination_every_s,
        ),
        emergency_number=club.emergency_number,
    )
