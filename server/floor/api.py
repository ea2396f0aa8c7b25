"""What the Floor needs to run a session: the flat timeline, every sound and every call, worked out ahead."""

import re
from dataclasses import replace
from typing import Annotated, Literal
from uuid import UUID

from django.http import FileResponse, HttpRequest, StreamingHttpResponse
from ninja import Router, Schema, Status
from pydantic import Field, StrictInt

from server.accounts.current import club
from server.errors import Faults, Message, not_found
from server.floor import live
from server.floor.ahead import settings_of
from server.floor.models import LiveRun
from server.floor.speech import path_of, speak
from server.roster.api import core_of
from server.sessions.evaluation import interval_out
from server.sessions.kept_api import find_session
from server.sessions.schemas import TimelineInterval
from yoisho.engine.bouts import find_bouts, session_rpe
from yoisho.engine.person import Person
from yoisho.engine.readout import NoWorkError, read
from yoisho.floor.calls import KINDS, CallKind, call_schedule
from yoisho.floor.cues import COUNT_IN_S, cue_schedule
from yoisho.judgement.cautions import cautions
from yoisho.session.document import from_document
from yoisho.session.timeline import Timeline
from yoisho.session.volume import interval_volume

router = Router(tags=["floor"])
PHRASE = re.compile(r"[0-9a-f]{24}")


class Cue(Schema):
    at_s: float
    kind: Literal["bell", "change", "clack", "count", "end"]


class CallOut(Schema):
    at_s: float
    kind: CallKind
    text: str
    speech: str | None
    """The file that says it; None where the server has no voice."""


class CallSettings(Schema):
    muted: list[CallKind]
    combination_every_s: Annotated[StrictInt, Field(ge=5, le=600)] | None = None
    """The combination again and again while it is done; None for once, before."""


class Effort(Schema):
    start_s: int
    end_s: int


class RunPlan(Schema):
    session_id: int
    revision: int
    title: str
    person_id: int | None
    person: str | None
    part_names: list[str]
    count_in_s: int
    total_s: int
    work_s: int
    efforts: list[Effort]
    """Efforts done are counted against these."""
    expected_rpe: float
    timeline: list[TimelineInterval]
    cues: list[Cue]
    calls: list[CallOut]
    """Of every kind, also the muted ones."""
    call_settings: CallSettings
    cold: str | None
    """Said before the start where hard work or kicks come before the warm-up is done."""
    emergency_number: str
    """As the club has set it."""


def _cold(timeline: Timeline, who: Person) -> str | None:
    try:
        found = cautions(read(who, timeline, ranges=False))
    except NoWorkError:
        return None
    return next((f"{caution.text} {caution.cure}" for caution in found if caution.rule == "warm-up"), None)


def efforts_of(timeline: Timeline) -> list[tuple[int, int]]:
    """Start and end of every effort [s], as the plan and the log count them."""
    intervals = timeline.intervals
    return [(intervals[bout.first].start_s, intervals[bout.last].end_s) for bout in find_bouts(timeline)]


@router.get("/sessions/{session_id}/run", response={200: RunPlan, 404: Message}, operation_id="run_plan")
def run_plan(request: HttpRequest, session_id: int) -> RunPlan:
    saved = find_session(club(request), session_id)
    session = from_document(saved.document)
    timeline = session.unrolled()
    who = core_of(saved.person)
    chosen = settings_of(saved)
    spoken = call_schedule(timeline, replace(chosen, muted=frozenset()))
    return RunPlan(
        session_id=saved.pk,
        revision=saved.revision,
        title=session.title,
        person_id=saved.person_id,
        person=saved.person.name if saved.person else None,
        part_names=[part.name for part in session.parts],
        count_in_s=COUNT_IN_S,
        total_s=timeline.total_s,
        work_s=timeline.work_s,
        efforts=[Effort(start_s=start, end_s=end) for start, end in efforts_of(timeline)],
        expected_rpe=session_rpe(timeline),
        timeline=[interval_out(one, interval_volume(one, who.stance)) for one in timeline.intervals],
        cues=[Cue(at_s=cue.at_s, kind=cue.kind) for cue in cue_schedule(timeline)],
        calls=[CallOut(at_s=c.at_s, kind=c.kind, text=c.text, speech=speak(c.text)) for c in spoken],
        call_settings=CallSettings(
            muted=[kind for kind in KINDS if kind in chosen.muted], combination_every_s=chosen.combination_every_s
        ),
        cold=_cold(timeline, who),
        emergency_number=saved.club.emergency_number,
    )


@router.put(
    "/sessions/{session_id}/calls",
    response={200: CallSettings, 404: Message, 422: Faults},
    operation_id="save_calls",
)
def save_calls(request: HttpRequest, session_id: int, body: CallSettings) -> CallSettings:
    """What is called in this session. The plan of the run follows it."""
    saved = find_session(club(request), session_id)
    saved.calls = body.model_dump()
    saved.save(update_fields=["calls"])
    return body


class ClockState(Schema):
    """Where the clock of a run stands, in the time of the device that runs it."""

    anchor_s: float
    """Session time at the anchor."""
    anchor_ms: float | None
    """When that was; None while the clock is held."""
    sent_ms: float
    """When this was sent."""
    waits: bool = False
    """It stands for reps that are still to be done."""
    reps: dict[str, int] = Field(default_factory=dict)
    """Reps counted, by where their interval starts."""
    started: bool
    ended: bool


class LiveIn(Schema):
    session_id: int
    state: ClockState


class LiveRow(Schema):
    run_id: UUID
    session_id: int
    title: str


@router.post("/runs/{run_id}/live", response={204: None, 404: Message, 422: Faults}, operation_id="say_live")
def say_live(request: HttpRequest, run_id: UUID, body: LiveIn) -> Status[None]:
    """Where the clock stands, for the other screens of the club."""
    own = club(request)
    live.say(own, run_id, find_session(own, body.session_id), body.state.model_dump())
    return Status(204, None)


@router.get("/live", response=list[LiveRow], operation_id="live_runs")
def live_runs(request: HttpRequest) -> list[LiveRow]:
    """Runs of the club that are on the floor now."""
    return [
        LiveRow(run_id=run.run_id, session_id=run.session_id, title=str(run.session))
        for run in live.running(club(request))
    ]


@router.get("/live/{run_id}/events", response={200: None, 404: Message}, operation_id="follow_live")
def follow_live(request: HttpRequest, run_id: UUID) -> StreamingHttpResponse:
    """The clock of a run as it moves, as server-sent events."""
    own = club(request)
    if not LiveRun.objects.filter(club=own, run_id=run_id).exists():
        raise not_found("run on the floor")
    answer = StreamingHttpResponse(live.follow(own, run_id), content_type="text/event-stream")
    answer.headers["Cache-Control"] = "no-store"
    answer.headers["X-Accel-Buffering"] = "no"
    return answer


@router.get("/speech/{phrase}", response={200: None, 404: Message}, operation_id="speech")
def speech(request: HttpRequest, phrase: str) -> FileResponse:
    """A phrase as a sound file. What a phrase says never changes, so that it may be kept for ever."""
    if not PHRASE.fullmatch(phrase) or not path_of(phrase).exists():
        raise not_found("phrase")
    answer = FileResponse(path_of(phrase).open("rb"), content_type="audio/wav")
    answer.headers["Cache-Control"] = "private, max-age=31536000, immutable"
    return answer
