"""Who works in work that is done in pairs: one, then the next, round and round, also three at one bag.

Everybody does the whole of it: two double the clock, three make it three times as long, and each rests while the others
work. On pads that are not swapped by the clock, one of two holds until the coach swaps them. Everything that follows
(calls, heart, log) reads the timeline as that person lives it.
"""

from collections.abc import Sequence
from dataclasses import replace

from yoisho.session.timeline import Timeline, TimelineInterval
from yoisho.strikes.bags import BAGS

HELD = frozenset(bag.id for bag in BAGS.values() if bag.held)
MOST = 6
"""People one clock follows, our own setting; more are a class."""


def is_held(interval: TimelineInterval, of: int) -> bool:
    """Whether one of two holds for the other, until the coach swaps them."""
    source = interval.source
    return of == 2 and interval.kind == "work" and source.modality in HELD and not source.pairs


def turns(timeline: Timeline, of: int) -> tuple[int | None, ...]:
    """The number of each interval's turn, from 0 over the session, with `of` on the floor; None where all work or all
    rest. What is held is the first one's turn: only a swap by hand gives it to the other."""
    found: list[int | None] = []
    count = 0
    for interval in timeline.intervals:
        paired = interval.partner or interval.source.pairs
        found.append(count if paired else 0 if is_held(interval, of) else None)
        count += paired
    return tuple(found)


def whose(turn: int, of: int, shift: int = 0) -> int:
    """The place, from 0, of the person whose turn it is among `of`; one alone is met by a partner without a name.

    `shift` counts the swaps by hand.
    """
    return (turn + shift) % max(2, of)


def as_work(interval: TimelineInterval) -> TimelineInterval:
    """The partner's turn as the partner lives it."""
    return replace(interval, tempo=interval.source.tempo, partner=False) if interval.partner else interval


def lived_by(timeline: Timeline, place: int, of: int, shifts: Sequence[int] = ()) -> Timeline:
    """The timeline as the person at a place, from 0 of `of`, lives it: their own turns are work, the others' are rest.

    `shifts` says for every interval how often it had been swapped by hand until then; empty for never. Raises
    `ValueError` for a place that is not there.
    """
    if not 1 <= of <= MOST or not 0 <= place < of:
        raise ValueError(f"there are 1 to {MOST} people, counted from 0: place {place} of {of} is none of them")

    def own(interval: TimelineInterval, turn: int | None, shift: int) -> TimelineInterval:
        if turn is None:
            return interval
        if whose(turn, of, shift) == place:
            return as_work(interval)
        return replace(interval, tempo="rest", partner=True)

    swapped = shifts or (0,) * len(timeline.intervals)
    return replace(timeline, intervals=tuple(map(own, timeline.intervals, turns(timeline, of), swapped)))
