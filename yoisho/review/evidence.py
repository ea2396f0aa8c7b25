"""What was seen of a session that somebody did, and how well a forecast of it fits.

Seen are strikes of each effort (and so the fade), heart rate, rating, and how far it came. Each kind has an error of
each number by itself and one that all numbers of a day share: named settings, with their reasons.
"""

import hashlib
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from itertools import groupby
from typing import Literal, get_args

import numpy as np

from yoisho.engine.cohort import Cohort, best_guess
from yoisho.engine.measures import Measured, measure
from yoisho.engine.person import Person
from yoisho.engine.stores import Floats
from yoisho.engine.work_bouts import WorkBouts, find_work_bouts
from yoisho.session.timeline import Timeline

Kind = Literal["strikes", "heart", "rpe"]
KINDS: tuple[Kind, ...] = get_args(Kind)


@dataclass(frozen=True)
class Noise:
    """How far what is seen lies from what would be expected of somebody who is fully known, as standard deviations."""

    own: float
    """Of each number by itself."""
    day: float
    """Of what all numbers of its kind in one log share."""
    unit: str
    why: str


NOISE: dict[Kind, Noise] = {
    "strikes": Noise(0.06, 0.06, "of the count", "counting misses a few in a hundred, and nobody strikes alike on two "
                     "days; own setting"),
    "heart": Noise(5.0, 4.0, "bpm, mean of half a minute", "sleep, heat and coffee move the heart of a whole day, and "
                   "it follows work less evenly than the model has it; own setting"),
    "rpe": Noise(1.0, 0.0, "points of ten", "people differ by about a point in what they call hard; own setting"),
}  # fmt: skip
FEWEST_STRIKES = 4.0
"""Fewer are as uncertain as so many."""
HEART_WINDOW_S = 30
LEAST_HEARD = 0.5
"""Share of a half minute that a strap must have told."""
STOP_SD = 0.15
"""Of a session's length: how well the moment in which somebody stops says when they could not go on. Own setting."""
OTHER_REASONS = 0.4
"""Share of sessions that were stopped, or slowed down and finished, for reasons of their own. Own setting."""
SAMPLES = 150
"""Samples that a forecast is read at, besides the ends of its intervals."""


class EvidenceError(ValueError):
    """Something seen that cannot be of its session."""


@dataclass(frozen=True)
class Seen:
    """What was seen of one session."""

    timeline: Timeline
    """As it was planned for them."""
    done_frac: float = 1.0
    """Share of its length that was done."""
    rpe: float | None = None
    strikes: tuple[float | None, ...] = ()
    """Of each effort, or of each interval of work; None where nobody counted."""
    counted: float | None = None
    """Strikes of the whole, where only they were counted."""
    heart: tuple[tuple[float, float], ...] = ()
    """Session time [s] and heart rate [bpm]."""
    days_ago: float = 0.0


@dataclass(frozen=True)
class Evidence:
    """A log, ready to be held against forecasts."""

    seen: Seen
    done: Timeline
    """What of it was done."""
    bouts: WorkBouts
    counts: tuple[tuple[int, int], ...]
    """First and last interval of each count."""
    windows: Floats
    """Middle of each half minute of heart rate [s]."""
    values: dict[Kind, Floats]
    """What was seen, each of shape (n,)."""

    @property
    def digest(self) -> str:
        """The same for the same log."""
        return hashlib.sha256(repr(self.seen).encode()).hexdigest()


@dataclass(frozen=True)
class Forecast:
    """What each of `k` draws expects of a log."""

    values: dict[Kind, Floats]
    """Each of shape (n, k)."""
    gives_out_s: Floats
    """When what is asked can no longer be given, NaN for never. Shape (k,)."""


def cut(timeline: Timeline, seconds: float) -> Timeline:
    """The first so many seconds of a timeline."""
    lengths = [min(each.seconds, round(seconds) - each.start_s) for each in timeline.intervals]
    kept = zip(timeline.intervals, lengths, strict=True)
    return replace(timeline, intervals=tuple(replace(each, seconds=left) for each, left in kept if left > 0))


def evidence(person: Person, seen: Seen) -> Evidence | None:
    """None where no work was done. Raises `EvidenceError` for what cannot be."""
    if not 0 <= seen.done_frac <= 1:
        raise EvidenceError(f"done_frac is the share that was done, from 0 to 1, not {seen.done_frac:g}")
    if seen.rpe is not None and not 0 <= seen.rpe <= 10:
        raise EvidenceError(f"rpe is from 0 to 10, not {seen.rpe:g}")
    done = cut(seen.timeline, seen.done_frac * seen.timeline.total_s)
    bouts = find_work_bouts(done)
    counted = _counted(seen, done)
    if not bouts:
        return None
    windows, heart = _half_minutes(seen, done.total_s) if person.heart_holds else (np.zeros(0), np.zeros(0))
    values: dict[Kind, Floats] = {
        "strikes": np.array([count for _, count in counted]),
        "heart": heart,
        "rpe": np.array([] if seen.rpe is None else [seen.rpe]),
    }
    return Evidence(seen, done, bouts, tuple(place for place, _ in counted), windows, values)


def _counted(seen: Seen, done: Timeline) -> list[tuple[tuple[int, int], float]]:
    """Where something was counted, and how many; only of what was done."""
    given = [count for count in (*seen.strikes, seen.counted) if count is not None]
    if any(not 0 <= count < np.inf for count in given):
        raise EvidenceError("a count of strikes is a number from 0")
    if not seen.strikes:
        return [] if seen.counted is None else [((0, len(done.intervals) - 1), seen.counted)]
    efforts = [(bout.first, bout.last) for bout in find_work_bouts(seen.timeline)]
    works = [(i, i) for i, interval in enumerate(seen.timeline.intervals) if interval.kind == "work"]
    places = next((each for each in (efforts, works) if len(each) == len(seen.strikes)), None)
    if places is None:
        or_works = "" if len(works) == len(efforts) else f" and {len(works)} intervals of work"
        raise EvidenceError(
            f"strikes are counted for each effort: the session has {len(efforts)} efforts{or_works}, "
            f"and {len(seen.strikes)} counts are given; put null where nobody counted"
        )
    # Only the last one can have been broken off.
    last = len(done.intervals) - 1
    if done.intervals and done.intervals[last].seconds < seen.timeline.intervals[last].seconds:
        last -= 1
    pairs = zip(places, seen.strikes, strict=True)
    return [(place, count) for place, count in pairs if count is not None and place[1] <= last]


def _half_minutes(seen: Seen, seconds: int) -> tuple[Floats, Floats]:
    """Middle of each half minute that was heard well enough [s], and the mean heart rate in it [bpm]."""
    told = np.array(sorted((at, bpm) for at, bpm in seen.heart if 0 <= at < seconds)).reshape(-1, 2)
    if any(not 20 <= bpm <= 250 for bpm in told[:, 1]):
        raise EvidenceError("a heart rate is from 20 to 250 bpm")
    if len(told) < 2:
        return np.zeros(0), np.zeros(0)
    every_s = max(1.0, float(np.median(np.diff(told[:, 0]))))
    window = (told[:, 0] // HEART_WINDOW_S).astype(int)
    heard = np.bincount(window)
    means = np.bincount(window, told[:, 1]) / np.maximum(heard, 1)
    kept = np.flatnonzero(heard * every_s >= LEAST_HEARD * HEART_WINDOW_S)
    return np.asarray((kept + 0.5) * HEART_WINDOW_S), np.asarray(means[kept])


def in_order(logs: Sequence[Evidence]) -> list[Evidence]:
    """An order of their own, the same however they are given; those of one session beside each other."""
    return sorted(logs, key=lambda log: (repr(log.done.intervals), log.digest))


def forecasts(person: Person, logs: Sequence[Evidence], cohort: Cohort) -> Iterator[Forecast]:
    """What a cohort expects of each log. A session that several did alike is run once."""
    alone = best_guess(person.unlearned)
    for _, same in groupby(logs, key=lambda log: log.done.intervals):
        group = list(same)
        first = group[0]
        sample_s = max(1.0, first.done.total_s / SAMPLES)
        like = measure(person, first.done, first.bouts, alone, sample_s)
        found = measure(person, first.done, first.bouts, cohort, sample_s, like=like)
        yield from (_forecast(log, found) for log in group)


def _forecast(log: Evidence, found: Measured) -> Forecast:
    count = found.heart_rate_bpm.shape[1]
    seconds = found.run.seconds
    after = np.clip(np.searchsorted(seconds, log.windows), 1, len(seconds) - 1)
    share = ((log.windows - seconds[after - 1]) / (seconds[after] - seconds[after - 1]))[:, None]
    strikes = [found.strikes[first : last + 1].sum(axis=0) for first, last in log.counts]
    values: dict[Kind, Floats] = {
        "strikes": np.array(strikes).reshape(-1, count),
        "heart": found.heart_rate_bpm[after - 1] * (1 - share) + found.heart_rate_bpm[after] * share,
        "rpe": found.figures["rpe"][None, :][: len(log.values["rpe"])],
    }
    return Forecast(values, found.run.exhausted_at_s)


def spreads(kind: Kind, expected: Floats) -> tuple[Floats, Floats]:
    """Standard deviations of each number by itself and of what the day shares, of the shape of what is expected."""
    noise = NOISE[kind]
    scale = np.maximum(expected, FEWEST_STRIKES) if kind == "strikes" else np.ones_like(expected)
    return noise.own * scale, noise.day * scale


def misfit(log: Evidence, forecast: Forecast) -> Floats:
    """How far each number lies from what each draw expects, in standard deviations that have nothing in common.

    The errors are those of the first draw's forecast. Shape (n, k).
    """
    rows = []
    for kind in KINDS:
        expected = forecast.values[kind]
        own, day = spreads(kind, expected[:, :1])
        far, shared = (log.values[kind][:, None] - expected) / own, day / own
        size = float(np.square(shared).sum())
        if size > 0:
            # The root of the inverse of a covariance that is one and a vector besides.
            far = far - shared * ((1.0 - 1.0 / np.sqrt(1.0 + size)) / size * (shared.T @ far))
        rows.append(far)
    return np.vstack(rows)


def log_likelihood(log: Evidence, forecast: Forecast) -> Floats:
    """How well each draw's forecast fits what was seen, as a log density. Shape (k,)."""
    found = _came_so_far(log, forecast.gives_out_s)
    for kind in KINDS:
        expected = forecast.values[kind]
        own, day = spreads(kind, expected)
        far, shared = (log.values[kind][:, None] - expected) / own, day / own
        # The covariance is diagonal and one vector besides (Sherman and Morrison).
        more = 1.0 + np.square(shared).sum(axis=0)
        inside = np.square(far).sum(axis=0) - np.square((far * shared).sum(axis=0)) / more
        found = found - 0.5 * inside - np.log(own).sum(axis=0) - 0.5 * np.log(more)
    return np.asarray(found)


def _came_so_far(log: Evidence, gives_out_s: Floats) -> Floats:
    """Of having finished, or of having stopped there: who gives out before the end seldom finishes."""
    early = (log.done.total_s - np.where(np.isnan(gives_out_s), np.inf, gives_out_s)) / log.seen.timeline.total_s
    gave_out = 1.0 / (1.0 + np.exp(-1.702 * np.clip(early / STOP_SD, -30, 30)))
    fits = 1.0 - gave_out if log.seen.done_frac == 1 else gave_out
    return np.asarray(np.log(OTHER_REASONS + (1.0 - OTHER_REASONS) * fits))
