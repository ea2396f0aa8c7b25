"""What the weeks tell, in the API's shape."""

from datetime import date, datetime
from typing import Annotated, Literal

from ninja import Field, Schema

from server.pages import Told
from server.sessions.documents import DocumentOut
from yoisho.answers.log import Store
from yoisho.design.nudge import Change
from yoisho.formats.heart_file import MOST_READINGS
from yoisho.review.calibration import Learnt
from yoisho.review.forecasts import Score
from yoisho.review.overlay import Sureness
from yoisho.review.progression import Step
from yoisho.strikes.counts import Limb


class TrendWeek(Told):
    monday: date
    sessions: int
    planned: float
    load: float
    monotony: float | None
    strain: float | None
    limbs: dict[Limb, float]
    minutes: dict[Store, float]
    short_mean: float
    long_mean: float
    over: bool


class TrendPoint(Told):
    seal: str
    fine: bool
    text: str
    cure: str


class TrendTest(Told):
    on: date
    kind: str
    value: float
    error: float
    """Typical error of one try, in the test's unit."""


class TrendRating(Told):
    """One session: how hard it was, beside what was expected."""

    entry_id: int
    started_at: datetime
    title: str
    rpe: int
    low: float
    high: float
    """80 % range of what was expected."""


class TrendsOut(Told):
    who: str
    """The person, the group or the club."""
    people: int
    """Who logged something in these weeks; sums of several are a head."""
    title: str
    sentence: str
    points: list[TrendPoint]
    weeks: list[TrendWeek]
    ceilings: dict[Limb, int]
    """Most strikes of a limb in a week, of one person; empty for several."""
    tests: list[TrendTest]
    ratings: list[TrendRating]
    """Of one person."""
    inside: int
    rated: int
    """Of all sessions rated, those inside the range that was expected."""
    criticism: str


class LearnedOut(Schema):
    """What somebody's logs have taught."""

    on: bool
    """Used, and shown wherever a capacity is."""
    working: bool
    """What is known of them has changed since: it is being worked out anew."""
    logs: int
    before: list[Learnt]
    after: list[Learnt]
    effective_draws: float | None
    forecast_before: dict[str, Score]
    forecast_after: dict[str, Score]


class LearnsIn(Schema):
    on: bool


class LeftOutIn(Schema):
    left_out: bool


class HeartLooked(Told):
    """What a file of heart rate tells, and where it lies. Times are seconds from its first reading."""

    kind: str
    heart: list[tuple[float, float]]
    pauses: list[tuple[float, float]]
    laps: list[float]
    shift_s: float
    """Session time of its first reading."""
    by: Literal["clock", "match"]
    sureness: Sureness
    correlation: float | None
    expected: list[tuple[float, float]]
    """Session time and expected heart rate, for drawing."""


class HeartIn(Schema):
    heart: Annotated[list[tuple[float, Annotated[float, Field(ge=20, le=260)]]], Field(max_length=MOST_READINGS)]
    shift_s: Annotated[float, Field(ge=-86_400, le=86_400)]


class NextTimeOut(Schema):
    session_id: int
    title: str
    target: str
    step: Step
    name: str
    reason: str
    changes: list[Change]
    document: DocumentOut
