"""Between what a device has kept of a run and the core that reads it."""

from typing import Any

from server.logbook.schemas import DoneOut, PainOut, RecordIn
from yoisho.engine.person import Person
from yoisho.review.done import Record, Stood, Stretch, lived, review
from yoisho.review.pain import PLACES, told
from yoisho.session.timeline import Timeline


def _record(kept: RecordIn) -> Record:
    return Record(
        played=tuple(Stretch(one.from_s, one.to_s, one.shift) for one in kept.played),
        stood=tuple(Stood(one.at_s, one.seconds) for one in kept.stood),
        counted=tuple(kept.counted),
        place=kept.place,
        of=kept.of,
        heart=tuple(kept.heart),
        strikes=None if kept.strikes is None else tuple(kept.strikes),
    )


def lived_timeline(timeline: Timeline, kept: RecordIn | None) -> Timeline:
    """As the person of the record had it; the plan itself where nothing was kept."""
    return lived(timeline, _record(kept)) if kept else timeline


def reviewed(who: Person, timeline: Timeline, kept: RecordIn) -> DoneOut:
    return DoneOut.model_validate(review(who, timeline, _record(kept)), from_attributes=True)


def pain_out(flags: list[dict[str, Any]]) -> list[PainOut]:
    return [
        PainOut(where=flag["where"], side=flag["side"], text=told(flag["where"], flag["side"]))
        for flag in flags
        if flag["where"] in PLACES
    ]
