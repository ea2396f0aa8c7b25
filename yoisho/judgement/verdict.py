"""The verdict: how well a reading fits a purpose, why, and what the session trains best instead."""

from collections.abc import Mapping
from dataclasses import dataclass
from math import isfinite

import numpy as np

from yoisho.engine.readout import Reading
from yoisho.engine.stores import Floats
from yoisho.judgement.structure import fade_last_round, pauses, rounds_of, rules_for, structure, threshold_min
from yoisho.judgement.targets import TARGETS, Measure, Target, TargetId, Unit
from yoisho.session.clock import clock

_LEAST = 0.01
"""A measure missed altogether still leaves the score comparable."""
_EQUAL = 0.02
"""Scores nearer than this are the same: then the purpose asked for counts as the best."""
WELL_AIMED = 0.65
"""The score of four strokes."""
_GRADES = ((0.85, 5, "On target"), (WELL_AIMED, 4, "Well aimed"), (0.45, 3, "Part way"), (0.2, 2, "Off target"))


@dataclass(frozen=True)
class Reason:
    measure: str
    met: bool
    desirability: float
    text: str
    intervals: tuple[int, ...]
    """Indices of the timeline's intervals the reason speaks of."""
    source: str


@dataclass(frozen=True)
class Verdict:
    target: TargetId
    score: float
    """0 to 1."""
    strokes: int
    """0 to 5, for the tally."""
    grade: str
    sentence: str
    reasons: tuple[Reason, ...]
    """What falls short first, worst first; then what is met."""
    trains_best: TargetId
    """Id of the purpose this session fits best."""
    sureness: float | None
    """Share of the draws in which at least four strokes are reached; None where none were asked for."""


def measure_values(reading: Reading) -> dict[str, float]:
    """Every number a purpose may ask about, by name."""
    return {**{name: figure.value for name, figure in reading.figures.items()}, **structure(reading)}


def score(target: Target, values: Mapping[str, float]) -> float:
    """Weighted geometric mean of the desirabilities, 0 to 1."""
    return float(_scores(target, {name: np.array([value]) for name, value in values.items()})[0])


def _scores(target: Target, values: Mapping[str, Floats]) -> Floats:
    weights = sum(measure.weight for measure in target.measures)
    logs = sum(m.weight * np.log(np.maximum(_LEAST, m.desirabilities(values[m.figure]))) for m in target.measures)
    return np.asarray(np.exp(logs / weights))


def _sureness(reading: Reading, target: Target, values: Mapping[str, float]) -> float | None:
    """In what share of the draws a session reaches at least four strokes for a purpose; None without draws."""
    spread = reading.spread
    if spread is None:
        return None

    def drawn(name: str) -> Floats:
        match name:
            case "threshold_min":
                return threshold_min(reading, spread.figures)
            case "fade_last_round":
                return fade_last_round(reading.timeline, spread.intervals["fade"])
        return spread.figures[name] if name in spread.figures else np.array([values[name]])

    found = _scores(target, {measure.figure: drawn(measure.figure) for measure in target.measures})
    return float((found >= WELL_AIMED).mean())


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


def _speaks_of(measure: Measure, reading: Reading) -> tuple[int, ...]:
    bouts = reading.work_bouts
    inside = [i for bout in bouts for i in range(bout.first, bout.last + 1)]
    if measure.figure in _LAST_EFFORT:
        return tuple(range(bouts[-1].first, bouts[-1].last + 1))
    if measure.figure in _RESTS:
        return tuple(sorted(set(range(bouts[0].first, bouts[-1].last)) - set(inside)))
    if measure.figure.startswith("round") or measure.figure == "fade_last_round":
        rounds = rounds_of(reading.timeline)
        told = rounds[-1:] if measure.figure == "fade_last_round" else rounds
        return tuple(i for one in told for i in range(one.first, one.last + 1))
    return tuple(inside)


def _words(reading: Reading) -> dict[str, str]:
    """What every reason may speak of: the lengths of the efforts and of the rests, and the rules."""
    rules = rules_for(reading)
    return {
        "work": _spread([bout.seconds for bout in reading.work_bouts]),
        "rest": _spread(pauses(reading)),
        "rules": f"{rules.name} ({rules.text})",
    }


def _reason(measure: Measure, value: float, reading: Reading, words: dict[str, str]) -> Reason:
    desirability = measure.desirability(value)
    if desirability >= 0.999:
        template, wanted = measure.met, 0.0
    elif value < measure.full_from:
        template, wanted = measure.low, measure.full_from
    else:
        template, wanted = measure.high, measure.full_to
    text = template.format(
        value=say(value, measure.unit),
        wanted=say(wanted, measure.unit) if isfinite(wanted) else "",
        **words,
    )
    intervals = _speaks_of(measure, reading)
    return Reason(measure.label, desirability >= 0.999, desirability, text, intervals, measure.source)


def judge(reading: Reading, target_id: str | None = None) -> Verdict:
    """The verdict on a reading for a purpose, or for the purpose it fits best where none is named."""
    values = measure_values(reading)
    scores = {target.id: score(target, values) for target in TARGETS.values()}
    best = max(scores, key=lambda name: scores[name])
    target = TARGETS[target_id or best]
    reached = scores[target.id]
    if reached >= scores[best] - _EQUAL:
        best = target.id
    strokes, grade = next(((s, word) for least, s, word in _GRADES if reached >= least), (1, "Off target"))
    words = _words(reading)
    reasons = sorted(
        (_reason(measure, values[measure.figure], reading, words) for measure in target.measures),
        key=lambda reason: (reason.met, reason.desirability),
    )
    if strokes >= 4:
        sentence = f"This trains {target.name}. {reasons[0].text}"
    elif best != target.id and scores[best] >= 0.45:
        sentence = f"This trains {TARGETS[best].name} more than {target.name}. {reasons[0].text}"
    else:
        sentence = f"This is not yet {target.name}. {reasons[0].text}"
    sure = _sureness(reading, target, values)
    return Verdict(target.id, reached, strokes, grade, sentence, tuple(reasons), best, sure)
