"""What the log holds of a run: the plan as the person had it, and what was really done of it."""

from dataclasses import dataclass
from typing import Literal, get_args

from yoisho.engine.person import Person
from yoisho.engine.readout import Reading, expected_rpe, try_reading
from yoisho.engine.work_bouts import HARD_FRAC
from yoisho.judgement.cautions import is_lactic
from yoisho.runs.plan import Plan, efforts_of
from yoisho.runs.record import Record, done_timeline, lived
from yoisho.runs.review import Done, review
from yoisho.session.timeline import Timeline
from yoisho.session.volume import Volume

Store = Literal["aerobic", "lactic", "sprint"]
STORES: tuple[Store, ...] = get_args(Store)
SPRINT_S = 20
"""Hard work up to this length is the sprint store's. Own setting."""


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
    minutes: dict[Store, float]
    """Minutes of what was done that count for each store."""
    done: Done | None
    """Round by round; None where nothing was kept."""


def minutes_of(reading: Reading) -> dict[Store, float]:
    """Minutes that count for each store: near the top of what the muscle in play takes up, with the lactic store far
    down, and in short hard efforts."""
    sprints = (bout.seconds for bout in reading.work_bouts if bout.seconds <= SPRINT_S)
    hard = reading.timeline.intervals[reading.work_bouts[0].first].demand_frac >= HARD_FRAC
    return {
        "aerobic": reading.figures["vo2_75_min"].value,
        "lactic": reading.figures["lactic_deep_min"].value,
        "sprint": sum(sprints) / 60 if hard else 0.0,
    }


def expectation(person: Person, done: Timeline) -> tuple[bool, Volume, dict[Store, float]]:
    """Whether what was done counts as lactic work for the person, the strikes expected of it, and its minutes."""
    reading = try_reading(person, done)
    if reading is None:
        return False, Volume(), dict.fromkeys(STORES, 0.0)
    return is_lactic(reading), reading.volume, minutes_of(reading)


def logged(person: Person, plan: Plan, record: Record | None, done_s: int) -> Logged:
    """A run as it is logged: by its record, or of `done_s` seconds from its start where nothing was kept."""
    own = lived(plan.timeline, record) if record else plan.timeline
    reading = try_reading(person, own)
    lactic, volume, minutes = expectation(person, done_timeline(plan.timeline, record or Record.by_hand(done_s)))
    return Logged(
        planned_s=own.total_s,
        planned_efforts=len(efforts_of(own)),
        planned_rpe=expected_rpe(reading),
        lactic=lactic,
        volume=volume,
        minutes=minutes,
        done=review(reading, plan.timeline, record) if record else None,
    )


def reviewed(person: Person, plan: Plan, record: Record) -> Done:
    """What was done, before it is logged."""
    return review(try_reading(person, lived(plan.timeline, record)), plan.timeline, record)
