"""The intervals of a timeline as every screen draws them."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import TypeVar

from yoisho.engine.readout import Reading
from yoisho.session.timeline import Timeline
from yoisho.session.timeline import TimelineInterval as Flat
from yoisho.session.volume import Volume, interval_volumes
from yoisho.strikes.counts import Limb, Stance
from yoisho.strikes.notation import calls
from yoisho.strikes.tempo import TEMPOS, Hatch, Kind, TempoId

Name = TypeVar("Name", bound=str)


@dataclass(frozen=True)
class Turn:
    turn: int
    """From 1."""
    of: int


@dataclass(frozen=True)
class TimelineInterval:
    start_s: int
    seconds: int
    kind: Kind
    tempo: TempoId
    demand_frac: float
    rounds: list[Turn]
    """For every repeat around it, outermost first."""
    part: int
    strikes: float
    """Expected; in an evaluation after the fade."""
    limbs: dict[Limb, float]
    modality: str | None
    reps: int | None
    """Counted, not timed: the seconds are an estimate."""
    open_ended: bool
    """It ends when the coach says so; the seconds are a stated length."""
    calls: list[str]
    """The combination of this repetition, spelled out as it is called."""
    partner: bool
    """A rest while the partner does the same."""
    pulse_per_min: float
    """Beats a minute to strike to; 0 for none."""
    hatch: Hatch | None
    """How its ink is drawn, where not plain."""


def rounded(numbers: Mapping[Name, float]) -> dict[Name, float]:
    return {name: round(number, 1) for name, number in numbers.items()}


def told(interval: Flat, volume: Volume) -> dict[str, object]:
    """The fields of a `TimelineInterval`, for those that tell more beside them."""
    tempo = TEMPOS[interval.tempo]
    return {
        "start_s": interval.start_s,
        "seconds": interval.seconds,
        "kind": tempo.kind,
        "tempo": tempo.id,
        "demand_frac": interval.demand_frac,
        "rounds": [Turn(turn, count) for turn, count in interval.rounds],
        "part": interval.part,
        "strikes": round(volume.strikes, 1),
        "limbs": rounded(volume.limbs),
        "modality": None if interval.partner else interval.source.modality,
        "reps": interval.reps,
        "open_ended": interval.source.open_ended,
        "calls": list(calls(struck)) if (struck := interval.combination or interval.shown) else [],
        "partner": interval.partner,
        "pulse_per_min": interval.pulse_per_min,
        "hatch": tempo.hatch,
    }


def volumes_of(timeline: Timeline, reading: Reading | None, stance: Stance) -> Sequence[Volume]:
    """Strikes expected of every interval: as read, after the fade; of a session without work as it is written."""
    return reading.volumes if reading else interval_volumes(timeline.intervals, stance)


def interval_answer(interval: Flat, volume: Volume) -> TimelineInterval:
    return TimelineInterval(**told(interval, volume))  # type: ignore[arg-type]
