"""What the commands of the command line work out: from parsed options to plain values."""

import argparse
import csv
from collections.abc import Mapping
from dataclasses import asdict
from typing import Any

import numpy as np

from yoisho.answers.shared import shared, vectors
from yoisho.engine.field_tests import StrikeTest
from yoisho.engine.lactate import blood_lactate
from yoisho.engine.person import Person, Value, person
from yoisho.engine.readout import Figure, Reading, read
from yoisho.engine.stores import STEP_S, People, Run, simulate
from yoisho.judgement import claims as claim
from yoisho.judgement.cautions import cautions
from yoisho.judgement.circumstances import Circumstances
from yoisho.judgement.fade import fade_onset
from yoisho.judgement.targets import TARGETS
from yoisho.judgement.verdict import Verdict, judge
from yoisho.method.build import markdown, method
from yoisho.method.examples import examples_page
from yoisho.method.settings import settings_page
from yoisho.session import shorthand
from yoisho.session.document import json_schema, tree_to_dict
from yoisho.session.interval import Interval
from yoisho.session.meaning import meaning
from yoisho.session.timeline import Timeline, unroll
from yoisho.session.volume import volume
from yoisho.strikes import notation
from yoisho.strikes.combination import mirrored
from yoisho.strikes.counts import counts
from yoisho.strikes.drill import one
from yoisho.strikes.generate import pyramid


class CommandError(Exception):
    """Something the caller can mend; the message says how."""


def _timeline(timeline: Timeline) -> list[dict[str, Any]]:
    return [
        {
            "start_s": interval.start_s,
            "seconds": interval.seconds,
            "kind": interval.kind,
            "tempo": interval.tempo,
            "rounds": [list(turn) for turn in interval.rounds],
            "reps": interval.reps,
            "calls": notation.calls(interval.combination) if interval.combination else [],
            "strikes": round(interval.strikes, 1),
        }
        for interval in timeline.intervals
    ]


def parse_command(options: argparse.Namespace) -> dict[str, Any]:
    tree = shorthand.read(options.text, options.school)
    timeline = unroll(tree)
    return {
        "text": shorthand.write(tree, options.school),
        "meaning": meaning(tree),
        "total_s": timeline.total_s,
        "work_s": timeline.work_s,
        "rest_s": timeline.rest_s,
        "volume": asdict(volume(timeline.intervals)),
        "tree": tree_to_dict(tree),
        "timeline": _timeline(timeline),
    }


def _figures(reading: Reading) -> dict[str, Any]:
    timeline = reading.timeline
    ratio = timeline.work_s / timeline.rest_s if timeline.rest_s else None
    return {
        "total_s": timeline.total_s,
        "work_s": timeline.work_s,
        "rest_s": timeline.rest_s,
        "work_to_rest": ratio,
        "exhausted_at_s": reading.exhausted_at_s,
        **_rounded(reading.told(reading.figures)),
    }


def _verdict(verdict: Verdict) -> dict[str, Any]:
    return {
        "target": verdict.target,
        "score": round(verdict.score, 4),
        "grade": verdict.grade,
        "sentence": verdict.sentence,
        "trains_best": verdict.trains_best,
        "sureness": verdict.sureness,
        "reasons": [
            {"measure": reason.measure, "met": reason.met, "text": reason.text, "source": reason.source}
            for reason in verdict.reasons
        ],
    }


def _person(options: argparse.Namespace) -> Person:
    counts = options.strike_test
    return person(
        vo2max_ml_kg_min=options.vo2max, cooper_m=options.cooper, shuttle_km_h=options.shuttle,
        strike_test=StrikeTest(counts[0], counts[1], tuple(counts[2:])) if counts else None,
        hr_max_bpm=options.hr_max, hr_rest_bpm=options.hr_rest, mass_kg=options.mass, age_years=options.age,
        sex=options.sex, level=options.level, rule_set=options.rules,
        heart_rate_lowering_medication=options.beta_blocker,
    )  # fmt: skip


def _rounded(figures: Mapping[str, Figure]) -> dict[str, Any]:
    return {
        name: {"value": round(figure.value, 4), "low": round(figure.low, 4), "high": round(figure.high, 4)}
        for name, figure in figures.items()
    }


def _reading(options: argparse.Namespace) -> tuple[str, Reading]:
    tree = shorthand.read(options.text)
    return shorthand.write(tree), read(_person(options), unroll(tree))


def evaluate_command(options: argparse.Namespace) -> dict[str, Any]:
    text, reading = _reading(options)
    traces = reading.traces
    around = Circumstances(days_to_fight=options.days_to_fight, wbgt_c=options.wbgt, purpose=options.target)
    spoken = cautions(reading, around)
    onset = fade_onset(reading, TARGETS[options.target] if options.target else None)
    stores = {
        "seconds": traces.seconds.round(1).tolist(),
        "sprint_left": traces.sprint_left.round(4).tolist(),
        "lactic_left": traces.lactic_left.round(4).tolist(),
        "uptake_frac": traces.uptake_frac.round(4).tolist(),
    }
    if reading.heart_holds:
        stores["heart_rate_bpm"] = traces.heart_rate_bpm.round(1).tolist()
    return {
        "text": text,
        "person": {name: asdict(value) for name, value in vars(reading.person).items() if isinstance(value, Value)},
        "figures": _figures(reading),
        "fade_onset": asdict(onset),
        "bouts": [
            {"sprint_at_start": asdict(start), "fade": asdict(fade)}
            for start, fade in zip(reading.sprint_at_work_bout, reading.work_bout_fade, strict=True)
        ],
        "intervals": [_rounded(reading.told(one)) for one in reading.intervals],
        "stores": stores,
        "verdict": _verdict(judge(reading, options.target, spoken)),
        "cautions": [
            {"rule": caution.rule, "severity": caution.severity, "text": caution.text, "cure": caution.cure,
             "source": caution.source, "at_s": caution.at_s}
            for caution in spoken
        ],
    }  # fmt: skip


def combination_command(options: argparse.Namespace) -> dict[str, Any]:
    found = notation.read(options.text, options.school)
    held = counts(found, options.stance)
    interval = Interval(options.seconds, options.tempo, drill=one(found))
    passes = interval.passes()
    return {
        "text": notation.write(found, options.school),
        "calls": notation.calls(found),
        **asdict(held),
        "pass_seconds": round(interval.rep_s(), 2),
        "passes": passes,
        "strikes_in_all": passes * held.strikes,
        "mirrored": notation.write(mirrored(found), options.school),
        "pyramid": [notation.write(step, options.school) for step in pyramid(found)],
    }


def method_command(options: argparse.Namespace) -> dict[str, Any]:
    if options.settings:
        return {"markdown": settings_page()}
    if options.examples:
        return {"markdown": examples_page()}
    return asdict(method()) if options.json else {"markdown": markdown()}


def schema_command(options: argparse.Namespace) -> dict[str, Any]:
    """Always as JSON: there is no other way to say it."""
    options.json = True
    return json_schema()


def shared_command(options: argparse.Namespace) -> dict[str, Any]:
    """Always as JSON."""
    options.json = True
    return vectors() if options.vectors else shared()


def claim_command(options: argparse.Namespace) -> dict[str, Any]:
    text, reading = _reading(options)
    claims = []
    if options.kcal is not None:
        claims.append(claim.kcal(reading, options.kcal))
    if options.tabata:
        claims.append(claim.tabata(reading))
    if options.trains:
        claims.append(claim.trains(reading, options.trains))
    if not claims:
        raise CommandError("say what is claimed: --kcal 500, --tabata or --trains threshold")
    return {"text": text, "claims": [asdict(one) for one in claims]}


def read_profile(path: str) -> tuple[np.ndarray, np.ndarray]:
    """The columns `seconds,demand_frac` of a CSV file. Raises `CommandError` naming the line at fault."""
    try:
        with open(path, newline="", encoding="utf-8-sig") as file:
            rows = csv.DictReader(file)
            columns = [name.strip() for name in rows.fieldnames or []]
            if columns != ["seconds", "demand_frac"]:
                raise CommandError(f"{path}: the first line must be seconds,demand_frac, not {','.join(columns)!r}")
            rows.fieldnames = columns
            lengths, demands = [], []
            for row in rows:
                try:
                    lengths.append(float(row["seconds"]))
                    demands.append(float(row["demand_frac"]))
                except (TypeError, ValueError):
                    raise CommandError(f"{path}, line {rows.line_num}: expected two numbers, such as 20,1.7") from None
    except (OSError, UnicodeDecodeError) as error:
        raise CommandError(f"{path} cannot be read: {error}") from error
    return np.array(lengths), np.array(demands)


def _until(seconds: np.ndarray, demand: np.ndarray, end_s: float) -> tuple[np.ndarray, np.ndarray]:
    """The profile cut at `end_s`; at least one step of it is kept."""
    ends = np.cumsum(seconds)
    last = int(np.searchsorted(ends, max(end_s, STEP_S) - 1e-6))
    cut = seconds[: last + 1].copy()
    cut[-1] -= ends[last] - max(end_s, STEP_S)
    keep = cut >= STEP_S / 2
    return cut[keep], demand[: last + 1][keep]


def simulate_profile(seconds: np.ndarray, demand: np.ndarray, vo2max: float, *, hold: bool) -> dict[str, Any]:
    """What a demand profile does to somebody; without `hold` the run stops at the first shortfall."""
    people = People.one(vo2max)
    run: Run = simulate(seconds, demand, people)
    exhausted = float(run.exhausted_at_s[0])
    stopped = not hold and not np.isnan(exhausted)
    if stopped:
        seconds, demand = _until(seconds, demand, exhausted)
        run = simulate(seconds, demand, people)
    aerobic, alactic, lactic = (
        float(energy.sum()) for energy in (run.energy_aerobic, run.energy_alactic, run.energy_lactic)
    )
    spent = aerobic + alactic + lactic
    _, lactate_peak = blood_lactate(run.seconds, run.energy_to_here[3], run.uptake_frac)
    ends = run.segment_end
    vo2max_ml_kg_s = vo2max / 60
    return {
        "exhausted_at_s": None if np.isnan(exhausted) else round(exhausted, 1),
        "aerobic_share": aerobic / spent,
        "alactic_share": alactic / spent,
        "lactic_share": lactic / spent,
        "o2_deficit_ml_kg": alactic + lactic,
        "peak_vo2_frac": float(run.uptake_frac.max()),
        "lactic_used_peak": float(run.lactic_used.max()),
        "sprint_left_min": float(run.sprint_left.min()),
        "lactate_peak_mmol": float(lactate_peak[0]),
        "fatigue_peak": float(run.fatigue.max()),
        "segments": [
            {
                "seconds": round(float(length), 1),
                "demand_frac": float(asked),
                "delivered_frac": float(delivered) / float(length) / vo2max_ml_kg_s,
                "sprint_left_end": float(run.sprint_left[end, 0]),
                "lactic_used_end": float(run.lactic_used[end, 0]),
                "vo2_frac_end": float(run.uptake_frac[end, 0]),
                "fatigue_end": float(run.fatigue[end, 0]),
            }
            for length, asked, delivered, end in zip(seconds, demand, run.energy_delivered[:, 0], ends, strict=True)
        ],
    }


def simulate_command(options: argparse.Namespace) -> dict[str, Any]:
    seconds, demand = read_profile(options.profile)
    if not 10 <= options.vo2max <= 100:
        raise CommandError(f"--vo2max is between 10 and 100 mL/kg/min, not {options.vo2max:g}")
    return simulate_profile(seconds, demand, options.vo2max, hold=options.hold)
