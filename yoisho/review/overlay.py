"""Where a file of heart rate lies on a run: by its clock where both have one, else where it fits what was expected "
"best."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Literal

import numpy as np

from yoisho.engine.stores import Floats

LEAST_OVERLAP_S = 120.0
"""So much of a run must be covered before a place is believed."""
STEP_S = 5
"""First the places so far apart are tried, then every second about the best."""
LONGEST_GAP_S = 15.0
"""Between two readings further apart than this nothing is known."""
APART_S = 45.0
"""Two places further apart than this are different ones."""
SURE, LIKELY = 0.15, 0.05
"""How much better than any other place the best one fits (as correlation), to be sure of it, or to hold it likely."""


Sureness = Literal["sure", "likely", "a guess"]
Heart = Sequence[tuple[float, float]]
"""Second and heart rate [bpm], in order."""


@dataclass(frozen=True)
class Laid:
    shift_s: float
    """Session time of the file's first reading [s]."""
    by: Literal["clock", "match"]
    sureness: Sureness
    correlation: float | None
    """Of what was heard with what was expected; None where it was laid by its clock."""


def _on_seconds(heart: Heart) -> Floats:
    """Heart rate on every second of the file, NaN in its gaps."""
    at, bpm = np.array(heart).T
    seconds = np.arange(int(at[-1]) + 1, dtype=float)
    found = np.interp(seconds, at, bpm)
    after = np.searchsorted(at, seconds)
    before = np.maximum(after - 1, 0)
    gap = at[after] - at[before]
    found[(gap > LONGEST_GAP_S) & (seconds > at[before]) & (seconds < at[after])] = np.nan
    return np.asarray(found)


def _correlation(heard: Floats, expected: Floats, shift: int, least: float) -> float:
    """Of the two where both are known, the first shifted; -1 where too little of them meets."""
    start, end = max(0, shift), min(len(expected), shift + len(heard))
    if end - start < least:
        return -1.0
    one, other = heard[start - shift : end - shift], expected[start:end]
    known = np.isfinite(one)
    if known.sum() < least or np.ptp(one[known]) < 3 or np.ptp(other[known]) < 3:
        return -1.0
    return float(np.corrcoef(one[known], other[known])[0, 1])


def lay(heart: Heart, started_at: datetime | None, expected: Sequence[float], begun_at: datetime | None) -> Laid:
    """Where a file lies on a run whose expected heart rate is given for every second [bpm].

    `started_at` is when its first reading was taken, `begun_at` when the run began, each by its own clock. The clocks
    are believed where the file then covers some of the run.
    """
    length = heart[-1][0]
    least = min(LEAST_OVERLAP_S, 0.5 * len(expected), 0.5 * length + 1)
    if started_at is not None and begun_at is not None:
        shift = (started_at - begun_at).total_seconds()
        if min(len(expected), shift + length) - max(0.0, shift) >= least:
            return Laid(shift, "clock", "sure", None)
    heard, course = _on_seconds(heart), np.asarray(expected, dtype=float)
    places = list(range(-int(length), len(course), STEP_S))
    # A place that covers all of the run, or has all of the file in it, is better than one that hangs over.
    full = min(len(course), len(heard))
    fits = np.array([_weighed(heard, course, place, least, full) for place in places])
    coarse = places[int(np.argmax(fits))]
    near = range(coarse - STEP_S, coarse + STEP_S + 1)
    best = max(near, key=lambda place: _weighed(heard, course, place, least, full))
    top = _weighed(heard, course, best, least, full)
    others = fits[np.abs(np.array(places) - best) > APART_S]
    lead = top - float(others.max(initial=-1.0))
    sureness: Literal["sure", "likely", "a guess"] = (
        "sure" if lead >= SURE else "likely" if lead >= LIKELY else "a guess"
    )
    return Laid(float(best), "match", sureness, _correlation(heard, course, best, least))


def _weighed(heard: Floats, course: Floats, shift: int, least: float, full: int) -> float:
    overlap = max(0, min(len(course), shift + len(heard)) - max(0, shift))
    return float(_correlation(heard, course, shift, least) * (overlap / full) ** 0.5)


def on_the_run(heart: Heart, shift_s: float, total_s: float) -> tuple[tuple[float, int], ...]:
    """The readings in session time, only those of the run."""
    return tuple((round(at + shift_s, 1), round(bpm)) for at, bpm in heart if 0 <= at + shift_s < total_s)
