"""What speaks against a rotation, counted: waiting first, then turns that are not equal, then hit and hold, then
standing at the same kind twice running."""

from dataclasses import dataclass
from itertools import pairwise

from yoisho.rotation.group import WORKS, Group, Kind
from yoisho.rotation.ring import Rows

WAIT, UNEVEN, HOLDING, AGAIN = 1000, 60, 20, 1
"""Points against it: for each wave somebody waits; each turn by which two differ more than one; each by which hits and
holds of one person do; each time somebody stays on the floor, in one role on pads, or at a bag that is the only one.
Own settings: what comes first outweighs all that comes after."""


@dataclass(frozen=True)
class Against:
    waiting: int
    uneven: int
    """Turns past one by which the most and the least of those who are alike differ, summed over the kinds."""
    holding: int
    """Waves past one by which somebody's hits and holds differ, summed."""
    again: int

    @property
    def points(self) -> int:
        return WAIT * self.waiting + UNEVEN * self.uneven + HOLDING * self.holding + AGAIN * self.again


def turns(row: list[Kind]) -> dict[Kind, int]:
    """How often somebody is at each kind."""
    return {kind: row.count(kind) for kind in WORKS}


def stays(group: Group) -> tuple[Kind, ...]:
    """Kinds at which twice running is the same again: on pads too, where the two should change roles."""
    same: tuple[Kind, ...] = ("hit", "hold")
    floor: tuple[Kind, ...] = ("floor",) if len(set(group.on_floor)) <= 1 else ()
    bag: tuple[Kind, ...] = ("bag",) if group.bags == 1 else ()
    return (*same, *floor, *bag)


def against(group: Group, rows: Rows) -> Against:
    spread = 0
    for kind in WORKS:
        counts = [rows[who].count(kind) for who in group.alike]
        spread += max(0, max(counts, default=0) - min(counts, default=0) - 1)
    holding = sum(
        max(0, abs(row.count("hit") - row.count("hold")) - 1)
        for who, row in rows.items()
        if not group.shut[who] & {"hit", "hold"}
    )
    same = stays(group)
    again = sum(one == two and one in same for row in rows.values() for one, two in pairwise(row))
    return Against(sum(row.count("wait") for row in rows.values()), spread, holding, again)


def least_against(group: Group) -> Against:
    """What no rotation can do without, by counting: waiting, and who has to stay on the floor where nearly all do."""
    again = 0
    for wave in range(1, group.waves) if "floor" in stays(group) else ():
        here = set(group.present(wave)) | set(group.present(wave + 1))
        again += max(0, _on_floor(group, wave) + _on_floor(group, wave + 1) - len(here))
    return Against(least_waiting(group), 0, 0, again)


def _on_floor(group: Group, wave: int) -> int:
    """How many at the least are on the floor where as few wait as can."""
    present = len(group.present(wave))
    return max(0, group.places(present) - group.bags - 2 * min(group.pad_pairs, present // 2))


def least_waiting(group: Group) -> int:
    """Waiting that no rotation can do without, by counting people and places wave by wave."""
    found = 0
    for wave in range(1, group.waves + 1):
        present = group.present(wave)
        found += len(present) - group.places(len(present))
    return found
