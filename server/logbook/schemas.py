"""What the log is told and what it tells, in the API's shape."""

from datetime import datetime
from typing import Annotated, Literal
from uuid import UUID

from ninja import Schema
from pydantic import Field, StrictInt

from server.days import Instant
from server.runs.schemas import LONGEST_RUN_S, RecordIn, RunIn
from yoisho.answers.intervals import TimelineInterval
from yoisho.review.pain import PLACES
from yoisho.runs.review import Done
from yoisho.strikes.counts import Limb

Side = Literal["left", "right"]


class PainIn(Schema):
    where: Literal[tuple(PLACES)]  # type: ignore[valid-type]
    side: Side | None = None


class PainOut(Schema):
    where: str
    side: Side | None
    text: str


class LogIn(Schema):
    run: RunIn
    person_id: int | None = None
    started_at: Instant
    done_s: Annotated[StrictInt, Field(ge=0, le=LONGEST_RUN_S)]
    done_efforts: Annotated[StrictInt, Field(ge=0, le=5000)]
    rpe: Annotated[StrictInt, Field(ge=0, le=10)]
    counted_strikes: Annotated[StrictInt, Field(ge=0, le=20_000)] | None = None
    """Strikes counted on the floor; left out where nobody counted."""
    note: str = Field("", max_length=4000)
    record: RecordIn | None = None
    """What the clock and the devices have kept; left out where it was written down by hand."""
    pain: Annotated[list[PainIn], Field(max_length=12)] = Field(default_factory=list)


class LogOut(Schema):
    id: int
    run_id: UUID
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
    done: Done | None
    """Round by round; None where it was written down by hand."""
    pain: list[PainOut]
    unwell_at_s: list[float]
    """When somebody was unwell, in session time."""
    overruled: list[str]
    """The seals of the stops that the coach has gone past."""
    simulated: bool
    """Made up for the demo."""
    devices_simulated: bool
    """The heart and the strikes were told by simulated devices: never a measurement, and never a count."""


class LogDetail(LogOut):
    """With all that was kept of it, for drawing."""

    left_out: bool
    """Nothing is learned from it."""

    part_names: list[str]
    timeline: list[TimelineInterval]
    """As this person had it."""
    heart: list[tuple[float, int]]
