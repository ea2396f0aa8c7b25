"""The session document at the edge; `docs/session.schema.json` is made from it."""

import json
from typing import TYPE_CHECKING, Annotated, Literal, TypeAlias

from pydantic import BaseModel, ConfigDict, Field, StrictBool, StrictInt

from yoisho.session.document import FORMAT, LONGEST_NAME, MOST_PARTS, VERSION
from yoisho.session.interval import (
    BEATS_PER_MIN,
    LONGEST_CUE,
    LONGEST_INTERVAL_S,
    MOST_CUES,
    MOST_REPS,
    MOST_STEPS,
    PER_BEAT,
)
from yoisho.session.means import MEANS
from yoisho.session.purposes import PURPOSES
from yoisho.session.tempo import TEMPOS
from yoisho.session.tree import MOST_REPEATS
from yoisho.strikes.combination import MOST_ACTIONS
from yoisho.strikes.drill import MOST_COMBINATIONS
from yoisho.strikes.techniques import TECHNIQUES

if TYPE_CHECKING:
    TempoId: TypeAlias = str
    MeansId: TypeAlias = str
    TechniqueId: TypeAlias = str
    PurposeId: TypeAlias = str
    PerBeat: TypeAlias = float
    Format: TypeAlias = str
    Version: TypeAlias = int
else:
    TempoId = Literal[tuple(TEMPOS)]
    MeansId = Literal[tuple(MEANS)]
    TechniqueId = Literal[tuple(TECHNIQUES)]
    PurposeId = Literal[tuple(PURPOSES)]
    PerBeat = Literal[PER_BEAT]
    Format = Literal[FORMAT]
    Version = Literal[VERSION]


class _Document(BaseModel):
    model_config = ConfigDict(extra="forbid")


class Action(_Document):
    technique: TechniqueId
    side: Literal["lead", "rear", "left", "right"] | None = None
    level: Literal["head", "body", "leg"] | None = None


_Group = Annotated[list[Action], Field(min_length=1, max_length=MOST_ACTIONS)]
Groups = Annotated[list[_Group], Field(min_length=1, max_length=MOST_ACTIONS)]
"""A combination: groups of actions that follow each other on "then"."""


class Drill(_Document):
    order: Literal["turns", "adding", "pyramid", "draw"] = "turns"
    recall: StrictBool = False
    combinations: list[Groups] = Field(min_length=1, max_length=MOST_COMBINATIONS)


class RepeatingCue(_Document):
    text: str = Field(min_length=1, max_length=LONGEST_CUE)
    every_s: Annotated[StrictInt, Field(ge=2, le=600)]


class Beat(_Document):
    per_min: Annotated[StrictInt, Field(ge=BEATS_PER_MIN[0], le=BEATS_PER_MIN[1])]
    strikes: PerBeat = 1


class HeartBand(_Document):
    """Of HRmax, in percent."""

    low: Annotated[StrictInt, Field(ge=30, le=100)]
    high: Annotated[StrictInt, Field(ge=30, le=100)]


class IntervalNode(_Document):
    """Dosed by seconds or by reps, never by both."""

    type: Literal["interval"]
    seconds: Annotated[StrictInt, Field(ge=1, le=LONGEST_INTERVAL_S)] | None = None
    reps: (
        Annotated[list[Annotated[StrictInt, Field(ge=1, le=MOST_REPS)]], Field(min_length=1, max_length=MOST_STEPS)]
        | None
    ) = None
    tempo: TempoId
    means: MeansId | None = None
    drill: Drill | None = None
    lead: Literal["left", "right"] | None = None
    switch: Literal["half", "call"] | Annotated[StrictInt, Field(ge=2, le=3600)] | None = None
    cues: Annotated[list[RepeatingCue], Field(max_length=MOST_CUES)] | None = None
    beat: Beat | None = None
    band: HeartBand | None = None
    pairs: StrictBool | None = None


class SequenceNode(_Document):
    type: Literal["sequence"]
    items: Annotated[list["Node"], Field(min_length=2, max_length=500)]


class RepeatNode(_Document):
    """The body so many times, with `between` between repetitions and never after the last."""

    type: Literal["repeat"]
    count: Annotated[StrictInt, Field(ge=1, le=MOST_REPEATS)]
    body: "Node"
    between: IntervalNode | None = None


Node = Annotated[IntervalNode | SequenceNode | RepeatNode, Field(discriminator="type")]


class Part(_Document):
    name: str = Field(max_length=LONGEST_NAME)
    purpose: PurposeId | None = None
    tree: Node


class SessionDocument(_Document):
    format: Format
    version: Version
    title: str = Field(min_length=1, max_length=120)
    parts: list[Part] = Field(max_length=MOST_PARTS)


def json_schema() -> dict[str, object]:
    """The published JSON Schema of the document, draft 2020-12."""
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        **SessionDocument.model_json_schema(),
        "title": "Yoisho session document",
    }


if __name__ == "__main__":
    print(json.dumps(json_schema(), indent=1, ensure_ascii=False))  # noqa: T201
