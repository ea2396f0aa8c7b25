"""What the Floor is told and what it tells, in the API's shape."""

from typing import Annotated, Literal
from uuid import UUID

from ninja import Schema
from pydantic import Field, StrictInt

from server.sessions.schemas import HeartTarget, TimelineInterval
from yoisho.floor.calls import KINDS as CALLS
from yoisho.floor.calls import CallKind
from yoisho.floor.cues import SOUNDS, CueKind
from yoisho.floor.pairs import MOST


class Cue(Schema):
    at_s: float
    kind: CueKind


class CallOut(Schema):
    at_s: float
    kind: CallKind
    text: str
    speech: str | None
    """The file that says it; None where the server has no voice."""


class CallSettings(Schema):
    muted: list[Literal[(*CALLS, *SOUNDS)]]  # type: ignore[valid-type]
    """Kinds of calls that are not said, and kinds of sounds that are not played."""
    combination_every_s: Annotated[StrictInt, Field(ge=5, le=600)] | None = None
    """The combination again and again while it is done; None for once, before."""


class Effort(Schema):
    start_s: int
    end_s: int


class FloorInterval(TimelineInterval):
    """As it is done on the floor: a partner's turn is work, of the partner."""

    turn: int | None
    """In pairs, whose turn it is: counted from 0 over the session; None where all work or all rest."""


class Warmth(Schema):
    """Hard work and kicks want so much easy work before them."""

    from_s: int
    """Where the first of them starts."""
    needed_s: int


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
    timeline: list[FloorInterval]
    cues: list[Cue]
    calls: list[CallOut]
    """Of every kind, also the muted ones."""
    call_settings: CallSettings
    cold: str | None
    """Said before the start where hard work or kicks come before the warm-up is done."""
    warmth: Warmth | None
    """None where there is neither hard work nor a kick."""
    emergency_number: str
    """As the club has set it."""


class SimulatedOut(Schema):
    """What a simulated strap and strike sensor tell; never a measurement."""

    heart: list[int | None]
    """For every second of the session [bpm]; None where the strap has no signal."""
    strikes: list[float]
    """When a strike is noticed [s]."""


class OnFloor(Schema):
    """One of the people on the floor: what this session is for them."""

    heart_holds: bool
    """False where medication lowers the heart rate, so that it says nothing of the effort."""
    work_s: int
    rest_s: int
    targets: list[HeartTarget]
    """Where their heart rate belongs; none where it says nothing."""
    simulated: SimulatedOut


Place = Annotated[int, Field(ge=0, lt=MOST)]


class Shown(Schema):
    """One of the people on the floor, as another screen shows them."""

    letter: str = Field(max_length=1)
    name: str = Field(max_length=120)
    place: Place
    bpm: Annotated[int, Field(ge=0, le=300)] | None = None
    word: Literal["under", "in band", "over", "easy", "lost", ""] = ""
    strikes: Annotated[int, Field(ge=0, le=20_000)] | None = None
    """Noticed so far; None where no sensor is worn."""
    low_bpm: float | None = None
    high_bpm: float | None = None


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
    pulse: Annotated[float, Field(ge=0, le=2)] = 0
    """The pulse to strike to: 0 off, else half, single or double time."""
    shift: int = Field(0, ge=0)
    """How often partners were swapped by hand."""
    people: Annotated[list[Shown], Field(max_length=MOST)] = Field(default_factory=list)


class LiveIn(Schema):
    session_id: int
    state: ClockState


class LiveRow(Schema):
    run_id: UUID
    session_id: int
    title: str
