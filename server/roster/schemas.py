"""People as they are told and entered."""

from datetime import date
from typing import TYPE_CHECKING, Annotated, Literal, TypeAlias

from ninja import Schema
from pydantic import Field, StrictInt, StringConstraints

from server.days import Day
from server.pages import Told
from yoisho.answers.person import Capacity, StrikesHeld
from yoisho.engine.person import HIGHEST_VO2MAX, LOWEST_VO2MAX, OLDEST, YOUNGEST, Level, Sex
from yoisho.judgement.circumstances import ScreeningOutcome
from yoisho.judgement.limits import LIMITS, Period
from yoisho.review.repeats import FIELD_TESTS
from yoisho.session.rules import RULE_SETS
from yoisho.strikes.counts import Limb, Stance

if TYPE_CHECKING:
    LimitKindId: TypeAlias = str
    FieldTestId: TypeAlias = str
    RuleSetId: TypeAlias = str
else:
    LimitKindId = Literal[tuple(LIMITS)]
    FieldTestId = Literal[tuple(FIELD_TESTS)]
    RuleSetId = Literal[tuple(RULE_SETS)]

Name = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=120)]
Short = Annotated[str, StringConstraints(strip_whitespace=True, max_length=60)]


class Known(Told):
    """A number about a person, its standard deviation and where it came from."""

    value: float
    sd: float
    origin: str
    source: str


class PersonIn(Schema):
    """Name, year of birth, mass and level are enough; all else has a default that says it is one."""

    name: Name
    birth_year: Annotated[StrictInt, Field(ge=1900, le=2100)]
    mass_kg: Annotated[float, Field(ge=25, le=250)]
    level: Level
    sport: Short = ""
    sex: Sex | None = None
    stance: Stance = "orthodox"
    rule_set: RuleSetId | None = None
    fight_on: Day | None = None
    vo2max_ml_kg_min: Annotated[float, Field(ge=LOWEST_VO2MAX, le=HIGHEST_VO2MAX)] | None = None
    """As a laboratory gave it; None for by test or default."""
    heart_rate_lowering_medication: bool = False
    groups: Annotated[tuple[int, ...], Field(max_length=50)] = ()


AGES = f"ages from {YOUNGEST} to {OLDEST} years"


class PersonOut(Told):
    id: int
    name: str
    sport: str
    level: Level
    sex: Sex | None
    stance: Stance
    birth_year: int
    age_years: int
    mass_kg: float
    vo2max_given: float | None
    """As it was entered; None where a test, a formula or the level gives it."""
    vo2max_ml_kg_min: Known
    hr_max_bpm: Known
    hr_rest_bpm: Known
    anaerobic_scale: Known
    speed_scale: Known
    heart_rate_lowering_medication: bool
    rule_set: str | None
    rule_set_id: RuleSetId | None
    fight_on: date | None
    screening: ScreeningOutcome | None
    """What the screening came to; None where there was none."""
    groups: list[int]
    limits: list[str]
    """Those that hold today, in words."""
    knocked: bool
    """A knock to the head has not been cleared."""
    archived: bool


class GroupIn(Schema):
    name: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=60)]


class GroupOut(Schema):
    id: int
    name: str
    people: int
    """Those who are not archived."""


class LimitIn(Schema):
    kind: LimitKindId
    limb: Limb | None = None
    most: StrictInt | None = None
    period: Period | None = None
    until: Day | None = None
    """The last day it holds; None until it is lifted."""
    set_by: Name


class LimitOut(LimitIn):
    id: int
    words: str
    set_on: date
    lifted_on: date | None
    holds: bool
    """Today."""


class LimitKindOut(Schema):
    id: LimitKindId
    word: str
    changes: str
    """What it does."""
    limb: bool
    most: tuple[int, int] | None
    period: bool


class ClearanceIn(Schema):
    on: Day
    by: Name
    """The physician."""
    until: Day | None = None
    """The last day it holds, where that is sooner than a year; not asked after a knock."""


class KnockOut(Schema):
    id: int
    on: date
    noted_by: str | None
    cleared_on: date | None
    cleared_by: str


class ScreeningIn(Schema):
    on: Day
    regularly_active: bool
    known_disease: bool
    symptoms: bool


class ScreeningOut(ScreeningIn):
    outcome: ScreeningOutcome
    says: str
    """What it comes to, in a sentence."""
    cleared_on: date | None
    cleared_by: str
    clearance_ends: date | None
    clearance_days_left: int | None
    """None where there is none."""
    clearance_ends_soon: bool
    """The next one is to be asked for now."""


class FieldTestIn(Schema):
    kind: FieldTestId
    on: Day
    value: float | None = None
    """In the test's unit; left out for a strike test."""
    counts: Annotated[list[StrictInt], Field(min_length=8, max_length=8)] | None = None
    """Of a strike test: 10 s, 30 s, and each of the six 30 s of 3:00."""
    where: Short = ""
    counted_by: Short = ""


class ChangeSince(Schema):
    """From the test before of the same kind."""

    by: float
    within: float
    """What two tests may differ by, 80 % of the time, with nothing changed."""
    real: bool
    source: str
    """Where that comes from."""


class FieldTestOut(Schema):
    id: int
    kind: FieldTestId
    on: date
    value: float
    counts: list[int] | None
    where: str
    counted_by: str
    change: ChangeSince | None
    """None for the first of its kind."""


class FieldTestKindOut(Schema):
    id: FieldTestId
    name: str
    unit: str
    low: float
    high: float
    how: str


class FightOut(Schema):
    on: date
    days: int
    last_lactic_on: date


class PersonPage(Schema):
    """Somebody whole, as their page shows it."""

    person: PersonOut
    capacities: list[Capacity]
    squad: dict[str, list[float]]
    """What the others of their groups have, or of the club, by capacity."""
    strikes: StrikesHeld | None
    fight: FightOut | None
    screening: ScreeningOut | None
    limits: list[LimitOut]
    knocks: list[KnockOut]
    tests: list[FieldTestOut]


class RosterWords(Schema):
    """What limits and tests there are."""

    limits: list[LimitKindOut]
    limbs: list[Limb]
    tests: list[FieldTestKindOut]
