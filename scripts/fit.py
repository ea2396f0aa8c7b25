"""Search the three-store model's parameters against every published row, and write `yoisho/engine/fitted.json`.

A global search by the covariance-matrix adaptation evolution strategy (library cma): two chains from seeds of their
own, which pay for each row that is missed, little more for one that is far off than for one that is near, for each
breach of a law of order and for each of what coaches know (`trade_facts`). From the better of the two, random walks go
downhill with a sharper edge between a hit and a miss. An hour or more. Nothing depends on the clock, so that the same
code on the same machine finds the same numbers.
"""

import json
import sys
from concurrent.futures import ProcessPoolExecutor
from dataclasses import fields
from functools import partial
from pathlib import Path

import cma
import numpy as np
from scipy.stats import qmc

ROOT = Path(__file__).resolve().parent.parent
sys.path[:0] = [str(ROOT), str(ROOT / "scripts")]

from trade_facts import breaches  # noqa: E402

from yoisho.engine.parameters import Parameters, fitted  # noqa: E402
from yoisho.engine.studies import (  # noqa: E402
    CADENCE,
    HEAVY,
    LIGHT,
    MODERATE,
    NEVER_S,
    REST,
    STUDY_SCALE,
    Model,
    Row,
    compare,
    stops_at,
)

RESULT = ROOT / "yoisho/engine/fitted.json"
NAMES = [one.name for one in fields(Parameters)]
LEAST, MOST = (np.log([one.metadata[end] for one in fields(Parameters)]) for end in ("least", "most"))
CHAINS = 2
GENERATIONS = 360
POPULATION = 14
SPREADS = {1: 0.04, 2: 0.10}
"""First step of each chain, in widths of the bounds."""
SOBOL_POINTS = 64
FURTHEST = 8.0
"""Tolerances beyond which a miss counts no more."""

STEPS = 800
EDGE = 0.93
"""Of a tolerance: from here on a miss begins to count, in full from `RAMP` further on."""
RAMP, SHORT_RAMP = 0.3, 0.05
"""Of the chains and of the walk that ends it, where a hit by a hair is a hit."""
WORTH, PULL = 4.0, 0.3
"""What a missed row costs, and how much more the further off it is."""

WITHIN = (("tabata_1997_ie1", 20.0, 10.0, 185.0, 1.7), ("tabata_1997_ie2", 30.0, 120.0, 606.0, 2.0))
"""Bouts jump where a bout is just done or just not, which no descent can see. The demand that would exhaust a little
way into the last of the published bouts shows the way: work, rest and time of exhaustion [s], demand."""
WITHIN_TOLERANCE = 0.02

SCALES = np.linspace(0.88, 1.12, 9)
NEAR = np.abs(SCALES - 1.0) < 0.045
SCALE_TOLERANCE = 0.03
"""The time that work and rest in turn last has no gradient where they go on for ever. Beside it stand, for each row,
the mean of how far off it is for demands a little lower and higher, and the demand that lasts exactly as published."""
TURNS: dict[str, list[tuple[float, float | None, float, float, float, float, float]]] = {
    "chidnok_2012": [
        (60.0, None, 30.0, rest, at, 1.4, 1.0) for rest, at in ((HEAVY, 516), (MODERATE, 759), (LIGHT, 1224))
    ],
    "dupont_2003": [(15.0, 1.2, 15.0, rest, at, 1.35, 1.0) for rest, at in ((REST, 962), (0.5, 427))],
    "thevenet_2007": [(30.0, 1.05, 30.0, 0.5, 845, 1.35, 1.0), (30.0, 1.05, 30.0, REST, 2145, 1.6, 0.3)],
}
"""Work [s], its demand (None: what lasts 384 s unbroken), rest [s], its demand, published [s], tolerance, weight."""


def parameters_of(point: np.ndarray) -> Parameters:
    values = np.exp(LEAST + point * (MOST - LEAST))
    return Parameters(**{name: float(value) for name, value in zip(NAMES, values, strict=True)})


def point_of(parameters: dict[str, float]) -> np.ndarray:
    values = np.log([parameters[name] for name in NAMES])
    return np.asarray(np.clip((values - LEAST) / (MOST - LEAST), 0.01, 0.99))


def _demand_that_exhausts(model: Model, work_s: float, rest_s: float, at_s: float, demand: float) -> float:
    demands = demand * np.linspace(0.7, 1.2, 41)
    bouts = int(at_s / (work_s + rest_s)) + 3
    profile = np.full((2 * bouts, len(demands)), REST)
    profile[::2] = demands
    seconds = np.tile([work_s, rest_s], bouts)
    exhausted = stops_at(model.run_many(seconds, profile, 1.0), seconds, profile, CADENCE)
    return _reaching(exhausted, at_s, demands)


def _reaching(lasted: np.ndarray, at_s: float, demands: np.ndarray) -> float:
    """The demand that lasts so long; a demand that lasts longer than a lower one counts as long as that."""
    falling = np.minimum.accumulate(np.maximum(np.nan_to_num(lasted, nan=1e4), 1.0))
    return float(np.exp(np.interp(-np.log(at_s), -np.log(falling) + 1e-9 * np.arange(len(demands)), np.log(demands))))


def _turns(model: Model) -> list[float]:
    found = []
    for rows in TURNS.values():
        for work_s, asked, rest_s, resting, at_s, tolerance, weight in rows:
            demands = (asked or model.exhausting(384)[0]) * SCALES
            turns = int(2.2 * at_s / (work_s + rest_s)) + 2
            profile = np.full((2 * turns, len(demands)), resting)
            profile[::2] = demands
            lasted = np.nan_to_num(model.run_many(np.tile([work_s, rest_s], turns), profile).exhausted_at_s, nan=1e4)
            off = np.clip(np.log(lasted[NEAR] / at_s), -1.5, np.log(2.2)) / np.log(tolerance)
            exact = np.log(_reaching(lasted, at_s, demands) / demands[len(demands) // 2]) / SCALE_TOLERANCE
            found += [np.sqrt(weight) * float(off.mean()), np.sqrt(0.5 * weight) * exact]
    return found


def _miss(row: Row, value: float) -> float:
    return row.residual(NEVER_S if np.isnan(value) else value)


def _far(miss: float) -> float:
    """Grows with a miss, at last in proportion."""
    return float(np.sqrt(1 + min(abs(miss), FURTHEST) ** 2) - 1)


def missed(parameters: Parameters, ramp: float) -> float:
    """What all rows cost that are missed."""
    told = 0.0
    for _, row, value in compare(parameters):
        miss = abs(_miss(row, value))
        if row.weight:
            told += WORTH * min(1.0, max(0.0, miss - EDGE) / ramp) + PULL * min(row.weight, 1.0) * _far(miss)
    model = Model(parameters)
    told += sum(0.5 * _far(miss) for miss in _turns(model))
    # A higher demand never lasts longer.
    lasting = model.run_many(np.array([700.0]), np.linspace(0.95, 1.6, 27)[None]).exhausted_at_s
    told += float(np.clip(np.diff(np.nan_to_num(lasting, nan=700.0)), 0, 30).sum())
    return told + sum(6.0 * max(0.0, -miss) + 0.1 * max(0.0, miss) for miss in _within(parameters))


def _within(parameters: Parameters) -> list[float]:
    """By how many tolerances the demand that exhausts so late is above the one of each study, or under it."""
    model = Model(parameters, STUDY_SCALE)
    return [
        (_demand_that_exhausts(model, work_s, rest_s, at_s, demand) / demand - 1) / WITHIN_TOLERANCE
        for _, work_s, rest_s, at_s, demand in WITHIN
    ]


_RESTS = ((16, 26, 46, 2.0), (15, 27, 45, 1.8), (34, 7, 9, 1.25), (30, 20, 60, 1.6), (22, 24, 66, 2.1))
"""Work, a rest and a longer one [s], demand: six times with the longer rest no less is done."""
_BOUTS, _DEMANDS = (20, 40, 80, 120), (0.9, 1.0, 1.08)
"""Half an hour of bouts with as much rest: the longer ones use more of the lactic store."""


def lawless(parameters: Parameters) -> float:
    """How far the laws of order are broken; 0 where none is."""
    model, broken = Model(parameters), 0.0
    for demand in _DEMANDS:
        runs = [model.run(*[(bout, demand), (bout, REST)] * (1800 // bout)) for bout in _BOUTS]
        used = [float(run.lactic_used.max()) if np.isnan(run.exhausted_at_s[0]) else 1.0 for run in runs]
        broken += 20 * float(np.clip(-np.diff(used) - 0.005, 0, 1).sum())
    for work, rest, longer, demand in _RESTS:
        done = [model.run(*[(work, demand), (each, REST)] * 6).energy_delivered[::2].sum() for each in (rest, longer)]
        broken += 100 * max(0.0, 0.999 - float(done[1] / done[0]))
    return broken


def cost(point: np.ndarray, ramp: float = RAMP) -> float:
    inside = np.clip(point, 0.002, 0.998)
    parameters = parameters_of(inside)
    outside = 10 * float(((point - inside) ** 2).sum())
    return missed(parameters, ramp) + lawless(parameters) + breaches(parameters) + outside


def chain(begin: np.ndarray | None, generations: int, seed: int) -> tuple[float, list[float]]:
    """One chain of the search; the best point it met."""
    first = min(qmc.Sobol(len(NAMES), seed=seed).random(SOBOL_POINTS), key=cost) if begin is None else begin
    options = {"seed": seed, "popsize": POPULATION, "verbose": -9}
    search = cma.CMAEvolutionStrategy(first, 0.2 if begin is None else SPREADS[seed], options)
    best = (cost(first), list(first))
    for generation in range(generations):
        points = search.ask()
        costs = [cost(point) for point in points]
        search.tell(points, costs)
        lowest = int(np.argmin(costs))
        if costs[lowest] < best[0]:
            best = (costs[lowest], list(np.clip(points[lowest], 0.002, 0.998)))
        if generation % 20 == 19:
            print(f"chain {seed}, generation {generation + 1} of {generations}: best {best[0]:.2f}", flush=True)
    return best


def walk(begin: np.ndarray, steps: int, seed: int) -> tuple[float, list[float]]:
    """A random walk downhill from a point, with a step that grows on a hit and shrinks on a miss."""
    random = np.random.default_rng(seed)
    best, point, size = cost(begin, SHORT_RAMP), begin, 0.01
    for step in range(steps):
        tried = np.clip(point + random.normal(0, size, len(point)) * (random.random(len(point)) < 0.4), 0.005, 0.995)
        cost_tried = cost(tried, SHORT_RAMP)
        if cost_tried < best:
            best, point, size = cost_tried, tried, size * 1.5
        else:
            size = max(size * 0.97, 0.001)
        if step % 100 == 99:
            print(f"walk {seed}, step {step + 1} of {steps}: {best:.3f}", flush=True)
    return best, list(point)


def write(parameters: Parameters, reached: float) -> None:
    rows = [
        {
            "study": study.id, "what": row.what, "published": row.published, "tolerance": row.tolerance,
            "ratio": row.ratio, "bound": row.bound, "unit": row.unit, "confidence": row.confidence,
            "source": study.citation,
            "value": round(value, 4), "residual": round(row.residual(value), 3),
            "within": abs(row.residual(value)) <= 1 + 1e-9,
        }
        for study, row, value in compare(parameters)
    ]  # fmt: skip
    result = {"cost": round(reached, 3), "parameters": vars(parameters), "rows": rows}
    RESULT.write_text(json.dumps(result, indent=1, ensure_ascii=False) + "\n", encoding="utf-8")
    hits = sum(bool(row["within"]) for row in rows)
    print(f"{hits} of {len(rows)} rows within tolerance; written to {RESULT.relative_to(ROOT)}")
    for row in rows:
        if not row["within"]:
            print(f"  missed: {row['source']}: {row['what']}: {row['value']:g} against {row['published']:g}")


def main() -> int:
    anew = "--anew" in sys.argv
    generations = next((int(each) for each in sys.argv[1:] if each.isdigit()), GENERATIONS)
    begin = None if anew and generations else point_of(fitted()["parameters"])
    with ProcessPoolExecutor(CHAINS) as pool:
        chains = pool.map(partial(chain, begin, generations), range(1, CHAINS + 1)) if generations else ()
        _, point = min(chains, default=(0.0, list(begin if begin is not None else ())))
        walks = pool.map(partial(walk, np.array(point), STEPS), range(1, CHAINS + 1))
        reached, point = min(walks)
    known = np.round(np.exp(LEAST + np.array(point) * (MOST - LEAST)), 7)
    write(Parameters(**dict(zip(NAMES, map(float, known), strict=True))), reached)
    return 0


if __name__ == "__main__":
    sys.exit(main())
