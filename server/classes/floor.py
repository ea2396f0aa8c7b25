"""A class on the floor: who may not do it, what changes while it runs, its log, and its sheet for the wall."""

from dataclasses import dataclass
from datetime import timedelta
from typing import Annotated, Literal
from uuid import UUID

from django.db import transaction
from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Query, Router

from server.accounts.current import club_of, coach
from server.accounts.models import Club
from server.bench.circumstances import circumstances_for
from server.bench.gate import Stopped, told_stops
from server.classes.asked import core_class
from server.classes.keep import find_class, kept_made, with_ids
from server.classes.schemas import BoardChangeIn, ClassAskedIn, ClassLogged, ClassLogIn, ToldRow
from server.errors import Faults, FieldError, Message
from server.files import named
from server.logbook.api import keep
from server.logbook.models import LogEntry
from server.logbook.schemas import LogIn
from server.roster.api import core_of
from server.roster.models import Person
from server.runs.kept import begin, board_of, core_board, fitting, whom_of
from server.runs.models import Result, Run
from server.runs.schemas import BoardIn, RecordIn
from server.sessions.api import find_session
from yoisho.answers.gate import stops_before
from yoisho.answers.log import logged
from yoisho.classes.board import Board, lived, present_s
from yoisho.plain import sentence
from yoisho.rotation.group import ClassError
from yoisho.runs.plan import Plan, efforts_of
from yoisho.runs.record import Record, Stretch, covered_s, mostly
from yoisho.session.document import Session, from_document
from yoisho.session.timeline import Timeline

router = Router(tags=["class"])


def _people_of(club: Club, kept: list[int | None]) -> dict[int, Person]:
    ids = [pk for pk in kept if pk is not None]
    return {who.pk: who for who in Person.objects.of(club).filter(pk__in=ids)}


@router.get("/sessions/{session_id}/class-gate", response={200: list[Stopped], 404: Message}, operation_id="class_gate")
def class_gate(request: HttpRequest, session_id: int) -> list[Stopped]:
    """Of a class, the stops that stand against what each of them is to do in it; nobody who may do it is told."""
    user = coach(request)
    saved = find_session(user.own_club, session_id)
    session = from_document(saved.document)
    board = board_of(saved.board, session)
    if board is None:
        return []
    timeline = session.unrolled()
    ids = whom_of(saved.board or {"people": []})
    people = _people_of(user.own_club, ids)
    around = circumstances_for(user.own_club, list(people.values()), None)
    found = []
    for place, pk in enumerate(ids):
        who = people.get(pk or 0)
        if who is None or present_s(timeline, board, place) == (0, 0):
            continue
        stops = stops_before(who.to_core(), lived(timeline, board, place), saved.target, around[who.pk])
        if stops:
            found.append(told_stops(user, who, stops))
    return found


@router.post("/boards/change", response={200: BoardIn, 404: Message, 422: Faults}, operation_id="change_board")
def change_board(request: HttpRequest, body: BoardChangeIn) -> BoardIn:
    """The board after somebody came late, left, or two changed places: what is done stays. Nothing is saved."""
    from yoisho.classes.changes import swapped, with_late, without

    club = coach(request).own_club
    board, people = core_board(body.board), [each.person_id for each in body.board.people]
    told = (body.late is not None) + (body.leaves is not None) + (body.swap is not None)
    if told != 1:
        raise FieldError(["body"], "Say one change: who is late, who leaves, or which two swap.", "board")
    places = [*(body.swap or []), *([] if body.leaves is None else [body.leaves])]
    if any(place >= len(board.people) for place in places) or body.wave > len(board.people[0].row):
        raise FieldError(["body"], "Nobody is at that place, or there is no such wave. Reload the class.", "board")
    try:
        if body.late is not None:
            easy, holds = _of_late(club, body.late.person_id)
            board = with_late(board, body.late.name, body.wave, easy=easy, holds=holds)
            people = [*people, body.late.person_id]
        elif body.leaves is not None:
            board = without(board, body.leaves, body.wave)
        elif body.swap is not None:
            board = swapped(board, body.swap[0], body.swap[1], body.wave)
    except ClassError as error:
        raise FieldError(["body", error.field or "late"], sentence(error), "class") from error
    return BoardIn(**with_ids(board, people))


def _of_late(club: Club, person_id: int | None) -> tuple[bool, bool]:
    """Whether somebody late must go easy, and whether they hold; of who is not known, no and yes."""
    if person_id is None:
        return False, True
    asked = core_class(
        club,
        ClassAskedIn(people=[{"uid": "late", "person_id": person_id, "name": "late"}]),  # type: ignore[list-item]
    )
    return asked.people[0].easy, "hold" not in asked.people[0].barred


@router.put(
    "/runs/{run_id}/class-log", response={200: ClassLogged, 404: Message, 422: Faults}, operation_id="log_class"
)
def log_class(request: HttpRequest, run_id: UUID, body: ClassLogIn) -> ClassLogged:
    """The log of a whole class: an entry for each who has said how hard it was. Sent again it takes the place of what
    was sent before, so that a retry never makes two."""
    user = coach(request)
    if body.started_at > timezone.now() + timedelta(minutes=10):
        raise FieldError(["body", "started_at"], "The start lies in the future. Check this device's clock.", "log")
    with transaction.atomic():
        run = begin(user.own_club, user, run_id, body.run)
        board = core_board(body.board)
        if fitting(board, from_document(run.document)) is None:
            raise FieldError(["body", "board"], "This board is not one of this run.", "board")
        run.board, run.kind = body.board.model_dump(), Run.Kind.CLASS
        run.save(update_fields=["board", "kind"])
        people = _people_of(user.own_club, whom_of(run.board))
        session = from_document(run.document)
        lives = _Lives(session, session.unrolled(), board)
        entries = [entry for row in body.people if (entry := _log_one(run, lives, row, body, people)) is not None]
    return ClassLogged(
        run_id=run_id, entries=[entry.pk for entry in entries],
        load=sum(entry.rpe * entry.done_s / 60 for entry in entries),
        strikes=sum(entry.volume.strikes for entry in entries),
    )  # fmt: skip


@dataclass(frozen=True)
class _Lives:
    """A class as it was run, and as each of the people had it."""

    session: Session
    whole: Timeline
    board: Board

    def of(self, place: int) -> Plan:
        return Plan(self.session, own=lived(self.whole, self.board, place))


def _log_one(run: Run, lives: _Lives, row: ToldRow, body: ClassLogIn, people: dict[int, Person]) -> LogEntry | None:
    """The entry of one of them; what stood before goes where they were away, or have said nothing."""
    board = lives.board
    if row.place >= len(board.people):
        where: list[str | int] = ["body", "people", row.place, "place"]
        raise FieldError(where, f"This class has {len(board.people)} people; nobody is at {row.place}.", "log")
    start_s, end_s = present_s(lives.whole, board, row.place)
    if row.absent or row.rpe is None or end_s <= start_s:
        Result.objects.filter(run=run, place=row.place).delete()
        return None
    plan = lives.of(row.place)
    record = Record(
        tuple(Stretch(one.from_s, one.to_s) for one in body.played), counted=tuple(body.counted)
    )  # fmt: skip
    here = tuple(one for one in record.played if one.overlap_s(start_s, end_s) > 0)
    done_s = round(covered_s(here, start_s, end_s))
    done = sum(mostly(record, *effort) for effort in efforts_of(plan.timeline))
    who = people.get(board_person(run, row.place) or 0)
    name = board.people[row.place].name
    notes = [body.note, row.note, "" if who else f"{name}, who is not in the roster"]
    told = LogIn(
        run=body.run, person_id=who.pk if who else None, started_at=body.started_at, done_s=done_s,
        done_efforts=done, rpe=row.rpe, note="\n".join(note for note in notes if note),
        record=RecordIn(played=body.played, stood=body.stood, counted=body.counted),
    )  # fmt: skip
    found = logged(core_of(who), plan, record, done_s)
    entry = keep(run, who, told, found, row.place)
    # They are there from when to when: the rest of the clock is nobody's plan of theirs.
    entry.planned_s = end_s - start_s
    entry.save(update_fields=["planned_s"])
    return entry


def board_person(run: Run, place: int) -> int | None:
    ids = whom_of(run.board or {"people": []})
    return ids[place] if place < len(ids) else None


@router.get("/classes/{class_id}/wall", response={200: None, 404: Message, 422: Faults}, operation_id="class_sheet")
def class_sheet(
    request: HttpRequest, class_id: int, paper: Annotated[Literal["a4", "letter"], Query()] = "a4"
) -> HttpResponse:
    """Who is where, for the wall: one page, in black, the names as large as they can be."""
    from server.classes.sheet import class_pdf

    plan = find_class(club_of(request), class_id)
    made = kept_made(core_class(plan.club, ClassAskedIn(**plan.asked)), plan.rows)
    if made is None:
        raise FieldError(["path", "class_id"], "Who is where is not of this class any more. Solve it again.", "class")
    pdf = class_pdf(made, plan.title, paper, plan.club.name, plan.club.school)
    return named(HttpResponse(pdf, content_type="application/pdf"), plan.title, "-wall.pdf", "class", shown=True)
