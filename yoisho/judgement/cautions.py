"""Cautions: the trade's safety rules, each with its reason, its source and its cure. The coach decides."""

from dataclasses import dataclass
from typing import Literal

from yoisho.engine.person import Person
from yoisho.engine.readout import HARD_FRAC, Reading
from yoisho.session.shorthand import clock
from yoisho.session.tempo import TEMPOS

WARM_UP_S = 300
_WARM_UP_FRAC = 0.4


@dataclass(frozen=True)
class Caution:
    seal: str
    """One word for the seal."""
    level: Literal["note", "caution", "stop"]
    text: str
    cure: str
    source: str
    at_s: float | None = None


def cautions(who: Person, reading: Reading) -> tuple[Caution, ...]:
    """The cautions this person and session call for, in the order of the timeline."""
    return tuple(found for rule in (_heart_rate_medication, _warm_up, _cannot_finish) if (found := rule(who, reading)))


def _warm_up(who: Person, reading: Reading) -> Caution | None:
    warm_s = 0
    for interval in reading.timeline.intervals:
        demand = TEMPOS[interval.tempo].demand_frac
        if demand >= HARD_FRAC:
            if warm_s >= WARM_UP_S:
                return None
            return Caution(
                "Cold", "caution",
                f"Hard work starts at {clock(interval.start_s)} after {clock(warm_s)} of easy work.",
                "Put 5:00 to 10:00 of easy skipping or shadow first, in this session or before it.",
                "common practice, no source", float(interval.start_s),
            )  # fmt: skip
        warm_s += interval.seconds if demand >= _WARM_UP_FRAC else 0
    return None


def _cannot_finish(who: Person, reading: Reading) -> Caution | None:
    if reading.exhausted_at_s is None:
        return None
    number = next(
        index
        for index, bout in enumerate(reading.bouts, 1)
        if reading.timeline.intervals[bout.last].end_s > reading.exhausted_at_s or index == len(reading.bouts)
    )
    return Caution(
        "Fade", "note",
        f"About {clock(reading.exhausted_at_s)}, in effort {number} of {len(reading.bouts)}, the effort asked can no "
        "longer be held.",
        "Stop there if form goes, or give longer rest or fewer rounds.",
        "three-store model, an estimate", reading.exhausted_at_s,
    )  # fmt: skip


def _heart_rate_medication(who: Person, reading: Reading) -> Caution | None:
    if not who.heart_rate_lowering_medication:
        return None
    return Caution(
        "RPE", "caution",
        "Medication that lowers heart rate: heart-rate figures do not hold for this person.",
        "Steer by perceived effort, and follow the physician's advice.",
        "common practice, no source",
    )  # fmt: skip
