"""What a field test repeats to, and whether a change between two of them is more than that.

The typical error is the standard deviation of the differences between two tries, over the root of two (Hopkins 2000,
Sports Med 30:1-15, from memory). Until a club has repeats enough of its own, a setting of ours stands in its place.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from itertools import pairwise
from math import sqrt
from statistics import stdev
from typing import Literal

LEAST_REPEATS = 5
"""Pairs from which a club's own error counts. Own setting."""
REPEAT_WITHIN = timedelta(days=14)
"""Two tries within so many days are a repeat: nobody has changed between. Own setting."""
SURE = 1.2816
"""Standard errors that a change must pass to be real 8 times in 10, both ways counted."""
Unit = Literal["strikes", "m", "km/h", "bpm"]


@dataclass(frozen=True)
class FieldTestKind:
    id: str
    name: str
    unit: Unit
    low: float
    high: float
    error: float
    """Typical error [its unit], or share of the value where `relative`. Own setting."""
    relative: bool
    why: str
    """The reason for the setting."""
    how: str
    """How it is done, in a sentence."""
    more_is_better: bool = True


FIELD_TESTS: dict[str, FieldTestKind] = {
    test.id: test
    for test in (
        FieldTestKind("strikes", "strikes, 10 s, 30 s and 3:00", "strikes", 10, 150, 0.04, True,
                      "own setting: two counts of one clip differ by about this much",
                      "Flat out on one bag: 10 s, 30 s, then 3:00 counted in six splits."),
        FieldTestKind("cooper", "run of 12 minutes", "m", 1200, 4600, 0.03, True, "own setting: pacing",
                      "As far as it goes in 12 minutes on a track."),
        FieldTestKind("shuttle", "20 m shuttle run", "km/h", 8, 19, 0.5, False, "own setting: one stage",
                      "The speed of the last full stage."),
        FieldTestKind("hr-rest", "resting heart rate", "bpm", 25, 110, 3.0, False, "own setting: from day to day",
                      "A minute lying or sitting still, before anything is done.", more_is_better=False),
        FieldTestKind("hr-max", "highest heart rate seen", "bpm", 100, 230, 2.0, False, "own setting: strap and effort",
                      "The highest a strap has shown in hard work."),
        FieldTestKind("hr-recovery", "heart-rate recovery", "bpm", 0, 100, 4.0, False, "own setting: posture",
                      "By how much it falls in the first minute after hard work."),
    )
}  # fmt: skip
"""One entry here is all a new test of one number needs."""


@dataclass(frozen=True)
class Tried:
    """One test of one person, in one number [the test's unit]."""

    on: date
    value: float


def repeats(of_each: Sequence[Sequence[Tried]]) -> list[tuple[float, float]]:
    """The pairs of values that are repeats, of many people, each in order of days."""
    return [
        (before.value, after.value)
        for tries in of_each
        for before, after in pairwise(sorted(tries, key=lambda each: each.on))
        if after.on - before.on <= REPEAT_WITHIN
    ]


def typical_error(pairs: Sequence[tuple[float, float]], *, relative: bool = False) -> float:
    """Of one try, from pairs of tries: SD of the differences over the root of two. Raises `ValueError` for fewer than
    two pairs.

    With `relative` as a share of each pair's mean.
    """
    if len(pairs) < 2:
        raise ValueError("two pairs of tries are the least")
    return stdev((b - a) / ((a + b) / 2) if relative else b - a for a, b in pairs) / sqrt(2)


@dataclass(frozen=True)
class Repeatability:
    """How far one try of a test may be off."""

    error: float
    """[its unit], or a share where the test's is relative."""
    source: str


def repeatability(test: FieldTestKind, pairs: Sequence[tuple[float, float]]) -> Repeatability:
    """By the club's own repeats where there are enough, else by our setting."""
    if len(pairs) < LEAST_REPEATS:
        return Repeatability(test.error, test.why)
    return Repeatability(typical_error(pairs, relative=test.relative), f"the club's {len(pairs)} repeats")


@dataclass(frozen=True)
class ChangeOf:
    """From one try to a later one."""

    by: float
    """[its unit]."""
    within: float
    """What two tries may differ by, 80 % of the time, with nothing changed [its unit]."""

    @property
    def real(self) -> bool:
        return abs(self.by) > self.within


def change(test: FieldTestKind, before: Tried, after: Tried, known: Repeatability) -> ChangeOf:
    """What has changed between two tries, beside what they repeat to."""
    error = known.error * (before.value + after.value) / 2 if test.relative else known.error
    return ChangeOf(after.value - before.value, SURE * sqrt(2) * error)
