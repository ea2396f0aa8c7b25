"""A class as it is asked for and told."""

from datetime import date, datetime
from typing import Annotated, Any, Literal
from uuid import UUID

from ninja import Schema
from pydantic import Field, StrictInt

from server.days import Day, Instant, WallTime
from server.runs.schemas import BoardIn, RunIn, StoodIn, StretchIn
from yoisho.answers.classes import ClassAnswer
from yoisho.classes.asked import FLOOR_DOES, LONGEST_MIN, STATIONS, SchoolId
from yoisho.judgement.targets import TargetId
from yoisho.rotation.group import MOST_PEOPLE, MOST_WAVES, Not

Uid = Annotated[str, Field(pattern=r"^[A-Za-z0-9-]{1,40}$")]
WaveNumber = Annotated[StrictInt, Field(ge=1, le=MOST_WAVES)]
Station = Annotated[str, Field(min_length=1, max_length=40)]
OnePlace = Annotated[StrictInt, Field(ge=0, lt=MOST_PEOPLE)]
Rows = Annotated[list[Annotated[list[Station], Field(max_length=MOST_WAVES)]], Field(max_length=MOST_PEOPLE)]


class ComerIn(Schema):
    """Somebody who comes: of the roster, or a name typed at the door."""

    uid: Uid
    person_id: int | None = None
    name: Annotated[str, Field(min_length=1, max_length=120)]
    from_wave: WaveNumber | None = None
    """Where they are late."""
    absent_after: Annotated[StrictInt, Field(ge=0, le=MOST_WAVES)] | None = None
    """The last wave of who leaves early; 0 for who does not come."""
    easy: bool = False
    """Nothing hard, whatever the roster says."""
    barred: Annotated[list[Not], Field(max_length=4)] = Field(default_factory=list)
    """What they do not do, besides what the roster says."""


class TogetherIn(Schema):
    """Two who stay together."""

    one: Uid
    other: Uid


class PutIn(Schema):
    """Somebody who is put somewhere in a wave."""

    uid: Uid
    wave: WaveNumber
    at: Station


class ClassAskedIn(Schema):
    """What a coach asks of a class."""

    title: Annotated[str, Field(max_length=120)] = ""
    group_id: int | None = None
    on: Day | None = None
    at: WallTime | None = None
    """By the clock of the club."""
    target: TargetId | None = None
    school: SchoolId = "waves"
    pattern: Annotated[str, Field(min_length=1, max_length=400)] = "20 power, 10 rest"
    """One round of the work, in shorthand."""
    minutes: Annotated[StrictInt, Field(ge=5, le=LONGEST_MIN)] = 45
    warm_up_min: Annotated[StrictInt, Field(ge=0, le=60)] = 5
    cool_down_min: Annotated[StrictInt, Field(ge=0, le=60)] = 3
    bags: Annotated[StrictInt, Field(ge=0, le=30)] = 6
    pad_pairs: Annotated[StrictInt, Field(ge=0, le=30)] = 0
    floor: Annotated[StrictInt, Field(ge=0, le=MOST_PEOPLE)] | None = None
    """Spots; None for as many as anybody needs."""
    stations: Annotated[list[Literal[tuple(STATIONS)]], Field(max_length=14)] = Field(default_factory=list)  # type: ignore[valid-type]
    waves: WaveNumber | None = None
    rounds: Annotated[StrictInt, Field(ge=1, le=60)] | None = None
    change_s: Annotated[StrictInt, Field(ge=0, le=300)] | None = None
    floor_does: Literal[tuple(FLOOR_DOES)] = "shadow"  # type: ignore[valid-type]
    coach_holds: bool = False
    combination: Annotated[str, Field(max_length=200)] = ""
    """As the club writes it; empty for what the school takes."""
    beats: Annotated[StrictInt, Field(ge=60, le=200)] = 120
    people: Annotated[list[ComerIn], Field(min_length=1, max_length=MOST_PEOPLE)]
    together: Annotated[list[TogetherIn], Field(max_length=MOST_PEOPLE)] = Field(default_factory=list)
    put: Annotated[list[PutIn], Field(max_length=400)] = Field(default_factory=list)


class LineIn(Schema):
    text: Annotated[str, Field(max_length=400)]


class UnderstoodOut(Schema):
    text: str
    meaning: str


class LineOut(Schema):
    asked: ClassAskedIn
    understood: list[UnderstoodOut]
    unread: list[str]
    """Pieces of the line that nothing is known of."""


class SolveClassIn(Schema):
    asked: ClassAskedIn
    rows: Rows | None = None
    """As it stood: little changes for a small change."""


class ProposeClassIn(Schema):
    asked: ClassAskedIn


class ClassIn(Schema):
    asked: ClassAskedIn
    rows: Rows
    revision: Annotated[StrictInt, Field(ge=0)] = 0


class ClassProgress(Schema):
    """A line of what is told while a class is worked out."""

    progress: float
    words: str
    error: str | None = None
    field: str | None = None
    """What of what was asked is at fault."""
    answer: ClassAnswer | None = None
    proposal: ClassAnswer | None = None
    tradeoffs: list[str] | None = None
    """Of each proposal, once all are there."""
    left_out: list[str] | None = None
    """Schools that cannot be had with this, each with its reason."""


class ClassRow(Schema):
    id: int
    title: str
    on: date | None
    at: WallTime | None
    people: int
    school_name: str
    total_s: int
    session_id: int
    saved_at: datetime


class ClassOut(Schema):
    id: int
    session_id: int
    revision: int
    asked: ClassAskedIn
    group: str | None
    answer: ClassAnswer | None
    """None where it no longer holds."""
    broken: str | None
    """Why it does not: solve it anew."""


class ClassOfSession(Schema):
    """The class that a session is of."""

    class_id: int
    title: str


class WhatIfOut(Schema):
    name: str
    effect: str
    asked: ClassAskedIn | None
    rows: Rows | None
    """None where it cannot be."""


class LateIn(Schema):
    name: Annotated[str, Field(min_length=1, max_length=120)]
    person_id: int | None = None


class BoardChangeIn(Schema):
    """A change while a class runs: one of late, leaves or swap."""

    board: BoardIn
    wave: WaveNumber
    """The first that is changed: those before are done."""
    late: LateIn | None = None
    leaves: OnePlace | None = None
    """The place of somebody, from 0."""
    swap: (
        Annotated[list[Annotated[StrictInt, Field(ge=0, lt=MOST_PEOPLE)]], Field(min_length=2, max_length=2)] | None
    ) = None


class ToldRow(Schema):
    """How one of the people says it was."""

    place: OnePlace
    rpe: Annotated[StrictInt, Field(ge=0, le=10)] | None = None
    """None where they have not said, and nothing of theirs is logged."""
    absent: bool = False
    note: Annotated[str, Field(max_length=1000)] = ""


class ClassLogIn(Schema):
    run: RunIn
    board: BoardIn
    """As it was at the end."""
    started_at: Instant
    played: Annotated[list[StretchIn], Field(max_length=5000)]
    stood: Annotated[list[StoodIn], Field(max_length=5000)] = Field(default_factory=list)
    counted: Annotated[list[tuple[float, float]], Field(max_length=5000)] = Field(default_factory=list)
    note: Annotated[str, Field(max_length=1000)] = ""
    people: Annotated[list[ToldRow], Field(max_length=MOST_PEOPLE)]


class ClassLogged(Schema):
    run_id: UUID
    entries: list[int]
    """Ids in the log, of those who were logged."""
    load: float
    strikes: float


class ClassNeeds(Schema):
    """What a class's screen needs before anything is asked."""

    asked: ClassAskedIn
    """With the gear of the last class."""
    schools: list[dict[str, Any]]
    floor_does: list[dict[str, str]]
