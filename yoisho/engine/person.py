"""A person as the engine sees one: each number with its spread and where it came from."""

from collections.abc import Callable
from dataclasses import dataclass, field
from functools import cached_property
from typing import Literal

from yoisho.engine import field_tests, heart_rate
from yoisho.engine.field_tests import StrikeTest
from yoisho.engine.stores import Floats
from yoisho.session.rules import RULE_SETS
from yoisho.strikes.counts import Stance

Origin = Literal["measured", "estimated", "default", "learned"]
Level = Literal["beginner", "club", "fighter"]
Sex = Literal["female", "male"]
Training = Literal["untrained", "trained", "sprint-trained"]

CAPACITY_CV = 0.20
"""Spread of a store's size between people of one VO2max and training. Own setting."""
STRIKE_TEST_CV = 0.12
FORCE_CV = 0.10
HEART_OFFSET_SD_BPM = 4.0
"""Of the heart at work against what uptake says of it, from one person to another. Own setting."""
VO2MAX_CV: dict[Origin, float] = {"measured": 0.04, "estimated": 0.10, "default": 0.15}
TRAINING_SCALE: dict[Training, float] = {"untrained": 0.8, "trained": 1.0, "sprint-trained": 1.15}
"""Multiplies both stores and their flows. Own setting, within the bands that deficits show (untrained
40-55, trained 55-70, sprint types up to 90 mL/kg; Medbø and others, from memory)."""
LEVEL_TRAINING: dict[Level, Training] = {"beginner": "untrained", "club": "trained", "fighter": "trained"}

YOUNGEST, OLDEST = 8, 95
LOWEST_VO2MAX, HIGHEST_VO2MAX = 15.0, 95.0
POSSIBLE: dict[str, tuple[float, float]] = {
    "vo2max_ml_kg_min": (LOWEST_VO2MAX, HIGHEST_VO2MAX),
    "hr_max_bpm": (100, 230),
    "hr_rest_bpm": (25, 110),
}
"""What a number about a person can be."""

DEFAULT_VO2MAX: dict[Level, dict[Sex, float]] = {
    "beginner": {"female": 34.0, "male": 40.0},
    "club": {"female": 42.0, "male": 48.0},
    "fighter": {"female": 49.0, "male": 56.0},
}
"""VO2max at 25 years [mL/kg/min] where nothing is known. Own setting, below the bands of boxers (49-65) and
kickboxers (54-69) from memory; about 1 % is lost for each year after 25 (common practice, no source)."""
LOWEST_DEFAULT_VO2MAX = 18.0


LEVEL_VELOCITY: dict[Level, float] = {"beginner": 0.75, "club": 0.88, "fighter": 1.0}
"""Speed of the limbs against an elite striker's: novices strike about half as hard (Smith 2000, from memory), and the
energy goes with the square. Own setting."""
VELOCITY_LOST_A_YEAR = 0.005
"""After 30. Own setting."""


class PersonError(ValueError):
    """A number about a person that cannot be."""


@dataclass(frozen=True)
class Value:
    """A number about a person: best guess, standard deviation, and where it came from."""

    value: float
    sd: float
    origin: Origin
    source: str


@dataclass(frozen=True)
class Learned:
    """What logs have taught of somebody: draws of the engine's traits that fit them."""

    logs: int
    digest: str
    """Of everything it was learned from: two are the same where it is."""
    load: Callable[[], Floats] = field(compare=False, repr=False)
    """Gives the draws, which are asked for once, and only where they are needed."""
    before: "Person" = field(compare=False, repr=False)
    """The person as they were known without it."""

    @cached_property
    def draws(self) -> Floats:
        """Traits where they are normal, as `engine.cohort` has them. Shape (k, d)."""
        return self.load()


@dataclass(frozen=True)
class Person:
    vo2max_ml_kg_min: Value
    hr_max_bpm: Value
    hr_rest_bpm: Value
    anaerobic_scale: Value
    """Multiplies both stores of an average trained person, and their flows [-]."""
    speed_scale: Value
    """Multiplies the top rate of strikes [-]."""
    all_out_force: Value
    """Multiplies the force of strikes thrown all out [-]."""
    mass_kg: float
    age_years: float = 30.0
    level: Level = "club"
    rule_set: str | None = None
    """Id of the rule set the person competes under; None where it is not known."""
    heart_rate_lowering_medication: bool = False
    stance: Stance = "orthodox"
    learned: Learned | None = None
    """From their logs; None where nothing is, or where it is switched off."""

    @property
    def unlearned(self) -> "Person":
        """As they are known without their logs."""
        return self.learned.before if self.learned else self

    @property
    def heart_holds(self) -> bool:
        """Whether the heart rate says something of the effort."""
        return not self.heart_rate_lowering_medication

    def __post_init__(self) -> None:
        for name, value, lowest, highest, unit in (
            ("VO2max", self.vo2max_ml_kg_min.value, *POSSIBLE["vo2max_ml_kg_min"], "mL/kg/min"),
            ("maximum heart rate", self.hr_max_bpm.value, *POSSIBLE["hr_max_bpm"], "bpm"),
            ("resting heart rate", self.hr_rest_bpm.value, *POSSIBLE["hr_rest_bpm"], "bpm"),
            ("mass", self.mass_kg, 25, 250, "kg"),
            ("age", self.age_years, YOUNGEST, OLDEST, "years"),
        ):
            if not lowest <= value <= highest:
                raise PersonError(f"{name} is between {lowest:g} and {highest:g} {unit}, not {value:g}")
        if self.hr_max_bpm.value < self.hr_rest_bpm.value + 30:
            raise PersonError("maximum heart rate is at least 30 bpm above the resting one")


def _vo2max(given: float | None, cooper_m: float | None, shuttle_km_h: float | None, age_years: float,
            sex: Sex | None, level: Level) -> Value:  # fmt: skip
    if given is not None:
        return Value(given, VO2MAX_CV["measured"] * given, "measured", "as given")
    if cooper_m is not None:
        tested = field_tests.cooper(cooper_m)
        source = f"12-minute run, {cooper_m:.0f} m, by Cooper 1968"
        return Value(tested, VO2MAX_CV["estimated"] * tested, "estimated", source)
    if shuttle_km_h is not None:
        tested = field_tests.leger(shuttle_km_h, age_years)
        source = f"20 m shuttle run, {shuttle_km_h:g} km/h, by Léger 1988"
        return Value(tested, VO2MAX_CV["estimated"] * tested, "estimated", source)
    known = DEFAULT_VO2MAX[level]
    of_sex = known[sex] if sex else sum(known.values()) / len(known)
    guess = of_sex * (1 - 0.01 * max(0.0, age_years - 25))
    guess = max(LOWEST_DEFAULT_VO2MAX, guess)
    return Value(
        guess, VO2MAX_CV["default"] * guess, "default", f"{level}, {sex or 'sex not said'}, {age_years:.0f} years"
    )


def _hr_max(given: float | None, school: heart_rate.School | None, age_years: float, sex: Sex | None) -> Value:
    if given is not None:
        return Value(given, 3.0, "measured", "as given")
    chosen = heart_rate.SCHOOLS[school or ("gulati" if sex == "female" else "tanaka")]
    return Value(chosen.formula(age_years), heart_rate.FORMULA_SD_BPM, "estimated", f"{chosen.name}, {chosen.text}")


def person(
    *,
    vo2max_ml_kg_min: float | None = None,
    cooper_m: float | None = None,
    shuttle_km_h: float | None = None,
    strike_test: StrikeTest | None = None,
    hr_max_bpm: float | None = None,
    hr_max_school: heart_rate.School | None = None,
    hr_rest_bpm: float | None = None,
    mass_kg: float = 70.0,
    age_years: float = 30.0,
    sex: Sex | None = "male",
    level: Level = "club",
    training: Training | None = None,
    rule_set: str | None = None,
    heart_rate_lowering_medication: bool = False,
    stance: Stance = "orthodox",
) -> Person:
    """A person from what is known; what is not is filled in by test, formula or default, and says so.

    Of several sources the better one counts: a measurement before a field test before a default. Raises
    `PersonError` for a number that cannot be, `TestResultError` for a test result that cannot.
    """
    if not YOUNGEST <= age_years <= OLDEST:
        raise PersonError(f"age is between {YOUNGEST} and {OLDEST} years, not {age_years:g}")
    vo2max = _vo2max(vo2max_ml_kg_min, cooper_m, shuttle_km_h, age_years, sex, level)
    if not LOWEST_VO2MAX <= vo2max.value <= HIGHEST_VO2MAX:
        raise PersonError(f"VO2max is between {LOWEST_VO2MAX:g} and {HIGHEST_VO2MAX:g} mL/kg/min, not {vo2max.value:g}")
    if rule_set is not None and rule_set not in RULE_SETS:
        raise PersonError(f"no rule set is called '{rule_set}'; there are {', '.join(RULE_SETS)}")
    kind = training or LEVEL_TRAINING[level]
    anaerobic = Value(TRAINING_SCALE[kind], CAPACITY_CV * TRAINING_SCALE[kind], "default", kind)
    speed = Value(1.0, 0.15, "default", "table of limbs")
    force = Value(1.0, FORCE_CV, "default", "table of efforts")
    if strike_test is not None:
        found = field_tests.striker_of(strike_test, vo2max.value, velocity(level, age_years))
        scale = found.anaerobic_scale
        anaerobic = Value(scale, STRIKE_TEST_CV * scale, "estimated", "3:00 strike test, how it falls")
        speed = Value(found.top, 0.05 * found.top, "measured", "10 s strike test")
        force = Value(found.force, 0.5 * FORCE_CV * found.force, "estimated", "3:00 strike test, what is sustained")
    if hr_rest_bpm is not None:
        hr_rest = Value(hr_rest_bpm, 3.0, "measured", "as given")
    else:
        hr_rest = Value(62.0, 8.0, "default", "own setting")
    hr_max = _hr_max(hr_max_bpm, hr_max_school, age_years, sex)
    return Person(
        vo2max, hr_max, hr_rest, anaerobic, speed, force, mass_kg, age_years, level, rule_set,
        heart_rate_lowering_medication, stance,
    )  # fmt: skip


def velocity(level: Level, age_years: float) -> float:
    """Speed of the limbs against an elite striker's [-]."""
    return LEVEL_VELOCITY[level] * max(0.6, 1.0 - VELOCITY_LOST_A_YEAR * max(0.0, age_years - 30.0))
