"""A run as sound: bells, clappers, count, pulse and calls, laid on the samples of one long track.

The sounds are those that the floor makes in the browser (`web/src/domain/clock/sounds.ts`), by the same formulas; the
schedule is the floor's own.
"""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from yoisho.runs.calls import Call
from yoisho.runs.cues import COUNT_IN_S, Cue, SoundKind
from yoisho.session.timeline import Timeline

Samples = NDArray[np.float32]
"""Between -1 and 1, of one channel."""

RATE = 48_000
"""Samples a second."""
AFTER_S = 4.0
"""The last bell rings out."""
LOUDNESS: dict[SoundKind, float] = {
    "bell": 0.60, "change": 0.60, "clack": 0.60, "count": 0.45, "end": 0.60, "pulse": 0.22,
}  # fmt: skip
"""Share of full scale; own setting, so that a call over a ringing bell stays under it."""
CALL_LOUDNESS = 0.5
FULL = 0.98
UNDER_CALLS = 0.2
"""How loud music stays while something is called."""
FALL_S, RISE_S = 0.25, 0.6
"""How long it takes to get out of the way, and to come back."""
QUICKEST_PER_MIN = 400.0
"""Beats; quicker ones run together."""

_PARTIALS = (
    (0.5, 0.25, 1.2), (1, 0.5, 1.8), (1.19, 0.28, 2.6), (1.5, 0.2, 3.2), (2, 0.42, 3.6), (2.74, 0.2, 6),
    (3.76, 0.12, 9),
)  # fmt: skip
"""Of a small ring bell: ratio to the strike note, loudness, decay [1/s]."""
_STRIKE_HZ = 880.0


def _times(seconds: float) -> NDArray[np.float64]:
    return np.arange(round(RATE * seconds)) / RATE


def _struck(one: NDArray[np.float64], strikes: int, every_s: float, length_s: float) -> Samples:
    """The same sound several times, levelled to full scale."""
    out = np.zeros(round(RATE * length_s))
    for strike in range(strikes):
        start = round(strike * every_s * RATE)
        part = one[: len(out) - start]
        out[start : start + len(part)] += part
    return np.asarray(out / np.abs(out).max(), dtype=np.float32)


def _bell(strikes: int) -> Samples:
    length_s = 1.6 + 0.32 * (strikes - 1)
    t = _times(length_s)
    one = np.zeros_like(t)
    for ratio, loudness, decay in _PARTIALS:
        one += loudness * np.sin(2 * np.pi * _STRIKE_HZ * ratio * t) * np.exp(-decay * t)
    return _struck(one * np.minimum(1, t / 0.002), strikes, 0.32, length_s)


def _clack(strikes: int) -> Samples:
    t = _times(0.1)
    wood = sum(loud * np.sin(2 * np.pi * hertz * t) for hertz, loud in ((1150, 1), (1870, 0.7), (3020, 0.4)))
    return _struck(wood * np.exp(-55 * t) * np.minimum(1, t / 0.001), strikes, 0.13, 0.12 + 0.13 * (strikes - 1))


def _tone(hertz: float, seconds: float) -> Samples:
    t = _times(seconds)
    edge = np.minimum(np.minimum(1, t / 0.004), (seconds - t) / 0.01)
    return np.asarray(np.sin(2 * np.pi * hertz * t) * edge, dtype=np.float32)


@lru_cache
def sound_of(kind: SoundKind) -> Samples:
    """A sound at full scale."""
    match kind:
        case "bell":
            return _bell(1)
        case "end":
            return _bell(3)
        case "change":
            return _clack(2)
        case "clack":
            return _clack(3)
        case "count":
            return _tone(740, 0.12)
        case "pulse":
            return _tone(1480, 0.03)


@dataclass(frozen=True)
class Event:
    """Something that sounds, from a moment on."""

    at_s: float
    """From the first bell; negative in the count-in."""
    samples: Callable[[], Samples | None]
    """Made as late as it is needed; None where there is nothing to hear."""


def _cue(kind: SoundKind, at_s: float) -> Event:
    return Event(at_s, lambda: LOUDNESS[kind] * sound_of(kind))


def pulses(timeline: Timeline) -> Iterator[float]:
    """Every beat to strike to, in session time [s]; the first of each interval is left to the bell, and reps have none.

    As the floor beats it (`web/src/domain/clock/pulse.ts`).
    """
    for interval in timeline.intervals:
        rate = 0.0 if interval.reps else min(QUICKEST_PER_MIN, interval.pulse_per_min)
        if rate > 0:
            beats = int(np.ceil(interval.seconds * rate / 60 - 1e-9))
            yield from (interval.start_s + beat * 60 / rate for beat in range(1, beats))


_AS_BELL = ("bell", "change", "end")
"""To a coach who mutes it, the bell is one thing."""


def events(
    timeline: Timeline,
    cues: Sequence[Cue],
    calls: Sequence[Call],
    muted: frozenset[str],
    said: Callable[[str], Samples | None],
    *,
    pulse: bool = False,
) -> list[Event]:
    """All that sounds in a run, in order. `said` gives the speech of a text at full scale, None where there is none."""

    def spoken(text: str) -> Callable[[], Samples | None]:
        def heard() -> Samples | None:
            samples = said(text)
            return None if samples is None else np.asarray(CALL_LOUDNESS * samples, dtype=np.float32)

        return heard

    def silent(kind: str) -> bool:
        return kind in muted or (kind in _AS_BELL and "bell" in muted)

    found = [_cue(cue.kind, cue.at_s) for cue in cues if not silent(cue.kind)]
    found += [Event(call.at_s, spoken(call.text)) for call in calls if call.kind not in muted]
    if pulse and not silent("pulse"):
        found += [_cue("pulse", at) for at in pulses(timeline)]
    return sorted(found, key=lambda each: each.at_s)


def length_s(total_s: float) -> float:
    return COUNT_IN_S + total_s + AFTER_S


Bed = Callable[[int], Samples]
"""Music underneath: the next so many samples of it."""


def ducked(calls: Sequence[Call]) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
    """Moments of the track [s] and how loud music is at each: full, and low for as long as something is called."""
    spans: list[list[float]] = []
    for call in sorted(calls, key=lambda each: each.at_s):
        begin, end = call.at_s + COUNT_IN_S, call.at_s + COUNT_IN_S + call.seconds
        if spans and begin - spans[-1][1] < FALL_S + RISE_S:
            spans[-1][1] = max(spans[-1][1], end)
        else:
            spans.append([begin, end])
    points = [
        point
        for begin, end in spans
        for point in ((begin - FALL_S, 1.0), (begin, UNDER_CALLS), (end, UNDER_CALLS), (end + RISE_S, 1.0))
    ]
    moments, loudness = zip(*(points or [(0.0, 1.0)]), strict=True)
    return np.array(moments), np.array(loudness)


def track(
    sounding: Sequence[Event],
    total_s: float,
    chunk_s: float = 10.0,
    bed: Bed | None = None,
    ducking: tuple[NDArray[np.float64], NDArray[np.float64]] | None = None,
) -> Iterator[Samples]:
    """The track in chunks, from the start of the count-in: nothing is held longer than it sounds.

    The first bell is at `COUNT_IN_S`; every event begins on the sample nearest to its moment. `bed` is laid underneath,
    as loud as `ducking` says.
    """
    wanted, chunk = round(RATE * length_s(total_s)), round(RATE * chunk_s)
    waiting = list(reversed(sounding))
    ringing: list[tuple[int, Samples]] = []
    for begin in range(0, wanted, chunk):
        out = np.zeros(min(chunk, wanted - begin), dtype=np.float32)
        end = begin + len(out)
        while waiting and round(RATE * (waiting[-1].at_s + COUNT_IN_S)) < end:
            event = waiting.pop()
            samples = event.samples()
            if samples is not None:
                ringing.append((round(RATE * (event.at_s + COUNT_IN_S)), samples))
        for start, samples in ringing:
            first, last = max(start, begin), min(start + len(samples), end)
            if first < last:
                out[first - begin : last - begin] += samples[first - start : last - start]
        ringing = [(start, samples) for start, samples in ringing if start + len(samples) > end]
        if bed is not None:
            moments = np.arange(begin, end) / RATE
            loud = np.interp(moments, *ducking) if ducking else 1.0
            out += np.asarray(bed(len(out)) * loud, dtype=np.float32)
        yield np.clip(out, -FULL, FULL)
