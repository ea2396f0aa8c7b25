"""Running a session: the plan that the floor follows, the run itself, its journal, where its clock stands."""

import re
from typing import Annotated
from uuid import UUID

from django.http import FileResponse, HttpRequest, StreamingHttpResponse
from ninja import Router, Status
from ninja.pagination import paginate
from pydantic import Field

from server.accounts.current import club_of, coach
from server.accounts.models import User
from server.accounts.once import once
from server.errors import Faults, FieldError, Message, not_found
from server.pages import Listed, Pages
from server.roster.api import core_of, find_person
from server.runs import live
from server.runs.kept import begin, board_of, core_board, find_run, fitting, plan_for, plan_of
from server.runs.models import Journal, Letter, LiveState, Run
from server.runs.schemas import (
    BoardIn,
    CallSettings,
    Event,
    JournalIn,
    JournalOut,
    LetterIn,
    LetterOut,
    LiveIn,
    LiveRow,
    Place,
    ReviewIn,
    RunIn,
    RunOut,
    RunPlan,
)
from server.runs.speech import is_kept, opened
from server.runs.told import board_out, plan_out
from server.sessions.api import find_session
from server.sessions.documents import core_session
from server.streams import events
from yoisho.answers.floor import OnFloor, on_floor
from yoisho.answers.log import reviewed
from yoisho.runs.pairs import MOST
from yoisho.runs.review import Done
from yoisho.session.document import from_document

router = Router(tags=["runs"])
PHRASE = re.compile(r"[0-9a-f]{24}")
People = Annotated[int, Field(ge=1, le=MOST)]


@router.get("/sessions/{session_id}/run", response={200: RunPlan, 404: Message, 422: Faults}, operation_id="run_plan")
def run_plan(request: HttpRequest, session_id: int, people: People = 1) -> RunPlan:
    """The plan of a run that is to begin: the session as it stands now, with so many people on the floor."""
    saved = find_session(club_of(request), session_id)
    session = from_document(saved.document)
    board = board_of(saved.board, session)
    plan = plan_for(session, people, "query", "people", board=board)
    return plan_out(plan, saved.club, saved, saved.revision, saved.person, board_out(saved.board, plan, 0))


@router.get("/runs/{run_id}/plan", response={200: RunPlan, 404: Message}, operation_id="plan_of_run")
def plan_of_run(request: HttpRequest, run_id: UUID) -> RunPlan:
    """The plan of a run as it stood when it began, whatever became of the session."""
    run = find_run(club_of(request), run_id)
    return _plan_of(run)


def _plan_of(run: Run) -> RunPlan:
    plan = plan_of(run)
    board = board_out(run.board, plan, run.board_revision)
    return plan_out(plan, run.club, run.session, run.revision, run.person, board)


@router.put("/runs/{run_id}/board", response={200: RunPlan, 404: Message, 422: Faults}, operation_id="save_board")
def save_board(request: HttpRequest, run_id: UUID, body: BoardIn) -> RunPlan:
    """Who is where now in a class that runs: what other screens show from here on, and its calls anew."""
    run = find_run(coach(request).own_club, run_id)
    if fitting(core_board(body), from_document(run.document)) is None:
        raise FieldError(["body"], "This board is not one of this run.", "board")
    run.board, run.board_revision = body.model_dump(), run.board_revision + 1
    run.save(update_fields=["board", "board_revision"])
    return _plan_of(run)


@router.get(
    "/sessions/{session_id}/on-floor", response={200: OnFloor, 404: Message, 422: Faults}, operation_id="on_floor"
)
def someone_on_floor(
    request: HttpRequest, session_id: int, of: People, place: Place = 0, person_id: int | None = None
) -> OnFloor:
    """The session as one of the people on the floor has it: at a place, from 0, `of` so many."""
    saved = find_session(club_of(request), session_id)
    if place >= of:
        raise FieldError(["query", "place"], f"Places are counted from 0: of {of} the last is {of - 1}.", "on_floor")
    person = core_of(find_person(saved.club, person_id))
    plan = plan_for(from_document(saved.document), of, "query", "of")
    return on_floor(plan, person, saved.target, place, of, seed=saved.pk * MOST + place)


@router.put(
    "/sessions/{session_id}/calls",
    response={200: CallSettings, 404: Message, 422: Faults},
    operation_id="save_calls",
)
def save_calls(request: HttpRequest, session_id: int, body: CallSettings) -> CallSettings:
    """What is called in this session. The plan of the run follows it."""
    saved = find_session(club_of(request), session_id)
    saved.calls = body.model_dump()
    saved.save(update_fields=["calls"])
    return body


def _run_out(run: Run) -> RunOut:
    return RunOut(run_id=run.run_id, session_id=run.session_id, revision=run.revision, title=run.title)


@router.put("/runs/{run_id}", response={200: RunOut, 422: Faults}, operation_id="begin_run")
def begin_run(request: HttpRequest, run_id: UUID, body: RunIn) -> RunOut:
    """A run begins, with its plan as it stands. Told again it is the same run, with the plan that was told first."""
    user = coach(request)
    return _run_out(begin(user.own_club, user, run_id, body))


@router.post("/review", response={200: Done, 404: Message, 422: Faults}, operation_id="review_run")
def review_run(request: HttpRequest, body: ReviewIn) -> Done:
    """What one of the people on the floor did of a run, round by round. Nothing is kept."""
    person = core_of(find_person(club_of(request), body.person_id))
    plan = plan_for(core_session(body.run.document, "run"), body.run.people, "body", "run", "people")
    return reviewed(person, plan, body.record.to_core())


@router.put("/runs/{run_id}/journal", response={200: JournalOut, 422: Faults}, operation_id="save_journal")
def save_journal(request: HttpRequest, run_id: UUID, body: JournalIn) -> JournalOut:
    """What happened in a run, whole. Sent again, or longer, it takes the place of what was sent before."""
    user = coach(request)
    run = begin(user.own_club, user, run_id, body.run)
    return _journal_out(Journal.take(run, body.model_dump(mode="json")["events"]))


def _journal_out(journal: Journal) -> JournalOut:
    run = journal.run
    events = [Event(**event) for event in journal.events]
    return JournalOut(run_id=run.run_id, session_id=run.session_id, events=events)


@router.get("/runs/{run_id}/journal", response={200: JournalOut, 404: Message}, operation_id="journal")
def journal(request: HttpRequest, run_id: UUID) -> JournalOut:
    found = Journal.objects.filter(run__club=club_of(request), run__run_id=run_id).select_related("run").first()
    if found is None:
        raise not_found("journal")
    return _journal_out(found)


@router.post("/runs/{run_id}/live", response={204: None, 404: Message, 422: Faults}, operation_id="say_live")
def say_live(request: HttpRequest, run_id: UUID, body: LiveIn) -> Status[None]:
    """Where the clock of a run stands that has begun, for the other screens of the club."""
    live.say(find_run(club_of(request), run_id), body.state.model_dump())
    return Status(204, None)


@router.get("/live", response=list[LiveRow], operation_id="live_runs")
def live_runs(request: HttpRequest) -> list[LiveRow]:
    """Runs of the club that are on the floor now."""
    return [LiveRow(run_id=each.run.run_id, title=each.run.title) for each in live.running(club_of(request))]


@router.get("/live/{run_id}/events", response={200: None, 404: Message}, operation_id="follow_live")
def follow_live(request: HttpRequest, run_id: UUID) -> StreamingHttpResponse:
    """The clock of a run as it moves, as server-sent events."""
    club = club_of(request)
    if not LiveState.objects.filter(run__club=club, run__run_id=run_id).exists():
        raise not_found("run on the floor")
    return events(live.follow(request, run_id))


@router.get("/speech/{phrase}", response={200: None, 404: Message}, operation_id="speech")
def speech(request: HttpRequest, phrase: str) -> FileResponse:
    """A phrase as a sound file. What a phrase says never changes, so that it may be kept for ever."""
    if not PHRASE.fullmatch(phrase) or not is_kept(phrase):
        raise not_found("phrase")
    answer = FileResponse(opened(phrase), content_type="audio/wav")
    answer.headers["Cache-Control"] = "private, max-age=31536000, immutable"
    return answer


def _letter_out(letter: Letter) -> LetterOut:
    return LetterOut(
        id=letter.pk,
        sender=letter.sender.get_full_name() or letter.sender.username,
        title=letter.title,
        path=letter.path,
        body=letter.body,
        reason=letter.reason,
        sent_at=letter.sent_at,
    )


@router.get("/letters", response=list[LetterOut], operation_id="letters")
@paginate(Pages)
def letters(request: HttpRequest) -> Listed:
    """What other coaches of the club have sent to this one, because it was refused where they were."""
    return Listed(coach(request).letters.select_related("sender"), _letter_out)


@router.post("/letters", response={201: LetterOut, 404: Message, 422: Faults}, operation_id="send_letter")
@once
def send_letter(request: HttpRequest, body: LetterIn) -> Status[LetterOut]:
    """Something that was refused, to another coach of the club, who sees to it."""
    user = coach(request)
    to = User.objects.filter(club=user.own_club, pk=body.to).first()
    if to is None:
        raise not_found("coach")
    told = body.model_dump(exclude={"to"})
    letter, _ = Letter.objects.get_or_create(club=user.own_club, sender=user, to=to, **told)
    return Status(201, _letter_out(letter))


@router.delete("/letters/{letter_id}", response={204: None, 404: Message}, operation_id="take_letter")
def take_letter(request: HttpRequest, letter_id: int) -> Status[None]:
    """The letter is in the hands of whom it was sent to."""
    gone, _ = coach(request).letters.filter(pk=letter_id).delete()
    if not gone:
        raise not_found("letter")
    return Status(204, None)
