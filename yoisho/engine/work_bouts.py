"""The efforts of a timeline: which stretches of it are the work that a session is judged by."""

from dataclasses import dataclass

from yoisho.session.timeline import Timeline

HARD_FRAC = 1.0
"""Work at or above this demand [x VO2max] counts as a hard effort."""
BRISK_FRAC = 0.85


@dataclass(frozen=True)
class WorkBout:
    """Consecutive work without a pause between: hard work where the session has any, else all its work."""

    first: int
    """Index of its first interval in the timeline."""
    last: int
    seconds: int


WorkBouts = tuple[WorkBout, ...]


def find_work_bouts(timeline: Timeline, purpose: str | None = None) -> WorkBouts:
    """The hard efforts of a timeline's main parts; where there are none, the brisk ones; then all their work.

    With a purpose, of the parts that state it, where any does.
    """
    inside = timeline.main(purpose)
    for threshold in (HARD_FRAC, BRISK_FRAC, 0.0):
        found: list[WorkBout] = []
        for index, interval in enumerate(timeline.intervals):
            if interval.kind != "work" or interval.demand_frac < threshold or not inside[index]:
                continue
            if found and found[-1].last == index - 1:
                found[-1] = WorkBout(found[-1].first, index, found[-1].seconds + interval.seconds)
            else:
                found.append(WorkBout(index, index, interval.seconds))
        if found:
            return tuple(found)
    return ()
