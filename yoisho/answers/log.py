"""What the log holds of a run: the plan as the person had it, and what was really done of it."""

from dataclasses import dataclass

from yoisho.engine.person import Person
from yoisho.engine.readout import expected_rpe, try_reading
from yoisho.judgement.cautions import is_lactic
from yoisho.runs.plan import Plan, efforts_of
from yoisho.runs.record import Record, done_timeline, lived
from yoisho.runs.review import Done, review
from yoisho.session.timeline import Timeline
from yoisho.session.volume import Volume


@dataclass(frozen=True)
class Logged:
    """A run of one person, ready to be kept."""

    planned_s: int
    planned_efforts: int
    planned_rpe: float
    lactic: bool
    """Whether what was done counts as lactic work for the person."""
    volume: Volume
    """Strikes expected of what was done, after the fade."""
    done: Done | None
    """Round by round; None where nothing was kept."""


def expectation(person: Person, done: Timeline) -> tuple[bool, Volume]:
    """Whether what was done counts as lactic work for the person, and the strikes expected of it."""
    reading = try_reading(person, done)
    return (is_lactic(reading), reading.volume) if reading else (False, Volume())


def logged(person: Person, plan: Plan, record: Record | None, done_s: int) -> Logged:
    """A run as it is logged: by its record, or of `done_s` seconds from its start where nothing was kept."""
    own = lived(plan.timeline, record) if record else plan.timeline
    reading = try_reading(person, own)
    lactic, volume = expectation(person, done_timeline(plan.timeline, record or Record.by_hand(done_s)))
    return Logged(
        planned_s=own.total_s,
        planned_efforts=len(efforts_of(own)),
        planned_rpe=expected_rpe(reading),
        lactic=lactic,
        volume=volume,
        done=review(reading, plan.timeline, record) if record else None,
    )


def reviewed(person: Person, plan: Plan, record: Record) -> Done:
    """What was done, before it is logged."""
    return review(try_reading(person, lived(plan.timeline, record)), plan.timeline, record)
