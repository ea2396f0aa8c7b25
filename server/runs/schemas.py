"""What is told of a run, in the API's shape."""

from dataclasses import dataclass
from datetime import datetime
from typing import Annotated, Any, Literal
from uuid import UUID

from ninja import Schema
from pydantic import Field, StrictInt, model_validator

from server.days import Instant
from yoisho.answers.floor import FloorPlan
from yoisho.rotation.group import MOST_PEOPLE, MOST_WAVES
from yoisho.runs.calls import KINDS as CALLS
from yoisho.runs.cues import SOUNDS
from yoisho.runs.pairs import MOST
from yoisho.runs.record import Record, Stood, Stretch

LONGEST_RUN_S = 6 * 3600
Moment = Annotated[float, Field(ge=-60, le=LONGEST_RUN_S)]
"""Session time [s]; negative in the count-in."""
Place = Annotated[int, Field(ge=0, lt=MOST)]
"""Of several people on the floor, which; from 0."""


class CallSettings(Schema):
    muted: list[Literal[(*CALLS, *SOUNDS)]]  # type: ignore[valid-type]
    """Kinds of calls that are not said, and kinds of sounds that are not played."""
    combination_every_s: Annotated[StrictInt, Field(ge=5, le=600)] | None = None
    """The combination again and again while it is done; None for once, before."""


@dataclass(frozen=True)
class RunWave:
    number: int
    start_s: int
    end_s: int
    change_s: int
    """Of the change before it."""
    swap_s: int
    """When the two at the pads swap."""


@dataclass(frozen=True)
class OnRunBoard:
    name: str
    person_id: int | None
    label: str
    """By which they are called: a name, a team's colour, a letter; may be empty."""
    row: list[str]
    easy: bool
    holds: bool


@dataclass(frozen=True)
class DoingOnBoard:
    station: str
    modality: str | None
    tempo: str | None


@dataclass(frozen=True)
class RunBoard:
    revision: int
    part: int
    people: list[OnRunBoard]
    doing: list[DoingOnBoard]
    waves: list[RunWave]


@dataclass(frozen=True, kw_only=True)
class RunPlan(FloorPlan):
    """All that a device needs to run a session, and the plan as it stands, to be sent back with whatever came of it."""

    session_id: int | None
    """None where the session is gone."""
    revision: int
    document: dict[str, Any]
    person_id: int | None
    person: str | None
    speech: dict[str, str]
    """The files that say what is called, by its words; those that are not there are not said."""
    silent: str | None
    """Why there is no speech, where there is none."""
    call_settings: CallSettings
    emergency_number: str
    """As the club has set it."""
    board: "RunBoard | None" = None
    """Of a class, who is where."""


class OnBoardIn(Schema):
    """One of a class, and where they are in each wave."""

    name: Annotated[str, Field(min_length=1, max_length=120)]
    person_id: int | None = None
    row: Annotated[list[Annotated[str, Field(min_length=1, max_length=40)]], Field(min_length=1, max_length=MOST_WAVES)]
    easy: bool = False
    holds: bool = True


class DoingIn(Schema):
    station: Annotated[str, Field(min_length=1, max_length=40)]
    modality: str | None = None
    tempo: str | None = None


class BoardIn(Schema):
    """Who is where while a class runs."""

    part: Annotated[StrictInt, Field(ge=0, le=40)]
    people: Annotated[list[OnBoardIn], Field(min_length=1, max_length=MOST_PEOPLE)]
    doing: Annotated[list[DoingIn], Field(max_length=40)] = Field(default_factory=list)


class RunIn(Schema):
    """The plan as it stood when the run began: with everything that is told of a run, so that each stands alone."""

    session_id: int | None = None
    revision: Annotated[StrictInt, Field(ge=0)] = 1
    document: dict[str, Any]
    person_id: int | None = None
    """Whom it was planned for."""
    people: Annotated[StrictInt, Field(ge=1, le=MOST)] = 1
    """On the floor; of a class, who take turns at one bag."""
    board: BoardIn | None = None
    """Of a class."""


class RunOut(Schema):
    run_id: UUID
    session_id: int | None
    revision: int
    title: str


class StretchIn(Schema):
    from_s: Moment
    to_s: Moment
    shift: Annotated[int, Field(ge=0, le=1000)] = 0
    """How often the partners had been swapped by hand before it."""


class StoodIn(Schema):
    at_s: Moment
    seconds: Annotated[float, Field(ge=0, le=LONGEST_RUN_S)]


class RecordIn(Schema):
    """What was kept of a run for one of the people on the floor."""

    played: Annotated[list[StretchIn], Field(max_length=5000)]
    stood: Annotated[list[StoodIn], Field(max_length=5000)] = Field(default_factory=list)
    """Where the clock stood and the session went on: seconds added, or reps that took longer."""
    counted: Annotated[list[tuple[Moment, Moment]], Field(max_length=5000)] = Field(default_factory=list)
    """Start and end of intervals whose reps were counted to the last."""
    reps: Annotated[list[tuple[Moment, Annotated[int, Field(ge=0, le=2000)]]], Field(max_length=5000)] = Field(
        default_factory=list
    )
    """Reps counted, by where their interval starts."""
    place: Place = 0
    of: Annotated[int, Field(ge=1, le=MOST)] = 1
    heart: Annotated[list[tuple[Moment, Annotated[int, Field(ge=25, le=250)]]], Field(max_length=30_000)] = Field(
        default_factory=list
    )
    """Session time and heart rate [bpm]."""
    strikes: Annotated[list[Moment], Field(max_length=20_000)] | None = None
    """When a strike was noticed; None where no sensor was there."""
    simulated: bool = False
    """A simulated device has told it."""

    @model_validator(mode="after")
    def _place_is_there(self) -> "RecordIn":
        if self.place >= self.of:
            raise ValueError(f"Places are counted from 0: of {self.of} the last is {self.of - 1}.")
        return self

    def to_core(self) -> Record:
        return Record(
            played=tuple(Stretch(one.from_s, one.to_s, one.shift) for one in self.played),
            stood=tuple(Stood(one.at_s, one.seconds) for one in self.stood),
            counted=tuple(self.counted),
            reps=tuple(self.reps),
            place=self.place,
            of=self.of,
            heart=tuple(self.heart),
            strikes=None if self.strikes is None else tuple(self.strikes),
        )


class ReviewIn(Schema):
    run: RunIn
    person_id: int | None = None
    record: RecordIn


EventKind = Literal[
    "start",
    "pause",
    "go-on",
    "skip",
    "back",
    "add",
    "rep",
    "swap",
    "board",
    "strap",
    "strap-lost",
    "unwell",
    "well",
    "warm",
    "overruled",
    "end",
]


class Event(Schema):
    kind: EventKind
    at_s: Moment
    moment: Instant
    """By the clock of the device that ran it."""
    more: dict[str, str | float] = Field(default_factory=dict, max_length=8)


Events = Annotated[list[Event], Field(max_length=20_000)]


class JournalIn(Schema):
    run: RunIn
    events: Events


class JournalOut(Schema):
    run_id: UUID
    session_id: int | None
    events: Events


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
    """It stands for reps that are still to be done, or for open-ended work to be ended."""
    reps: dict[str, int] = Field(default_factory=dict)
    """Reps counted, by where their interval starts."""
    lasted_s: float = Field(0, ge=0)
    """How long open-ended work has been on, up to the anchor."""
    started: bool
    ended: bool
    pulse: Annotated[float, Field(ge=0, le=2)] = 0
    """The pulse to strike to: 0 off, else half, single or double time."""
    shift: int = Field(0, ge=0)
    """How often partners were swapped by hand."""
    people: Annotated[list[Shown], Field(max_length=MOST)] = Field(default_factory=list)
    board: int = Field(0, ge=0)
    """Of a class, which state of its board stands."""


class LiveIn(Schema):
    state: ClockState


class LiveRow(Schema):
    run_id: UUID
    title: str


class LetterIn(Schema):
    to: int
    """The coach of the club who is to see to it."""
    title: str = Field(min_length=1, max_length=160)
    path: str = Field(pattern=r"^/api/runs/[0-9a-f-]{36}/(log|class-log|journal)$")
    body: dict[str, Any]
    reason: str = Field("", max_length=1000)


class LetterOut(Schema):
    id: int
    sender: str
    title: str
    path: str
    body: dict[str, Any]
    reason: str
    sent_at: datetime
