"""The session document at the edge, and what an evaluation answers."""

from typing import TYPE_CHECKING, Annotated, Literal, TypeAlias

from pydantic import BaseModel, Field, StrictInt

from server.sessions.document_schema import Part, SessionDocument, TempoId
from yoisho.engine.person import Level as CoachedLevel
from yoisho.judgement.targets import TARGETS
from yoisho.session.means import MEANS
from yoisho.session.rules import RULE_SETS
from yoisho.strikes.counts import Limb
from yoisho.strikes.techniques import Level

if TYPE_CHECKING:
    TargetId: TypeAlias = str
    StruckId: TypeAlias = str
    MeansId: TypeAlias = str
    RulesId: TypeAlias = str
else:
    MeansId = Literal[tuple(MEANS)]
    RulesId = Literal[tuple(RULE_SETS)]
    TargetId = Literal[tuple(TARGETS)]
    StruckId = Literal[tuple(means.id for means in MEANS.values() if means.strikes)]


class ShorthandIn(BaseModel):
    text: str = Field(max_length=20_000)


class Span(BaseModel):
    """A stretch of the line, and what it is."""

    start: int
    end: int
    kind: Literal["effort", "pause", "means", "strikes", "dose", "frame", "word"]


class ShorthandOut(BaseModel):
    parts: list[Part]
    """One, unless the lines name several."""
    named: bool
    """Whether the lines name their parts."""
    text: str
    meaning: list[str]
    """What it means in plain words, a line for each part."""
    spans: list[Span]


class CompleteIn(BaseModel):
    text: str = Field(max_length=20_000)
    """Up to the caret."""


class Option(BaseModel):
    text: str
    meaning: str


class CompleteOut(BaseModel):
    start: int
    """Where what is typed begins, that an option takes the place of."""
    options: list[Option]


class VolumeOut(BaseModel):
    """Strikes by limb and level, after the fade. Those no combination places are shared evenly over two hands."""

    limbs: dict[Limb, float]
    levels: dict[Level, float]
    strikes: float
    left_share: float | None
    """Of the left side, hands and legs, 0 to 1; None where nothing is struck."""
    counted: float
    open: float
    defences: float
    steps: float


class EvaluateIn(BaseModel):
    document: SessionDocument
    person_id: int | None = None
    target: TargetId
    wbgt_c: Annotated[float, Field(ge=-20, le=60)] | None = None
    """Wet-bulb globe temperature in the hall."""
    ranges: bool = True
    """Without them it is answered sooner: every figure is the best guess alone, and there are no bands."""


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
    """Expected; in an evaluation after the fade."""
    limbs: dict[Limb, float]
    means: str | None
    reps: int | None
    """Counted, not timed: the seconds are an estimate."""
    calls: list[str]
    """The combination of this repetition, spelled out as it is called."""
    partner: bool
    """A rest while the partner does the same."""
    pulse_per_min: float
    """Beats a minute to strike to; 0 for none."""


class LevelText(BaseModel):
    """One level of a part's tree: the way down to it, and its line."""

    path: list[int | str]
    text: str


class PartSummary(BaseModel):
    text: str
    levels: list[LevelText]
    """Every level inside, in the order it is read; the whole is not among them."""
    start_s: int
    total_s: int
    work_s: int
    rest_s: int
    volume: VolumeOut


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


class Band(BaseModel):
    low: list[float]
    high: list[float]


class Bands(BaseModel):
    """80 % ranges of the traces, at seconds of their own."""

    seconds: list[float]
    sprint_left: Band
    lactic_left: Band
    uptake_frac: Band
    heart_rate_bpm: Band | None


class HeartTarget(BaseModel):
    """Where the heart rate belongs, from when to when [s, bpm]."""

    start_s: int
    end_s: int
    low_bpm: float
    high_bpm: float


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
    bands: Bands | None
    """None where no ranges were asked for."""
    heart_targets: list[HeartTarget]
    verdict: Verdict
    cautions: list[Caution]
    week: dict[Limb, float]
    """Strikes by limb in the last seven days, this session not among them."""
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
    volume: VolumeOut
    reading: Reading | None
    """None while there is no work to judge."""


class Block(BaseModel):
    """An interval of a small score."""

    seconds: int
    demand_frac: float


class ProposeIn(BaseModel):
    person_id: int | None = None
    target: TargetId
    minutes: Annotated[StrictInt, Field(ge=4, le=120)]
    means: StruckId = "bag"
    """What strikes land on."""
    kicks: bool = True
    most_strikes: Annotated[StrictInt, Field(ge=1, le=20_000)] | None = None
    missing: list[MeansId] = []
    """Kit that is not at hand."""
    avoid: list[TempoId] = []
    level: CoachedLevel | None = None
    """Whose ceilings hold; the person's own where it is left out."""
    rule_set: RulesId | None = None


class Drawn(BaseModel):
    """A session worked out for somebody, as it stands in a column."""

    document: SessionDocument
    text: str
    """The main set, as the club writes it."""
    strokes: int
    grade: str
    sentence: str
    figures: dict[str, Figure]
    total_s: int
    work_s: int
    blocks: list[Block]
    traces: Traces


class ProposalOut(Drawn):
    name: str
    school: str
    why: str
    source: str
    tradeoff: str
    """What it costs and gains beside the others."""


class ScaleIn(BaseModel):
    document: SessionDocument
    person_id: int | None = None
    """Whom the session is for now."""
    target: TargetId
    to: Annotated[list[int], Field(max_length=200)] = []
    """Whom it is scaled for; of more than two the weakest, the middle and the strongest."""
    rule_set: RulesId | None = None
    """Or the rules it is converted to, for the same person."""


class EffectOut(BaseModel):
    """One figure of the effect, before and after."""

    name: str
    before: str
    after: str
    kept: bool


class ScaledOut(Drawn):
    name: str
    """Of the person, or of the rules."""
    role: Literal["", "weakest", "middle", "strongest"]
    person_id: int | None
    steps: list[str]
    """The changes made; none where it fits as it is."""
    effect: list[EffectOut]
    cautions: list[Caution]
    """For this person; none may be scaled past."""
    same: bool
    """Whether the effect is kept."""


class ProposeOut(BaseModel):
    proposals: list[ProposalOut]
    """The best first, each of another family."""


class ClaimIn(BaseModel):
    document: SessionDocument
    person_id: int | None = None
    kcal: Annotated[float, Field(ge=1, le=20_000)] | None = None
    """At least so many."""
    tabata: bool = False
    trains: TargetId | None = None


class ClaimOut(BaseModel):
    claim: str
    probability: float | None
    """None where the answer follows from the clock and the effort, or from the verdict."""
    answer: str
    text: str
    source: str


class NudgeIn(BaseModel):
    document: SessionDocument
    person_id: int | None = None
    target: TargetId
    wbgt_c: Annotated[float, Field(ge=-10, le=60)] | None = None
    minutes: Annotated[StrictInt, Field(ge=4, le=240)] | None = None
    """No nudge makes it longer than this."""


class ChangeOut(BaseModel):
    name: str
    before: str
    after: str


class NudgeOut(BaseModel):
    name: str
    part: int
    document: SessionDocument
    strokes: int
    changes: list[ChangeOut]
    """Of the measures of the purpose, best guess."""
    cures: list[str]
    """Rules of cautions that then fall silent."""


class SeriesOut(BaseModel):
    steps: list[str]
    document: SessionDocument
    strokes: int
    reached: bool


Tag = Annotated[str, Field(min_length=1, max_length=30)]


class SessionState(BaseModel):
    document: SessionDocument
    person_id: int | None = None
    target: TargetId
    tags: Annotated[list[Tag], Field(max_length=12)] = []


class SessionIn(SessionState):
    revision: int | None = None
    """The revision the edit began from; leave out for a new session."""
    by_itself: bool = False
    """Saved by the app while the coach works, not by a key."""


class SessionOut(SessionState):
    id: int
    revision: int
    saved_at: str


class SavedVersion(SessionState):
    """One state in the history of a session."""

    revision: int
    saved_at: str
    saved_by: str | None
    by_itself: bool
    total_s: int
    text: list[str]


class MergeIn(BaseModel):
    base: SessionState
    """What both edits began from."""
    mine: SessionState
    theirs: SessionState


class MergeOut(SessionState):
    notes: list[str]
    """What both had changed, and what was done about it."""


class SessionRow(BaseModel):
    id: int
    title: str
    person: str | None
    target: TargetId
    tags: list[str]
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


class Named(BaseModel):
    id: str
    name: str


class MeansOut(Named):
    struck: bool
    """Whether strikes land on it."""


class RulesOut(Named):
    text: str
    """Rounds and rests."""


class PainPlace(BaseModel):
    id: str
    word: str
    sides: bool
    said: str
    """What is said to it; never a diagnosis."""


class Vocabulary(BaseModel):
    tempos: list[TempoOut]
    targets: list[TargetOut]
    purposes: list[Named]
    """What a part can be for."""
    means: list[MeansOut]
    schools: list[Named]
    """Of numbers beyond six."""
    rules: list[RulesOut]
    kit: list[Named]
    """What some proposals need, and a club may not have."""
    pain: list[PainPlace]
    """Where something can hurt."""
    examples: list[str]
