"""Solving a rotation: the constructed one first, CP-SAT from it where limits, partners or latecomers ask for more.

What is minimised is told in `score.py`: nobody waits where that can be, then equal turns, hit and hold, and change.
The same class gives the same rotation.
"""

from collections.abc import Callable, Iterable
from dataclasses import replace
from typing import Any

from ortools.sat.python import cp_model

from yoisho.counted import solver_with
from yoisho.rotation.found import Clash, Rotation, Status
from yoisho.rotation.group import WORKS, ClassError, Group, Kind
from yoisho.rotation.name import named
from yoisho.rotation.ring import Rows, constructed
from yoisho.rotation.score import AGAIN, HOLDING, UNEVEN, WAIT, against, least_against, least_waiting, stays

WAIT_BUDGET, SHARE_BUDGET = 1.5, 1.5
"""Deterministic seconds of the solver: for who waits, and for sharing the turns out or staying as it was."""


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
        for who, pinned, station in group.pins:
            self.model.add(sum(self.var(who, pinned, kind) for kind in group.kinds_at(station)) == 1)

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
            if wave <= len(rows[who]):
                self.model.add_hint(var, rows[who][wave - 1] == kind)

    def read(self, solver: cp_model.CpSolver) -> Rows:
        rows: Rows = {who: ["away"] * self.group.waves for who in self.group.people}
        for (who, wave, kind), var in self.at.items():
            if solver.boolean_value(var):
                rows[who][wave - 1] = kind
        return rows


_FOUND = (cp_model.OPTIMAL, cp_model.FEASIBLE)


def solve(group: Group, near: Rows | None = None, told: Callable[[float], None] = lambda share: None) -> Rotation:
    """The best rotation that is found, never worse than the constructed one; and why somebody waits, if they do.

    `near` is one that the search starts from, so that little changes for a small change; `told` hears what share of the
    budget is gone. Raises `ClassError` where what is pinned cannot all hold.
    """
    bound = float(least_against(group).points)
    rows = _constructed(group, bound)
    told(0.2)
    if group.pins:
        rows, bound = _pinned(group, near or rows, bound, told)
    elif near is not None and holds(group, near) and against(group, near).points <= against(group, rows).points:
        rows = near
    if not group.pins and against(group, rows).points > bound:
        rows, bound = _better(group, rows, bound, told, near if near and set(near) == set(group.people) else None)
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


def sketched(group: Group) -> Rotation:
    """The best constructed rotation alone, at once: one that holds, though a better one may be found."""
    rows = _constructed(group, float(least_against(group).points))
    best = against(group, rows)
    return Rotation(named(group, rows), rows, best, "feasible", 1.0, ())


def holds(group: Group, rows: Rows) -> bool:
    """Whether rows are a rotation of this class: what was one before somebody came, or a bag went, is none."""
    if set(rows) != set(group.people) or any(len(row) != group.waves for row in rows.values()):
        return False
    for wave in range(group.waves):
        here = {who: row[wave] for who, row in rows.items()}
        count = {kind: sum(each == kind for each in here.values()) for kind in WORKS}
        if count["bag"] > group.bags or count["floor"] > group.floor:
            return False
        if count["hit"] != count["hold"] or count["hit"] > group.pad_pairs:
            return False
        for who, kind in here.items():
            if kind in group.shut[who] or (kind == "away") == group.here(who, wave + 1):
                return False
        for one, other in group.together:
            if {here[one], here[other]} & {"hit", "hold"} and {here[one], here[other]} != {"hit", "hold"}:
                return False
    return True


def _pinned(group: Group, near: Rows, bound: float, told: Callable[[float], None]) -> tuple[Rows, float]:
    """Around what is pinned only the solver finds a rotation."""
    try:
        return _better(group, None, bound, told, near if set(near) == set(group.people) else None)
    except _NoneError as error:
        raise ClassError(_too_much_pinned(group), "pins") from error


def _too_much_pinned(group: Group) -> str:
    """The first wave in which what is pinned leaves no way for the others, in words."""
    for wave in range(1, group.waves + 1):
        own = tuple(pin for pin in group.pins if pin[1] == wave)
        if not own:
            continue
        model = _Model(replace(group, pins=own))
        if solver_with(WAIT_BUDGET).solve(model.model) not in _FOUND:
            said = ", ".join(f"{who} at {station}" for who, _, station in own)
            return f"in wave {wave} this cannot all be: {said}; let one of them go"
    return "what is put somewhere cannot all hold; let one go"


class _NoneError(Exception):
    """There is no rotation at all."""


def _better(
    group: Group, rows: Rows | None, bound: float, told: Callable[[float], None], near: Rows | None = None
) -> tuple[Rows, float]:
    """From a rotation to a better one: first as little waiting as can be, then the turns, with that as it is.

    Raises `_NoneError` where there is none to begin with and none is found.
    """
    model = _Model(group)
    waiting = model.waiting()
    start = rows or near
    if start is not None:
        model.hint(start)
    model.model.minimize(waiting)
    solver = solver_with(WAIT_BUDGET)
    if solver.solve(model.model) not in _FOUND:
        if rows is None:
            raise _NoneError
        return rows, bound
    told(0.4)
    fewest, proven = round(solver.objective_value), solver.best_objective_bound
    found = model.read(solver)
    if rows is None or against(group, found).points < against(group, rows).points:
        rows = found
    model.model.add(waiting == fewest)
    model.hint(rows if against(group, rows).waiting == fewest else found)
    model.model.minimize(model.sharing())
    told(0.6)
    solver = solver_with(SHARE_BUDGET)
    if solver.solve(model.model) in _FOUND:
        shared = model.read(solver)
        if against(group, shared).points < against(group, rows).points:
            rows = shared
        if proven >= fewest - 0.5:
            bound = max(bound, WAIT * fewest + solver.best_objective_bound)
        if near is not None:
            rows = _nearest(model, rows, near, round(solver.objective_value)) or rows
    return rows, bound


def _nearest(model: "_Model", rows: Rows, near: Rows, points: int) -> Rows | None:
    """Of the rotations that are as good, the one in which the fewest go elsewhere than before."""
    model.model.add(model.sharing() <= points)
    stays_put = [
        var for (who, wave, kind), var in model.at.items() if wave <= len(near[who]) and near[who][wave - 1] == kind
    ]
    model.hint(rows)
    model.model.maximize(sum(stays_put))
    solver = solver_with(SHARE_BUDGET)
    if solver.solve(model.model) not in _FOUND:
        return None
    found = model.read(solver)
    return found if against(model.group, found).points <= against(model.group, rows).points else None


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
