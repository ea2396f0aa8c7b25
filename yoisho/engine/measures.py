"""Everything that is measured on one run of a timeline, for one person or for many draws of one at once."""

from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np

from yoisho.engine import heart_rate
from yoisho.engine.cohort import Cohort
from yoisho.engine.demand import Demands, demands_of
from yoisho.engine.energy_cost import BAG_MET, KCAL_PER_L_O2, kcal_of_met
from yoisho.engine.lactate import RESTING_MMOL, blood_lactate
from yoisho.engine.parameters import Parameters
from yoisho.engine.person import Person
from yoisho.engine.stores import Floats, People, Run, resting_uptake_frac
from yoisho.engine.work_bouts import WorkBout
from yoisho.session.timeline import Timeline

AFTER_S = 600.0
"""The run goes on resting for so long after the last bell: what is breathed then was spent before it."""
LACTIC_DEEP_USED = 0.45
"""Of the lactic store used, from which it counts as far down. Own setting: a little more than
one exhausting effort of two or three minutes uses."""
LACTIC_DEEP = f"under {round(100 * (1 - LACTIC_DEEP_USED))} %"
"""Of the lactic store left: as it is said everywhere."""


@dataclass(frozen=True)
class Measured:
    """For `t` samples, `s` intervals, `b` bouts and `k` people or draws."""

    run: Run
    """The session itself, without the minutes after it."""
    oxygen_after_ml_kg: Floats
    """Breathed above rest in the ten minutes after it, shape (k,)."""
    heart_rate_bpm: Floats
    lactate_mmol: Floats
    figures: dict[str, Floats]
    """Of the whole session, each of shape (k,)."""
    bouts: dict[str, Floats]
    """`fade` and `sprint_at_start`, each of shape (b, k)."""
    asked_ml_kg: Floats
    """Energy asked of every interval, shape (s, k)."""
    strikes: Floats
    """Expected in every interval, shape (s, k)."""
    demand_ml_kg_min: Floats
    """Asked of every interval, all out its top, shape (s, k)."""
    to_kcal: float
    """kcal of a mL O2/kg, for this person."""
    highest_lactic_rate: Floats
    """Mean lactic flow of a fresh all-out effort [mL/kg/s], shape (k,)."""

    def over(self, bouts: tuple[WorkBout, ...]) -> dict[str, Floats]:
        """The figures that are read from the work bouts, for other bouts than the session's own, each of shape (k,)."""
        if bouts not in self._over:
            self._over[bouts] = _of_bouts(self.run, self.asked_ml_kg, bouts, self.highest_lactic_rate)[0]
        return self._over[bouts]

    @cached_property
    def _over(self) -> dict[tuple[WorkBout, ...], dict[str, Floats]]:
        return {}

    @cached_property
    def intervals(self) -> dict[str, Floats]:
        """Of every interval, each of shape (s, k). Worked out when first asked for."""
        run = self.run
        aerobic, alactic, lactic = run.energy_aerobic, np.maximum(run.energy_alactic, 0), run.energy_lactic
        gross = aerobic + alactic + lactic
        return {
            "fade": 1.0 - run.energy_delivered / self.asked_ml_kg,
            "aerobic_share": aerobic / gross,
            "alactic_share": alactic / gross,
            "lactic_share": lactic / gross,
            "sprint_lowest": run.over_segments(run.sprint_left, np.minimum),
            "lactic_lowest": 1.0 - run.over_segments(run.lactic_used, np.maximum),
            "uptake_highest": run.over_segments(run.uptake_frac, np.maximum),
            "heart_rate_end_bpm": self.heart_rate_bpm[run.segment_end],
            "demand_ml_kg_min": self.demand_ml_kg_min,
            "fatigue_end": run.fatigue[run.segment_end],
            "kcal": gross * self.to_kcal,
            "strikes": self.strikes,
        }


def _minutes(spans: Floats, inside: np.ndarray) -> Floats:
    """Minutes for which a condition of shape (t, k) holds, judged at the end of each sample; `spans` (t - 1,) [s]."""
    return np.asarray(spans @ inside[1:] / 60.0)


def _ceilings(run: Run, demands: Demands) -> Floats:
    """Share of VO2max that the muscle in play can take up, at each sample of a run of all stretches. Shape (t,)."""
    at = np.minimum(np.searchsorted(run.segment_end, np.arange(len(run.seconds))), len(demands.ceiling) - 1)
    return np.asarray(demands.ceiling[at])


def _run_out(demands: Demands, people: People, parameters: Parameters, sample_s: float) -> tuple[Run, Floats]:
    """The session, and the oxygen breathed above rest in the ten minutes after it, run out at rest."""
    resting = resting_uptake_frac(people.vo2max_ml_kg_s)
    with_rest = replace(
        demands, seconds=np.append(demands.seconds, AFTER_S), least=np.vstack([demands.least, resting]),
        top=np.vstack([demands.top, resting]), ceiling=np.append(demands.ceiling, demands.ceiling[-1]),
    )  # fmt: skip
    whole = with_rest.run(people, parameters, sample_s=sample_s, precision=np.float64)
    after = whole.energy_aerobic[-1] - resting * people.vo2max_ml_kg_s * AFTER_S
    return whole.first(len(demands.seconds)), after


def _held_against(asked: Floats, demands: Demands, delivered: Floats, lengths: Floats) -> Floats:
    """What is delivered in every interval is held against so much energy [mL/kg], shape (s, k): what is asked.

    An all-out interval is held against the first of the session as long: it fades inside, whoever does it, and what
    counts is how much less there is than there was.
    """
    against = asked.copy()
    first: dict[float, int] = {}
    for index in np.flatnonzero(demands.all_out):
        against[index] = delivered[first.setdefault(lengths[index], int(index))]
    return against


UNFINISHED_RPE = 9.0
RATED_AT_CEILING = 8.0
"""Rating of work as hard as the muscle in play can go on [0-10]. Own setting."""


def _rated(timeline: Timeline, delivered_frac: Floats, ceiling: Floats, run: Run, fade: Floats) -> Floats:
    """Expected rating of the whole session [0-10], shape (k,).

    The cubic mean over its work of how hard it was, nearer to ten the more tired it leaves and the more it fades; what
    cannot be finished as asked is at least a nine. Own settings.
    """
    hard = np.minimum(10.0, RATED_AT_CEILING * (delivered_frac / ceiling[:, None]) ** 1.5)
    seconds = np.array([float(i.seconds) if i.kind == "work" else 0.0 for i in timeline.intervals])
    usual = (seconds @ hard**3 / max(seconds.sum(), 1e-9)) ** (1 / 3)
    spent = np.minimum(1.0, np.maximum(run.fatigue.max(axis=0) ** 3, 2.5 * np.maximum(fade.max(axis=0), 0.0)))
    rated = usual + (10.0 - usual) * spent
    return np.asarray(np.where(np.isnan(run.exhausted_at_s), rated, np.maximum(rated, UNFINISHED_RPE)))


def _of_bouts(
    run: Run, asked: Floats, bouts: tuple[WorkBout, ...], highest_lactic_rate: Floats
) -> tuple[dict[str, Floats], dict[str, Floats]]:
    """What is read from the work bouts: figures of shape (k,); fade and sprint store of each, of shape (b, k)."""

    energies = np.zeros((5, len(asked) + 1, asked.shape[1]))
    energies[:, :-1] = (
        run.energy_aerobic, np.maximum(run.energy_alactic, 0), run.energy_lactic, run.energy_delivered, asked
    )  # fmt: skip
    edges = [edge for bout in bouts for edge in (bout.first, bout.last + 1)]
    aerobic, alactic, lactic, delivered, wanted = np.add.reduceat(energies, edges, axis=1)[:, ::2]
    sums = [energy.sum(axis=0) for energy in (aerobic, alactic, lactic)]
    spent = np.maximum(sum(sums), 1e-9)
    fade = 1.0 - delivered / wanted
    bout_s = np.array([float(bout.seconds) for bout in bouts])[:, None]
    starts = np.concatenate(([0], run.segment_end[:-1]))
    sprint_at_start = run.sprint_left[starts[[bout.first for bout in bouts]]]
    figures = {
        "sprint_at_start": sprint_at_start.mean(axis=0),
        "sprint_at_start_lowest": sprint_at_start.min(axis=0),
        "lactic_flow": (lactic / bout_s).mean(axis=0) / highest_lactic_rate,
        "aerobic_share": sums[0] / spent,
        "alactic_share": sums[1] / spent,
        "lactic_share": sums[2] / spent,
        "fade_mean": fade.mean(axis=0),
        "fade_last": fade[-1],
    }
    return figures, {"fade": fade, "sprint_at_start": sprint_at_start}


def measure(
    person: Person,
    timeline: Timeline,
    bouts: tuple[WorkBout, ...],
    cohort: Cohort,
    sample_s: float,
    like: "Measured | None" = None,
) -> Measured:
    """Run the timeline for a cohort and measure everything.

    Draws are run in single precision and take the oxygen after the bell from the best guess they are `like`: a
    small part of the whole, and a fifth of the work.
    """
    intervals = timeline.intervals
    demands = demands_of(timeline, cohort.people, cohort.striking)
    lengths = np.array([float(i.seconds) for i in intervals])
    V = cohort.people.vo2max_ml_kg_s
    if like:
        after = like.oxygen_after_ml_kg
        run = demands.run(cohort.people, cohort.parameters, sample_s=sample_s, precision=np.float32)
    else:
        run, after = _run_out(demands, cohort.people, cohort.parameters, sample_s)
    ceilings = _ceilings(run, demands)
    run = run.at(demands.last)
    resting = resting_uptake_frac(V)
    heart = heart_rate.course(run.seconds, run.uptake_frac, resting, ceilings, cohort.hr_rest_bpm, cohort.hr_max_bpm)
    heart = np.minimum(heart + cohort.hr_offset_bpm, cohort.hr_max_bpm)
    in_play = run.uptake_frac / ceilings[:, None]
    lactate, lactate_peak = blood_lactate(run.seconds, run.energy_to_here[3], run.uptake_frac, cohort.parameters)

    aerobic, alactic, lactic, delivered = (
        run.energy_aerobic,
        run.energy_alactic,
        run.energy_lactic,
        run.energy_delivered,
    )
    energy = lengths[:, None] * V
    wanted = demands.asked_frac * energy
    asked = _held_against(wanted, demands, delivered, lengths)

    of_bouts, by_bout = _of_bouts(run, asked, bouts, cohort.highest_lactic_rate)
    unstruck = demands.unstruck * energy
    held = np.clip((delivered - unstruck) / np.maximum(wanted - unstruck, 1e-9), 0.0, 1.0)
    expected = demands.strikes_per_s * lengths[:, None] * held
    counted = np.array([i.strikes if i.reps is not None else 0.0 for i in intervals])[:, None]
    strikes = np.where(counted > 0, counted, expected)
    minutes = timeline.total_s / 60
    rpe = _rated(timeline, delivered / energy, ceilings[run.segment_end], run, by_bout["fade"])
    lactate_oxygen = cohort.parameters.lactate_ml_kg_per_mmol * (lactate_peak - RESTING_MMOL)
    oxygen = aerobic.sum(axis=0) + after + lactate_oxygen
    to_kcal = person.mass_kg * KCAL_PER_L_O2 / 1000
    beat = heart / cohort.hr_max_bpm
    deepest = run.lactic_used.max(axis=0)
    spans = np.diff(run.seconds)
    figures = {
        **of_bouts,
        "sprint_lowest": run.sprint_left.min(axis=0),
        "lactic_used_highest": deepest,
        "lactic_used_end": run.lactic_used[-1],
        "lactic_reserve_lowest": 1.0 - deepest,
        "lactic_deep_min": _minutes(spans, run.lactic_used >= LACTIC_DEEP_USED),
        "vo2_90_min": _minutes(spans, in_play >= 0.9),
        "vo2_75_min": _minutes(spans, in_play >= 0.75),
        "vo2_75_88_min": _minutes(spans, (in_play >= 0.75) & (in_play <= 0.88)),
        "hr_80_90_min": _minutes(spans, (beat >= 0.80) & (beat <= 0.90)),
        "hr_60_75_min": _minutes(spans, (beat >= 0.60) & (beat <= 0.75)),
        "base_min": _minutes(spans, (in_play >= 0.40) & (in_play <= 0.70)),
        "fatigue_peak": run.fatigue.max(axis=0),
        "o2_deficit_ml_kg": alactic.sum(axis=0) + lactic.sum(axis=0),
        "lactate_peak_mmol": lactate_peak,
        "heart_rate_peak_bpm": heart.max(axis=0),
        "kcal": oxygen * to_kcal,
        "kcal_met": np.full(len(V), kcal_of_met(BAG_MET, person.mass_kg, minutes)),
        "strikes": strikes.sum(axis=0),
        "rpe": rpe,
        "load": rpe * minutes,
    }
    return Measured(
        run, after, heart, lactate, figures, by_bout, asked, strikes, 60.0 * V * demands.asked_frac, to_kcal,
        cohort.highest_lactic_rate,
    )  # fmt: skip
