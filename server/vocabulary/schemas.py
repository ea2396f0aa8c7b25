"""The words of the trade as the front end needs them."""

from typing import Literal

from pydantic import BaseModel

from yoisho.judgement.targets import TargetId
from yoisho.strikes.tempo import TempoId


class TempoOut(BaseModel):
    id: TempoId
    word: str
    kind: Literal["work", "recover", "rest"]
    demand_frac: float
    strikes_per_min: float
    rpe: float
    meaning: str
    reset_s: float
    """Between one pass of a combination and the next, where nothing else is said."""
    avoidable: bool
    """Proposals may be asked for without it."""


class TargetOut(BaseModel):
    id: TargetId
    name: str
    meaning: str


class Named(BaseModel):
    id: str
    name: str


class ModalityOut(Named):
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
    modalities: list[ModalityOut]
    schools: list[Named]
    """Of numbers beyond six."""
    rules: list[RulesOut]
    kit: list[Named]
    """What some proposals need, and a club may not have."""
    gloves: list[Named]
    """What may be on the hands."""
    items: list[Named]
    """What else may be worn or carried."""
    pain: list[PainPlace]
    """Where something can hurt."""
    examples: list[str]
