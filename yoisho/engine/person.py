"""A person as the engine sees one: each number with its spread and where it came from."""

from dataclasses import dataclass
from typing import Literal

import numpy as np

from yoisho.engine import heart_rate
from yoisho.engine.parameters import REFERENCE, Parameters
from yoisho.engine.stores import Floats, People
from yoisho.session.tempo import TEMPOS

Origin = Literal["measured", "estimated", "default"]
Level = Literal["beginner", "club", "fighter"]
Sex = Literal["female", "male"]

DRAWS = 200
SEED = 20_26
CAPACITY_CV = 0.20
TEMPO_DEMAND_CV = 0.10
_VO2MAX_CV = {"measured": 0.04, "estimated": 0.10, "default": 0.15}

_DEFAULT_VO2MAX: dict[Level, dict[Sex, float]] = {
    "beginner": {"female": 34.0, "male": 40.0},
    "club": {"female": 42.0, "male": 48.0},
    "fighter": {"female": 49.0, "male": 56.0},
}
"""VO2max at 25 years [mL/kg/min] where nothing is known. Own setting, below the bands of boxers (49-65) and
kickboxers (54-69) from memory; about 1 % is lost for each year after 25 (common practice, no source)."""


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
class Person:
    vo2max_ml_kg_min: Value
    hr_max_bpm: Value
    hr_rest_bpm: Value
    mass_kg: float
    heart_rate_lowering_medication: bool = False

    def __post_init__(self) -> None:
        for name, value, lowest, highest, unit in (
            ("VO2max", self.vo2max_ml_kg_min.value, 15, 95, "mL/kg/min"),
            ("maximum heart rate", self.hr_max_bpm.value, 100, 230, "bpm"),
            ("resting heart rate", self.hr_rest_bpm.value, 25, 110, "bpm"),
            ("mass", self.mass_kg, 25, 250, "kg"),
        ):
            if not lowest <= value <= highest:
                raise PersonError(f"{name} is between {lowest} and {highest} {unit}, not {value:g}")
        if self.hr_max_bpm.value < self.hr_rest_bpm.value + 30:
            raise PersonError("maximum heart rate is at least 30 bpm above the resting one")


def person(
    *,
    vo2max_ml_kg_min: float | None = None,
    hr_max_bpm: float | None = None,
    hr_rest_bpm: float | None = None,
    mass_kg: float = 70.0,
    age_years: float = 30.0,
    sex: Sex = "male",
    level: Level = "club",
    heart_rate_lowering_medication: bool = False,
) -> Person:
    """A person from what is known; what is not is filled in by formula or default, and says so."""
    if vo2max_ml_kg_min is not None:
        vo2max = Value(vo2max_ml_kg_min, _VO2MAX_CV["measured"] * vo2max_ml_kg_min, "measured", "as given")
    else:
        guess = max(18.0, _DEFAULT_VO2MAX[level][sex] * (1 - 0.01 * max(0.0, age_years - 25)))
        vo2max = Value(guess, _VO2MAX_CV["default"] * guess, "default", f"{level}, {sex}, {age_years:.0f} years")
    if hr_max_bpm is not None:
        hr_max = Value(hr_max_bpm, 3.0, "measured", "as given")
    elif sex == "female":
        hr_max = Value(
            heart_rate.gulati(age_years), heart_rate.FORMULA_SD_BPM, "estimated", "Gulati 2010, 206 - 0.88 age"
        )
    else:
        hr_max = Value(
            heart_rate.tanaka(age_years), heart_rate.FORMULA_SD_BPM, "estimated", "Tanaka 2001, 208 - 0.7 age"
        )
    if hr_rest_bpm is not None:
        hr_rest = Value(hr_rest_bpm, 3.0, "measured", "as given")
    else:
        hr_rest = Value(62.0, 8.0, "default", "own setting")
    return Person(vo2max, hr_max, hr_rest, mass_kg, heart_rate_lowering_medication)


@dataclass(frozen=True)
class Cohort:
    """One person as the engine runs them: the best guess alone, or many draws within what is not known."""

    people: People
    hr_max_bpm: Floats
    hr_rest_bpm: Floats
    demand_scale: dict[str, Floats]
    """Multiplies the demand of each tempo, shape (k,) each."""


def best_guess(who: Person, parameters: Parameters = REFERENCE) -> Cohort:
    one = np.ones(1)
    return Cohort(
        People.one(who.vo2max_ml_kg_min.value, parameters),
        one * who.hr_max_bpm.value,
        one * who.hr_rest_bpm.value,
        dict.fromkeys(TEMPOS, one),
    )


def draws(who: Person, parameters: Parameters = REFERENCE, count: int = DRAWS) -> Cohort:
    """`count` people like `who`, spread by what is not known. The seed is fixed: the same person, the same ranges."""
    random = np.random.default_rng(SEED)

    def spread(cv: float) -> Floats:
        sigma = np.sqrt(np.log1p(cv * cv))
        return np.asarray(np.exp(sigma * np.clip(random.standard_normal(count), -3, 3)))

    vo2max = who.vo2max_ml_kg_min
    hr_max = who.hr_max_bpm.value + who.hr_max_bpm.sd * np.clip(random.standard_normal(count), -3, 3)
    hr_rest = who.hr_rest_bpm.value + who.hr_rest_bpm.sd * np.clip(random.standard_normal(count), -2, 2)
    return Cohort(
        People(
            vo2max.value / 60 * spread(vo2max.sd / vo2max.value),
            parameters.sprint_capacity_ml_kg * spread(CAPACITY_CV),
            parameters.lactic_capacity_ml_kg * spread(CAPACITY_CV),
            np.ones(count),
        ),
        np.maximum(hr_max, hr_rest + 30),
        hr_rest,
        {tempo: spread(TEMPO_DEMAND_CV) for tempo in TEMPOS},
    )
