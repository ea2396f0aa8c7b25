"""A simulated strap and a simulated strike sensor: what the engine expects of a person, as a device would tell it.

With noise, moments without a signal, a strap that wakes late and strikes that are missed. Never a measurement: who
shows it says so. The sizes of the disturbances are our own settings.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from yoisho.engine.person import Person, Value
from yoisho.engine.readout import NoWorkError, read
from yoisho.engine.stores import Floats
from yoisho.runs.record import Record, Stretch
from yoisho.session.timeline import Timeline

NOISE_BPM = 1.2
"""Spread of a strap's readings about the heart rate."""
NOISE_KEPT = 0.7
"""Share of one second's error that stays in the next."""
LATE_S = (5, 20)
"""So long a strap takes to find the heart."""
LOST_EVERY_S = 420
"""Mean time between moments without a signal."""
LOST_S = (6, 25)
MISSED = 0.02
"""Share of strikes that the sensor does not notice."""


RPE_SPREAD = 0.7
"""Spread of what people say of the same session."""
UNKNOWN = ("vo2max_ml_kg_min", "anaerobic_scale", "speed_scale", "all_out_force", "hr_max_bpm", "hr_rest_bpm")


def hidden(person: Person, seed: int) -> Person:
    """Somebody whom the person may really be: every capacity drawn within what is not known of it, and then known."""
    draw = np.random.default_rng(seed)
    found: dict[str, Any] = {}
    for name in UNKNOWN:
        value: Value = getattr(person, name)
        # Nobody is more than two standard deviations from the best guess, and nobody is without a capacity.
        true = value.value + value.sd * float(np.clip(draw.normal(), -2.0, 2.0))
        found[name] = replace(value, value=max(0.3 * value.value, true), sd=0.0, source="simulated")
    return replace(person, **found)


def felt(rpe: float, seed: int) -> int:
    """How somebody rates a session [0-10] that the model rates so."""
    return int(np.clip(round(rpe + RPE_SPREAD * np.random.default_rng(seed).normal()), 0, 10))


def kept_of(person: Person, timeline: Timeline, done_s: int, seed: int, devices: Sequence[str]) -> Record:
    """What would have been kept of a run that was stopped after so many seconds, of whichever devices were worn."""
    told = simulate(person, timeline, seed)
    heard = [(float(at), float(bpm)) for at, bpm in enumerate(told.heart[:done_s]) if bpm is not None]
    return Record(
        played=(Stretch(0.0, done_s),),
        heart=tuple(heard) if "strap" in devices else (),
        strikes=tuple(at for at in told.strikes if at < done_s) if "sensor" in devices else None,
    )


@dataclass(frozen=True)
class Simulated:
    heart: tuple[int | None, ...]
    """A reading for every second of the session [bpm]; None where the strap has no signal."""
    strikes: tuple[float, ...]
    """When a strike was noticed [s], in order."""


def _heard(seconds: int, draw: np.random.Generator) -> np.ndarray:
    """Whether the strap has a signal, for every second."""
    heard = np.ones(seconds, dtype=bool)
    heard[: draw.integers(*LATE_S)] = False
    at = draw.exponential(LOST_EVERY_S) + LATE_S[1]
    while at < seconds:
        length = draw.integers(*LOST_S)
        heard[int(at) : int(at) + length] = False
        at += length + draw.exponential(LOST_EVERY_S)
    return heard


def _noise(seconds: int, draw: np.random.Generator) -> Floats:
    fresh = draw.normal(0.0, NOISE_BPM * (1 - NOISE_KEPT**2) ** 0.5, seconds)
    error = np.zeros(seconds)
    for second in range(1, seconds):
        error[second] = NOISE_KEPT * error[second - 1] + fresh[second]
    return error


def _struck(start_s: float, seconds: float, count: float, draw: np.random.Generator) -> Floats:
    """Moments of strikes spread evenly over an interval, as unevenly as a person strikes."""
    whole = round(count)
    gap = seconds / max(1, whole)
    return start_s + np.sort((np.arange(whole) + draw.uniform(0.1, 0.9, whole)) * gap)


def simulate(person: Person, timeline: Timeline, seed: int) -> Simulated:
    """What a strap and a strike sensor would tell of a person who does a timeline. The same seed tells the same."""
    draw = np.random.default_rng(seed)
    try:
        reading = read(person, timeline, ranges=False)
    except NoWorkError:
        return Simulated((None,) * timeline.total_s, ())
    traces = reading.traces
    course = np.interp(np.arange(timeline.total_s), traces.seconds, traces.heart_rate_bpm)
    told = np.clip(course + _noise(len(course), draw), person.hr_rest_bpm.value - 5, person.hr_max_bpm.value + 3)
    heart = tuple(
        round(float(bpm)) if heard else None for bpm, heard in zip(told, _heard(len(told), draw), strict=True)
    )
    expected = reading.measured.strikes[:, 0]
    strikes: list[float] = []
    for interval, count in zip(timeline.intervals, expected, strict=True):
        moments = _struck(interval.start_s, interval.seconds, float(count), draw)
        strikes += [round(float(at), 2) for at in moments[draw.random(len(moments)) >= MISSED]]
    return Simulated(heart, tuple(strikes))
