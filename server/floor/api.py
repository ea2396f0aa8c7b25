"""What the Floor needs to run a session: the flat timeline and every sound, worked out ahead."""

from typing import Literal

from django.http import HttpRequest
from ninja import Router, Schema

from server.accounts.current import club
from server.errors import Message
from server.roster.api import core_of
from server.sessions.evaluation import interval_out
from server.sessions.kept_api import find_session
from server.sessions.schemas import TimelineInterval
from yoisho.engine.bouts import find_bouts, session_rpe
from yoisho.floor.cues import COUNT_IN_S, cue_schedule
from yoisho.session.document import from_document
from yoisho.session.timeline import Timeline, unroll
from yoisho.session.volume import interval_volume

router = Router(tags=["floor"])


class Cue(Schema):
    at_s: float
    kind: Literal["bell", "change", "clack", "count", "end"]


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


def efforts_of(timeline: Timeline) -> list[tuple[int, int]]:
    """Start and end of every effort [s], as the plan and the log count them."""
    intervals = timeline.intervals
    return [(intervals[bout.first].start_s, intervals[bout.last].end_s) for bout in find_bouts(timeline)]


@router.get("/sessions/{session_id}/run", response={200: RunPlan, 404: Message}, operation_id="run_plan")
def run_plan(request: HttpRequest, session_id: int) -> RunPlan:
    saved = find_session(club(request), session_id)
    session = from_document(saved.document)
    timeline = unroll(*(part.tree for part in session.parts)) if session.parts else Timeline(())
    stance = core_of(saved.person).stance
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
        timeline=[interval_out(one, interval_volume(one, stance)) for one in timeline.intervals],
        cues=[Cue(at_s=cue.at_s, kind=cue.kind) for cue in cue_schedule(timeline)],
    )
