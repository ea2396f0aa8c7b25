"""What one person did of a run, from what the clock and the devices have kept: rounds, work and rest, strikes, fade.

Fade is the drop of the strike rate from the first third to the last third of a bout, or of the rounds of a part
(common practice, no source; how much it takes to be told is our own setting).
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from math import ceil

from yoisho.engine.readout import Reading
from yoisho.engine.work_bouts import find_work_bouts
from yoisho.runs.record import Record, covered_s, lived, mostly, spent
from yoisho.session.timeline import Timeline

AFTER_S = 10
"""The heart is at its highest a little after the bell."""
FEWEST_ROUNDS = 3
"""A fade over rounds needs so many of them."""
MOST_A_SECOND = 10.0
"""Strikes of both hands that nobody keeps up for even a few seconds, our own setting."""
SHORTEST_FADE_S = 30
"""Within a bout the fade is told from this length on."""


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
    """Mostly played; or all its reps were counted, or the coach ended it."""
    reps: int | None
    """Reps counted; None where it is not dosed by reps, or nobody counted."""
    reps_asked: int | None
    """None where it is not dosed by reps."""
    took_s: float | None = None
    """Played, and the time for which the clock stood until it was done; None in what was kept before this was told."""
    stated_s: int | None = None
    """Where some of it is open-ended, how long it was taken to last; None where the clock or the reps end it."""


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
    most_strikes: int | None = None
    """More than hands can do in the work that was done: a count beyond it is asked about. None in what was kept before
    this was told."""


def fade(counts: Sequence[float]) -> float | None:
    """1 - last third / first third of counts in order; None of fewer than three, or where the first third has none."""
    third = len(counts) // 3
    if not third or not sum(counts[:third]):
        return None
    return 1.0 - sum(counts[-third:]) / sum(counts[:third])


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
    asked = [count for index in group if (count := timeline.intervals[index].reps) is not None]
    reps = [record.reps_at(timeline.intervals[index].start_s) for index in group]
    known = [count for count in reps if count is not None]
    open_ended = any(timeline.intervals[index].source.open_ended for index in group)
    done_s = covered_s(record.played, start, end)
    return Round(
        part=first.part,
        start_s=start,
        end_s=end,
        done_s=done_s,
        asked_strikes=sum(timeline.intervals[index].strikes for index in group),
        expected_strikes=sum(expected[index] for index in group),
        strikes=None if inside is None else len(inside),
        peak_bpm=max(beats, default=None),
        fade=None if inside is None or asked else _bout_fade(inside, start, end),
        done=mostly(record, start, end),
        reps=sum(known) if asked and known else None,
        reps_asked=sum(asked) if asked else None,
        took_s=done_s + sum(stood.seconds for stood in record.stood if start <= stood.at_s < end),
        stated_s=end - start if open_ended else None,
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
    """Seconds really worked, and seconds not."""
    found = [*spent(timeline, record)]
    found += [(i, s.seconds) for i in own.intervals for s in record.stood if i.start_s <= s.at_s < i.end_s]
    work_s = sum(seconds for interval, seconds in found if interval.kind == "work")
    return work_s, sum(seconds for _, seconds in found) - work_s


def _strap_off_s(timeline: Timeline, record: Record) -> float | None:
    if not record.heart:
        return None
    heard = {int(at) for at, _ in record.heart}
    seconds = (second for second in range(timeline.total_s) if second not in heard)
    return sum(covered_s(record.played, second, second + 1) for second in seconds)


def _span(timeline: Timeline, first: int, last: int) -> tuple[int, int]:
    return timeline.intervals[first].start_s, timeline.intervals[last].end_s


def review(reading: Reading | None, timeline: Timeline, record: Record) -> Done:
    """What somebody did of a timeline that was planned for two or for one.

    `reading` is of the timeline as they lived it; None where there is no work in it.
    """
    own = lived(timeline, record)
    expected = [float(count) for count in reading.measured.strikes[:, 0]] if reading else [0.0] * len(own.intervals)
    rounds = tuple(_round(own, group, expected, record) for group in _groups(own))
    work_s, rest_s = _spent_s(timeline, own, record)
    hard = [_span(own, bout.first, bout.last) for bout in find_work_bouts(own)]
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
        efforts_done=sum(mostly(record, start, end) for start, end in hard),
        most_strikes=ceil(MOST_A_SECOND * work_s),
    )
