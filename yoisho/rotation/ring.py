"""Rotations that are constructed: places laid evenly on a ring by kind, and everybody moves on by as many a wave.

That alone gives turns that are nearly equal, and nobody waits where there is room. Common practice, no source; by how
many places everybody moves, and where on the ring a kind begins, is tried through.
"""

from collections.abc import Iterator
from dataclasses import replace
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
    """Every rotation of the ring, the plainest first: teams that move on together, the largest first, then everybody
    one place on each wave."""
    count = len(group.people)
    for size in range(count // 2, 1, -1):
        if count % size == 0 and (size % 2 == 0 or not group.pad_pairs):
            yield from _by_teams(group, size)
    steps = [step for step in range(1, max(2, count)) if gcd(step, count) == 1]
    for step in steps:
        for phase in range(1, PHASES + 1):
            yield _moving(group, ring(group, count, phase), step)


def _by_teams(group: Group, size: int) -> Iterator[Rows]:
    """Rings on which every place is for a team of so many, who are next to each other in the order of people."""
    teams = len(group.people) // size
    whole = replace(
        group, people=tuple(f"team {number}" for number in range(teams)), bags=group.bags // size,
        pad_pairs=2 * group.pad_pairs // size, floor=group.floor // size, limits=(), together=(), from_wave={},
        absent_after={}, pins=(), bag_names=(), spots=(),
    )  # fmt: skip
    for step in (step for step in range(1, max(2, teams)) if gcd(step, teams) == 1):
        for phase in range(1, PHASES + 1):
            # On pads a team is whole: half of it hits, and half holds.
            places = ring(replace(whole, bags=whole.bags + whole.pad_pairs, pad_pairs=0), teams, phase)
            at_pads = _some_at_pads(places, whole)
            yield _settled(group, _in_teams(group, at_pads, size, step))


def _some_at_pads(places: list[Kind], whole: Group) -> list[Kind]:
    """Of the places at gear as many at pads as there are, spread evenly over them; a bag for the others."""
    gear = [place for place, kind in enumerate(places) if kind == "bag"]
    pads = min(whole.pad_pairs, max(0, len(gear) - (whole.bags if len(gear) >= whole.bags else 0)))
    chosen = {gear[(2 * number + 1) * len(gear) // (2 * pads)] for number in range(pads)} if pads else set()
    return ["hit" if place in chosen else kind for place, kind in enumerate(places)]


def _in_teams(group: Group, places: list[Kind], size: int, step: int) -> Rows:
    rows: Rows = {who: [] for who in group.people}
    for number, who in enumerate(group.people):
        team, place = divmod(number, size)
        first = place % 2 == 0
        for wave in range(group.waves):
            kind = places[(team + wave * step) % len(places)]
            if kind == "hit":
                kind = "hit" if first else "hold"
                first = not first
            rows[who].append(kind)
    return rows


def _moving(group: Group, places: list[Kind], step: int) -> Rows:
    count = len(group.people)
    rows: Rows = {
        who: [places[(number + wave * step) % count] for wave in range(group.waves)]
        for number, who in enumerate(group.people)
    }
    return _settled(group, rows)


def _settled(group: Group, rows: Rows) -> Rows:
    """Limits, partners and who is late are no part of the ring: whoever stands where they must not waits."""
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
