"""What is put on, taken off and taken up in the course of a session, and whether the pauses give the time for it."""

from collections.abc import Iterator
from dataclasses import dataclass

from yoisho.session.kit import GLOVES, ITEMS
from yoisho.session.modality import MODALITIES
from yoisho.session.timeline import Timeline


@dataclass(frozen=True)
class KitChange:
    """Before the interval with this index something is put on, taken off or taken up."""

    index: int
    at_s: int
    """Where the interval starts."""
    words: tuple[str, ...]
    needs_s: int
    """How long it takes, an estimate."""
    room_s: int
    """Seconds of pause before it."""

    @property
    def short_s(self) -> int:
        """Seconds that the pauses do not give."""
        return max(0, self.needs_s - self.room_s)


Step = tuple[str, int]
"""What is called, and how long it takes [s]."""


def _hands(before: str | None, wanted: str | None) -> list[Step]:
    if before is None or wanted in (None, before):
        return []
    put = GLOVES[str(wanted)]
    return [(put.on, GLOVES[before].off_s + put.on_s)]


def _items(before: frozenset[str], used: frozenset[str]) -> list[Step]:
    off = [ITEMS[item] for item in sorted(before - used)]
    on = [ITEMS[item] for item in sorted(used - before)]
    return [*((item.off, item.off_s) for item in off if item.off), *((item.on, item.on_s) for item in on)]


def kit_changes(timeline: Timeline) -> tuple[KitChange, ...]:
    """Every change in the course of the session. What the first work asks for is put on before the start.

    Gloves stay on until work says others; of items only what is worn has to come off, the rest is put down. What a
    modality cannot do without (pads, a rope) lies ready where it is used.
    """
    found: list[KitChange] = []
    gloves: str | None = None
    items: frozenset[str] | None = None
    worn: tuple[str, ...] = ()
    room_s = 0
    for index, interval in enumerate(timeline.intervals):
        if interval.kind != "work" or interval.partner:
            room_s = 0 if interval.partner else room_s + interval.seconds
            continue
        source = interval.source
        if items is not None and source.gloves in (None, gloves) and source.kit == worn:
            room_s = 0
            continue
        wanted, used, worn = source.gloves, frozenset(source.kit), source.kit
        steps = [*_hands(gloves, wanted), *_items(used if items is None else items, used)]
        if steps:
            words, seconds = zip(*steps, strict=True)
            found.append(KitChange(index, interval.start_s, words, sum(seconds), room_s))
        gloves, items, room_s = wanted or gloves, used, 0
    return tuple(found)


def to_bring(timeline: Timeline) -> tuple[str, ...]:
    """What to bring, in words, in the order of the registry."""
    work = [interval for interval in timeline.intervals if interval.kind != "rest"]
    gloves = {interval.source.gloves for interval in work}
    items = {item for interval in work for item in interval.source.kit}
    for interval in work:
        items.update(MODALITIES[interval.source.modality].items if interval.source.modality else ())
    return tuple(_brought(gloves, items))


def _brought(gloves: set[str | None], items: set[str]) -> Iterator[str]:
    yield from (each.word for each in GLOVES.values() if each.id in gloves and each.brought)
    yield from (each.word for each in ITEMS.values() if each.id in items)
