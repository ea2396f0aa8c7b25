"""What the log is told and what it tells, in the API's shape."""

from datetime import date, datetime
from typing import Annotated, Literal
from uuid import UUID

from ninja import Schema
from pydantic import AwareDatetime, Field, StrictInt, model_validator

from server.floor.schemas import Place
from server.sessions.schemas import TimelineInterval
from yoisho.floor.pairs import MOST
from yoisho.review.pain import PLACES
from yoisho.strikes.counts import Limb
from yoisho.strikes.techniques import Level

LONGEST_RUN_S = 6 * 3600
Moment = Annotated[float, Field(ge=-60, le=LONGEST_RUN_S)]
"""Session time [s]; negative in the count-in."""
Side = Literal["left", "right"]


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


class PainIn(Schema):
    where: Literal[tuple(PLACES)]  # type: ignore[valid-type]
    side: Side | None = None


class PainOut(Schema):
    where: str
    side: Side | None
    text: str


class RoundOut(Schema):
    part: int
    start_s: int
    end_s: int
    done_s: float
    done: bool
    expected_strikes: float
    strikes: int | None
    peak_bpm: int | None
    fade: float | None
    """From its first to its last third; None where it is too short or nothing was counted."""


class PartFadeOut(Schema):
    part: int
    rounds: int
    expected: float
    """By the model."""
    measured: float | None


class DoneOut(Schema):
    rounds: list[RoundOut]
    planned_work_s: int
    planned_rest_s: int
    work_s: float
    rest_s: float
    fades: list[PartFadeOut]
    peak_bpm: int | None
    strikes: int | None
    expected_strikes: float
    strap_off_s: float | None
    """Seconds of what was played without a reading; None where there was no strap."""
    efforts: int
    efforts_done: int


class ReviewIn(Schema):
    person_id: int | None = None
    record: RecordIn


class LogIn(Schema):
    session_id: int
    person_id: int | None = None
    started_at: AwareDatetime
    done_s: Annotated[StrictInt, Field(ge=0, le=LONGEST_RUN_S)]
    done_efforts: Annotated[StrictInt, Field(ge=0, le=5000)]
    rpe: Annotated[StrictInt, Field(ge=0, le=10)]
    counted_strikes: Annotated[StrictInt, Field(ge=0, le=20_000)] | None = None
    """Strikes counted on the floor; left out where nobody counted."""
    note: str = Field("", max_length=4000)
    record: RecordIn | None = None
    """What the clock and the devices have kept; left out where it was written down by hand."""
    pain: Annotated[list[PainIn], Field(max_length=12)] = Field(default_factory=list)


EventKind = Literal[
    "start",
    "pause",
    "go-on",
    "skip",
    "back",
    "add",
    "rep",
    "swap",
    "strap",
    "strap-lost",
    "unwell",
    "well",
    "warm",
    "end",
]


class Event(Schema):
    kind: EventKind
    at_s: Annotated[float, Field(ge=-60, le=LONGEST_RUN_S)]
    """Session time; negative in the count-in."""
    moment: AwareDatetime
    """By the clock of the device that ran it."""
    more: dict[str, str | float] = Field(default_factory=dict, max_length=8)


class JournalIn(Schema):
    session_id: int
    events: Annotated[list[Event], Field(max_length=20_000)]


class JournalOut(JournalIn):
    run_id: UUID


class LogOut(Schema):
    id: int
    session_id: int | None
    title: str
    person: str | None
    text: list[str]
    started_at: datetime
    planned_s: int
    planned_efforts: int
    planned_rpe: float
    planned_load: float
    done_s: int
    done_efforts: int
    rpe: int
    load: float
    expected_strikes: float
    counted_strikes: int | None
    limbs: dict[Limb, float]
    """As counted where they were, as expected where not."""
    note: str
    place: int
    """Of several people on the floor, which; from 0."""
    done: DoneOut | None
    """Round by round; None where it was written down by hand."""
    pain: list[PainOut]
    unwell_at_s: list[float]
    """When somebody was unwell, in session time."""
    simulated: bool
    """Made up for the demo."""
    devices_simulated: bool
    """The heart and the strikes were told by simulated devices: never a measurement, and never a count."""


class WeekOut(Schema):
    monday: date
    sessions: int
    limbs: dict[Limb, float]
    levels: dict[Level, float]
    strikes: float
    counted: float
    """Those of them that were counted; the rest is expected."""


class LogDetail(LogOut):
    """With all that was kept of it, for drawing."""

    part_names: list[str]
    timeline: list[TimelineInterval]
    """As this person had it."""
    heart: list[tuple[float, int]]
