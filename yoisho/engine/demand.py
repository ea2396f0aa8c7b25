"""From effort words, beats and combinations to what the muscles are asked for, and to strikes.

An effort *word* is relative: it says how hard for this person, and the strikes follow from what one costs them. What
the coach *fixes* (a beat, strikes a minute) is absolute: it fixes the strikes, and the demand follows, harder for
the weaker. *All out* asks for the top rate, which falls inside the effort. Shares, force and footwork of the words are
our own settings, settled against the published figures that `tests/published` names.
"""

from dataclasses import dataclass

import numpy as np

from yoisho.engine.parameters import ALL_THAT_CAN_BE_DELIVERED_FRAC
from yoisho.engine.stores import Floats, People, resting_uptake_frac
from yoisho.engine.strike_cost import Mix, blow_of, mix_of, strike_cost, top_rate
from yoisho.session.modality import MODALITIES
from yoisho.session.timeline import Timeline, TimelineInterval
from yoisho.strikes.tempo import TEMPOS, Tempo

FOOTWORK_ML_KG_MIN = {"planted": 6.0, "stepping": 11.5, "hard": 18.0}
"""Stance and steps above rest. Own settings: with the cost of a punch they give Arseneau's three figures."""
MOST_FOOTWORK = 0.5
"""Of what a word asks above rest, footwork takes at most this share."""
LOWEST_ALL_OUT = 0.45
"""Of the top rate of someone fresh, what is still asked of the exhausted."""
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

    @property
    def asked_frac(self) -> Floats:
        """Mean demand of each interval; all out, its top [x VO2max], shape (s, k)."""
        energy = np.cumsum(self.top * self.seconds[:, None], axis=0)[self.last]
        lengths = np.cumsum(self.seconds)[self.last]
        return np.asarray(np.diff(energy, axis=0, prepend=0.0) / np.diff(lengths, prepend=0.0)[:, None])


def mix_of_interval(interval: TimelineInterval) -> Mix:
    """What is struck in it; where nothing is said, straight punches."""
    found = interval.combination
    blows = [blow for one in found.actions if (blow := blow_of(one))] if found else []
    return mix_of(blows)


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
    found = [0.0] * len(timeline.intervals)
    group: list[int] = []
    for index, interval in enumerate(timeline.intervals):
        before = timeline.intervals[index - 1] if index else None
        if before is None or before.tempo != interval.tempo or before.partner or interval.partner:
            group = []
        group.append(index)
        seconds = sum(timeline.intervals[each].seconds for each in group)
        for each in group:
            found[each] = float(seconds)
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


def demands_of(timeline: Timeline, people: People, striking: Striking) -> Demands:
    """What a timeline asks of a cohort."""
    k = len(people)
    V = people.vo2max_ml_kg_s * 60.0
    rest = resting_uptake_frac(people.vo2max_ml_kg_s)
    seconds, least, top, ceilings = [], [], [], []
    last, all_out, rates, unstruck = [], [], [], []
    none = np.zeros(k)
    ceiling = next((ceiling_of(i) for i in timeline.intervals if i.kind != "rest" and not i.partner), 1.0)

    def add(length: float, low: Floats, high: Floats) -> None:
        seconds.append(length)
        least.append(low)
        top.append(high)
        ceilings.append(ceiling)

    for interval, unbroken_s in zip(timeline.intervals, _unbroken_s(timeline), strict=True):
        tempo = TEMPOS["rest"] if interval.partner else TEMPOS[interval.tempo]
        length = float(interval.seconds)
        source = interval.source
        hardest = False
        rate, base = none, rest
        if tempo.kind == "rest":
            add(length, rest, rest)
        else:
            ceiling = ceiling_of(interval)
            scale = striking.share[tempo.id]
            mix = mix_of_interval(interval)
            struck = source.struck and tempo.force is not None
            force: Floats = np.full(k, source.force or 0.0)
            if tempo.top_rate:
                force = force * striking.all_out_force
            cost = strike_cost(mix, force) * np.square(striking.velocity) * striking.cost
            quickest = top_rate(mix, force) * striking.top
            steps = FOOTWORK_ML_KG_MIN[tempo.footwork]
            fixed = interval.strikes_per_min_fixed
            if source.demand_percent is not None:
                asked = np.minimum(source.demand_percent / 100 * np.ones(k), HARDEST_FRAC)
                add(length, asked, asked)
                rate, base = _following(asked, rest, V, cost, quickest, steps) if struck else (none, asked)
            elif struck and fixed is not None:
                rate = np.full(k, fixed / 60.0)
                base = rest + steps / V
                asked = np.minimum(base + rate * 60.0 * cost / V, HARDEST_FRAC)
                add(length, asked, asked)
            elif tempo.top_rate and struck:
                hardest = True
                rate, base = quickest, rest + steps / V
                high = base + quickest * 60.0 * cost / V
                add(length, LOWEST_ALL_OUT * high, high)
            elif tempo.top_rate:
                hardest = True
                high = np.full(k, ALL_THAT_CAN_BE_DELIVERED_FRAC)
                base = high
                add(length, high, high)
            else:
                share = share_of(interval, tempo, unbroken_s)
                for part_s, part in _pieces(length, tempo, share):
                    asked = np.minimum(rest + part * scale * (ceiling - rest), HARDEST_FRAC)
                    add(part_s, asked, asked)
                mean = rest + share * scale * (ceiling - rest)
                rate, base = _following(mean, rest, V, cost, quickest, steps) if struck else (none, mean)
        last.append(len(seconds) - 1)
        all_out.append(hardest)
        rates.append(rate)
        unstruck.append(base)
    return Demands(
        np.array(seconds), np.array(least), np.array(top), np.array(ceilings), np.array(last), np.array(all_out),
        np.array(rates), np.array(unstruck),
    )  # fmt: skip


def _following(
    asked: Floats, rest: Floats, V: Floats, cost: Floats, quickest: Floats, steps: float
) -> tuple[Floats, Floats]:
    """Strikes a second that follow from a demand, and what of it is rest and footwork [x VO2max]."""
    net = np.maximum(asked - rest, 0.0) * V
    walked = np.minimum(steps, MOST_FOOTWORK * net)
    rate = np.minimum((net - walked) / 60.0 / cost, quickest)
    return rate, rest + walked / V
