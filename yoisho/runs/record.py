"""What the clock and the devices have kept of a run for one person, and what of the plan was played by it.

Every judgement of what was done (fade, strikes, whether the day was a lactic one) begins here: what was skipped was not
done, what was done twice was done twice.
"""

from bisect import bisect_right
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from itertools import pairwise

from yoisho.runs.pairs import is_held, lived_by
from yoisho.session.timeline import Timeline, TimelineInterval

MOSTLY = 0.9
"""A stretch of which so much was played counts as done."""


@dataclass(frozen=True)
class Stretch:
    """Session time that was played without a break, and how often the partners had been swapped by hand before it."""

    from_s: float
    to_s: float
    shift: int = 0

    def overlap_s(self, start_s: float, end_s: float) -> float:
        return max(0.0, min(end_s, self.to_s) - max(start_s, self.from_s))


@dataclass(frozen=True)
class Stood:
    """Seconds for which the clock stood while the session went on: added to a rest, or until the last rep was done."""

    at_s: float
    seconds: float


@dataclass(frozen=True)
class Record:
    """What was kept of a run for the person at a place, from 0 of `of`.

    Times are session time [s]; strikes, reps and heart rates are as the devices told them.
    """

    played: tuple[Stretch, ...]
    stood: tuple[Stood, ...] = ()
    counted: tuple[tuple[float, float], ...] = ()
    """Start and end of intervals that the clock does not end and that were ended: reps counted to the last, open-ended
    work that the coach ended. Done, however long they took."""
    reps: tuple[tuple[float, int], ...] = ()
    """Reps counted, by where their interval starts [s]."""
    place: int = 0
    of: int = 1
    heart: tuple[tuple[float, float], ...] = ()
    """Session time [s] and heart rate [bpm]."""
    strikes: tuple[float, ...] | None = None
    """Session time [s] of every strike that a sensor noticed; None where there was none."""

    @classmethod
    def by_hand(cls, done_s: float) -> "Record":
        """Of a run that nothing was kept of: so many seconds from its start."""
        return cls(played=(Stretch(0.0, done_s),))

    def reps_at(self, start_s: float) -> int | None:
        """Reps counted in the interval that starts there; None where nobody counted."""
        return next((count for at, count in self.reps if at == start_s), None)


def _shift_of(interval: TimelineInterval, played: Sequence[Stretch], before: int) -> int:
    """The swaps by hand that held for most of an interval; of one that was not played those before it."""
    best = max(played, key=lambda stretch: stretch.overlap_s(interval.start_s, interval.end_s), default=None)
    return best.shift if best and best.overlap_s(interval.start_s, interval.end_s) > 0 else before


def _turns_of(interval: TimelineInterval, record: Record) -> Iterator[TimelineInterval]:
    """What is held, cut where the two were swapped in the midst of it: each piece is a turn of its own."""
    edges = [interval.start_s]
    if is_held(interval, record.of):
        for before, after in pairwise(record.played):
            at_s = round(after.from_s)
            if before.shift != after.shift and edges[-1] < at_s < interval.end_s:
                edges.append(at_s)
    for start, end in pairwise((*edges, interval.end_s)):
        yield replace(interval, start_s=start, seconds=end - start)


def lived(timeline: Timeline, record: Record) -> Timeline:
    """The timeline as the person really had it, with the swaps by hand."""
    turns = tuple(turn for interval in timeline.intervals for turn in _turns_of(interval, record))
    shifts: list[int] = []
    for turn in turns:
        shifts.append(_shift_of(turn, record.played, shifts[-1] if shifts else 0))
    return lived_by(replace(timeline, intervals=turns), record.place, record.of, shifts)


def covered_s(played: Sequence[Stretch], start_s: float, end_s: float) -> float:
    """Seconds between two moments that were played at least once."""
    reached, total = start_s, 0.0
    for stretch in sorted(played, key=lambda stretch: stretch.from_s):
        total += stretch.overlap_s(max(reached, start_s), end_s)
        reached = max(reached, stretch.to_s)
    return total


def mostly(record: Record, start_s: int, end_s: int) -> bool:
    """Whether a stretch of the session was done."""
    counted = tuple(Stretch(*span) for span in record.counted)
    return covered_s((*record.played, *counted), start_s, end_s) >= MOSTLY * (end_s - start_s)


def _lives(timeline: Timeline, record: Record) -> dict[int, tuple[TimelineInterval, ...]]:
    """The person's own timeline for every number of swaps by hand that were played."""
    every = len(timeline.intervals)
    shifts = {stretch.shift for stretch in record.played}
    return {
        shift: lived_by(timeline, record.place, record.of, (shift,) * every if shift else ()).intervals
        for shift in shifts
    }


def spent(timeline: Timeline, record: Record) -> Iterator[tuple[TimelineInterval, float]]:
    """Every interval that was played and the seconds spent in it, in the order it was played.

    `timeline` is the plan of all; a turn that was swapped half way stands here as half of it. An interval that was
    played twice comes twice.
    """
    lives = _lives(timeline, record)
    starts = [interval.start_s for interval in timeline.intervals]
    for stretch in record.played:
        first = max(0, bisect_right(starts, stretch.from_s) - 1)
        for interval in lives[stretch.shift][first : bisect_right(starts, stretch.to_s)]:
            seconds = stretch.overlap_s(interval.start_s, interval.end_s)
            if seconds > 0:
                yield interval, seconds


@dataclass
class _Piece:
    interval: TimelineInterval
    seconds: float


def _pieces(timeline: Timeline, record: Record) -> list[_Piece]:
    """What was spent without the pauses of the clock between, with the time for which the clock stood."""
    pieces: list[_Piece] = []
    for interval, seconds in spent(timeline, record):
        # Reps are counted once, however often the clock was moved back into them.
        same = (p for p in (pieces if interval.reps else pieces[-1:]) if p.interval == interval)
        if piece := next(same, None):
            piece.seconds += seconds
        else:
            pieces.append(_Piece(interval, seconds))
    for stood in record.stood:
        within = (p for p in pieces if p.interval.start_s <= stood.at_s < p.interval.end_s)
        if piece := next(within, None):
            piece.seconds += stood.seconds
    return pieces


def _done(piece: _Piece, record: Record) -> TimelineInterval | None:
    """The interval as it was done; None where too little of it was."""
    interval, reps = piece.interval, piece.interval.reps
    if reps is None:
        seconds = round(piece.seconds)
        return replace(interval, seconds=seconds) if seconds else None
    if (interval.start_s, interval.end_s) not in record.counted:
        counted = record.reps_at(interval.start_s)
        reps = counted if counted is not None else round(reps * min(1.0, piece.seconds / interval.seconds))
    if not reps:
        return None
    return replace(interval, seconds=max(1, round(piece.seconds)), source=replace(interval.source, reps=(reps,)))


def done_timeline(timeline: Timeline, record: Record) -> Timeline:
    """What the person really did of the plan of all, as a timeline of its own, in the order it was played.

    Every interval lasts as long as it was played; what was skipped is not there, rests are as long as they became, and
    rounds of reps hold the reps that were counted (in proportion to their time where nobody counted).
    """
    done: list[TimelineInterval] = []
    at_s = 0
    for piece in _pieces(timeline, record):
        interval = _done(piece, record)
        if interval is not None:
            done.append(replace(interval, start_s=at_s))
            at_s += interval.seconds
    return Timeline(tuple(done))
