"""What one person did of a run, from what the clock and the devices have kept: rounds, work and rest, strikes, fade.

Fade is the drop of the strike rate from the first third to the last third of a bout, or of the rounds of a part
(common practice, no source; how much it takes to be told is our own setting).
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from yoisho.engine.bouts import find_bouts
from yoisho.engine.person import Person
from yoisho.engine.readout import NoWorkError, read
from yoisho.floor.pairs import lived_by
from yoisho.session.timeline import Timeline, TimelineInterval

MOSTLY = 0.9
"""A round of which so much was played counts as done."""
AFTER_S = 10
"""The heart is at its highest a little after the bell."""
FEWEST_ROUNDS = 3
"""A fade over rounds needs so many of them."""
SHORTEST_FADE_S = 30
"""Within a bout the fade is told from this length on."""


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
    """What was kept of a run for the person at a place, from 0 of `of`."""

    played: tuple[Stretch, ...]
    stood: tuple[Stood, ...] = ()
    counted: tuple[tuple[float, float], ...] = ()
    """Start and end of intervals whose reps were counted to the last: done, however long they took."""
    place: int = 0
    of: int = 1
    heart: tuple[tuple[float, float], ...] = ()
    """Session time [s] and heart rate [bpm]."""
    strikes: tuple[float, ...] | None = None
    """Session time [s] of every strike that a sensor noticed; None where there was none."""


@dataclass(frozen=True)
class Round:
    """Work without a pause between, in one part."""

    part: int
    start_s: int
    end_s: int
    done_s: float
    asked_strikes: float
    """At the tempos' own rates, before any fade."""
    expected_strikes: float
    """By the model, after the fade."""
    strikes: int | None
    peak_bpm: float | None
    fade: float | None
    """Within it, from its first to its last third; None where it is too short or nothing was counted."""
    done: bool
    """Mostly played, or all its reps were counted."""


@dataclass(frozen=True)
class PartFade:
    """The fade over the rounds of a part; what the model expects beside it."""

    part: int
    rounds: int
    expected: float
    measured: float | None


@dataclass(frozen=True)
class Done:
    rounds: tuple[Round, ...]
    planned_work_s: int
    planned_rest_s: int
    work_s: float
    """Really worked, also what was done twice."""
    rest_s: float
    """Rested, recovered or waited for the partner."""
    fades: tuple[PartFade, ...]
    peak_bpm: float | None
    strikes: int | None
    expected_strikes: float
    strap_off_s: float | None
    """Seconds of what was played without a reading; None where there was no strap."""
    efforts: int
    """The hard ones of the plan, as everywhere they are counted."""
    efforts_done: int


def fade(counts: Sequence[float]) -> float | None:
    """1 - last third / first third of counts in order; None of fewer than three, or where the first third has none."""
    third = len(counts) // 3
    if not third or not sum(counts[:third]):
        return None
    return 1.0 - sum(counts[-third:]) / sum(counts[:third])


def _shift_of(interval: TimelineInterval, played: Sequence[Stretch], before: int) -> int:
    """The swaps by hand that held for most of an interval; of one that was not played those before it."""
    best = max(played, key=lambda stretch: stretch.overlap_s(interval.start_s, interval.end_s), default=None)
    return best.shift if best and best.overlap_s(interval.start_s, interval.end_s) > 0 else before


def lived(timeline: Timeline, record: Record) -> Timeline:
    """The timeline as the person really had it, with the swaps by hand."""
    shifts: list[int] = []
    for interval in timeline.intervals:
        shifts.append(_shift_of(interval, record.played, shifts[-1] if shifts else 0))
    return lived_by(timeline, record.place, record.of, shifts)


def _covered_s(played: Sequence[Stretch], start_s: float, end_s: float) -> float:
    """Seconds between two moments that were played at least once."""
    reached, total = start_s, 0.0
    for stretch in sorted(played, key=lambda stretch: stretch.from_s):
        total += stretch.overlap_s(max(reached, start_s), end_s)
        reached = max(reached, stretch.to_s)
    return total


def _mostly(record: Record, start_s: int, end_s: int) -> bool:
    """Whether a stretch of the session was done."""
    counted = tuple(Stretch(*span) for span in record.counted)
    return _covered_s((*record.played, *counted), start_s, end_s) >= MOSTLY * (end_s - start_s)


def _groups(timeline: Timeline) -> Iterator[tuple[int, ...]]:
    """Indices of the intervals of every round: work without a pause between, in one part."""
    group: list[int] = []
    for index, interval in enumerate(timeline.intervals):
        if group and (interval.kind != "work" or interval.part != timeline.intervals[group[-1]].part):
            yield tuple(group)
            group = []
        if interval.kind == "work":
            group.append(index)
    if group:
        yield tuple(group)


def _within(moments: Sequence[float], start_s: float, end_s: float) -> list[float]:
    return [at for at in moments if start_s <= at < end_s]


def _bout_fade(strikes: Sequence[float], start_s: float, end_s: float) -> float | None:
    if end_s - start_s < SHORTEST_FADE_S:
        return None
    third = (end_s - start_s) / 3
    return fade([len(_within(strikes, start_s + n * third, start_s + (n + 1) * third)) for n in range(3)])


def _round(timeline: Timeline, group: Sequence[int], expected: Sequence[float], record: Record) -> Round:
    first, last = timeline.intervals[group[0]], timeline.intervals[group[-1]]
    start, end = first.start_s, last.end_s
    inside = None if record.strikes is None else _within(record.strikes, start, end)
    beats = [bpm for at, bpm in record.heart if start <= at < end + AFTER_S]
    reps = any(timeline.intervals[index].reps is not None for index in group)
    return Round(
        part=first.part,
        start_s=start,
        end_s=end,
        done_s=_covered_s(record.played, start, end),
        asked_strikes=sum(timeline.intervals[index].strikes for index in group),
        expected_strikes=sum(expected[index] for index in group),
        strikes=None if inside is None else len(inside),
        peak_bpm=max(beats, default=None),
        fade=None if inside is None or reps else _bout_fade(inside, start, end),
        done=_mostly(record, start, end),
    )


def _part_fades(rounds: Sequence[Round]) -> Iterator[PartFade]:
    """Over the rounds that were done and have strikes; each against what was asked of it, as rounds may differ."""
    for part in dict.fromkeys(one.part for one in rounds):
        own = [one for one in rounds if one.part == part and one.asked_strikes > 0 and one.done]
        if len(own) < FEWEST_ROUNDS:
            continue
        expected = fade([one.expected_strikes / one.asked_strikes for one in own])
        measured = None
        if all(one.strikes is not None for one in own):
            measured = fade([(one.strikes or 0) / one.asked_strikes for one in own])
        if expected is not None:
            yield PartFade(part, len(own), expected, measured)


def _spent_s(timeline: Timeline, own: Timeline, record: Record) -> tuple[float, float]:
    """Seconds really worked, and seconds not: a turn that was swapped half way is half of it."""
    shifts = {stretch.shift for stretch in record.played}
    every = len(timeline.intervals)
    lives = {shift: lived_by(timeline, record.place, record.of, (shift,) * every).intervals for shift in shifts}
    spent = [(i, s.overlap_s(i.start_s, i.end_s)) for s in record.played for i in lives[s.shift]]
    spent += [(i, s.seconds) for i in own.intervals for s in record.stood if i.start_s <= s.at_s < i.end_s]
    work_s = sum(seconds for interval, seconds in spent if interval.kind == "work")
    return work_s, sum(seconds for _, seconds in spent) - work_s


def _strap_off_s(timeline: Timeline, record: Record) -> float | None:
    if not record.heart:
        return None
    heard = {int(at) for at, _ in record.heart}
    seconds = (second for second in range(timeline.total_s) if second not in heard)
    return sum(_covered_s(record.played, second, second + 1) for second in seconds)


def _span(timeline: Timeline, first: int, last: int) -> tuple[int, int]:
    return timeline.intervals[first].start_s, timeline.intervals[last].end_s


def review(who: Person, timeline: Timeline, record: Record) -> Done:
    """What the person did of a timeline that was planned for two or for one."""
    own = lived(timeline, record)
    try:
        expected = [float(count) for count in read(who, own, ranges=False).measured.strikes[:, 0]]
    except NoWorkError:
        expected = [0.0] * len(own.intervals)
    rounds = tuple(_round(own, group, expected, record) for group in _groups(own))
    work_s, rest_s = _spent_s(timeline, own, record)
    hard = [_span(own, bout.first, bout.last) for bout in find_bouts(own)]
    return Done(
        rounds=rounds,
        planned_work_s=own.work_s,
        planned_rest_s=own.rest_s,
        work_s=work_s,
        rest_s=rest_s,
        fades=tuple(_part_fades(rounds)),
        peak_bpm=max((bpm for _, bpm in record.heart), default=None),
        strikes=None if record.strikes is None else len(record.strikes),
        expected_strikes=sum(one.expected_strikes for one in rounds),
        strap_off_s=_strap_off_s(own, record),
        efforts=len(hard),
        efforts_done=sum(_mostly(record, start, end) for start, end in hard),
    )
