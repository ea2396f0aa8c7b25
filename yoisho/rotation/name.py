"""Which bag and which pads: kinds become stations with numbers, with short walks and another bag each time."""

import numpy as np
from scipy.optimize import linear_sum_assignment

from yoisho.rotation.group import Group
from yoisho.rotation.ring import Rows

Stations = dict[str, list[str]]
SAME_BAG = 50
"""Steps that the same bag twice running is worth avoiding. Own setting."""


def named(group: Group, rows: Rows) -> Stations:
    """Of each person the station of every wave."""
    found: Stations = {who: [] for who in group.people}
    last_bag: dict[str, int] = {}
    last_pads: dict[frozenset[str], int] = {}
    for wave in range(group.waves):
        bags = _bags(group, [who for who in group.people if rows[who][wave] == "bag"], last_bag)
        pads = _pads(group, rows, wave, last_pads)
        for who in group.people:
            kind = rows[who][wave]
            if kind == "bag":
                found[who].append(f"bag {bags[who]}")
            elif kind in ("hit", "hold"):
                found[who].append(f"pads {pads[who]} {kind}")
            else:
                found[who].append(kind)
        last_bag = bags
    return found


def _bags(group: Group, there: list[str], last: dict[str, int]) -> dict[str, int]:
    """Who is at which bag: the walks from the last one short, and another one than it."""
    if not there:
        return {}
    cost = np.zeros((len(there), group.bags))
    for row, who in enumerate(there):
        if who in last:
            steps = np.abs(np.arange(1, group.bags + 1) - last[who])
            cost[row] = np.where(steps == 0, SAME_BAG, steps)
    people, bags = linear_sum_assignment(cost)
    return {there[row]: int(bag) + 1 for row, bag in zip(people, bags, strict=True)}


def _pads(group: Group, rows: Rows, wave: int, last: dict[frozenset[str], int]) -> dict[str, int]:
    """Who holds for whom, with which pads: partners first, then those who were at them together and change roles."""
    hits = [who for who in group.people if rows[who][wave] == "hit"]
    holds = [who for who in group.people if rows[who][wave] == "hold"]
    pairs: list[tuple[str, str]] = []
    for who in hits:
        partner = group.partner.get(who)
        if partner in holds:
            pairs.append((who, partner))
    rest_hits = [who for who in hits if who not in {one for one, _ in pairs}]
    rest_holds = [who for who in holds if who not in {other for _, other in pairs}]
    for who in rest_hits:
        known = next((other for other in rest_holds if frozenset((who, other)) in last), None)
        other = known or rest_holds[0]
        rest_holds.remove(other)
        pairs.append((who, other))
    free = list(range(1, group.pad_pairs + 1))
    found: dict[str, int] = {}
    for one, other in sorted(pairs, key=lambda pair: frozenset(pair) not in last):
        kept = last.get(frozenset((one, other)))
        number = kept if kept in free else free[0]
        free.remove(number)
        found[one] = found[other] = number
    last.clear()
    last.update({frozenset(pair): found[pair[0]] for pair in pairs})
    return found
