"""The plan of a run: a session as it stood when the run began, and what is worked out ahead from it."""

from dataclasses import dataclass
from functools import cached_property

from yoisho.engine.work_bouts import find_work_bouts
from yoisho.runs.calls import Call, Settings, call_schedule
from yoisho.runs.cues import Cue, cue_schedule
from yoisho.session.document import Session
from yoisho.session.timeline import Timeline


def efforts_of(timeline: Timeline) -> tuple[tuple[int, int], ...]:
    """Start and end of every effort [s], as the plan and the log count them."""
    intervals = timeline.intervals
    return tuple((intervals[bout.first].start_s, intervals[bout.last].end_s) for bout in find_work_bouts(timeline))


@dataclass(frozen=True)
class Plan:
    """Whatever becomes of the session, a run is called, followed and judged by this."""

    session: Session
    people: int = 1
    """On the floor: where work is done in pairs, two or more of them take turns."""
    beside: tuple[Call, ...] = ()
    """What is called besides what the session says."""
    own: Timeline | None = None
    """The session as one of a class has it, in place of that of all."""

    @cached_property
    def timeline(self) -> Timeline:
        """Of all who are on the floor: in pairs, one's work is the others' rest."""
        return self.own or self.session.unrolled(sharing=max(2, self.people))

    @cached_property
    def on_the_floor(self) -> int:
        """People; at least two where work is done in pairs: one alone is met by a partner without a name."""
        paired = any(interval.source.pairs for interval in self.timeline.intervals)
        return max(2, self.people) if paired else self.people

    @cached_property
    def efforts(self) -> tuple[tuple[int, int], ...]:
        return efforts_of(self.timeline)

    @cached_property
    def cues(self) -> tuple[Cue, ...]:
        return cue_schedule(self.timeline)

    def calls(self, settings: Settings) -> tuple[Call, ...]:
        return call_schedule(self.timeline, settings, self.beside)
