"""What the Bench asks and is answered, beside what the core answers by itself."""

from dataclasses import dataclass
from typing import Annotated, Literal

from pydantic import BaseModel, Field, StrictInt

from server.sessions.documents import DocumentIn, DocumentOut, PartOut
from server.vocabulary.ids import ModalityId, RulesId, StruckId
from yoisho.answers.columns import ProposalColumn, ScaledColumn
from yoisho.engine.person import Level
from yoisho.judgement.targets import TargetId
from yoisho.strikes.tempo import TempoId


class ShorthandIn(BaseModel):
    text: str = Field(max_length=20_000)


class Span(BaseModel):
    """A stretch of the line, and what it is."""

    start: int
    end: int
    kind: Literal["effort", "pause", "modality", "strikes", "dose", "frame", "word"]


class ShorthandOut(BaseModel):
    parts: list[PartOut]
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


class EvaluateIn(BaseModel):
    document: DocumentIn
    person_id: int | None = None
    target: TargetId
    wbgt_c: Annotated[float, Field(ge=-20, le=60)] | None = None
    """Wet-bulb globe temperature in the hall."""
    ranges: bool = True
    """Without them it is answered sooner: every figure is the best guess alone, and there are no bands."""


class ProposeIn(BaseModel):
    person_id: int | None = None
    target: TargetId
    minutes: Annotated[StrictInt, Field(ge=4, le=120)]
    modality: StruckId = "bag"
    """What strikes land on."""
    kicks: bool = True
    most_strikes: Annotated[StrictInt, Field(ge=1, le=20_000)] | None = None
    missing: list[ModalityId] = []
    """Kit that is not at hand."""
    avoid: list[TempoId] = []
    level: Level | None = None
    """Whose ceilings hold; the person's own where it is left out."""
    rule_set: RulesId | None = None
    wbgt_c: Annotated[float, Field(ge=-10, le=60)] | None = None


class ScaleIn(BaseModel):
    document: DocumentIn
    person_id: int | None = None
    """Whom the session is for now."""
    target: TargetId
    to: Annotated[list[int], Field(max_length=200)] = []
    """Whom it is scaled for; of more than two the weakest, the middle and the strongest."""
    rule_set: RulesId | None = None
    """Or the rules it is converted to, for the same person."""


class ClaimIn(BaseModel):
    document: DocumentIn
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
    document: DocumentIn
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
    document: DocumentOut
    strokes: int
    changes: list[ChangeOut]
    """Of the measures of the purpose, best guess."""
    cures: list[str]
    """Rules of cautions that then fall silent."""


class SeriesOut(BaseModel):
    steps: list[str]
    document: DocumentOut
    strokes: int
    reached: bool


@dataclass(frozen=True)
class ProposalOut(ProposalColumn):
    document: DocumentOut


@dataclass(frozen=True)
class ProposeOut:
    proposals: list[ProposalOut]
    """The best first, each of another family."""


Role = Literal["", "weakest", "middle", "strongest"]


@dataclass(frozen=True)
class ScaledOut(ScaledColumn):
    document: DocumentOut
    name: str
    """Of the person, or of the rules."""
    role: Role
    person_id: int | None


@dataclass(frozen=True)
class ScaleOut:
    columns: list[ScaledOut]
    not_for: list[str]
    """Of those it was asked for, who cannot do it, with the reason."""
