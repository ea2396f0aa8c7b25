"""The shape of a session, for measures that need no simulation: efforts, rests, rounds and their order."""

from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from itertools import pairwise

import numpy as np

from yoisho.engine.readout import Reading
from yoisho.engine.stores import Floats
from yoisho.engine.work_bouts import WorkBouts
from yoisho.session.rules import RULE_SETS, RuleSet
from yoisho.session.timeline import Timeline
from yoisho.strikes.tempo import TEMPOS

ROUND_BREAK_S = 30
"""A pause of this length or more ends a round."""


@dataclass(frozen=True)
class RoundOf:
    """Consecutive intervals from one long pause to the next."""

    first: int
    last: int
    seconds: int
    rest_s: int
    """The pause after it; 0 after the last."""


def pauses(reading: Reading, bouts: WorkBouts) -> list[int]:
    """Seconds between one effort and the next."""
    at = reading.timeline.intervals
    return [at[after.first].start_s - at[before.last].end_s for before, after in pairwise(bouts)]


def rounds_of(timeline: Timeline, purpose: str | None = None) -> list[RoundOf]:
    """The rounds of the main parts: of all stretches between long pauses, those of the length that most time is spent
    in. A length that comes again goes before one that stands alone.
    """
    groups: list[RoundOf] = []
    start: int | None = None
    inside = timeline.main(purpose)
    for index, interval in enumerate(timeline.intervals):
        pause = not inside[index] or (interval.kind != "work" and interval.seconds >= ROUND_BREAK_S)
        if not pause and start is None:
            start = index
        if start is not None and (pause or index == len(timeline.intervals) - 1):
            last = index - 1 if pause else index
            seconds = timeline.intervals[last].end_s - timeline.intervals[start].start_s
            rest_s = interval.seconds if pause and inside[index] else 0
            groups.append(RoundOf(start, last, seconds, rest_s))
            start = None
    spent = Counter[int]()
    for group in groups:
        spent[group.seconds] += group.seconds
    if not spent:
        return []
    length = max(spent, key=lambda seconds: (spent[seconds] > seconds, spent[seconds], seconds))
    return [group for group in groups if group.seconds == length]


def _rounds(reading: Reading, purpose: str | None) -> list[RoundOf]:
    return rounds_of(reading.timeline, purpose)


def rounds_in(reading: Reading, purpose: str | None) -> list[RoundOf]:
    """The same of a reading, where they are looked for once."""
    return reading.once(_rounds, purpose)


def rules_for(reading: Reading, purpose: str | None = None) -> RuleSet:
    """The person's rule set; where none is known, the one whose rounds and rests come nearest to the session's."""
    known = RULE_SETS.get(reading.person.rule_set or "")
    if known:
        return known
    rounds = rounds_in(reading, purpose)
    length = rounds[0].seconds
    rest = max((one.rest_s for one in rounds[:-1]), default=60)
    return min(
        RULE_SETS.values(),
        key=lambda rules: (abs(rules.round_s - length) + abs(rules.rest_s - rest), abs(rules.rounds - len(rounds))),
    )


def _thirds(reading: Reading, one: RoundOf) -> tuple[float, float, float]:
    """Mean demand of the first, second and last third of a round [x VO2max]."""
    intervals = reading.timeline.intervals[one.first : one.last + 1]
    begin, third = intervals[0].start_s, one.seconds / 3
    means = []
    for number in range(3):
        left, right = begin + number * third, begin + (number + 1) * third
        asked = sum(max(0.0, min(i.end_s, right) - max(i.start_s, left)) * i.demand_frac for i in intervals)
        means.append(asked / third)
    return means[0], means[1], means[2]


def fade_last_round(timeline: Timeline, rounds: Sequence[RoundOf], fades: Floats) -> Floats:
    """Fade of the last round, of shape (k,), from those of every interval (s, k), each by what was asked of it."""
    if not rounds:
        return np.zeros(fades.shape[1])
    inside = range(rounds[-1].first, rounds[-1].last + 1)
    asked = np.array([timeline.intervals[i].seconds * timeline.intervals[i].demand_frac for i in inside])
    return np.asarray(asked @ fades[inside.start : inside.stop] / asked.sum())


def _round_figures(reading: Reading, purpose: str | None) -> dict[str, float]:
    rounds, rules = rounds_in(reading, purpose), rules_for(reading, purpose)
    rests = [one.rest_s for one in rounds[:-1]] or [0]
    order = []
    for one in rounds:
        first, middle, last = _thirds(reading, one)
        order.append(min(first, last) - middle)
    return {
        "round_s": rounds[0].seconds,
        "round_ratio": rounds[0].seconds / rules.round_s,
        "round_rest_ratio": sum(rests) / len(rests) / rules.rest_s,
        "rounds_ratio": len(rounds) / rules.rounds,
        "round_order": sum(order) / len(order),
        "fade_last_round": float(fade_last_round(reading.timeline, rounds, reading.measured.intervals["fade"])[0]),
    }


def threshold_min(reading: Reading, figures: Mapping[str, Floats]) -> Floats:
    """Minutes at the threshold, of shape (k,): by the heart where it says something, or by uptake."""
    uptake = figures["vo2_75_88_min"]
    return np.maximum(figures["hr_80_90_min"], uptake) if reading.heart_holds else uptake


def structure(reading: Reading, purpose: str | None, bouts: WorkBouts) -> dict[str, float]:
    """Every structural number a purpose may ask about, by name, of the main parts and their work bouts."""
    timeline = reading.timeline
    work_s = sum(bout.seconds for bout in bouts)
    asked = sum(
        interval.seconds * interval.demand_frac
        for bout in bouts
        for interval in timeline.intervals[bout.first : bout.last + 1]
    )
    inside = zip(timeline.intervals, timeline.main(purpose), strict=True)
    worked = [interval for interval, is_in in inside if is_in and interval.kind == "work"]
    skilled = sum(interval.seconds for interval in worked if TEMPOS[interval.tempo].skilled)
    return {
        "bouts": len(bouts),
        "bout_s": work_s / len(bouts),
        "demand": asked / work_s,
        "skill_share": skilled / sum(interval.seconds for interval in worked),
        "threshold_min": float(threshold_min(reading, reading.measured.figures)[0]),
        **_round_figures(reading, purpose),
    }
