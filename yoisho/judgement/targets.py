"""Purposes. One entry here is all a new purpose needs; the verdict, the proposals and the app read this table.

A purpose is a small set of measures. Each has a desirability from 0 to 1: a trapezoid that is 0 up to `none_below`,
1 between `full_from` and `full_to`, and 0 again from `none_above`. They are joined by a weighted geometric mean
(Derringer and Suich 1980, from memory). The settings are our own unless a source is named beside them.
"""

from collections.abc import Callable
from dataclasses import dataclass
from math import inf
from typing import TYPE_CHECKING, Any, Literal, TypeAlias

import numpy as np

from yoisho.engine.measures import LACTIC_DEEP
from yoisho.engine.stores import Floats

Unit = Literal["percent", "minutes", "seconds", "count", "demand", "rating", "points"]
OWN = "own setting"
NSCA = "NSCA Essentials 4th ed. 2016, work and rest by energy system, from memory"
BUCHHEIT = "Buchheit and Laursen 2013, from memory"


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
    """Said where it is met; {value} is the figure, {work} and {rest} the lengths, {rules} the rule set, {rounds} what
    stands between long pauses, {threshold} where the threshold lies for this person."""
    low: str
    """Said where it falls short; {value} is the figure, {wanted} the bound."""
    high: str
    """Said where it goes past; likewise."""
    source: str = OWN
    weight: float = 1.0

    def desirability(self, value: float) -> float:
        """0 to 1."""
        return float(self._trapezoid(value, min, max))

    def desirabilities(self, values: Floats) -> Floats:
        """Each 0 to 1."""
        return np.broadcast_to(self._trapezoid(values, np.minimum, np.maximum), values.shape)

    def _trapezoid(self, value: Any, least: Callable[..., Any], most: Callable[..., Any]) -> Any:
        found = 1.0
        if self.none_below < self.full_from:
            found = least(found, (value - self.none_below) / (self.full_from - self.none_below))
        if self.full_to < self.none_above:
            found = least(found, (self.none_above - value) / (self.none_above - self.full_to))
        return most(found, 0.0)


@dataclass(frozen=True)
class Target:
    id: str
    name: str
    meaning: str
    work: str
    """The work bouts its schools use, in words."""
    ratio: str
    """Their work to rest, in words."""
    source: str
    """Who gives those."""
    measures: tuple[Measure, ...]
    heart_band: tuple[float, float] | None = None
    """Where the heart rate belongs [share of HRmax], where the purpose says so."""


def _fade(full_to: float, none_above: float, figure: str = "fade_mean") -> Measure:
    return Measure(
        figure, "fade", "percent", -inf, -inf, full_to, none_above,
        "The strikes hold: {value} fade.", "", "The strikes fade by {value}: more than {wanted} trains nothing new.",
    )  # fmt: skip


def _fresh(full_from: float, none_below: float, word: str) -> Measure:
    return Measure(
        "sprint_at_start", "sprint store at the start", "percent", none_below, full_from, inf, inf,
        "Rests of {rest} bring the sprint store back to {value} for each effort.",
        f"Rests of {{rest}} leave the sprint store at {{value}}: {{wanted}} is {word}.", "", weight=1.5,
    )  # fmt: skip


def _all_out(full_from: float) -> Measure:
    return Measure(
        "demand", "effort", "demand", 1.0, full_from, inf, inf,
        "The efforts are all out.", "The efforts ask {value} on average: all out is more, and pushes the top.", "",
    )  # fmt: skip


def _length(none_below: float, full_from: float, full_to: float, none_above: float, source: str, met: str, low: str,
            high: str) -> Measure:  # fmt: skip
    return Measure(
        "bout_s", "length of an effort", "seconds", none_below, full_from, full_to, none_above, met, low, high, source
    )


def _count(figure: str, none_below: float, full_from: float, full_to: float, none_above: float, high: str) -> Measure:
    return Measure(
        figure, "efforts", "count", none_below, full_from, full_to, none_above,
        "Efforts: {value}, which is enough.", "Efforts: {value}. Fewer than {wanted} is too few.", high,
    )  # fmt: skip


TARGETS: dict[str, Target] = {
    target.id: target
    for target in (
        Target(
            "sprint-power", "sprint power", "the hardest short burst, fresh every time",
            "4 to 10 s, all out", "1:12 to 1:20", NSCA,
            (
                _fresh(0.80, 0.56, "fresh"),
                Measure("lactic_share", "lactic share", "percent", -inf, -inf, 0.42, 0.60,
                        "Only {value} of the energy is lactic.", "",
                        "{value} of the energy is lactic: efforts of {work} are too long for sprint power.",
                        "Gaitanos 1993 gives .44 for a first sprint of 6 s, from memory"),
                _length(2, 4, 10, 16, NSCA, "Efforts of {work} stay on the sprint store.",
                        "Efforts of {work} are over before they begin.",
                        "Efforts of {work} run past the sprint store: {wanted} is the longest."),
                _all_out(1.5),
                _count("bouts", 2, 6, 24, 40, "Efforts: {value}. After {wanted} the top is gone."),
                _fade(0.05, 0.20, "fade_last"),
            ),
        ),
        Target(
            "sprint-capacity", "sprint capacity", "short bursts again and again, before the store is full",
            "8 to 15 s, all out", "1:5 to 1:8", NSCA,
            (
                _length(3, 8, 15, 24, OWN, "Efforts of {work} empty the sprint store without leaving it.",
                        "Efforts of {work} are too short to empty the sprint store.",
                        "Efforts of {work} turn lactic: {wanted} is the longest."),
                Measure("sprint_at_start", "sprint store at the start", "percent", 0.40, 0.62, 0.86, 0.93,
                        "Rests of {rest} bring the sprint store back to {value}: not full, as it should be.",
                        "Rests of {rest} leave the sprint store at {value}: {wanted} is the least.",
                        "Rests of {rest} fill the sprint store to {value}: shorter rest asks more of it."),
                Measure("sprint_lowest", "sprint store at its lowest", "percent", -inf, -inf, 0.45, 0.75,
                        "The sprint store goes down to {value}.", "",
                        "The sprint store never goes under {value}: {wanted} is where it is trained."),
                _all_out(1.5),
                _count("bouts", 2, 6, 30, 50, "Efforts: {value}. After {wanted} it is something else."),
                _fade(0.20, 0.40),  # ten sprints of 6 s with 30 s rest lose 27 % (Gaitanos 1993, from memory)
            ),
        ),
        Target(
            "lactic-power", "lactic power", "the highest flow from the lactic store, well rested",
            "15 to 40 s, all out", "1:3 to 1:5, or 2:00 and more", NSCA,
            (
                _length(8, 15, 40, 70, NSCA, "Efforts of {work} open the lactic store all the way.",
                        "Efforts of {work} live on the sprint store: {wanted} is the shortest.",
                        "Efforts of {work} cannot be all out to the end: {wanted} is the longest."),
                _fresh(0.70, 0.40, "rested enough"),
                Measure("lactic_flow", "lactic flow", "percent", 0.25, 0.60, inf, inf,
                        "The lactic store gives {value} of this person's highest flow.",
                        "The lactic store gives {value} of this person's highest flow: {wanted} is wanted.", ""),
                Measure("lactic_used_highest", "lactic store used", "percent", 0.07, 0.20, 0.80, 1.00,
                        "{value} of the lactic store is used.",
                        "Only {value} of the lactic store is used: {wanted} is the least.",
                        "{value} of the lactic store is used: nothing is left for the last effort."),
                _all_out(1.4),
                _count("bouts", 1, 3, 8, 14, "Efforts: {value}. After {wanted} the flow is gone."),
            ),
        ),
        Target(
            "lactic-capacity", "lactic capacity", "going on hard with the lactic store far down",
            "20 to 90 s, hard", "1:1 to 1:3", "common practice, no source",
            (
                Measure("lactic_deep_min", f"lactic store {LACTIC_DEEP}", "minutes", 0.9, 4, 14, 28,
                        f"The lactic store is {LACTIC_DEEP} for {{value}}.",
                        f"The lactic store is {LACTIC_DEEP} for only {{value}}: {{wanted}} is wanted.",
                        f"The lactic store is {LACTIC_DEEP} for {{value}}: past {{wanted}} only the form goes.",
                        weight=1.5),
                Measure("lactic_reserve_lowest", "lactic store at its lowest", "percent", -inf, -inf, 0.48, 0.82,
                        "The lactic store goes down to {value}.", "",
                        "The lactic store never goes under {value}: {wanted} is where capacity is trained."),
                Measure("bouts", "hard efforts", "count", 2, 6, inf, inf,
                        "Hard efforts: {value}, which is enough.",
                        "Hard efforts: {value}. Fewer than {wanted} is too few.", ""),
                _length(8, 20, 90, 200, OWN, "Efforts of {work} are long enough to call on it.",
                        "Efforts of {work} live on the sprint store: {wanted} is the shortest.",
                        "Efforts of {work} turn into aerobic work: {wanted} is the longest."),
                _fade(0.25, 0.60),
            ),
        ),
        Target(
            "threshold", "threshold", "high but tolerated: technique must survive",
            "2 to 10 min, or composite rounds", "1:0.3 to 1:1", "common practice, no source",
            (
                Measure("threshold_min", "time at the threshold", "minutes", 2, 8, 25, 50,
                        "{value} {threshold}.", "Only {value} {threshold}: {wanted} is wanted.",
                        "{value} at the threshold is long: {wanted} is plenty.", weight=1.5),
                Measure("lactic_used_highest", "lactic store used", "percent", -inf, -inf, 0.48, 0.75,
                        "The lactic store is used slowly: {value} at the most.", "",
                        "{value} of the lactic store is used: past {wanted} this is not threshold."),
                Measure("round_s", "length of a round", "seconds", 60, 120, 600, 1500,
                        "{rounds} of {value} are long enough to settle.",
                        "{rounds} of {value} are too short to settle: {wanted} is the shortest.",
                        "{rounds} of {value} are long: {wanted} is plenty."),
                Measure("demand", "effort", "demand", 0.55, 0.68, 1.25, 1.6,
                        "The effort is where it should be.", "The effort is too easy for threshold.",
                        "The effort is past what can be tolerated."),
                _fade(0.05, 0.20),
            ),
            heart_band=(0.80, 0.90),
        ),
        Target(
            "aerobic-power", "aerobic power", "time near the highest oxygen uptake",
            "15 to 60 s at 100 to 130 %, or 2 to 4 min at 90 to 100 % of VO2max", "2:1 to 1:1", BUCHHEIT,
            (
                Measure("vo2_90_min", "time near the top", "minutes", 0.5, 5, 15, 30,
                        "Uptake is at 90 % of its maximum or more for {value}.",
                        "Uptake is at 90 % of its maximum for only {value}: {wanted} is wanted.",
                        "Uptake is near its maximum for {value}: {wanted} is plenty.",
                        "Buchheit and Laursen 2013, 5-10 min and more, from memory", weight=1.5),
                Measure("lactic_reserve_lowest", "lactic store at its lowest", "percent", 0.25, 0.50, inf, inf,
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
            "aerobic-base", "aerobic base", "long easy work that a coach can talk over",
            "continuous, or rounds of flow", "little rest", "common practice, no source",
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
            heart_band=(0.60, 0.75),
        ),
        Target(
            "skill", "skill, fresh", "learning while nothing is tired",
            "any", "as long as it takes", "common practice, no source",
            (
                Measure("skill_share", "technique work", "percent", 0.10, 0.60, inf, inf,
                        "{value} of the work is at a pace that technique can be learned at.",
                        "Only {value} of the work is at a pace that technique can be learned at: {wanted} is wanted.",
                        "", weight=1.5),
                Measure("rpe", "how hard it feels", "rating", -inf, -inf, 4.5, 7.0,
                        "It should feel about {value} of 10.", "",
                        "It should feel about {value} of 10: past {wanted} nobody learns."),
                Measure("sprint_lowest", "sprint store at its lowest", "percent", 0.20, 0.45, inf, inf,
                        "The sprint store never goes under {value}.",
                        "The sprint store falls to {value}: under {wanted} hands are tired.", ""),
                Measure("lactic_used_highest", "lactic store used", "percent", -inf, -inf, 0.20, 0.45,
                        "The lactic store is hardly touched.", "",
                        "{value} of the lactic store is used: past {wanted} it is conditioning."),
            ),
        ),
        Target(
            "fight-rehearsal", "bout rehearsal", "the rounds, the rests and the pace of the bout",
            "the rule set's rounds", "as the rules", "rule sets, from memory",
            (
                Measure("round_ratio", "length of a round", "percent", 0.5, 0.97, 1.03, 1.5,
                        "Rounds are as long as {rules} has them.",
                        "Rounds are {value} of those of {rules}.", "Rounds are {value} of those of {rules}.",
                        weight=1.5),
                Measure("round_rest_ratio", "rest between rounds", "percent", 0.2, 0.90, 1.05, 2.0,
                        "Rests are as {rules} has them.", "Rests are {value} of those of {rules}.",
                        "Rests are {value} of those of {rules}."),
                Measure("rounds_ratio", "rounds", "percent", 0.3, 0.99, 1.40, 3.0,
                        "As many rounds as {rules} has, or a little more.", "Only {value} of the rounds of {rules}.",
                        "{value} of the rounds of {rules}: more than a bout."),
                Measure("round_order", "order of effort", "points", -0.35, 0.10, inf, inf,
                        "Rounds open fast, settle and finish hard.",
                        "Rounds do not open fast, settle and finish hard.", ""),
                Measure("fade_last_round", "fade in the last round", "percent", -inf, -inf, 0.20, 0.45,
                        "The last round fades by {value}, as last rounds do.", "",
                        "The last round fades by {value}: more than {wanted} is not the pace of a bout."),
            ),
        ),
    )
}  # fmt: skip

if TYPE_CHECKING:
    TargetId: TypeAlias = str
else:
    TargetId = Literal[tuple(TARGETS)]
