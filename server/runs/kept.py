"""Runs as the club keeps them: begun once, with the plan as it stood."""

from dataclasses import replace
from typing import Any
from uuid import UUID

from server.accounts.models import Club, User
from server.errors import FieldError
from server.roster.models import Person
from server.runs.models import Run
from server.runs.schemas import BoardIn, RunIn
from server.sessions.documents import core_session
from server.sessions.models import Session
from yoisho.classes.board import Board, board_from_dict, lived
from yoisho.classes.calls import board_calls
from yoisho.plain import sentence
from yoisho.runs.plan import Plan
from yoisho.session.document import Session as CoreSession
from yoisho.session.document import from_document, to_document
from yoisho.session.interval import SessionError
from yoisho.session.tree import Repeat


def plan_for(session: CoreSession, people: int, *where: str, board: Board | None = None) -> Plan:
    """The plan for so many people. One that is too long or too large for them is a 422 there."""
    plan = Plan(session, people)
    try:
        timeline = plan.timeline
    except SessionError as error:
        raise FieldError(list(where), sentence(error), "people") from error
    return plan if board is None else replace(plan, beside=tuple(board_calls(timeline, board)))


def core_board(told: BoardIn) -> Board:
    """The board as the core has it. What cannot be is a 422."""
    try:
        return board_from_dict(plain_board(told.model_dump()))
    except ValueError as error:
        raise FieldError(["body", "board"], sentence(error), "board") from error


def plain_board(told: dict[str, Any]) -> dict[str, Any]:
    """Without the ids of people, which the core does not know."""
    people = [{name: value for name, value in each.items() if name != "person_id"} for each in told["people"]]
    return {**told, "people": people}


def fitting(board: Board, session: CoreSession) -> Board | None:
    """The board where it is one of this session; None where the session was made another since."""
    if board.part >= len(session.parts):
        return None
    tree = session.parts[board.part].tree
    fits = isinstance(tree, Repeat) and all(len(each.row) == tree.count for each in board.people)
    return board if fits else None


def board_of(kept: dict[str, Any] | None, session: CoreSession) -> Board | None:
    """The board that is kept beside a session or a run, where it fits."""
    return None if kept is None else fitting(board_from_dict(plain_board(kept)), session)


def whom_of(kept: dict[str, Any]) -> list[int | None]:
    """Ids of the people of a board, in its order; None for who is not of the roster."""
    return [each.get("person_id") for each in kept["people"]]


def begin(club: Club, coach: User, run_id: UUID, told: RunIn) -> Run:
    """The run with that id, kept from what is told of it where it is not known yet.

    The first word stands: the plan of a run does not change. A session or a person that is gone takes nothing with it.
    """
    found = Run.objects.of(club).filter(run_id=run_id).first()
    if found is not None:
        return found
    session = core_session(told.document, "run")
    if told.board is not None and fitting(core_board(told.board), session) is None:
        raise FieldError(["body", "run", "board"], "This board is not one of this session: reload the class.", "board")
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
            "kind": Run.Kind.CLASS if told.board else Run.Kind.SESSION,
            "board": told.board.model_dump() if told.board else None,
            "person": Person.objects.perhaps(club, told.person_id),
            "coach": coach,
        },
    )
    return run


def find_run(club: Club, run_id: UUID) -> Run:
    return Run.objects.find(club, "run", run_id=run_id)


def plan_of(run: Run, place: int | None = None) -> Plan:
    """The plan of a run; of a class that of all, or as the person at a place has it."""
    session = from_document(run.document)
    board = board_of(run.board, session)
    plan = plan_for(session, run.people, "run", board=board)
    if board is None or place is None or place >= len(board.people):
        return plan
    return Plan(session, own=lived(plan.timeline, board, place))
