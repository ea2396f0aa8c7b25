"""What a day's session asks to be minded, what it asks to be brought, and what load it should be."""

from collections import Counter
from collections.abc import Iterable
from dataclasses import dataclass, replace
from functools import lru_cache

from yoisho.engine.person import Person, person
from yoisho.engine.readout import expected_rpe, try_reading
from yoisho.judgement.cautions import DAILY, Caution, cautions
from yoisho.judgement.circumstances import Circumstances
from yoisho.session.document import Part, unrolled
from yoisho.session.kit import GLOVES
from yoisho.session.timeline import Timeline
from yoisho.session.wearing import to_bring

REMEMBERED = 200


def minded(who: Person, timeline: Timeline, purpose: str, circumstances: Circumstances) -> list[Caution]:
    """The cautions about the person and the day, the weightiest first; those that only speak of the session are left
    to the bench."""
    reading = try_reading(who, timeline)
    if reading is None:
        return []
    spoken = cautions(reading, replace(circumstances, purpose=purpose))
    return [caution for caution in spoken if caution.rule in DAILY]


@lru_cache(REMEMBERED)
def expected_load(parts: tuple[Part, ...]) -> float:
    """Expected RPE times minutes of a session, for a club-level adult by default."""
    timeline = unrolled(parts)
    return expected_rpe(try_reading(person(), timeline)) * timeline.total_s / 60


@dataclass(frozen=True)
class Brought:
    word: str
    count: int | None
    """So many pairs or pieces, where everybody brings their own; None where one set does."""


OWN = frozenset(gloves.word for gloves in GLOVES.values()) | {"straps"}


def bring(sessions: Iterable[tuple[Timeline, int]]) -> list[Brought]:
    """What to bring to sessions, each with how many people: of what everybody has on, as many as the largest needs."""
    most = Counter[str]()
    for timeline, people in sessions:
        for word in to_bring(timeline):
            most[word] = max(most[word], people)
    return [Brought(word, count if word in OWN else None) for word, count in most.items()]
