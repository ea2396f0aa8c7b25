"""Whether learning finds people out: simulated ones, whose true traits are known, and who are drawn from the prior.

What they do is what the model makes of their true traits, with the noise that the evidence is taken to have.
"""

import json
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from functools import partial
from importlib.resources import files
from typing import Any

import numpy as np

from yoisho.engine.cohort import AT, Cohort, cohort_of, drawn, prior
from yoisho.engine.person import Learned, Person
from yoisho.engine.stores import Floats
from yoisho.review.calibration import Calibration, calibrate, told
from yoisho.review.evidence import HEART_WINDOW_S, KINDS, Forecast, Kind, Seen, evidence, forecasts, spreads
from yoisho.review.forecasts import Score, scores
from yoisho.session.shorthand import read
from yoisho.session.timeline import Timeline, unroll

LINES = (
    "8x(20 all-out r10)", "3x(3:00 combination r1:00)", "6x(30 power r30)", "10:00 flow", "5x(1:00 fight r1:00)",
    "3x(30 technique, 30 speed, 30 power, r1:00)", "4x(2:00 freestyle r1:00)", "10x(15 speed r45)",
    "6x(30 all-out r2:00)", "3x(3x(40 power r20) r2:00)",
)  # fmt: skip
"""What a hall does in a few weeks."""
HELD_OUT = 4
"""Logs that nothing was learned from: forecasts are held against them."""
STRAPPED, COUNTED = 0.6, 0.7
"""Share of logs with heart rate and with strikes."""


def true_traits(person: Person, seed: int) -> Floats:
    """Somebody whom the person may really be, shape (d,); a strike costs them what it costs in the model."""
    found: Floats = drawn(person, 1, seed)[0]
    found[AT["cost"]] = prior(person)[0][AT["cost"]]
    return found


def _noisy(forecast: Forecast, random: np.random.Generator) -> dict[Kind, Floats]:
    found: dict[Kind, Floats] = {}
    for kind in KINDS:
        expected = forecast.values[kind][:, 0]
        own, day = spreads(kind, expected)
        found[kind] = expected + own * random.standard_normal(len(expected)) + day * random.standard_normal()
    return found


def done_by(person: Person, cohort: Cohort, timeline: Timeline, random: np.random.Generator) -> Seen:
    """One log of somebody who is known in full (`cohort` of one)."""
    every_s = HEART_WINDOW_S // 3
    heart = tuple((float(at), 100.0) for at in range(0, timeline.total_s, every_s))
    whole = Seen(timeline, rpe=5.0, heart=heart)
    asked = evidence(person, replace(whole, strikes=(0.0,) * sum(i.kind == "work" for i in timeline.intervals)))
    assert asked is not None
    forecast = next(forecasts(person, [asked], cohort))
    found = _noisy(forecast, random)
    gives_out = float(forecast.gives_out_s[0])
    done = 1.0 if np.isnan(gives_out) or random.random() < 0.5 else max(0.2, gives_out / timeline.total_s)
    windows = {int(middle // HEART_WINDOW_S): bpm for middle, bpm in zip(asked.windows, found["heart"], strict=True)}
    told = tuple(
        (at, float(windows[int(at // HEART_WINDOW_S)])) for at, _ in heart if int(at // HEART_WINDOW_S) in windows
    )
    return Seen(
        timeline,
        done_frac=done,
        rpe=float(np.clip(round(found["rpe"][0]), 0, 10)),
        strikes=tuple(max(0.0, round(each)) for each in found["strikes"]) if random.random() < COUNTED else (),
        heart=told if random.random() < STRAPPED else (),
    )


World = Callable[[Cohort], Cohort]
"""From somebody as the engine has them to somebody as they are where the engine is wrong."""


def harder_words(cohort: Cohort) -> Cohort:
    """A world in which every word asks 15 % more than the engine has it."""
    share = {tempo: 1.15 * of for tempo, of in cohort.striking.share.items()}
    return replace(cohort, striking=replace(cohort.striking, share=share))


def other_stores(cohort: Cohort) -> Cohort:
    """A world in which sprint stores are a quarter smaller, lactic ones a fifth larger, and uptake follows slower."""
    people = cohort.people
    return replace(
        cohort,
        people=replace(
            people,
            sprint_capacity_ml_kg=0.75 * people.sprint_capacity_ml_kg,
            lactic_capacity_ml_kg=1.2 * people.lactic_capacity_ml_kg,
            quickness=0.8 * people.quickness,
        ),
    )


WORLDS: dict[str, World] = {
    "as the engine has it": lambda cohort: cohort,
    "every word 15 % harder": harder_words,
    "other stores, slower uptake": other_stores,
}


def logs_of(person: Person, traits: Floats, seed: int, logs: int, world: World) -> list[Seen]:
    """So many logs of somebody with these traits, shape (d,), in a world."""
    random = np.random.default_rng(seed)
    cohort = world(cohort_of(person, traits[None, :]))
    return [done_by(person, cohort, unroll(read(LINES[random.integers(len(LINES))])), random) for _ in range(logs)]


@dataclass(frozen=True)
class Found:
    """One simulated person: what is true, and what was learned."""

    true: dict[str, float]
    calibration: Calibration
    before: dict[Kind, Score]
    after: dict[Kind, Score]
    """How sessions that were held out were forecast."""


def find_out(person: Person, seed: int, logs: int = 12, world: World = WORLDS["as the engine has it"]) -> Found:
    """One simulated person, drawn from what is not known of `person`, and what their logs teach."""
    traits = true_traits(person, seed)
    seen = logs_of(person, traits, seed, logs + HELD_OUT, world)
    learned = calibrate(person, seen[:logs])
    known = replace(person, learned=Learned(logs, str(seed), partial(np.asarray, traits[None, :]), person))
    true = {each.id: each.value for each in told(known, traits[None, :])}
    return Found(true, learned, scores(person, seen[logs:]), scores(learned.person, seen[logs:]))


@dataclass(frozen=True)
class Proof:
    """Of one capacity, over many simulated people."""

    id: str
    name: str
    error_before: float
    error_after: float
    """Root mean square, in the capacity's unit."""
    inside: float
    """Share of people whose true value lies in the 80 % range."""


def proof_of(found: Sequence[Found]) -> list[Proof]:
    """How near what was learned comes to what is true, for each capacity."""
    rows = []
    for place, before in enumerate(found[0].calibration.before):
        after = [each.calibration.after[place] for each in found]
        true = np.array([each.true[before.id] for each in found])
        errors = [true - before.value, true - np.array([each.value for each in after])]
        inside = [each.low <= value <= each.high for each, value in zip(after, true, strict=True)]
        rms = [float(np.sqrt(np.square(error).mean())) for error in errors]
        rows.append(Proof(before.id, before.name, rms[0], rms[1], float(np.mean(inside))))
    return rows


@dataclass(frozen=True)
class Gain:
    """How sessions that were held out were forecast, over many simulated people."""

    kind: Kind
    inside_before: float
    inside_after: float
    """Share of numbers inside their 80 % range."""
    crps_before: float
    crps_after: float
    worse: float
    """Share of people whose forecasts became worse."""


def gains_of(found: Sequence[Found]) -> list[Gain]:
    """What learning did to the forecasts of each kind."""
    rows = []
    for kind in KINDS:
        pairs = [(each.before[kind], each.after[kind]) for each in found if kind in each.before]
        before, after = zip(*pairs, strict=True)
        inside = [float(np.mean([one.inside for one in side])) for side in (before, after)]
        off = [float(np.mean([one.crps for one in side])) for side in (before, after)]
        worse = float(np.mean([b.crps > a.crps for a, b in pairs]))
        rows.append(Gain(kind, inside[0], inside[1], off[0], off[1], worse))
    return rows


def proven() -> dict[str, Any]:
    """What `make prove` has found and written down."""
    return dict(json.loads(files("yoisho.review").joinpath("proven.json").read_text(encoding="utf-8")))
