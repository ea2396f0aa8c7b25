"""The session document at the edge, and what an evaluation answers."""

from typing import TYPE_CHECKING, Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field, StrictInt

from yoisho.judgement.targets import TARGETS
from yoisho.session.document import MOST_PARTS
from yoisho.session.tempo import TEMPOS
from yoisho.session.tree import LONGEST_INTERVAL_S, MOST_REPEATS

if TYPE_CHECKING:
    TempoId = str
    TargetId = str
else:
    TempoId = Literal[tuple(TEMPOS)]
    TargetId = Literal[tuple(TARGETS)]


class _Document(BaseModel):
    model_config = ConfigDict(extra="forbid")


class IntervalNode(_Document):
    type: Literal["interval"]
    seconds: Annotated[StrictInt, Field(ge=1, le=LONGEST_INTERVAL_S)]
    tempo: TempoId


class SequenceNode(_Document):
    type: Literal["sequence"]
    items: Annotated[list["Node"], Field(min_length=2, max_length=500)]


class RepeatNode(_Document):
    type: Literal["repeat"]
    count: Annotated[StrictInt, Field(ge=1, le=MOST_REPEATS)]
    body: "Node"
    between: IntervalNode | None = None


Node = Annotated[IntervalNode | SequenceNode | RepeatNode, Field(discriminator="type")]


class Part(_Document):
    name: str = Field(max_length=80)
    tree: Node


class SessionDocument(_Document):
    format: Literal["yoisho-session"]
    version: Literal[1]
    title: str = Field(min_length=1, max_length=120)
    parts: list[Part] = Field(max_length=MOST_PARTS)


class ShorthandIn(BaseModel):
    text: str = Field(max_length=20_000)


class ShorthandOut(BaseModel):
    tree: Node
    text: str


class EvaluateIn(BaseModel):
    document: SessionDocument
    person_id: int | None = None
    target: TargetId
    wbgt_c: Annotated[float, Field(ge=-20, le=60)] | None = None
    """Wet-bulb globe temperature in the hall."""


class Round(BaseModel):
    turn: int
    of: int


class TimelineInterval(BaseModel):
    start_s: int
    seconds: int
    kind: Literal["work", "recover", "rest"]
    tempo: TempoId
    demand_frac: float
    rounds: list[Round]
    """For every repeat around it, outermost first."""
    part: int
    strikes: float


class PartSummary(BaseModel):
    text: str
    start_s: int
    total_s: int
    work_s: int
    rest_s: int
    strikes: float


class Figure(BaseModel):
    value: float
    low: float
    high: float


class Traces(BaseModel):
    seconds: list[float]
    sprint_left: list[float]
    lactic_left: list[float]
    uptake_frac: list[float]
    heart_rate_bpm: list[float] | None


class Reason(BaseModel):
    measure: str
    met: bool
    text: str
    intervals: list[int]
    source: str


class Verdict(BaseModel):
    target: TargetId
    score: float
    strokes: int
    grade: str
    sentence: str
    reasons: list[Reason]
    trains_best: TargetId


class FadeOnset(BaseModel):
    """The first effort that falls short by more than 5 %, counted from 1, with its 80 % range."""

    bout: int | None
    earliest: int | None
    latest: int | None
    probability: float


class Effort(BaseModel):
    start_s: int
    end_s: int
    sprint_at_start: Figure
    fade: Figure


class Caution(BaseModel):
    rule: str
    seal: str
    level: Literal["note", "caution", "stop"]
    text: str
    cure: str
    source: str
    at_s: float | None


class Reading(BaseModel):
    figures: dict[str, Figure]
    traces: Traces
    verdict: Verdict
    cautions: list[Caution]
    efforts: list[Effort]
    fade_onset: FadeOnset
    exhausted_at_s: float | None
    hr_rest_bpm: float
    hr_max_bpm: float


class Evaluation(BaseModel):
    timeline: list[TimelineInterval]
    parts: list[PartSummary]
    total_s: int
    work_s: int
    rest_s: int
    strikes: float
    reading: Reading | None
    """None while there is no work to judge."""


class ProposeIn(BaseModel):
    person_id: int | None = None
    target: TargetId
    minutes: Annotated[StrictInt, Field(ge=4, le=120)]


class ProposeOut(BaseModel):
    document: SessionDocument
    family: str
    why: str
    source: str


class SessionIn(BaseModel):
    document: SessionDocument
    person_id: int | None = None
    target: TargetId
    revision: int | None = None
    """The revision the edit began from; leave out for a new session."""


class SessionOut(BaseModel):
    id: int
    document: SessionDocument
    person_id: int | None
    target: TargetId
    revision: int
    saved_at: str


class SessionRow(BaseModel):
    id: int
    title: str
    person: str | None
    target: TargetId
    total_s: int
    text: list[str]
    saved_at: str


class TempoOut(BaseModel):
    id: TempoId
    word: str
    kind: Literal["work", "recover", "rest"]
    demand_frac: float
    strikes_per_min: float
    rpe: float
    meaning: str


class TargetOut(BaseModel):
    id: TargetId
    name: str
    meaning: str


class Vocabulary(BaseModel):
    tempos: list[TempoOut]
    targets: list[TargetOut]
    examples: list[str]
