"""The schedule of every sound of a run, worked out ahead from the timeline. The browser only plays it."""

from dataclasses import dataclass
from typing import Literal, get_args

from yoisho.session.timeline import Timeline, TimelineInterval

CueKind = Literal["bell", "change", "clack", "count", "end"]
SoundKind = Literal[CueKind, "pulse"]
SOUNDS: tuple[SoundKind, ...] = get_args(SoundKind)
"""With the pulse, which is beaten where the run is and not worked out ahead: all that can be muted for the ear."""

COUNT_IN_S = 10
"""Seconds between the start key and the first bell."""
CLACK_LEFT_S = 10
_CLACK_FROM_S = 20
"""The ten-second clack is only for intervals of this length or more."""


@dataclass(frozen=True)
class Cue:
    at_s: float
    """From the first bell; cues of the count-in are negative."""
    kind: CueKind


def carries_on(before: TimelineInterval | None, interval: TimelineInterval) -> bool:
    """Whether work goes on to the same music: what comes is called on the beat, and not counted in."""
    beats = before.source.beat if before is not None else None
    return beats is not None and beats == interval.source.beat and "rest" not in (before and before.kind, interval.kind)


def cue_schedule(timeline: Timeline) -> tuple[Cue, ...]:
    """Every sound, in order.

    A *bell* where work begins after a pause and where a pause begins after work; a *change* between two
    neighbours of the same kind; a *clack* when ten seconds are left; a *count* at 3, 2 and 1 before work, also the
    partner's; the *end* after the last interval. Of what the clock does not end nobody knows when ten seconds are left.
    """
    cues: list[Cue] = []
    before = "rest"
    previous: TimelineInterval | None = None
    for interval in timeline.intervals:
        resting = interval.kind != "work"
        same = resting == (before != "work") and interval.start_s > 0
        cues.append(Cue(interval.start_s, "change" if same else "bell"))
        if (not resting or interval.partner) and not carries_on(previous, interval):
            room_s = COUNT_IN_S if previous is None else previous.seconds if previous.timed else 0
            cues.extend(Cue(interval.start_s - left, "count") for left in (3, 2, 1) if left < room_s)
        if interval.timed and interval.seconds >= _CLACK_FROM_S:
            cues.append(Cue(interval.end_s - CLACK_LEFT_S, "clack"))
        before = interval.kind
        previous = interval
    cues.append(Cue(timeline.total_s, "end"))
    return tuple(sorted(cues, key=lambda cue: cue.at_s))
