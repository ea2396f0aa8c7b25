"""Heart rate: schools of maximum, and its course behind uptake.

References (all from memory):
[1] Tanaka H, Monahan KD, Seals DR (2001) JACC 37:153-156.
[2] Gulati M et al. (2010) Circulation 122:130-137.
[3] Fox SM, Naughton JP, Haskell WL (1971).
[4] Swain DP, Leutholtz BC (1997) MSSE 29:410-414: heart-rate reserve equals VO2 reserve.
[5] Kravitz L et al. (2003) J Strength Cond Res 17:104-108: punching, 85-93 % HRmax at 68-73 % VO2max.
"""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Literal

import numpy as np
from numba import njit
from numpy.typing import NDArray

Floats = NDArray[np.float64]

FORMULA_SD_BPM = 10.0
UP_TAU_S = 30.0
DOWN_TAU_S = 55.0
"""Lags of the heart behind its target, on the way up and down. Own assumption."""


def tanaka(age_years: float) -> float:
    """HRmax [bpm], 208 - 0.7 age [1]. Adults; one person differs by about 10 bpm."""
    return 208.0 - 0.7 * age_years


def gulati(age_years: float) -> float:
    """HRmax [bpm] for women, 206 - 0.88 age [2]. One person differs by about 12 bpm."""
    return 206.0 - 0.88 * age_years


def fox(age_years: float) -> float:
    """HRmax [bpm], 220 - age [3]. Not derived from a study; shown for comparison only."""
    return 220.0 - age_years


School = Literal["tanaka", "gulati", "fox"]


@dataclass(frozen=True)
class MaximumFormula:
    name: str
    text: str
    formula: Callable[[float], float]
    note: str


SCHOOLS: dict[School, MaximumFormula] = {
    "tanaka": MaximumFormula("Tanaka 2001", "208 - 0.7 age", tanaka, "adults; the default for men"),
    "gulati": MaximumFormula("Gulati 2010", "206 - 0.88 age", gulati, "women; the default for women"),
    "fox": MaximumFormula("Fox 1971", "220 - age", fox, "not derived from a study; shown for comparison"),
}
"""Schools of maximum heart rate. One entry here is all a new one needs."""


@njit(cache=True)
def _follow(target, kept_up, kept_down, out):  # type: ignore[no-untyped-def]
    for t in range(1, target.shape[0]):
        for k in range(target.shape[1]):
            gap = out[t - 1, k] - target[t, k]
            out[t, k] = target[t, k] + gap * (kept_up[t] if gap < 0.0 else kept_down[t])


def course(
    seconds: Floats, uptake_frac: Floats, rest_frac: Floats, ceiling_frac: Floats, hr_rest: Floats, hr_max: Floats
) -> Floats:
    """Heart rate [bpm] of shape (t, k), from uptake [x VO2max] of shape (t, k).

    `rest_frac`, `hr_rest`, `hr_max` have shape (k,); `ceiling_frac` (t,) is the share of VO2max that the muscle in play
    can take up. The share of heart-rate reserve is that of uptake on the way from rest to the ceiling ([4], and [5]:
    the heart of who strikes with the arms stands higher at the same uptake), followed with a lag.
    """
    reserve = (uptake_frac - rest_frac) / (ceiling_frac[:, None] - rest_frac)
    target = hr_rest + np.clip(reserve, 0.0, 1.0) * (hr_max - hr_rest)
    span = np.diff(seconds, prepend=0.0)
    out = np.empty_like(target)
    out[0] = hr_rest
    _follow(target, np.exp(-span / UP_TAU_S), np.exp(-span / DOWN_TAU_S), out)
    return out
