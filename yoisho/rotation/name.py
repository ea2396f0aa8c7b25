"""Which bag and which pads: kinds become stations with names, with short walks and another one each time."""

from collections import Counter
from collections.abc import Sequence

import numpy as np

from yoisho.rotation.group import Group, Kind
from yoisho.rotation.ring import Rows

Stations = dict[str, list[str]]
SAME_AGAIN, BEEN_THERE, PINNED = 50, 12, 10_000
"""Steps that the same station twice running is worth avoiding, one where somebody has been, for each time, and one that
is not where they were put. Own settings."""


def named(group: Group, rows: Rows) -> Stations:
    """Of each person the station of every wave."""
    found: Stations = {who: [] for who in group.people}
    put = {(who, wave - 1): station for who, wave, station in group.pins}
    last_pads: dict[frozenset[str], int] = {}
    walks = {"bag": _Walks(group.at_bags), "floor": _Walks(group.on_floor)}
    for wave in range(group.waves):
        wanted = {who: station for (who, at), station in put.items() if at == wave}
        at: dict[str, str] = {}
        for kind, walk in walks.items():
            at |= walk.take([who for who in group.people if rows[who][wave] == kind], wanted)
        pads = _pads(group, rows, wave, last_pads, wanted)
        for who in group.people:
            here: Kind = rows[who][wave]
            found[who].append(f"pads {pads[who]} {here}" if here in ("hit", "hold") else at.get(who, here))
    return found


class _Walks:
    """Who has been at which of the places of a kind: the walks from the last one short, and another one than it."""

    def __init__(self, places: Sequence[str]):
        self.places = places
        self.last: dict[str, int] = {}
        self.been: Counter[tuple[str, str]] = Counter()

    def take(self, there: list[str], wanted: dict[str, str]) -> dict[str, str]:
        if not there:
            return {}
        from scipy.optimize import linear_sum_assignment

        cost = np.zeros((len(there), len(self.places)))
        for row, who in enumerate(there):
            for column, place in enumerate(self.places):
                steps = abs(column - self.last[who]) if who in self.last else 0
                same = who in self.last and self.places[self.last[who]] == place
                cost[row, column] = (SAME_AGAIN if same else steps) + BEEN_THERE * self.been[who, place]
                if wanted.get(who) in self.places and wanted[who] != place:
                    cost[row, column] += PINNED
        people, columns = linear_sum_assignment(cost)
        self.last = {there[row]: int(column) for row, column in zip(people, columns, strict=True)}
        for who, column in self.last.items():
            self.been[who, self.places[column]] += 1
        return {who: self.places[column] for who, column in self.last.items()}


def _number(station: str | None) -> int | None:
    """Of the pads that somebody was put at; None where no number was said."""
    parts = (station or "").split()
    return int(parts[1]) if len(parts) > 1 and parts[0] == "pads" else None


def _pads(
    group: Group, rows: Rows, wave: int, last: dict[frozenset[str], int], wanted: dict[str, str]
) -> dict[str, int]:
    """Who holds for whom, with which pads: partners first, then those who were at them together and change roles."""
    hits = [who for who in group.people if rows[who][wave] == "hit"]
    holds = [who for who in group.people if rows[who][wave] == "hold"]
    put = {who: number for who in (*hits, *holds) if (number := _number(wanted.get(who))) is not None}
    pairs: list[tuple[str, str]] = []

    def pair(one: str, other: str) -> None:
        hits.remove(one)
        holds.remove(other)
        pairs.append((one, other))

    for who in tuple(hits):
        if group.partner.get(who) in holds:
            pair(who, group.partner[who])
        elif who in put:
            same = next((other for other in holds if put.get(other) == put[who]), None)
            if same is not None:
                pair(who, same)
    for who in tuple(hits):
        anybody = next((other for other in holds if other not in put or who not in put), holds[0])
        before = (other for other in holds if frozenset((who, other)) in last and not {who, other} & set(put))
        pair(who, next(before, anybody))
    free = list(group.pads)
    found: dict[str, int] = {}

    def first(of: tuple[str, str]) -> tuple[bool, bool]:
        return not set(of) & set(put), frozenset(of) not in last

    for one, other in sorted(pairs, key=first):
        asked = put.get(one, put.get(other, last.get(frozenset((one, other)))))
        number = asked if asked in free else free[0]
        free.remove(number)
        found[one] = found[other] = number
    last.clear()
    last.update({frozenset(each): found[each[0]] for each in pairs})
    return found
