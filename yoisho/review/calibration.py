"""What logs teach of somebody: their traits, as tests, formulas and defaults say, weighed by what they really did.

The draws that make the ranges are the prior. First the best fit and its spread are sought (Gauss and Newton); draws
from there are weighed by how well they fit prior and logs (importance weighting), and drawn anew with a little scatter,
so that as many are kept as make the ranges. Everything is seeded. A log counts for less the longer ago it was; but for
that, nothing depends on the order of the logs.

How much a strike costs somebody cannot be told from how fit they are by anything that a hall sees. It is held at the
model's: what is learned of VO2max is so in the model's terms.
"""

import hashlib
from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import partial
from typing import Any

import numpy as np

from yoisho.engine.cohort import AT, TRAITS, centre, cohort_of, drawn, prior, values_of
from yoisho.engine.person import POSSIBLE, Learned, Person, Value
from yoisho.engine.stores import Floats
from yoisho.review.evidence import Evidence, Seen, evidence, forecasts, in_order, log_likelihood, misfit
from yoisho.strikes.tempo import TEMPOS

DRAWN = 400
KEPT = 200
"""Draws that are kept of what was learned: as many as make the ranges."""
SEED = 16
HALF_LIFE_DAYS = 182.0
"""A log of half a year ago counts half. Own setting."""
STARTS = 100
"""Places that are tried before the search begins from the best of them."""
SEARCHES = 7
"""Steps of the search for the best fit."""
ROUNDS = 4
"""So often draws are weighed anew where few of them count."""
STEP = 0.25
"""Of a standard deviation, by which each trait is moved to see what it does."""
WIDER = 1.15
"""How much wider than the fit the draws lie that are weighed. Own setting."""
ENOUGH = 0.2
"""Share of the draws that must count; else they are drawn once more, about the weighted ones."""
FEWEST = 20.0
"""Draws that count in any case: where logs agree with hardly any, their word is taken the less literally."""
LEAST_HEARD = 0.02
SCATTER = 0.3
"""Of the spread, by which draws that are kept are scattered (Liu and West 2001, from memory). Own setting."""
SEARCHED = 1.12
"""How much wider the ranges are made for what a search among few draws misses: without it they held the true value of
75 people in a hundred, not 80. Found by `make prove`."""
SURER = 0.9
"""What logs must make of a standard deviation before a trait counts as learned."""


@dataclass(frozen=True)
class Learnt:
    """One trait, with its 80 % range."""

    id: str
    name: str
    unit: str
    value: float
    low: float
    high: float


@dataclass(frozen=True)
class Calibration:
    person: Person
    """With what was learned; as they were where there was nothing to learn from."""
    logs: int
    """That taught something."""
    before: tuple[Learnt, ...]
    after: tuple[Learnt, ...]
    effective_draws: float
    """As many equal draws would tell as much as the weighed ones."""


def _moved(logs: Sequence[Evidence]) -> Floats:
    """Where the traits are that logs have to do with: a word that was never done stays as it was, and so does the cost
    of a strike. Shape (m,)."""
    asked = {each.tempo for log in logs for each in log.done.intervals if each.kind != "rest"}
    words = {f"demand {tempo}" for tempo in TEMPOS if tempo not in asked or TEMPOS[tempo].top_rate}
    return np.array([AT[trait.id] for trait in TRAITS if trait.id != "cost" and trait.id not in words])


@dataclass(frozen=True)
class _Task:
    """One person's logs, in standard deviations from the prior: `x` has shape (k, m), of the traits that are moved."""

    person: Person
    logs: Sequence[Evidence]
    at: Floats
    middle: Floats
    sd: Floats

    def normal(self, x: Floats, others: Floats | None = None) -> Floats:
        """Traits where they are normal, the rest of them as the prior has them or as `others`. Shape (k, d)."""
        found = np.tile(self.middle, (len(x), 1)) if others is None else others.copy()
        found[:, AT["cost"]] = self.middle[AT["cost"]]
        found[:, self.at] = self.middle[self.at] + self.sd[self.at] * x
        return found

    def _weight(self, log: Evidence) -> float:
        return float(0.5 ** (log.seen.days_ago / HALF_LIFE_DAYS))

    def fit(self) -> tuple[Floats, Floats]:
        """Best fit (m,) and its covariance (m, m): steps of Gauss and Newton, half as far where one leads nowhere."""
        count = len(self.at)
        starts = np.random.default_rng(SEED).standard_normal((STARTS, count))
        starts[0] = 0.0
        best: Floats = starts[np.argmax(self.fits(starts))]
        step: Floats = np.zeros(count)
        least, precision = np.inf, np.eye(count)
        for _ in range(SEARCHES):
            trial = np.clip(best + step, -3.0, 3.0)
            found, slopes, right = self._about(trial)
            if found < least:
                best, least, precision = trial, found, slopes
                step = np.asarray(np.linalg.solve(precision, right))
                step = step / max(1.0, np.abs(step).max() / 2.0)
            else:
                step = step / 2
        return best, np.asarray(np.linalg.inv(precision))

    def _about(self, x: Floats) -> tuple[float, Floats, Floats]:
        """How ill one draw (m,) fits, and how that bends (m, m) and falls (m,) about it."""
        count = len(x)
        trials = np.vstack([x, x + STEP * np.eye(count)])
        found, precision, right = 0.5 * float(x @ x), np.eye(count), -x
        cohort = cohort_of(self.person, self.normal(trials))
        for log, forecast in zip(self.logs, forecasts(self.person, self.logs, cohort), strict=True):
            far, weight = misfit(log, forecast), self._weight(log)
            slope = (far[:, 1:] - far[:, :1]) / STEP
            precision = precision + weight * slope.T @ slope
            right = right - weight * slope.T @ far[:, 0]
            found += weight * 0.5 * float(far[:, 0] @ far[:, 0])
        return found, precision, right

    def fits(self, x: Floats) -> Floats:
        """Log density of prior and logs, for each draw. Shape (k,)."""
        cohort = cohort_of(self.person, self.normal(x))
        found = -0.5 * np.square(x).sum(axis=1)
        for log, forecast in zip(self.logs, forecasts(self.person, self.logs, cohort), strict=True):
            found = found + self._weight(log) * log_likelihood(log, forecast)
        return np.asarray(found)


def _root(spread: Floats) -> Floats:
    """A square root of a covariance that may have no spread in some directions."""
    sizes, ways = np.linalg.eigh(spread)
    return np.asarray(ways * np.sqrt(np.maximum(sizes, 0.0)))


def _weights(logs: Floats) -> Floats:
    found = np.exp(logs - logs.max())
    return np.asarray(found / found.sum())


def _effective(weights: Floats) -> float:
    """As many equal draws would tell as much."""
    return float(1.0 / np.square(weights).sum())


def _learn(task: _Task) -> tuple[Floats, float]:
    """Draws that fit prior and logs, shape (KEPT, m), and how many equal ones they are worth."""
    random = np.random.default_rng(SEED)
    middle, spread = task.fit()
    for _ in range(ROUNDS):
        half = random.standard_normal((DRAWN // 2, len(middle)))
        far = np.vstack([half, -half])
        x = middle + WIDER * far @ _root(spread).T
        logs = task.fits(x) + 0.5 * np.square(far).sum(axis=1)
        effective, weights = _effective(_weights(logs)), _weights(logs)
        share = 1.0
        while _effective(weights) < FEWEST and share > LEAST_HEARD:
            share *= 0.8
            weights = _weights(share * logs)
        # Few that count say little of how widely they lie: the fit then has its word too.
        trusted = effective / (effective + 2 * len(middle))
        mean = weights @ x
        off = x - mean
        middle = trusted * mean + (1 - trusted) * middle
        spread = trusted * (weights[:, None] * off).T @ off + (1 - trusted) * spread
        if effective >= ENOUGH * DRAWN:
            break
    order = np.searchsorted(np.cumsum(weights), (np.arange(KEPT) + 0.5) / KEPT)
    taken = x[np.minimum(order, DRAWN - 1)]
    scatter = random.standard_normal(taken.shape) @ _root(spread).T
    found = np.sqrt(1 - SCATTER**2) * (taken - mean) + SCATTER * scatter
    return middle + SEARCHED * found, effective


def calibrate(person: Person, seen: Sequence[Seen]) -> Calibration:
    """What somebody's logs teach of them. Raises `EvidenceError` for a log that cannot be of its session.

    What was learned before is left out: the logs are the whole of it.
    """
    prior_of = person.unlearned
    logs = in_order([log for one in seen if (log := evidence(prior_of, one))])
    before = drawn(prior_of, KEPT)
    if not logs:
        same = told(prior_of, before)
        return Calibration(prior_of, 0, same, same, float(KEPT))
    task = _Task(prior_of, logs, _moved(logs), *prior(prior_of))
    x, effective = _learn(task)
    draws = task.normal(x, before)
    digest = hashlib.sha256(repr((prior_of, [log.digest for log in logs])).encode()).hexdigest()
    after = _with(prior_of, Learned(len(logs), digest, partial(np.asarray, draws), prior_of), before)
    return Calibration(after, len(logs), told(prior_of, before), told(after, draws), effective)


NUMBERS = "vo2max_ml_kg_min", "anaerobic_scale", "speed_scale", "all_out_force", "hr_max_bpm", "hr_rest_bpm"
"""A person's own numbers that logs teach."""


def _with(person: Person, learned: Learned, before: Floats) -> Person:
    """The person's own numbers as they were learned; those that logs say nothing of keep where they came from."""
    found: dict[str, Any] = {}
    middle = values_of(learned.draws.mean(axis=0))
    sd = values_of(learned.draws).std(axis=0)
    surer = learned.draws.std(axis=0) < SURER * before.std(axis=0)
    for name in NUMBERS:
        known: Value = getattr(person, name)
        # What a person may be told to have is within what a person may have.
        value = float(np.clip(middle[AT[name]], *POSSIBLE.get(name, (0.0, np.inf))))
        spread = float(sd[AT[name]])
        found[name] = replace(known, value=value, sd=spread)
        if surer[AT[name]]:
            found[name] = Value(value, spread, "learned", f"learned from {learned.logs} logs")
    return replace(person, **found, learned=learned)


def _columns(person: Person, normal: Floats) -> dict[str, Floats]:
    """Traits of shape (k, d) and the stores that follow from them, by name, each of shape (k,)."""
    people = cohort_of(person, normal).people
    return {
        **dict(zip(AT, values_of(normal).T, strict=True)),
        "sprint_capacity_ml_kg": people.sprint_capacity_ml_kg,
        "lactic_capacity_ml_kg": people.lactic_capacity_ml_kg,
    }


def told(person: Person, draws: Floats) -> tuple[Learnt, ...]:
    """Every capacity with its 80 % range; what the words ask as shares of what the model has them ask."""
    columns, middle = _columns(person, draws), _columns(person, centre(person)[None, :])
    named = [
        ("vo2max_ml_kg_min", "VO₂max", "mL/kg/min"),
        ("anaerobic_scale", "Anaerobic scale", ""),
        ("sprint_capacity_ml_kg", "Sprint store", "mL O₂/kg"),
        ("lactic_capacity_ml_kg", "Lactic store", "mL O₂/kg"),
        ("speed_scale", "Pace", ""),
        ("all_out_force", "Force all out", ""),
        ("demand", "Effort of every word", ""),
        *((f"demand {tempo}", f"Effort of {TEMPOS[tempo].word}", "") for tempo in TEMPOS
          if TEMPOS[tempo].share and not TEMPOS[tempo].top_rate),
    ]  # fmt: skip
    if person.heart_holds:
        named += [
            ("hr_max_bpm", "Heart at most", "bpm"),
            ("hr_rest_bpm", "Heart at rest", "bpm"),
            ("hr_offset_bpm", "Heart against the model", "bpm"),
        ]
    found = []
    for id_, name, unit in named:
        low, high = np.percentile(columns[id_], (10.0, 90.0))
        found.append(Learnt(id_, name, unit, float(middle[id_][0]), float(low), float(high)))
    return tuple(found)
