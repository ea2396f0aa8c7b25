"""What the Floor needs to run a session: the flat timeline, every sound and every call, worked out ahead."""

import re
from dataclasses import replace
from typing import Annotated
from uuid import UUID

from django.http import FileResponse, HttpRequest, StreamingHttpResponse
from ninja import Router, Status
from pydantic import Field

from server.accounts.current import club
from server.errors import Faults, FieldError, Message, not_found
from server.floor import live
from server.floor.ahead import settings_of
from server.floor.models import LiveRun
from server.floor.schemas import (
    CallOut,
    CallSettings,
    Cue,
    Effort,
    FloorInterval,
    LiveIn,
    LiveRow,
    OnFloor,
    Place,
    RunPlan,
    SimulatedOut,
    Warmth,
)
from server.floor.speech import path_of, speak
from server.roster.api import core_of, find_person
from server.sessions.evaluation import heart_targets, interval_out
from server.sessions.kept_api import find_session
from yoisho.engine.bouts import find_bouts, session_rpe
from yoisho.engine.person import Person
from yoisho.engine.readout import NoWorkError, read
from yoisho.floor.calls import KINDS, call_schedule
from yoisho.floor.cues import COUNT_IN_S, SOUNDS, cue_schedule
from yoisho.floor.pairs import MOST, as_work, lived_by, turns
from yoisho.floor.simulated import simulate
from yoisho.judgement.cautions import WARM_UP_S, cautions, first_needing_warmth
from yoisho.session.document import from_document
from yoisho.session.timeline import Timeline, TimelineInterval
from yoisho.session.volume import interval_volume
from yoisho.strikes.counts import Stance

router = Router(tags=["floor"])
PHRASE = re.compile(r"[0-9a-f]{24}")
People = Annotated[int, Field(ge=1, le=MOST)]


def floor_intervals(timeline: Timeline, stance: Stance) -> list[FloorInterval]:
    """A timeline as it is done on the floor: a partner's turn is work, of the partner."""

    def told(interval: TimelineInterval, turn: int | None) -> FloorInterval:
        worked = as_work(interval)
        own = interval_out(worked, interval_volume(worked, stance)).model_dump()
        return FloorInterval(**own | {"partner": interval.partner, "turn": turn})

    return list(map(told, timeline.intervals, turns(timeline)))


def _warmth(timeline: Timeline) -> Warmth | None:
    found = first_needing_warmth(timeline)
    return Warmth(from_s=found[0].start_s, needed_s=WARM_UP_S) if found else None


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
        timeline=floor_intervals(timeline, who.stance),
        cues=[Cue(at_s=cue.at_s, kind=cue.kind) for cue in cue_schedule(timeline)],
        calls=[CallOut(at_s=c.at_s, kind=c.kind, text=c.text, speech=speak(c.text)) for c in spoken],
        call_settings=CallSettings(
            muted=[kind for kind in (*KINDS, *SOUNDS) if kind in chosen.muted],
            combination_every_s=chosen.combination_every_s,
        ),
        cold=_cold(timeline, who),
        warmth=_warmth(timeline),
        emergency_number=saved.club.emergency_number,
    )


@router.get(
    "/sessions/{session_id}/on-floor", response={200: OnFloor, 404: Message, 422: Faults}, operation_id="on_floor"
)
def on_floor(
    request: HttpRequest, session_id: int, of: People, place: Place = 0, person_id: int | None = None
) -> OnFloor:
    """The session as one of the people on the floor has it: at a place, from 0, `of` so many."""
    own = club(request)
    saved = find_session(own, session_id)
    if place >= of:
        raise FieldError(["query", "place"], f"Places are counted from 0: of {of} the last is {of - 1}.", "on_floor")
    who = core_of(find_person(own, person_id))
    timeline = lived_by(from_document(saved.document).unrolled(), place, of)
    told = simulate(who, timeline, seed=saved.pk * MOST + place)
    return OnFloor(
        heart_holds=who.heart_holds,
        work_s=timeline.work_s,
        rest_s=timeline.rest_s,
        targets=heart_targets(who, timeline, saved.target) if timeline.work_s else [],
        simulated=SimulatedOut(heart=list(told.heart), strikes=list(told.strikes)),
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
