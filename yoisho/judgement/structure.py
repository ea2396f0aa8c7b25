"""The shape of a session, for measures that need no simulation: efforts, rests, rounds and their order."""

from collections import Counter
from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from yoisho.engine.readout import Reading
from yoisho.engine.stores import Floats
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


def pauses(reading: Reading) -> list[int]:
    """Seconds between one effort and the next."""
    pairs = zip(reading.work_bouts, reading.work_bouts[1:], strict=False)
    return [reading.timeline.intervals[b.first].start_s - reading.timeline.intervals[a.last].end_s for a, b in pairs]


def rounds_of(timeline: Timeline) -> list[RoundOf]:
    """The session's rounds: of all stretches between long pauses, those of the length that most time is spent in.

    A length that comes again goes before one that stands alone, such as a long warm-up.
    """
    groups: list[RoundOf] = []
    start: int | None = None
    for index, interval in enumerate(timeline.intervals):
        pause = interval.kind != "work" and interval.seconds >= ROUND_BREAK_S
        if not pause and start is None:
            start = index
        if start is not None and (pause or index == len(timeline.intervals) - 1):
            last = index - 1 if pause else index
            seconds = timeline.intervals[last].end_s - timeline.intervals[start].start_s
            groups.append(RoundOf(start, last, seconds, interval.seconds if pause else 0))
            start = None
    spent = Counter[int]()
    for group in groups:
        spent[group.seconds] += group.seconds
    if not spent:
        return []
    length = max(spent, key=lambda seconds: (spent[seconds] > seconds, spent[seconds], seconds))
    return [group for group in groups if group.seconds == length]


def rules_for(reading: Reading) -> RuleSet:
    """The person's rule set; where none is known, the one whose rounds and rests come nearest to the session's."""
    known = RULE_SETS.get(reading.person.rule_set or "")
    if known:
        return known
    rounds = rounds_of(reading.timeline)
    length = rounds[0].seconds if rounds else 0
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


def fade_last_round(timeline: Timeline, fades: Floats) -> Floats:
    """Fade of the last round, of shape (k,), from those of every interval (s, k), each by what was asked of it."""
    rounds = rounds_of(timeline)
    if not rounds:
        return np.zeros(fades.shape[1])
    inside = range(rounds[-1].first, rounds[-1].last + 1)
    asked = np.array([timeline.intervals[i].seconds * timeline.intervals[i].demand_frac for i in inside])
    return np.asarray(asked @ fades[inside.start : inside.stop] / asked.sum())


def _round_figures(reading: Reading) -> dict[str, float]:
    rounds, rules = rounds_of(reading.timeline), rules_for(reading)
    if not rounds:
        return {"round_s": 0, "round_ratio": 0, "round_rest_ratio": 0, "rounds_ratio": 0, "round_order": 0,
                "fade_last_round": 0}  # fmt: skip
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
        "fade_last_round": float(fade_last_round(reading.timeline, reading.measured.intervals["fade"])[0]),
    }


def threshold_min(reading: Reading, figures: Mapping[str, Floats]) -> Floats:
    """Minutes at the threshold, of shape (k,): by the heart where it says something, or by uptake."""
    uptake = figures["vo2_75_88_min"]
    return np.maximum(figures["hr_80_90_min"], uptake) if reading.heart_holds else uptake


def structure(reading: Reading) -> dict[str, float]:
    """Every structural number a purpose may ask about, by name."""
    bouts, timeline = reading.work_bouts, reading.timeline
    work_s = sum(bout.seconds for bout in bouts)
    asked = sum(
        interval.seconds * interval.demand_frac
        for bout in bouts
        for interval in timeline.intervals[bout.first : bout.last + 1]
    )
    skilled = sum(i.seconds for i in timeline.intervals if TEMPOS[i.tempo].skilled)
    return {
        "bouts": len(bouts),
        "bout_s": work_s / len(bouts),
        "demand": asked / work_s,
        "skill_share": skilled / timeline.work_s,
        "threshold_min": float(threshold_min(reading, reading.measured.figures)[0]),
        **_round_figures(reading),
    }
