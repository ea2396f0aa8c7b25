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

from yoisho.engine.parameters import REFERENCE, Parameters
from yoisho.engine.stores import People, simulate
from yoisho.strikes.tempo import TEMPOS

SPLIT_S = 30
SPLITS = 6
REFERENCE_SPEED_STRIKES_IN_30_S = 90.0
"""Strikes of the tempo "speed" in 30 s, 180 a minute: a person's own count moves it. Own setting."""


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

    @property
    def reserve_s(self) -> float:
        """The reserve as seconds at the sustained rate: comparable between people and with the model."""
        return 60.0 * self.reserve / self.sustained_per_min

    @property
    def speed_scale(self) -> float:
        """The person's strikes at speed against the default [-]."""
        return self.thirty_s / REFERENCE_SPEED_STRIKES_IN_30_S


@lru_cache(maxsize=512)
def reserve_s_of_model(vo2max_ml_kg_min: float, parameters: Parameters = REFERENCE) -> float:
    """Work above the end power in 3 minutes of all-out striking, as seconds at the end power, for an average person."""
    demand = np.full(2, TEMPOS["all-out"].demand_frac)
    run = simulate(np.array([150.0, 30.0]), demand, People.one(vo2max_ml_kg_min, parameters), parameters=parameters)
    first, last = run.energy_delivered[:, 0]
    end_power = last / 30.0
    return float((first + last) / end_power - 180.0)


def anaerobic_scale(test: StrikeTest, vo2max_ml_kg_min: float) -> float:
    """What the strike reserve says of the anaerobic stores and flows, against an average person [-], within 0.6-1.5.

    Assumes that strikes go with the energy delivered: own assumption, no source.
    """
    return float(np.clip(test.reserve_s / reserve_s_of_model(vo2max_ml_kg_min), 0.6, 1.5))
