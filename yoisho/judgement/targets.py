"""Purposes. One entry here is all a new purpose needs; the verdict, the proposals and the app read this table.

A purpose is a small set of measures. Each has a desirability from 0 to 1: a trapezoid that is 0 up to `none_below`,
1 between `full_from` and `full_to`, and 0 again from `none_above`. They are joined by a weighted geometric mean
(Derringer and Suich 1980, from memory). The settings are our own unless a source is named beside them.
"""

from dataclasses import dataclass
from math import inf
from typing import Literal

Unit = Literal["percent", "minutes", "seconds", "count", "demand"]


@dataclass(frozen=True)
class Measure:
    figure: str
    """Name of the figure or of the structural count it reads."""
    label: str
    unit: Unit
    none_below: float
    full_from: float
    full_to: float
    none_above: float
    met: str
    """Said where it is met; {value} is the figure."""
    low: str
    """Said where it falls short; {value} is the figure, {wanted} the bound."""
    high: str
    """Said where it goes past; likewise."""
    source: str = "own setting"
    weight: float = 1.0

    def desirability(self, value: float) -> float:
        """0 to 1."""
        if value < self.full_from:
            return max(0.0, (value - self.none_below) / (self.full_from - self.none_below))
        if value > self.full_to:
            return max(0.0, (self.none_above - value) / (self.none_above - self.full_to))
        return 1.0


@dataclass(frozen=True)
class Target:
    id: str
    name: str
    meaning: str
    measures: tuple[Measure, ...]


def _fade(full_to: float, none_above: float, figure: str = "fade_mean") -> Measure:
    return Measure(
        figure, "fade", "percent", -inf, -inf, full_to, none_above,
        "The strikes hold: {value} fade.", "", "The strikes fade by {value}: more than {wanted} is rubbish work.",
    )  # fmt: skip


TARGETS: dict[str, Target] = {
    target.id: target
    for target in (
        Target(
            "sprint-power",
            "sprint power",
            "the hardest short burst, fresh every time",
            (
                Measure("sprint_at_start", "sprint store at the start", "percent", 0.60, 0.85, inf, inf,
                        "Rests of {rest} bring the sprint store back to {value} for each effort.",
                        "Rests of {rest} leave the sprint store at {value}: {wanted} is fresh.", "",
                        weight=1.5),
                Measure("lactic_share", "lactic share", "percent", -inf, -inf, 0.30, 0.50,
                        "Only {value} of the energy is lactic.", "",
                        "{value} of the energy is lactic: efforts of {work} are too long for sprint power."),
                Measure("bout_s", "length of an effort", "seconds", 2, 4, 10, 18,
                        "Efforts of {work} stay on the sprint store.",
                        "Efforts of {work} are over before they begin.",
                        "Efforts of {work} run past the sprint store: {wanted} is the longest.",
                        "NSCA Essentials 4th ed., 5-10 s, from memory"),
                Measure("demand", "effort", "demand", 1.0, 1.5, inf, inf,
                        "The efforts are all out.", "The efforts are not all out, so nothing pushes the top.", ""),
                Measure("bouts", "efforts", "count", 2, 6, 24, 40,
                        "Efforts: {value}, which is enough.", "Efforts: {value}. Fewer than {wanted} is too few.",
                        "Efforts: {value}. After {wanted} the top is gone."),
                _fade(0.05, 0.20, "fade_last"),
            ),
        ),
        Target(
            "lactic-capacity",
            "lactic capacity",
            "going on hard with the lactic store far down",
            (
                Measure("lactic_half_min", "lactic store under half", "minutes", 0.0, 4, 14, 28,
                        "The lactic store is under half for {value}.",
                        "The lactic store is under half for only {value}: {wanted} is wanted.",
                        "The lactic store is under half for {value}: past {wanted} only the form goes.",
                        weight=1.5),
                Measure("lactic_reserve_lowest", "lactic store at its lowest", "percent", -inf, -inf, 0.35, 0.80,
                        "The lactic store goes down to {value}.", "",
                        "The lactic store never goes under {value}: {wanted} is where capacity is trained."),
                Measure("bouts", "hard efforts", "count", 2, 6, inf, inf,
                        "Hard efforts: {value}, which is enough.",
                        "Hard efforts: {value}. Fewer than {wanted} is too few.", ""),
                Measure("bout_s", "length of an effort", "seconds", 8, 20, 90, 200,
                        "Efforts of {work} are long enough to call on it.",
                        "Efforts of {work} live on the sprint store: {wanted} is the shortest.",
                        "Efforts of {work} turn into aerobic work: {wanted} is the longest."),
                _fade(0.25, 0.50),
            ),
        ),
        Target(
            "aerobic-power",
            "aerobic power",
            "time near the highest oxygen uptake",
            (
                Measure("vo2_90_min", "time near the top", "minutes", 0.5, 5, 15, 30,
                        "Uptake is at 90 % of its maximum or more for {value}.",
                        "Uptake is at 90 % of its maximum for only {value}: {wanted} is wanted.",
                        "Uptake is near its maximum for {value}: {wanted} is plenty.",
                        "Buchheit and Laursen 2013, 5-10 min and more, from memory", weight=1.5),
                Measure("lactic_reserve_lowest", "lactic store at its lowest", "percent", 0.05, 0.45, inf, inf,
                        "The lactic store stays above {value}.",
                        "The lactic store falls to {value}: this is lactic work, not aerobic power.", ""),
                Measure("demand", "effort", "demand", 0.70, 0.88, 1.35, 1.70,
                        "The efforts are near the top of what oxygen pays for.",
                        "The efforts are too easy to pull uptake up.",
                        "The efforts are so hard that oxygen cannot pay for them."),
                _fade(0.10, 0.30),
            ),
        ),
        Target(
            "aerobic-base",
            "aerobic base",
            "long easy work that a coach can talk over",
            (
                Measure("base_min", "steady easy work", "minutes", 6, 18, 75, 150,
                        "Uptake is in the easy band for {value}.",
                        "Uptake is in the easy band for only {value}: {wanted} is the least.",
                        "{value} in the easy band is long: {wanted} is plenty.", weight=1.5),
                Measure("lactic_reserve_lowest", "lactic store at its lowest", "percent", 0.60, 0.84, inf, inf,
                        "The lactic store is hardly touched: {value} left.",
                        "The lactic store falls to {value}: too hard for base.", ""),
                Measure("demand", "effort", "demand", 0.30, 0.40, 0.68, 1.0,
                        "The effort is easy enough.", "The effort is hardly work.",
                        "The effort is too hard to be base: keep to flow."),
            ),
        ),
    )
}  # fmt: skip
