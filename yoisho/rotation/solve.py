"""Solving a rotation: the constructed one first, CP-SAT from it where limits, partners or latecomers ask for more.

What is minimised is told in `score.py`: nobody waits where that can be, then equal turns, hit and hold, and change.
The same class gives the same rotation.
"""

from collections.abc import Iterable
from dataclasses import dataclass, replace
from typing import Any, Literal

from ortools.sat.python import cp_model

from yoisho.counted import solver_with
from yoisho.rotation.group import WORKS, Group, Kind
from yoisho.rotation.name import Stations, named
from yoisho.rotation.ring import Rows, constructed
from yoisho.rotation.score import AGAIN, HOLDING, UNEVEN, WAIT, Against, against, least_against, least_waiting, stays

WAIT_BUDGET, SHARE_BUDGET = 1.5, 1.5
"""Deterministic seconds of the solver: for who waits, and for sharing the turns out."""
Status = Literal["optimal", "feasible"]


@dataclass(frozen=True)
class Clash:
    """Why somebody has to wait: what would have to be another way for nobody to."""

    what: Literal["places", "limits", "together"]
    sentence: str


@dataclass(frozen=True)
class Rotation:
    rows: Stations
    """Of each person the station of every wave, such as "bag 3", "pads 1 hit", "floor", "wait" or "away"."""
    kinds: Rows
    against: Against
    status: Status
    bound_gap: float
    """What might still be saved, as a share of everybody at work in every wave; 0 where nothing can."""
    clash: tuple[Clash, ...]


class _Model:
    """Who is at what kind of place in which wave."""

    def __init__(self, group: Group):
        self.group = group
        self.model = cp_model.CpModel()
        self.at: dict[tuple[str, int, Kind], Any] = {}
        for wave in range(1, group.waves + 1):
            self._wave(wave)
        for one, other in group.together:
            self._pair(one, other)

    def _wave(self, wave: int) -> None:
        group, model = self.group, self.model
        present = group.present(wave)
        for who in present:
            here = [kind for kind in (*WORKS, "wait") if kind not in group.shut[who]]
            for kind in here:
                self.at[who, wave, kind] = model.new_bool_var("")
            model.add_exactly_one(self.at[who, wave, kind] for kind in here)
        model.add(self._sum(present, wave, "bag") <= group.bags)
        model.add(self._sum(present, wave, "floor") <= group.floor)
        hits = self._sum(present, wave, "hit")
        model.add(hits == self._sum(present, wave, "hold"))
        model.add(hits <= group.pad_pairs)
        model.add(self._sum(present, wave, "wait") >= len(present) - group.places(len(present)))

    def _pair(self, one: str, other: str) -> None:
        """They hold only for each other, where both are there."""
        for wave in range(1, self.group.waves + 1):
            for mine, theirs in (("hit", "hold"), ("hold", "hit")):
                self.model.add(self.var(one, wave, mine) == self.var(other, wave, theirs))  # type: ignore[arg-type]

    def var(self, who: str, wave: int, kind: Kind) -> Any:
        return self.at.get((who, wave, kind), 0)

    def _sum(self, people: Iterable[str], wave: int, kind: Kind) -> Any:
        return sum(self.var(who, wave, kind) for who in people)

    def turns(self, who: str, kind: Kind) -> Any:
        return sum(self.var(who, wave, kind) for wave in range(1, self.group.waves + 1))

    def waiting(self) -> Any:
        return sum(self.turns(who, "wait") for who in self.group.people)

    def sharing(self) -> Any:
        """Points for turns, for hit and hold, and for standing at the same place again."""
        group, model = self.group, self.model
        points = []
        for kind in WORKS:
            if len(group.alike) < 2:
                break
            least, most = (model.new_int_var(0, group.waves, "") for _ in range(2))
            over = model.new_int_var(0, group.waves, "")
            for who in group.alike:
                model.add(self.turns(who, kind) >= least)
                model.add(self.turns(who, kind) <= most)
            model.add(over >= most - least - 1)
            points.append(UNEVEN * over)
        for who in group.people:
            if group.shut[who] & {"hit", "hold"}:
                continue
            off = model.new_int_var(0, group.waves, "")
            difference = self.turns(who, "hit") - self.turns(who, "hold")
            model.add(off >= difference - 1)
            model.add(off >= -difference - 1)
            points.append(HOLDING * off)
        for who in group.people:
            for wave in range(1, group.waves):
                for kind in stays(group):
                    both = self.var(who, wave, kind), self.var(who, wave + 1, kind)
                    if all(not isinstance(each, int) for each in both):
                        again = model.new_bool_var("")
                        model.add(again >= sum(both) - 1)
                        points.append(AGAIN * again)
        return sum(points)

    def hint(self, rows: Rows) -> None:
        self.model.clear_hints()  # type: ignore[no-untyped-call]
        for (who, wave, kind), var in self.at.items():
            self.model.add_hint(var, rows[who][wave - 1] == kind)

    def read(self, solver: cp_model.CpSolver) -> Rows:
        rows: Rows = {who: ["away"] * self.group.waves for who in self.group.people}
        for (who, wave, kind), var in self.at.items():
            if solver.boolean_value(var):
                rows[who][wave - 1] = kind
        return rows


_FOUND = (cp_model.OPTIMAL, cp_model.FEASIBLE)


def solve(group: Group) -> Rotation:
    """The best rotation that is found, never worse than the constructed one; and why somebody waits, if they do."""
    bound = float(least_against(group).points)
    rows = _constructed(group, bound)
    if against(group, rows).points > bound:
        rows, bound = _better(group, rows, bound)
    best = against(group, rows)
    left = best.points - bound
    # Held against all that could be had: everybody at work in every wave they are there.
    all_of_it = WAIT * sum(len(group.present(wave)) for wave in range(1, group.waves + 1))
    gap = 0.0 if left < 0.5 else left / max(1.0, all_of_it - bound)
    status: Status = "optimal" if gap == 0.0 else "feasible"
    return Rotation(named(group, rows), rows, best, status, round(gap, 4), _clashes(group, best.waiting))


def _constructed(group: Group, bound: float) -> Rows:
    """The best of the ring; the first that nothing can better."""
    best: tuple[int, Rows] | None = None
    for rows in constructed(group):
        points = against(group, rows).points
        if best is None or points < best[0]:
            best = points, rows
        if points <= bound:
            break
    assert best is not None
    return best[1]


def _better(group: Group, rows: Rows, bound: float) -> tuple[Rows, float]:
    """From a rotation to a better one: first as little waiting as can be, then the turns, with that as it is."""
    model = _Model(group)
    waiting = model.waiting()
    model.hint(rows)
    model.model.minimize(waiting)
    solver = solver_with(WAIT_BUDGET)
    if solver.solve(model.model) not in _FOUND:
        return rows, bound
    fewest, proven = round(solver.objective_value), solver.best_objective_bound
    found = model.read(solver)
    if against(group, found).points < against(group, rows).points:
        rows = found
    model.model.add(waiting == fewest)
    model.hint(rows if against(group, rows).waiting == fewest else found)
    model.model.minimize(model.sharing())
    solver = solver_with(SHARE_BUDGET)
    if solver.solve(model.model) in _FOUND:
        shared = model.read(solver)
        if against(group, shared).points < against(group, rows).points:
            rows = shared
        if proven >= fewest - 0.5:
            bound = max(bound, WAIT * fewest + solver.best_objective_bound)
    return rows, bound


# Why somebody waits


def _fewest(group: Group) -> int:
    """The least waiting that can be, as far as it is found."""
    model = _Model(group)
    model.model.minimize(model.waiting())
    solver = solver_with(WAIT_BUDGET)
    return round(solver.objective_value) if solver.solve(model.model) in _FOUND else 0


def _clashes(group: Group, waiting: int) -> tuple[Clash, ...]:
    if not waiting:
        return ()
    found: list[Clash] = []
    least = least_waiting(group)
    if least:
        waves = [
            wave
            for wave in range(1, group.waves + 1)
            if len(group.present(wave)) > group.places(len(group.present(wave)))
        ]
        most = max(len(group.present(wave)) for wave in waves)
        room = group.places(most)
        found.append(Clash("places", f"{most} people and {room} places: {most - room} more would do."))
    if waiting > least and group.limits and _fewest(replace(group, limits=())) < waiting:
        found.append(Clash("limits", "Limits leave some places to fewer people than there are."))
    if waiting > least and group.together and _fewest(replace(group, together=())) < waiting:
        found.append(Clash("together", "Those who stay together take up pads only when both are free."))
    return tuple(found)
