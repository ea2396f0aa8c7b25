from typing import Annotated, Literal

from ninja import Schema
from pydantic import Field, StrictInt

from yoisho.strikes.counts import Limb, Stance
from yoisho.strikes.notation import LONGEST_TEXT
from yoisho.strikes.techniques import Height
from yoisho.strikes.tempo import TempoId

Text = Annotated[str, Field(max_length=LONGEST_TEXT)]
Tag = Annotated[str, Field(min_length=1, max_length=30)]


class ReadIn(Schema):
    text: Text
    stance: Stance = "orthodox"
    tempo: TempoId = "combination"
    seconds: Annotated[StrictInt, Field(ge=1, le=7200)] = 180


class Against(Schema):
    bag: str
    why: str


class CombinationOut(Schema):
    text: str
    calls: list[str]
    """As it is called on the floor."""
    mirrored: str
    limbs: dict[Limb, int]
    heights: dict[Height, int]
    strikes: int
    defences: int
    steps: int
    pass_s: float
    """An estimate, with the reset."""
    passes: int
    """Whole passes in the interval, at least one."""
    suits: list[str]
    """Bags that nothing speaks against."""
    against: list[Against]


class DrillOut(Schema):
    text: str
    order: Literal["turns", "adding", "pyramid", "draw"]
    recall: bool
    combinations: list[CombinationOut]
    whole: CombinationOut
    """All of it, one after the other."""


class EntryIn(Schema):
    name: str = Field(min_length=1, max_length=80)
    text: Text
    tags: list[Tag] = Field([], max_length=12)
    note: str = Field("", max_length=1000)


class EntryOut(Schema):
    id: int
    name: str
    tags: list[str]
    note: str
    drill: DrillOut


class MakeIn(Schema):
    """What is to be made of the combinations: see `yoisho.strikes.generate`."""

    kind: Literal["mirrored", "pyramid", "ladder", "adding", "draw", "alternating", "medley"]
    text: Text
    counts: list[Annotated[StrictInt, Field(ge=1, le=200)]] = Field([], max_length=20)
    """The steps of a ladder; how many of each, and how often, of what alternates; how many of each of a medley."""


class MadeOut(Schema):
    text: str
