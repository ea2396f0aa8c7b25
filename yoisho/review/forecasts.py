"""How well what happened was forecast: the share of numbers inside their 80 % range, and how far off they were."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from yoisho.engine.cohort import draws
from yoisho.engine.person import Person
from yoisho.engine.stores import Floats
from yoisho.review.evidence import KINDS, Kind, Seen, evidence, forecasts, in_order, spreads

SEED = 61
NOISES = 5
"""Days that each draw is given: what is seen differs from one to the next."""


@dataclass(frozen=True)
class Score:
    """Of all numbers of one kind."""

    numbers: int
    inside: float
    """Share of them inside the 80 % range of their forecast."""
    crps: float
    """Mean continuous ranked probability score, in the kind's unit: 0 is perfect; of a forecast without spread it is
    how far off it was (Gneiting and Raftery 2007, from memory)."""


def crps(forecast: Floats, seen: Floats) -> Floats:
    """Of forecasts given as draws, shape (n, k), for what was seen, shape (n,). Shape (n,).

    The mean distance to what was seen, less half the mean distance between draws.
    """
    count = forecast.shape[1]
    ordered = np.sort(forecast, axis=1)
    # Half the mean distance between any two draws, from their ranks.
    apart = ordered @ (2.0 * np.arange(1, count + 1) - count - 1) / count**2
    return np.asarray(np.abs(forecast - seen[:, None]).mean(axis=1) - apart)


def scores(person: Person, seen: Sequence[Seen]) -> dict[Kind, Score]:
    """How well the person's draws, as they are known now, forecast their logs; of each kind that was seen."""
    logs = in_order([log for one in seen if (log := evidence(person, one))])
    random = np.random.default_rng(SEED)
    inside: dict[Kind, list[Floats]] = {kind: [] for kind in KINDS}
    off: dict[Kind, list[Floats]] = {kind: [] for kind in KINDS}
    for log, forecast in zip(logs, forecasts(person, logs, draws(person)), strict=True):
        for kind in KINDS:
            values, expected = log.values[kind], np.repeat(forecast.values[kind], NOISES, axis=1)
            if not len(values):
                continue
            own, day = spreads(kind, expected)
            told = expected + own * random.standard_normal(own.shape) + day * random.standard_normal(own.shape[1])
            if kind == "rpe":
                told = np.clip(np.rint(told), 0, 10)
            low, high = np.percentile(told, (10.0, 90.0), axis=1)
            inside[kind].append((values >= low) & (values <= high))
            off[kind].append(crps(told, values))
    return {
        kind: Score(
            sum(map(len, off[kind])),
            float(np.concatenate(inside[kind]).mean()),
            float(np.concatenate(off[kind]).mean()),
        )
        for kind in KINDS
        if off[kind]
    }
