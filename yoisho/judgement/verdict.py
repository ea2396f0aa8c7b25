"""The verdict: how well a reading fits a purpose, why, and what the session trains best instead."""

from collections.abc import Mapping
from collections.abc import Sequence as Several
from dataclasses import dataclass
from math import exp, isfinite, log
from typing import Any, Literal

import numpy as np

from yoisho.engine.measures import Measured
from yoisho.engine.readout import Reading
from yoisho.engine.stores import Floats
from yoisho.judgement.cautions import Caution, stops
from yoisho.judgement.structure import (
    fade_last_round,
    pauses,
    rounds_in,
    rules_for,
    structure,
    threshold_min,
)
from yoisho.judgement.targets import TARGETS, Measure, Target, TargetId, Unit
from yoisho.session.clock import clock

_LEAST = 0.01
"""A measure missed altogether still leaves the score comparable."""
HOLDS = (
    "It is read from the parts that state the purpose, where any does; else from all that is neither warm-up nor "
    "cool-down.",
    "Five strokes stand where every reason is met, and only there. Four from a score of 0.65, three from 0.45, two "
    "from 0.2, else one.",
    "A stop among the cautions stands against any of it: no strokes, and its sentence in the place of ours.",
    "A reason says whether it is met, short or over; the worst comes first, and it is the one in the sentence.",
    "Where the heart rate says nothing of somebody, no reason speaks of it.",
    "Where the strikes fade is told by the bound of the purpose, and only where the purpose's own measure of the fade "
    "is not met. Work that is as hard as fits its length is held against its first effort, never against itself.",
    "Stretches that hold pauses are not called rounds.",
)
"""The rules of a verdict, as they are told; held over random sessions by tests."""
_EQUAL = 0.02
"""Scores nearer than this are the same: then the purpose asked for counts as the best."""
WELL_AIMED = 0.65
"""The score of four strokes."""
_GRADES = ((WELL_AIMED, 4, "Well aimed"), (0.45, 3, "Part way"), (0.2, 2, "Off target"))
ON_TARGET, NOT_NOW = "On target", "Not now"
Side = Literal["met", "short", "over"]


@dataclass(frozen=True)
class Reason:
    measure: str
    side: Side
    """Met, too little, or too much."""
    desirability: float
    text: str
    intervals: tuple[int, ...]
    """Indices of the timeline's intervals the reason speaks of."""
    source: str

    @property
    def met(self) -> bool:
        return self.side == "met"


@dataclass(frozen=True)
class Verdict:
    target: TargetId
    score: float
    """0 to 1."""
    strokes: int
    """0 to 5, for the tally: five where every reason is met, none where a stop stands against it."""
    grade: str
    sentence: str
    reasons: tuple[Reason, ...]
    """What falls short first, worst first; then what is met."""
    trains_best: TargetId
    """Id of the purpose this session fits best."""
    sureness: float | None
    """Share of the draws in which at least four strokes are reached; None where none were asked for."""


def measure_values(reading: Reading, purpose: str | None = None) -> dict[str, float]:
    """Every number a purpose may ask about, by name, of the parts that state it where any does."""
    return reading.once(_best_guess, purpose)


def _best_guess(reading: Reading, purpose: str | None) -> dict[str, float]:
    return {name: float(found[0]) for name, found in _values(reading, reading.measured, purpose).items()}


def _values(reading: Reading, measured: Measured, purpose: str | None) -> dict[str, Floats]:
    """As above, of the best guess or of the draws, each of shape (k,) or (1,)."""
    bouts = reading.main_bouts(purpose)
    figures = measured.figures if bouts is reading.work_bouts else {**measured.figures, **measured.over(bouts)}
    told = {name: np.array([value]) for name, value in structure(reading, purpose, bouts).items()}
    told["threshold_min"] = threshold_min(reading, measured.figures)
    told["fade_last_round"] = fade_last_round(reading.timeline, rounds_in(reading, purpose), measured.intervals["fade"])
    return {**figures, **told}


def score(target: Target, values: Mapping[str, float]) -> float:
    """Weighted geometric mean of the desirabilities, 0 to 1."""
    return exp(_mean_log(target, [log(max(_LEAST, m.desirability(values[m.figure]))) for m in target.measures]))


def _scores(target: Target, values: Mapping[str, Floats]) -> Floats:
    """The same of many draws, shape (k,)."""
    logs = [np.log(np.maximum(_LEAST, m.desirabilities(values[m.figure]))) for m in target.measures]
    return np.asarray(np.exp(_mean_log(target, logs)))


def _mean_log(target: Target, logs: Several[Any]) -> Any:
    weights = [measure.weight for measure in target.measures]
    return sum(weight * each for weight, each in zip(weights, logs, strict=True)) / sum(weights)


def _sureness(reading: Reading, target: Target, purpose: str | None) -> float | None:
    """In what share of the draws a session reaches at least four strokes for a purpose; None without draws."""
    if reading.spread is None:
        return None
    return float((_scores(target, _values(reading, reading.spread, purpose)) >= WELL_AIMED).mean())


def in_ten(share: float) -> str:
    """A share of the draws, as people say it."""
    tenths = round(10 * share)
    return "hardly any" if tenths == 0 else "nearly all" if tenths == 10 else f"{tenths} in 10"


def say(value: float, unit: Unit) -> str:
    """A value of a measure in the words of the verdict."""
    match unit:
        case "percent":
            return f"{round(100 * value)} %"
        case "minutes":
            return clock(60 * value)
        case "seconds":
            return clock(value)
        case "count":
            return f"{value:.0f}"
        case "demand":
            return f"{100 * value:.0f} % of VO2max"
        case "rating":
            return f"{value:.1f}"
        case "points":
            return f"{value:+.2f}"


def _spread(seconds: list[int]) -> str:
    if not seconds:
        return "0:00"
    low, high = clock(min(seconds)), clock(max(seconds))
    return low if low == high else f"{low} to {high}"


_LAST_EFFORT = ("fade_last",)
_RESTS = ("sprint_at_start", "sprint_at_start_lowest")


def _speaks_of(measure: Measure, reading: Reading, purpose: str | None) -> tuple[int, ...]:
    bouts = reading.main_bouts(purpose)
    inside = [i for bout in bouts for i in range(bout.first, bout.last + 1)]
    if measure.figure in _LAST_EFFORT:
        return tuple(range(bouts[-1].first, bouts[-1].last + 1))
    if measure.figure in _RESTS:
        return tuple(sorted(set(range(bouts[0].first, bouts[-1].last)) - set(inside)))
    if measure.figure.startswith("round") or measure.figure == "fade_last_round":
        rounds = rounds_in(reading, purpose)
        told = rounds[-1:] if measure.figure == "fade_last_round" else rounds
        return tuple(i for one in told for i in range(one.first, one.last + 1))
    return tuple(inside)


def _words(reading: Reading, purpose: str | None) -> dict[str, str]:
    """What every reason may speak of: the lengths of efforts and rests, the rules, what a round is, the threshold."""
    rules, bouts = rules_for(reading, purpose), reading.main_bouts(purpose)
    intervals = reading.timeline.intervals
    broken = any(
        interval.kind != "work"
        for one in rounds_in(reading, purpose)
        for interval in intervals[one.first : one.last + 1]
    )
    uptake = "at 75 to 88 % of VO2peak"
    return {
        "work": _spread([bout.seconds for bout in bouts]),
        "rest": _spread(pauses(reading, bouts)),
        "rules": f"{rules.name} ({rules.text})",
        "rounds": "Stretches with no long pause" if broken else "Rounds",
        "threshold": f"at 80 to 90 % of maximum heart rate, or {uptake}" if reading.heart_holds else uptake,
    }


def _reason(measure: Measure, value: float, reading: Reading, purpose: str | None, words: dict[str, str]) -> Reason:
    desirability = measure.desirability(value)
    side: Side
    if desirability >= 0.999:
        side, template, wanted = "met", measure.met, 0.0
    elif value < measure.full_from:
        side, template, wanted = "short", measure.low, measure.full_from
    else:
        side, template, wanted = "over", measure.high, measure.full_to
    text = template.format(
        value=say(value, measure.unit),
        wanted=say(wanted, measure.unit) if isfinite(wanted) else "",
        **words,
    )
    if measure.label == "fade" and value < -0.005:
        text = f"The strikes hold, and gain {say(-value, measure.unit)}."
    intervals = _speaks_of(measure, reading, purpose)
    return Reason(measure.label, side, desirability, text, intervals, measure.source)


def _grade(reached: float, reasons: Several[Reason]) -> tuple[int, str]:
    """Strokes and their word: five where every reason is met, else by the score."""
    if all(reason.met for reason in reasons):
        return 5, ON_TARGET
    return next(((s, word) for least, s, word in _GRADES if reached >= least), (1, "Off target"))


def judge(reading: Reading, target_id: str | None = None, spoken: Several[Caution] = ()) -> Verdict:
    """The verdict on a reading for a purpose, or for the purpose it fits best where none is named.

    It is read from the parts that state the purpose, where any does. A stop among the cautions that are `spoken` stands
    against any of it.
    """
    values = measure_values(reading, target_id)
    scores = {target.id: score(target, values) for target in TARGETS.values()}
    best = max(scores, key=lambda name: scores[name])
    target = TARGETS[target_id or best]
    reached = scores[target.id]
    if reached >= scores[best] - _EQUAL:
        best = target.id
    words = _words(reading, target_id)
    reasons = sorted(
        (_reason(measure, values[measure.figure], reading, target_id, words) for measure in target.measures),
        key=lambda reason: (reason.met, reason.desirability),
    )
    strokes, grade = _grade(reached, reasons)
    stop = next(iter(stops(spoken)), None)
    if stop is not None:
        strokes, grade, sentence = 0, NOT_NOW, f"{stop.text} {stop.cure}"
    elif strokes == 5:
        sentence = f"This trains {target.name}. {reasons[0].text}"
    elif strokes == 4:
        sentence = f"This trains {target.name}, though not in everything. {reasons[0].text}"
    elif best != target.id and scores[best] >= 0.45:
        sentence = f"This trains {TARGETS[best].name} more than {target.name}. {reasons[0].text}"
    else:
        sentence = f"This is not yet {target.name}. {reasons[0].text}"
    sure = None if stop else _sureness(reading, target, target_id)
    return Verdict(target.id, reached, strokes, grade, sentence, tuple(reasons), best, sure)
