"""A camp as it is asked for and told."""

from datetime import date, datetime, time
from typing import Annotated, Literal
from uuid import UUID

from ninja import Schema
from pydantic import Field, StrictInt

from server.days import Day
from server.pages import Told
from yoisho.answers.camp import RuleAnswer, WeekAnswer
from yoisho.camp.camp import LONGEST_WEEKS, MOST_FIXED, Weekday
from yoisho.camp.plan import Size
from yoisho.judgement.targets import TargetId
from yoisho.strikes.counts import Limb

MOST_PLACED = 400


class DayIn(Schema):
    weekday: Weekday
    at: time = time(18, 0)
    """By the clock of the club."""
    minutes: Annotated[StrictInt, Field(ge=15, le=180)] = 75


class FixedIn(Schema):
    purpose: Annotated[str, Field(max_length=40)]
    on: Day | None = None
    weekday: Weekday | None = None
    every_weeks: Annotated[StrictInt, Field(ge=1, le=LONGEST_WEEKS)] = 1


class AskedIn(Schema):
    """What a coach asks of the weeks."""

    start: Day
    bout_on: Day | None = None
    weeks: Annotated[StrictInt, Field(ge=1, le=LONGEST_WEEKS)] | None = None
    """Of a block without a bout."""
    rule_set: Annotated[str, Field(max_length=40)] | None = None
    days: Annotated[list[DayIn], Field(min_length=1, max_length=7)]
    most_a_week: Annotated[StrictInt, Field(ge=1, le=14)] = 4
    weights: dict[TargetId, Annotated[float, Field(ge=0, le=10)]] = Field(default_factory=dict)
    """Of the purposes that matter; empty for those of the rule set."""
    bases: dict[TargetId, int] = Field(default_factory=dict)
    """The session that is liked for a purpose; what is proposed where none is."""
    fixed: Annotated[list[FixedIn], Field(max_length=MOST_FIXED)] = Field(default_factory=list)
    ease_every: Literal[0, 3, 4] = 4
    lactic_cutoff_days: Annotated[StrictInt, Field(ge=7, le=21)] | None = None
    """The club's where none is said."""
    most_climb: Annotated[float, Field(ge=0, le=1)] = 0.15
    softened: Annotated[list[Annotated[str, Field(max_length=40)]], Field(max_length=20)] = Field(default_factory=list)


class Hold(Schema):
    """A purpose whose knob is not turned in a week."""

    purpose: Annotated[str, Field(max_length=40)]
    week: Annotated[StrictInt, Field(ge=1, le=2 * LONGEST_WEEKS)]


class Fixture(Told):
    """What is fixed on a day."""

    on: Day
    purpose: str


class PlacedIn(Schema):
    uid: UUID
    on: Day
    order: Annotated[StrictInt, Field(ge=0, le=20)] = 0
    purpose: Annotated[str, Field(max_length=40)]
    step: Annotated[StrictInt, Field(ge=0, le=20)] | None = None
    """None for a session of its own: `session_id` says which it is made like, where it is new."""
    size: Size = "whole"
    locked: bool = False
    skipped: bool = False
    session_id: int | None = None


class CampPlanIn(Schema):
    asked: AskedIn
    placed: Annotated[list[PlacedIn], Field(max_length=MOST_PLACED)]
    hold: Annotated[list[Hold], Field(max_length=MOST_PLACED)] = Field(default_factory=list)
    revision: int
    """The one that the change began from."""
    solved: bool = False
    """It is as the solver gave it."""
    bound_gap: Annotated[float, Field(ge=0, le=1)] | None = None


class NewCamp(Schema):
    person_id: int | None = None
    group_id: int | None = None
    asked: AskedIn


class DoneOut(Told):
    entry_id: int
    rpe: float
    load: int
    finished: bool
    too_hard: bool
    """Not finished, or two points over what was expected."""


class PlacedOut(Told):
    uid: UUID
    on: date
    order: int
    purpose: str
    word: str
    """What the purpose is called."""
    step: int | None
    size: Size
    knob: str
    """How its knobs stand."""
    locked: bool
    skipped: bool
    missed: bool
    """Its day is over and nothing was logged."""
    edited: bool
    """It was changed on the Bench: the camp leaves it as it is."""
    load: int
    planned_load: int
    """As it was expected."""
    rpe: float
    minutes: int
    limbs: dict[Limb, int]
    lactic: bool
    hard: bool
    session_id: int | None
    planned_id: int | None
    done: DoneOut | None


class StepOut(Told):
    name: str
    words: str
    rounds: int
    round_s: int
    rest_s: int
    load: dict[Size, int]
    minutes: dict[Size, int]
    lactic: dict[Size, bool]
    hard: dict[Size, bool]
    limbs: dict[Size, dict[Limb, int]]


class LadderOut(Told):
    purpose: str
    word: str
    name: str
    steps: list[StepOut]


class ClashOut(Told):
    rule: str
    name: str
    sentence: str
    said: list[str]
    may_give: bool
    then_fits: bool
    """Giving way on this one alone makes a plan."""


class CampRow(Told):
    id: int
    who: str
    person_id: int | None
    group_id: int | None
    start: date
    bout_on: date | None
    weeks: int
    sessions: int
    done: int


class CampOut(Told):
    id: int
    revision: int
    who: str
    person_id: int | None
    group_id: int | None
    today: date
    asked: AskedIn
    last: date
    taper_from: date | None
    lactic_until: date | None
    rehearsal_from: date | None
    fixtures: list[Fixture]
    ladders: list[LadderOut]
    without: dict[str, str]
    """Purposes that nothing can be found for, and why."""
    placed: list[PlacedOut]
    hold: list[Hold]
    weeks: list[WeekAnswer]
    rules: list[RuleAnswer]
    bound_gap: float | None
    notes: list[str]
    """What the page says of itself: what is guessed, and what is not promised."""


class CampNudge(Told):
    name: str
    effect: str
    placed: list[PlacedIn]
    """The whole plan with it."""


class SolvedOut(Told):
    """The last line that solving streams."""

    status: Literal["optimal", "feasible", "impossible"]
    bound_gap: float | None
    seconds: float
    """Of the solver alone."""
    placed: list[PlacedIn]
    clash: list[ClashOut]


class ProgressOut(Told):
    """A line that solving streams while it works, and its last."""

    progress: float
    words: str
    solved: SolvedOut | None = None
    error: str | None = None


class SolveIn(Schema):
    asked: AskedIn | None = None
    """Other than the camp has: to see what would change."""
    keep: Annotated[list[PlacedIn], Field(max_length=MOST_PLACED)] | None = None
    """What is locked or past, by the client's own state; the camp's own where none is said."""
    hold: Annotated[list[Hold], Field(max_length=MOST_PLACED)] = Field(default_factory=list)


class FeedOut(Told):
    id: int
    address: str
    made_at: datetime
    revoked: bool


class CampOfSession(Told):
    """Where a session stands in a camp."""

    camp_id: int
    who: str
    week: int
    weeks: int
    purpose: str
    knob: str
    bout_on: date | None
