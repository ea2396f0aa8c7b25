"""What is read from a run of a timeline: figures with ranges, traces for drawing, and what every bout did."""

from dataclasses import dataclass

import numpy as np

from yoisho.engine import heart_rate
from yoisho.engine.lactate import O2_EQUIVALENT_ML_KG_PER_MMOL, RESTING_MMOL, blood_lactate
from yoisho.engine.person import Cohort, Person, best_guess, draws
from yoisho.engine.stores import Floats, Precision, Run, resting_uptake_frac, simulate
from yoisho.session.tempo import TEMPOS
from yoisho.session.timeline import Timeline

HARD_FRAC = 1.0
"""Work at or above this demand [x VO2max] counts as a hard effort."""
BRISK_FRAC = 0.85
KCAL_PER_L_O2 = 5.0
DRAW_SAMPLES = 200
"""Samples a run of draws is read at, the ends of its intervals besides: enough for a range."""
_LOW, _HIGH = 10.0, 90.0


class NoWorkError(ValueError):
    """A session with nothing but rest in it."""


@dataclass(frozen=True)
class Bout:
    """Consecutive work without a pause between: hard work where the session has any, else all its work."""

    first: int
    """Index of its first interval in the timeline."""
    last: int
    seconds: int


@dataclass(frozen=True)
class Figure:
    """A best guess with its 80 % range."""

    value: float
    low: float
    high: float


@dataclass(frozen=True)
class Traces:
    """Best-guess courses for drawing, all of shape (t,)."""

    seconds: Floats
    sprint_left: Floats
    lactic_left: Floats
    uptake_frac: Floats
    heart_rate_bpm: Floats
    lactate_mmol: Floats


@dataclass(frozen=True)
class Reading:
    """Everything read from one timeline for one person."""

    timeline: Timeline
    bouts: tuple[Bout, ...]
    figures: dict[str, Figure]
    bout_fade: Floats
    """Share of the asked energy that each bout falls short by, best guess. Shape (bouts,)."""
    sprint_at_bout: Floats
    """Sprint store left as each bout starts, best guess. Shape (bouts,)."""
    traces: Traces
    exhausted_at_s: float | None
    """First moment at which the asked demand cannot be delivered, best guess; None if never."""


def find_bouts(timeline: Timeline) -> tuple[Bout, ...]:
    """The hard efforts of a timeline; where there are none, the brisk ones; where there are none, all its work."""
    for threshold in (HARD_FRAC, BRISK_FRAC, 0.0):
        found: list[Bout] = []
        for index, interval in enumerate(timeline.intervals):
            tempo = TEMPOS[interval.tempo]
            if tempo.kind != "work" or tempo.demand_frac < threshold:
                continue
            if found and found[-1].last == index - 1:
                found[-1] = Bout(found[-1].first, index, found[-1].seconds + interval.seconds)
            else:
                found.append(Bout(index, index, interval.seconds))
        if found:
            return tuple(found)
    return ()


def session_rpe(timeline: Timeline) -> float:
    """Expected rating of the whole session [0-10]: cubic mean of the work's tempo ratings by time. Own setting."""
    work = [(i.seconds, TEMPOS[i.tempo].rpe) for i in timeline.intervals if i.kind == "work"]
    total = sum(seconds for seconds, _ in work)
    return (sum(seconds * rpe**3 for seconds, rpe in work) / total) ** (1 / 3) if total else 0.0


def _over(run: Run, inside: np.ndarray) -> Floats:
    """Minutes for which a condition of shape (t, k) holds, judged at the end of each sample."""
    return np.asarray(np.diff(run.seconds) @ inside[1:] / 60.0)


@dataclass(frozen=True)
class _Measured:
    run: Run
    heart_rate_bpm: Floats
    lactate_mmol: Floats
    measures: dict[str, Floats]
    fade: Floats
    sprint_at_bout: Floats


def _measure(
    who: Person,
    timeline: Timeline,
    bouts: tuple[Bout, ...],
    cohort: Cohort,
    sample_s: float,
    precision: Precision,
) -> _Measured:
    """Run the timeline for a cohort and read every measure, each of shape (k,)."""
    intervals = timeline.intervals
    asked_frac = np.array([TEMPOS[i.tempo].demand_frac * cohort.demand_scale[i.tempo] for i in intervals])
    lengths = np.array([float(i.seconds) for i in intervals])
    run = simulate(lengths, asked_frac, cohort.people, sample_s=sample_s, precision=precision)
    V = cohort.people.vo2max_ml_kg_s
    at_interval = np.minimum(np.searchsorted(run.segment_end, np.arange(len(run.seconds))), len(intervals) - 1)
    offsets = {"work": heart_rate.PUNCHING_OFFSET, "recover": heart_rate.SHADOW_OFFSET, "rest": 0.0}
    offset = np.array([offsets[i.kind] for i in intervals])[at_interval]
    rest_frac = resting_uptake_frac(V)
    heart = heart_rate.course(run.seconds, run.uptake_frac, rest_frac, offset, cohort.hr_rest_bpm, cohort.hr_max_bpm)
    lactate, lactate_peak = blood_lactate(run.seconds, run.energy_to_here[3], run.uptake_frac)

    starts = np.concatenate(([0], run.segment_end[:-1]))
    aerobic, alactic, lactic, delivered = (
        run.energy_aerobic,
        run.energy_alactic,
        run.energy_lactic,
        run.energy_delivered,
    )
    asked = asked_frac * lengths[:, None] * V

    def by_bout(energy: Floats) -> Floats:
        return np.array([energy[bout.first : bout.last + 1].sum(axis=0) for bout in bouts])

    hard = {name: by_bout(energy) for name, energy in (("aerobic", aerobic), ("alactic", alactic), ("lactic", lactic))}
    spent = np.maximum(sum(energy.sum(axis=0) for energy in hard.values()), 1e-9)
    fade = 1.0 - by_bout(delivered) / by_bout(asked)
    sprint_at_bout = run.sprint_left[starts[[bout.first for bout in bouts]]]
    strikes = np.array([i.seconds / 60 * TEMPOS[i.tempo].strikes_per_min for i in intervals])
    minutes = timeline.total_s / 60
    rpe = np.full(len(V), session_rpe(timeline))
    oxygen = aerobic.sum(axis=0) + np.maximum(alactic.sum(axis=0), 0)
    oxygen = oxygen + O2_EQUIVALENT_ML_KG_PER_MMOL * (lactate_peak - RESTING_MMOL)
    measures = {
        "sprint_at_start": sprint_at_bout.mean(axis=0),
        "sprint_at_start_lowest": sprint_at_bout.min(axis=0),
        "sprint_lowest": run.sprint_left.min(axis=0),
        "lactic_used_highest": run.lactic_used.max(axis=0),
        "lactic_used_end": run.lactic_used[-1],
        "lactic_reserve_lowest": 1.0 - run.lactic_used.max(axis=0),
        "lactic_half_min": _over(run, run.lactic_used >= 0.5),
        "vo2_90_min": _over(run, run.uptake_frac >= 0.9),
        "base_min": _over(run, (run.uptake_frac >= 0.40) & (run.uptake_frac <= 0.70)),
        "aerobic_share": hard["aerobic"].sum(axis=0) / spent,
        "alactic_share": hard["alactic"].sum(axis=0) / spent,
        "lactic_share": hard["lactic"].sum(axis=0) / spent,
        "fade_mean": fade.mean(axis=0),
        "fade_last": fade[-1],
        "o2_deficit_ml_kg": alactic.sum(axis=0) + lactic.sum(axis=0),
        "lactate_peak_mmol": lactate_peak,
        "heart_rate_peak_bpm": heart.max(axis=0),
        "kcal": oxygen * who.mass_kg * KCAL_PER_L_O2 / 1000,
        "strikes": (strikes[:, None] * np.minimum(delivered / asked, 1.0)).sum(axis=0),
        "rpe": rpe,
        "load": rpe * minutes,
    }
    return _Measured(run, heart, lactate, measures, fade, sprint_at_bout)


def read(who: Person, timeline: Timeline, *, ranges: bool = True) -> Reading:
    """Simulate a timeline for a person and read everything from it.

    With `ranges`, 200 draws give every figure its 80 % range; without (for a search), low and high are the best
    guess itself. Raises `NoWorkError` if the timeline holds nothing but pauses.
    """
    bouts = find_bouts(timeline)
    if not bouts:
        raise NoWorkError("there is no work in this session yet; add an effort such as 30 power")
    found = _measure(who, timeline, bouts, best_guess(who), 1.0, np.float64)
    figures = {
        name: Figure(float(value[0]), float(value[0]), float(value[0])) for name, value in found.measures.items()
    }
    if ranges:
        sample_s = max(1.0, timeline.total_s / DRAW_SAMPLES)
        spread = _measure(who, timeline, bouts, draws(who), sample_s, np.float32).measures
        spread["rpe"] = np.clip(found.measures["rpe"] + np.array([-1.0, 1.0]), 0.0, 10.0)
        spread["load"] = timeline.total_s / 60 * spread["rpe"]
        for name, figure in figures.items():
            low, high = spread[name] if name in ("rpe", "load") else np.percentile(spread[name], [_LOW, _HIGH])
            figures[name] = Figure(figure.value, min(float(low), figure.value), max(float(high), figure.value))
    run = found.run
    traces = Traces(
        run.seconds,
        run.sprint_left[:, 0],
        1.0 - run.lactic_used[:, 0],
        run.uptake_frac[:, 0],
        found.heart_rate_bpm[:, 0],
        found.lactate_mmol[:, 0],
    )
    exhausted = float(run.exhausted_at_s[0])
    return Reading(
        timeline,
        bouts,
        figures,
        found.fade[:, 0],
        found.sprint_at_bout[:, 0],
        traces,
        None if np.isnan(exhausted) else exhausted,
    )
