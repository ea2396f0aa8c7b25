"""Training load from session ratings: what a day cost, how alike the days of a week were, and how it goes over weeks.

References (from memory):
[1] Foster C et al. (2001) J Strength Cond Res 15:109-115: load = rating (0 to 10) x minutes.
[2] Foster C (1998) MSSE 30:1164-1168: monotony = mean of a week's daily loads over their standard deviation, days of
    rest counted as 0; strain = week's load x monotony.
[3] Williams S, West S, Cross MJ, Stokes KA (2017) BJSM 51:209-210: exponentially weighted means.
[4] Impellizzeri FM et al. (2020) IJSPP 15:907-913: what a ratio of two of them does not tell.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from statistics import fmean, stdev

DAYS = 7
MONOTONOUS = 2.0
"""From which a week's days are too much alike. Common practice after [2], no sharp border."""
SHORT_DAYS, LONG_DAYS = 7, 28
CRITICISM = (
    "Two moving means of one load say how it changes, and no more: their ratio foretells no injury "
    "(Impellizzeri 2020) and is no limit."
)
"""Said wherever the two are shown."""


def session_load(rpe: float, seconds: float) -> float:
    """Of one session [rating x min] [1]."""
    return rpe * seconds / 60.0


@dataclass(frozen=True)
class WeekLoad:
    """Of seven days."""

    load: float
    monotony: float | None
    """By the sample standard deviation; None where all days are alike (or none was trained)."""
    strain: float | None


def week_load(days: Sequence[float]) -> WeekLoad:
    """From the loads of seven days, those of rest as 0 [2]. Raises `ValueError` for other than seven.

    Whether Foster took the sample's or the population's standard deviation we do not know; the sample's is taken here,
    which gives the lower monotony.
    """
    if len(days) != DAYS:
        raise ValueError(f"a week has {DAYS} days, not {len(days)}")
    load, spread = float(sum(days)), stdev(days)
    if spread < 1e-9:
        return WeekLoad(load, None, None)
    monotony = fmean(days) / spread
    return WeekLoad(load, monotony, load * monotony)


def ewma(days: Sequence[float], span: int) -> list[float]:
    """Exponentially weighted mean of the days up to each [3]: a day weighs 2 / (span + 1), the first is the start."""
    share = 2.0 / (span + 1)
    found: list[float] = []
    for day in days:
        found.append(day if not found else share * day + (1 - share) * found[-1])
    return found
