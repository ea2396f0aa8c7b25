"""Field tests: what a coach can measure in a hall or on a track, turned into the numbers the engine needs.

One function a school, named after its author; siblings take what was counted and give VO2max [mL/kg/min].

References (all from memory):
[1] Cooper KH (1968) JAMA 203:201-204: distance of 12 minutes' running.
[2] Léger LA, Mercier D, Gadoury C, Lambert J (1988) J Sports Sci 6:93-101: 20 m shuttle run, stages of a minute.
[3] Vanhatalo A, Doust JH, Burnley M (2007) MSSE 39:548-555: what 3 minutes all-out leave at the end is the power that
    can be sustained, and the work above it the reserve. For striking this is our own assumption: no study has
    done it with punches.
"""

from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from yoisho.engine.demand import FOOTWORK_ML_KG_MIN, LOWEST_ALL_OUT
from yoisho.engine.stores import Floats, People, resting_uptake_frac, simulate
from yoisho.engine.strike_cost import mix_of, strike_cost, top_rate
from yoisho.strikes.tempo import TEMPOS

SPLIT_S = 30
SPLITS = 6
ALL_OUT_FORCE = TEMPOS["all-out"].force or 1.0
_LENGTHS = np.array([10.0, 20.0, *[30.0] * (SPLITS - 1)])


class TestResultError(ValueError):
    """A test result that cannot be: what is wrong and what is possible."""

    __test__ = False


def cooper(distance_m: float) -> float:
    """VO2max [mL/kg/min] from metres run in 12 minutes [1]. Healthy adults who pace themselves; SEE about 10 %."""
    if not 1200 <= distance_m <= 4600:
        raise TestResultError(f"12 minutes' running covers from 1200 to 4600 m, not {distance_m:g}")
    return (distance_m - 504.9) / 44.73


def leger(speed_km_h: float, age_years: float) -> float:
    """VO2max [mL/kg/min] from the speed of the last full stage of the 20 m shuttle run [2]. Ages 8 and over; from 18
    on the age counts as 18. SEE about 6 mL/kg/min."""
    if not 8 <= speed_km_h <= 19:
        raise TestResultError(f"shuttle-run stages go from 8 to 19 km/h, not {speed_km_h:g}")
    if age_years < 8:
        raise TestResultError(f"the shuttle run is for ages from 8 on, not {age_years:g}")
    age = min(age_years, 18.0)
    return 31.025 + 3.238 * speed_km_h - 3.248 * age + 0.1536 * age * speed_km_h


@dataclass(frozen=True)
class StrikeTest:
    """Straight punches counted flat out: in 10 s, in 30 s, and in each of the six 30 s of 3:00."""

    ten_s: int
    thirty_s: int
    splits: tuple[int, ...]

    def __post_init__(self) -> None:
        if not 10 <= self.ten_s <= 150:
            raise TestResultError(f"10 s hold from 10 to 150 strikes, not {self.ten_s}")
        if len(self.splits) != SPLITS:
            raise TestResultError(f"3:00 is counted in {SPLITS} splits of 30 s, not {len(self.splits)}")
        if not self.ten_s <= self.thirty_s <= 3.3 * self.ten_s:
            raise TestResultError(f"30 s hold from {self.ten_s} to {3.3 * self.ten_s:.0f} strikes after {self.ten_s} "
                                  f"in 10 s, not {self.thirty_s}")  # fmt: skip
        if min(self.splits) < 5 or max(self.splits) > 1.1 * self.thirty_s:
            raise TestResultError(f"a split of 3:00 holds from 5 to {1.1 * self.thirty_s:.0f} strikes after "
                                  f"{self.thirty_s} in 30 s alone; recount {list(self.splits)}")  # fmt: skip

    @property
    def top_per_min(self) -> float:
        return 6.0 * self.ten_s

    @property
    def sustained_per_min(self) -> float:
        """The rate of the last 30 s of 3:00 [3]."""
        return 60.0 / SPLIT_S * self.splits[-1]

    @property
    def reserve(self) -> int:
        """Strikes above the sustained rate in 3:00 [3]."""
        return sum(max(0, split - self.splits[-1]) for split in self.splits)


@dataclass(frozen=True)
class Striker:
    """What a strike test says of a person, each against an average one of their level [-]."""

    top: float
    """Top rate."""
    force: float
    """Force of strikes thrown all out."""
    anaerobic_scale: float
    """Of both stores, their flows and the fatigue that exhausts."""


BOUNDS = Striker(0.4, 0.4, 0.6), Striker(1.8, 1.13, 1.5)
"""Within which a test moves a person: beyond them it tells more of the counting than of the striker."""


def counts_of_model(vo2max_ml_kg_min: float, velocity: float, striker: Striker) -> Floats:
    """Straight punches all out in 10 s, in 30 s, and in the six 30 s of 3:00, by the model. Shape (8,)."""
    people = People.one(vo2max_ml_kg_min, anaerobic_scale=striker.anaerobic_scale)
    V, punch, force = vo2max_ml_kg_min, mix_of(()), ALL_OUT_FORCE * striker.force
    cost = float(strike_cost(punch, force)) * velocity**2
    per_s = float(top_rate(punch, force)) * striker.top
    standing = float(resting_uptake_frac(people.vo2max_ml_kg_s)[0]) + FOOTWORK_ML_KG_MIN["planted"] / V
    whole = 60.0 * per_s * cost / V
    top, ceiling = np.full(len(_LENGTHS), standing + whole), np.full(len(_LENGTHS), punch.ceiling_frac)
    run = simulate(_LENGTHS, LOWEST_ALL_OUT * top, people, top_frac=top, ceiling_frac=ceiling, sample_s=1e4)
    thrown = run.energy_delivered[:, 0] / people.vo2max_ml_kg_s[0] - standing * _LENGTHS
    counts = np.maximum(thrown, 0.0) / whole * per_s
    thirty = counts[0] + counts[1]
    return np.concatenate(([counts[0], thirty, thirty], counts[2:]))


@lru_cache(maxsize=512)
def striker_of(test: StrikeTest, vo2max_ml_kg_min: float, velocity: float) -> Striker:
    """The striker whose counts by the model come nearest to the test's [least squares of the ratios].

    Assumes that strikes go with the energy delivered above stance and steps: own assumption, no source.
    """
    # Half a second to import, and few who start the software need it.
    from scipy.optimize import least_squares

    counted = np.array([test.ten_s, test.thirty_s, *test.splits], dtype=float)
    low, high = (np.log([bound.top, bound.force, bound.anaerobic_scale]) for bound in BOUNDS)

    def misses(logs: Floats) -> Floats:
        found = counts_of_model(vo2max_ml_kg_min, velocity, Striker(*np.exp(logs)))
        return np.asarray(np.log(np.maximum(found, 0.5) / counted))

    begin = np.clip(np.log([test.ten_s / 55.0, 0.8, 1.0]), low + 1e-3, high - 1e-3)
    found = least_squares(misses, begin, bounds=(low, high), diff_step=0.01, xtol=1e-4, ftol=1e-4)
    return Striker(*(float(value) for value in np.exp(found.x)))
