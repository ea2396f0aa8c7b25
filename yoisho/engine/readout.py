"""What is read from a run of a timeline: figures with ranges, traces for drawing, every bout and every interval."""

from collections.abc import Callable
from dataclasses import dataclass
from functools import cached_property
from typing import TypeVar, cast

import numpy as np

from yoisho.engine.cohort import best_guess, draws
from yoisho.engine.energy_cost import LOWEST_MET, SPARRING_MET, kcal_of_met
from yoisho.engine.measures import Measured, measure
from yoisho.engine.parameters import REFERENCE, Parameters
from yoisho.engine.person import Person
from yoisho.engine.steps import look_up
from yoisho.engine.stores import Floats
from yoisho.engine.work_bouts import WorkBouts, find_work_bouts
from yoisho.session.timeline import Timeline
from yoisho.session.volume import Volume, interval_volumes, total

T = TypeVar("T")
DRAW_SAMPLES = 200
"""Samples a run of draws is read at, the ends of its intervals besides: enough for a range."""
BAND_SAMPLES = 160
"""Samples a band is drawn from."""
RPE_WITHIN = 1.0
"""Points by which people differ in what they call a session. Own setting."""
_RANGE = (10.0, 90.0)
HEART_FIGURES = frozenset({"heart_rate_peak_bpm", "heart_rate_end_bpm", "hr_80_90_min", "hr_60_75_min"})
"""Told only where the heart rate says something of the effort."""


class NoWorkError(ValueError):
    """A session with nothing but rest in it."""


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
class Bands:
    """80 % ranges of the courses over the draws: low and high, each of shape (t,)."""

    seconds: Floats
    sprint_left: tuple[Floats, Floats]
    lactic_left: tuple[Floats, Floats]
    uptake_frac: tuple[Floats, Floats]
    heart_rate_bpm: tuple[Floats, Floats]


@dataclass(frozen=True)
class FadeOnset:
    """Where the fade starts: the first bout that falls short by more than a bound, counted from 1."""

    bout: int | None
    """None where none does, by the best guess."""
    earliest: int | None
    latest: int | None
    """80 % range; None where it never fades."""
    probability: float
    """Share of the draws in which any bout fades, 0 to 1."""


@dataclass(frozen=True)
class Reading:
    """Everything read from one timeline for one person."""

    person: Person
    timeline: Timeline
    work_bouts: WorkBouts
    figures: dict[str, Figure]
    work_bout_fade: tuple[Figure, ...]
    """Share of the asked energy that each bout falls short by."""
    sprint_at_work_bout: tuple[Figure, ...]
    """Sprint store left as each bout starts."""
    traces: Traces
    exhausted_at_s: float | None
    """First moment at which the asked demand cannot be delivered, best guess; None if never."""
    measured: Measured
    spread: Measured | None
    """The 200 draws; None where no ranges were asked for."""

    @property
    def heart_holds(self) -> bool:
        """Whether the person's heart rate says something of their effort."""
        return self.person.heart_holds

    def main_bouts(self, purpose: str | None) -> WorkBouts:
        """The work bouts that a purpose is judged by: those of the parts that state it, where any does."""
        return self.once(_main_bouts, purpose)

    def once(self, work: "Callable[[Reading, str | None], T]", purpose: str | None) -> T:
        """What `work` makes of the reading for a purpose; it is done when first asked for."""
        if (work, purpose) not in self._done:
            self._done[work, purpose] = work(self, purpose)
        return cast(T, self._done[work, purpose])

    @cached_property
    def _done(self) -> dict[tuple[object, str | None], object]:
        return {}

    def told(self, figures: dict[str, Figure]) -> dict[str, Figure]:
        """Those of the figures that may be told of this person: of their heart only where it holds."""
        return {name: figure for name, figure in figures.items() if self.heart_holds or name not in HEART_FIGURES}

    @cached_property
    def bands(self) -> Bands | None:
        """The ranges of the traces. None where no draws were asked for."""
        if self.spread is None:
            return None
        run = self.spread.run
        stride = max(1, -(-len(run.seconds) // BAND_SAMPLES))
        kept = np.unique(np.append(np.arange(0, len(run.seconds), stride), len(run.seconds) - 1))

        def band(courses: Floats) -> tuple[Floats, Floats]:
            drawn = courses[kept]
            count = drawn.shape[1]
            at = [round(share / 100 * (count - 1)) for share in _RANGE]
            ordered = np.partition(drawn, at, axis=1)
            return ordered[:, at[0]], ordered[:, at[1]]

        return Bands(
            run.seconds[kept],
            band(run.sprint_left),
            band(1.0 - run.lactic_used),
            band(run.uptake_frac),
            band(self.spread.heart_rate_bpm),
        )

    @cached_property
    def volumes(self) -> tuple[Volume, ...]:
        """Strikes by limb and level of every interval, in the order of the timeline, after the fade."""
        planned, expected = interval_volumes(self.timeline.intervals, self.person.stance), self.measured.strikes[:, 0]
        return tuple(
            volume.times(found / volume.strikes) if volume.strikes else volume
            for volume, found in zip(planned, expected.tolist(), strict=True)
        )

    @cached_property
    def volume(self) -> Volume:
        """Strikes by limb and level of the whole timeline, after the fade."""
        return total(self.volumes)

    @cached_property
    def intervals(self) -> tuple[dict[str, Figure], ...]:
        """Every interval's figures, in the order of the timeline. Worked out when first asked for."""
        names = self.measured.intervals
        drawn = self.spread.intervals if self.spread else dict.fromkeys(names)
        columns = {name: _ranged(best, drawn[name]) for name, best in names.items()}
        return tuple({name: columns[name][i] for name in names} for i in range(len(self.timeline.intervals)))


def _main_bouts(reading: Reading, purpose: str | None) -> WorkBouts:
    own = reading.timeline.main(purpose) == reading.timeline.main()
    return reading.work_bouts if own else find_work_bouts(reading.timeline, purpose)


def try_reading(person: Person, timeline: Timeline) -> Reading | None:
    """A reading of the best guess alone; None where there is no work."""
    try:
        return read(person, timeline, ranges=False)
    except NoWorkError:
        return None


def expected_rpe(reading: Reading | None) -> float:
    """What the person should rate the session [0-10]; 0 where there was no work."""
    return reading.figures["rpe"].value if reading else 0.0


def _ranged(best: Floats, spread: Floats | None) -> tuple[Figure, ...]:
    """Figures from a best guess of shape (n, 1) and draws of shape (n, k)."""
    values = best[:, 0]
    low, high = np.percentile(spread, _RANGE, axis=1) if spread is not None else (values, values)
    low, high = np.minimum(low, values), np.maximum(high, values)
    return tuple(Figure(float(v), float(a), float(b)) for v, a, b in zip(values, low, high, strict=True))


def fade_onset_of(best: Floats, drawn: Floats | None) -> FadeOnset:
    """From whether each bout falls short, of shape (b, 1) for the best guess and (b, k) for the draws."""
    fades = best[:, 0]
    bout = int(np.argmax(fades)) + 1 if fades.any() else None
    if drawn is None:
        return FadeOnset(bout, bout, bout, float(fades.any()))
    first = np.where(drawn.any(axis=0), np.argmax(drawn, axis=0) + 1, len(best) + 1)
    earliest, latest = (int(n) for n in np.percentile(first, _RANGE, method="nearest"))
    never = len(best) + 1
    return FadeOnset(
        bout,
        earliest if earliest < never else None,
        latest if latest < never else None,
        float(drawn.any(axis=0).mean()),
    )


def _figures(person: Person, timeline: Timeline, found: Measured, spread: Measured | None) -> dict[str, Figure]:
    names = list(found.figures)
    best = np.array([found.figures[name] for name in names])
    drawn = np.array([spread.figures[name] for name in names]) if spread else None
    figures = dict(zip(names, _ranged(best, drawn), strict=True))
    if spread:
        minutes = timeline.total_s / 60
        rpe = figures["rpe"].value
        low, high = max(0.0, rpe - RPE_WITHIN), min(10.0, rpe + RPE_WITHIN)
        figures["rpe"] = Figure(rpe, low, high)
        figures["load"] = Figure(rpe * minutes, low * minutes, high * minutes)
        tables = (kcal_of_met(met, person.mass_kg, minutes) for met in (LOWEST_MET, SPARRING_MET))
        figures["kcal_met"] = Figure(figures["kcal_met"].value, *tables)
    return figures


def read(
    person: Person,
    timeline: Timeline,
    *,
    ranges: bool = True,
    sample_s: float = 1.0,
    parameters: Parameters = REFERENCE,
) -> Reading:
    """Simulate a timeline for a person and read everything from it.

    With `ranges`, 200 draws give every figure its 80 % range; without (for a search), low and high are the best
    guess itself; a search may also sample more coarsely than each second. Raises `NoWorkError` if the timeline holds
    nothing but pauses.
    """
    look_up()
    bouts = find_work_bouts(timeline)
    if not bouts:
        raise NoWorkError("there is no work in this session yet; add an effort such as 30 power")
    found = measure(person, timeline, bouts, best_guess(person, parameters), sample_s)
    best = _reading(person, timeline, bouts, found, None)
    return with_ranges(best, parameters) if ranges else best


def with_ranges(best: Reading, parameters: Parameters = REFERENCE) -> Reading:
    """A reading of the best guess alone with its ranges, which 200 draws give; by the parameters it was made for."""
    person, timeline, found = best.person, best.timeline, best.measured
    drawn_s = max(1.0, timeline.total_s / DRAW_SAMPLES)
    spread = measure(person, timeline, best.work_bouts, draws(person, parameters), drawn_s, like=found)
    return _reading(person, timeline, best.work_bouts, found, spread)


def _reading(person: Person, timeline: Timeline, bouts: WorkBouts, found: Measured, spread: Measured | None) -> Reading:
    run = found.run
    exhausted = float(run.exhausted_at_s[0])
    drawn = spread.bouts if spread else {"fade": None, "sprint_at_start": None}
    return Reading(
        person,
        timeline,
        bouts,
        _figures(person, timeline, found, spread),
        _ranged(found.bouts["fade"], drawn["fade"]),
        _ranged(found.bouts["sprint_at_start"], drawn["sprint_at_start"]),
        Traces(
            run.seconds,
            run.sprint_left[:, 0],
            1.0 - run.lactic_used[:, 0],
            run.uptake_frac[:, 0],
            found.heart_rate_bpm[:, 0],
            found.lactate_mmol[:, 0],
        ),
        None if np.isnan(exhausted) else exhausted,
        found,
        spread,
    )
