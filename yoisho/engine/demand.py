"""From effort words, beats and combinations to what the muscles are asked for, and to strikes.

An effort *word* is relative: it says how hard for this person, and the strikes follow from what one costs them. What
the coach *fixes* (a beat, strikes a minute) is absolute: it fixes the strikes, and the demand follows, harder for
the weaker. *All out* asks for the top rate, which falls inside the effort. Shares, force and footwork of the words are
our own settings, settled against the published figures that `tests/published` names.
"""

from dataclasses import dataclass, field
from functools import cached_property, lru_cache
from itertools import groupby

import numpy as np

from yoisho.engine.parameters import ALL_THAT_CAN_BE_DELIVERED_FRAC, Parameters
from yoisho.engine.stores import Floats, People, Precision, Run, resting_uptake_frac, simulate
from yoisho.engine.strike_cost import Mix, blow_of, mix_of, strike_cost, top_rate
from yoisho.session.modality import MODALITIES
from yoisho.session.timeline import Timeline, TimelineInterval
from yoisho.strikes.combination import Combination
from yoisho.strikes.tempo import TEMPOS, Tempo

FOOTWORK_ML_KG_MIN = {"planted": 6.0, "stepping": 11.5, "hard": 18.0}
"""Stance and steps above rest. Own settings: with the cost of a punch they give Arseneau's three figures."""
MOST_FOOTWORK = 0.5
"""Of what a word asks above rest, footwork takes at most this share."""
LOWEST_ALL_OUT = 0.45
"""Of the top rate of someone fresh, what is still asked of the exhausted."""
MOST_KNOWN = 8000
"""Intervals, times people, whose demand a cohort remembers: a megabyte."""
SHORTEST_S = 10.0
"""Interval up to which a word counts as hard as it gets."""
HARDEST_FRAC = 8.0
"""A paced demand is at most this [x VO2max]: far more than anybody delivers."""


@dataclass(frozen=True)
class Striking:
    """How the people of a cohort strike, each of shape (k,); dictionaries by tempo."""

    velocity: Floats
    """Of the limbs, against an elite striker's [-]: a strike costs with its square."""
    top: Floats
    """Multiplies the top rates [-]."""
    cost: Floats
    """Multiplies the cost of a strike [-]: what is not known of it."""
    all_out_force: Floats
    """Multiplies the force of strikes thrown all out [-]."""
    share: dict[str, Floats]
    """Multiplies what a word asks above rest [-]."""
    known: "dict[object, _Asked]" = field(default_factory=dict, compare=False, repr=False)
    """What was asked of them lately: a search changes one interval of many."""


@dataclass(frozen=True)
class Demands:
    """What a timeline asks of a cohort: `m` stretches, a few to each of the `s` intervals."""

    seconds: Floats
    """Length of each stretch, shape (m,)."""
    least: Floats
    top: Floats
    """Demand and, all out, the top of it [x VO2max], shape (m, k)."""
    ceiling: Floats
    """Share of VO2max that the muscle in play can take up, shape (m,)."""
    last: np.ndarray
    """The last stretch of each interval, shape (s,)."""
    all_out: np.ndarray
    """Whether an interval is all out, shape (s,)."""
    strikes_per_s: Floats
    """Asked, shape (s, k)."""
    unstruck: Floats
    """Of the demand, rest and footwork [x VO2max], shape (s, k)."""

    def run(self, people: People, parameters: Parameters, *, sample_s: float, precision: Precision) -> Run:
        """What it does to the cohort; the run counts each stretch as a segment."""
        return simulate(
            self.seconds, self.least, people, top_frac=self.top, ceiling_frac=self.ceiling, parameters=parameters,
            sample_s=sample_s, precision=precision,
        )  # fmt: skip

    @cached_property
    def asked_frac(self) -> Floats:
        """Mean demand of each interval; all out, its top [x VO2max], shape (s, k)."""
        energy = np.cumsum(self.top * self.seconds[:, None], axis=0)[self.last]
        lengths = np.cumsum(self.seconds)[self.last]
        return np.asarray(np.diff(energy, axis=0, prepend=0.0) / np.diff(lengths, prepend=0.0)[:, None])


def mix_of_interval(interval: TimelineInterval) -> Mix:
    """What is struck in it; where nothing is said, straight punches."""
    return _mix(interval.combination)


@lru_cache(maxsize=1024)
def _mix(combination: Combination | None) -> Mix:
    return mix_of([blow for one in combination.actions if (blow := blow_of(one))] if combination else [])


def ceiling_of(interval: TimelineInterval) -> float:
    """Share of VO2max that the muscle in play can take up [-]."""
    modality = MODALITIES[interval.source.modality] if interval.source.modality else None
    if modality and not modality.strikes:
        return modality.ceiling_frac
    if modality is None and interval.source.demand_percent is not None and interval.combination is None:
        return 1.0
    if modality is None and interval.tempo == "hold":
        return MODALITIES["carry"].ceiling_frac
    return mix_of_interval(interval).ceiling_frac


def _unbroken_s(timeline: Timeline) -> list[float]:
    """For each interval, the seconds of one word without a pause that it is part of: ten and eight and six in a row
    are no three sprints."""
    found: list[float] = []
    for _, group in groupby(timeline.intervals, key=lambda interval: (interval.tempo, interval.partner)):
        lengths = [float(interval.seconds) for interval in group]
        found += [sum(lengths)] * len(lengths)
    return found


def share_of(interval: TimelineInterval, tempo: Tempo, unbroken_s: float) -> float:
    """How hard a word is, from rest (0) to the ceiling (1) and over it; the harder the shorter it lasts."""
    modality = MODALITIES[interval.source.modality] if interval.source.modality else None
    if modality and modality.share is not None and modality.tempo == interval.tempo:
        return modality.share
    return tempo.share + tempo.share_s / max(SHORTEST_S, unbroken_s)


def _pieces(seconds: float, tempo: Tempo, share: float) -> list[tuple[float, float]]:
    """Seconds and share of the bursts and what lies between them; one piece where a word has none."""
    if tempo.burst is None:
        return [(seconds, share)]
    hard_s, hard, cycle_s = tempo.burst
    light = max(0.0, (share * cycle_s - hard * hard_s) / (cycle_s - hard_s))
    pieces, left = [], seconds
    while left > 0:
        for length, asked in ((hard_s, hard), (cycle_s - hard_s, light)):
            if left > 0:
                pieces.append((min(length, left), asked))
                left -= length
    return pieces


@dataclass(frozen=True)
class _Asked:
    """What one interval asks of a cohort."""

    stretches: tuple[tuple[float, Floats, Floats], ...]
    """Seconds, demand and top of it [x VO2max]."""
    ceiling: float
    all_out: bool
    strikes_per_s: Floats
    unstruck: Floats


def demands_of(timeline: Timeline, people: People, striking: Striking) -> Demands:
    """What a timeline asks of a cohort."""
    rest = resting_uptake_frac(people.vo2max_ml_kg_s)
    none = np.zeros(len(people))
    # A rest keeps the muscle in play of the work before it.
    ceiling = next((ceiling_of(i) for i in timeline.intervals if i.kind != "rest" and not i.partner), 1.0)
    known: dict[tuple[int, int, float], _Asked] = {}
    asked: list[_Asked] = []
    for interval, unbroken_s in zip(timeline.intervals, _unbroken_s(timeline), strict=True):
        if interval.partner or interval.kind == "rest":
            found = _Asked(((float(interval.seconds), rest, rest),), ceiling, False, none, rest)
        else:
            # Repetitions of one interval of the tree ask the same, where they strike the same.
            key = id(interval.source), id(interval.combination), unbroken_s
            known[key] = found = known.get(key) or _asked_before(interval, unbroken_s, people, striking)
            ceiling = found.ceiling
        asked.append(found)
    stretches = [each for one in asked for each in one.stretches]
    counts = np.array([len(one.stretches) for one in asked])
    return Demands(
        seconds=np.array([seconds for seconds, _, _ in stretches]),
        least=np.array([low for _, low, _ in stretches]),
        top=np.array([high for _, _, high in stretches]),
        ceiling=np.repeat([one.ceiling for one in asked], counts),
        last=np.cumsum(counts) - 1,
        all_out=np.array([one.all_out for one in asked]),
        strikes_per_s=np.array([one.strikes_per_s for one in asked]),
        unstruck=np.array([one.unstruck for one in asked]),
    )


def _asked_before(interval: TimelineInterval, unbroken_s: float, people: People, striking: Striking) -> _Asked:
    known, key = striking.known, (interval.source, interval.combination, interval.seconds, unbroken_s)
    found = known.get(key)
    if found is None:
        if len(known) * len(people) >= MOST_KNOWN:
            known.clear()
        known[key] = found = _asked(interval, unbroken_s, people, striking)
    return found


def _asked(interval: TimelineInterval, unbroken_s: float, people: People, striking: Striking) -> _Asked:
    """Of an interval of work or recovery."""
    tempo, source, length = TEMPOS[interval.tempo], interval.source, float(interval.seconds)
    V = people.vo2max_ml_kg_s * 60.0
    rest = resting_uptake_frac(people.vo2max_ml_kg_s)
    none = np.zeros(len(people))
    ceiling = ceiling_of(interval)
    mix, struck = mix_of_interval(interval), source.struck and tempo.force is not None
    force: Floats = np.full(len(people), source.force or 0.0)
    if tempo.top_rate:
        force = force * striking.all_out_force
    cost = strike_cost(mix, force) * np.square(striking.velocity) * striking.cost
    quickest = top_rate(mix, force) * striking.top
    steps = FOOTWORK_ML_KG_MIN[tempo.footwork]
    standing = rest + steps / V
    fixed = interval.strikes_per_min_fixed
    if source.demand_percent is not None:
        paced = np.full(len(people), source.demand_percent / 100)
        rate, base = _following(paced, rest, V, cost, quickest, steps) if struck else (none, paced)
        return _Asked(((length, paced, paced),), ceiling, False, rate, base)
    if struck and fixed is not None:
        rate = np.full(len(people), fixed / 60.0)
        paced = np.minimum(standing + rate * 60.0 * cost / V, HARDEST_FRAC)
        return _Asked(((length, paced, paced),), ceiling, False, rate, standing)
    if tempo.top_rate and struck:
        high = standing + quickest * 60.0 * cost / V
        return _Asked(((length, LOWEST_ALL_OUT * high, high),), ceiling, True, quickest, standing)
    if tempo.top_rate:
        high = np.full(len(people), ALL_THAT_CAN_BE_DELIVERED_FRAC)
        return _Asked(((length, high, high),), ceiling, True, none, high)
    share, scale = share_of(interval, tempo, unbroken_s), striking.share[tempo.id] * (ceiling - rest)
    stretches = []
    for part_s, part in _pieces(length, tempo, share):
        paced = np.minimum(rest + part * scale, HARDEST_FRAC)
        stretches.append((part_s, paced, paced))
    mean = rest + share * scale
    rate, base = _following(mean, rest, V, cost, quickest, steps) if struck else (none, mean)
    return _Asked(tuple(stretches), ceiling, False, rate, base)


def _following(
    asked: Floats, rest: Floats, V: Floats, cost: Floats, quickest: Floats, steps: float
) -> tuple[Floats, Floats]:
    """Strikes a second that follow from a demand, and what of it is rest and footwork [x VO2max]."""
    net = np.maximum(asked - rest, 0.0) * V
    walked = np.minimum(steps, MOST_FOOTWORK * net)
    rate = np.minimum((net - walked) / 60.0 / cost, quickest)
    return rate, rest + walked / V
