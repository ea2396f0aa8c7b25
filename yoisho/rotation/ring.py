"""Rotations that are constructed: places laid evenly on a ring by kind, and everybody moves on by as many a wave.

That alone gives turns that are nearly equal, and nobody waits where there is room. Common practice, no source; by how
many places everybody moves, and where on the ring a kind begins, is tried through.
"""

from collections.abc import Iterator
from math import gcd

from yoisho.rotation.group import Group, Kind

Rows = dict[str, list[Kind]]
"""Of each person what they are at, wave by wave."""


def ring(group: Group, length: int, phase: int = 1) -> list[Kind]:
    """So many places, the kinds spread evenly, each begun a little further on; what is left waits."""
    pads = min(group.pad_pairs, length // 2)
    counts: dict[Kind, int] = {"hit": pads, "hold": pads}
    left = length - 2 * pads
    counts["bag"] = min(group.bags, left)
    counts["floor"] = min(group.floor, left - counts["bag"])
    counts["wait"] = left - counts["bag"] - counts["floor"]
    if counts["wait"] == 0 and pads and length < group.bags + group.floor + 2 * pads:
        counts = _shared(group, length)
    laid: list[tuple[float, int, Kind]] = []
    for order, (kind, count) in enumerate(counts.items()):
        laid += [((number + (phase * (order + 1) % 7) / 7) / count, order, kind) for number in range(count)]
    return [kind for _, _, kind in sorted(laid)]


def _shared(group: Group, length: int) -> dict[Kind, int]:
    """Where there are more places than people: as many of each kind as it has of all places."""
    places = group.bags + group.floor + 2 * group.pad_pairs
    pads = min(group.pad_pairs, round(length * group.pad_pairs / places))
    bags = min(group.bags, max(0, round(length * group.bags / places)))
    floor = length - 2 * pads - bags
    while floor > group.floor:
        bags, floor = (bags + 1, floor - 1) if bags < group.bags else (bags, floor)
        if floor > group.floor and bags >= group.bags:
            pads, floor = pads + 1, floor - 2
    while floor < 0:
        bags, floor = bags - 1, floor + 1
    return {"hit": pads, "hold": pads, "bag": bags, "floor": floor, "wait": 0}


PHASES = 6
"""Ways to lay the kinds out on the ring that are tried."""


def constructed(group: Group) -> Iterator[Rows]:
    """Every rotation of the ring, the plainest first: everybody one place on each wave."""
    count = len(group.people)
    steps = [step for step in range(1, max(2, count)) if gcd(step, count) == 1]
    for step in steps:
        for phase in range(1, PHASES + 1):
            yield _moving(group, ring(group, count, phase), step)


def _moving(group: Group, places: list[Kind], step: int) -> Rows:
    """Limits, partners and who is late are no part of the ring: whoever stands where they must not waits."""
    count = len(group.people)
    rows: Rows = {
        who: [places[(number + wave * step) % count] for wave in range(group.waves)]
        for number, who in enumerate(group.people)
    }
    for who in group.people:
        for wave in range(group.waves):
            if not group.here(who, wave + 1):
                rows[who][wave] = "away"
            elif rows[who][wave] in group.shut[who]:
                rows[who][wave] = "wait"
    for wave in range(group.waves):
        _mend_pads(group, rows, wave)
    return rows


def _mend_pads(group: Group, rows: Rows, wave: int) -> None:
    """Whoever is left on pads without another, or beside a stranger where they hold for one alone, waits."""
    paired = [pair for pair in group.together if {rows[who][wave] for who in pair} == {"hit", "hold"}]
    fast = {who for pair in paired for who in pair}
    for who in group.partner:
        if who not in fast and rows[who][wave] in ("hit", "hold"):
            rows[who][wave] = "wait"
    while (over := _count(rows, wave, "hit") - _count(rows, wave, "hold")) != 0:
        kind: Kind = "hit" if over > 0 else "hold"
        loose = next(who for who in rows if rows[who][wave] == kind and who not in fast)
        rows[loose][wave] = "wait"


def _count(rows: Rows, wave: int, kind: Kind) -> int:
    return sum(row[wave] == kind for row in rows.values())
