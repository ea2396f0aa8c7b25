"""The plan of a run as it is told to whoever runs it."""

from typing import Any

from server.accounts.models import Club
from server.roster.api import core_of
from server.roster.models import Person
from server.runs.ahead import speak_later
from server.runs.called import settings_of
from server.runs.kept import board_of, whom_of
from server.runs.schemas import CallSettings, DoingOnBoard, OnRunBoard, RunBoard, RunPlan, RunWave
from server.runs.speech import speeches
from server.sessions.models import Session
from yoisho.answers.floor import floor_plan
from yoisho.classes.board import waves_of
from yoisho.runs.calls import KINDS
from yoisho.runs.cues import SOUNDS
from yoisho.runs.plan import Plan
from yoisho.session.document import to_document


def board_out(kept: dict[str, Any] | None, plan: Plan, revision: int) -> RunBoard | None:
    """The board of a class as it is shown, of what is kept of it; None where there is none, or it is not the plan's."""
    board = board_of(kept, plan.session)
    if kept is None or board is None:
        return None
    people = zip(board.people, board.labels, whom_of(kept), strict=True)
    return RunBoard(
        revision=revision,
        part=board.part,
        people=[OnRunBoard(who.name, pk, label, list(who.row), who.easy, who.holds) for who, label, pk in people],
        doing=[DoingOnBoard(**vars(each)) for each in board.doing],
        waves=[RunWave(**vars(wave)) for wave in waves_of(plan.timeline, board.part)],
    )


def plan_out(
    plan: Plan, club: Club, session: Session | None, revision: int, person: Person | None, board: RunBoard | None = None
) -> RunPlan:
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
        board=board,
    )
