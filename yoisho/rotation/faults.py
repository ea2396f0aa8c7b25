"""What is wrong with who stands where: places, pads, presence, limits and pairs; not what is only less than best."""

from collections import Counter
from collections.abc import Iterator, Mapping, Sequence

from yoisho.rotation.group import Group


def faults(group: Group, rows: Mapping[str, Sequence[str]]) -> Iterator[str]:
    """Each in words, wave by wave; nothing where the rotation holds."""
    for wave in range(1, group.waves + 1):
        here = {who: row[wave - 1] for who, row in rows.items()}
        yield from _of_people(group, here, wave)
        yield from _of_places(group, here, wave)


def _of_people(group: Group, here: Mapping[str, str], wave: int) -> Iterator[str]:
    for who, station in here.items():
        there = group.here(who, wave)
        if there == (station == "away"):
            yield f"{who} is {'there' if there else 'not there'} in wave {wave}"
            continue
        kinds = () if station == "away" else group.kinds_at(station)
        if station != "away" and len(kinds) != 1:
            yield f"there is no '{station}' in wave {wave}"
        elif set(kinds) & group.shut[who]:
            yield f"{who} must not be at {station} in wave {wave}"


def _of_places(group: Group, here: Mapping[str, str], wave: int) -> Iterator[str]:
    count = Counter(here.values())
    spots = Counter(group.on_floor)
    for station in group.at_bags:
        if count[station] > 1:
            yield f"{count[station]} people are at {station} in wave {wave}"
    for station, room in spots.items():
        if count[station] > room:
            yield f"{count[station]} people are at {station} in wave {wave}, where {room} can be"
    for number in group.pads:
        hits, holds = count[f"pads {number} hit"], count[f"pads {number} hold"]
        if (hits, holds) not in ((0, 0), (1, 1)):
            yield f"at pads {number} in wave {wave} {hits} hit and {holds} hold"
    for one, other in group.together:
        if one in here and other in here:
            mine, theirs = here[one].split(" "), here[other].split(" ")
            if "pads" in (mine[0], theirs[0]) and mine[:2] != theirs[:2]:
                yield f"{one} and {other} are at pads apart in wave {wave}"
