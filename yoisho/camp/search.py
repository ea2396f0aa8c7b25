"""Searching a camp's model: a first plan, then some weeks of it solved anew while the others stand."""

from collections.abc import Callable, Sequence
from typing import Any

from ortools.sat.python import cp_model

from yoisho.camp.model import Counts
from yoisho.camp.points import Model
from yoisho.counted import solver_with

FIRST_BUDGET, WINDOW_BUDGET, AT_ONCE_BUDGET, WHOLE_BUDGET = 0.15, 0.05, 1.0, 6.0
"""Deterministic seconds of the solver, each about one of an ordinary machine: for a first plan, for some weeks of it
anew, for everything at once where the bound is far, and where the two steps do not come out."""
WINDOWS = (4, 6)
"""So many weeks are solved anew at once, while the others stand."""
CLOSE, ENOUGH = 0.01, 0.02
"""Shares of the bound from which the weeks, and the days, are good enough."""
MOST_WINDOWS = 14
Told = Callable[[float], None]
Values = Sequence[int]
"""Of every variable, by its index."""


def quick(budget: float) -> cp_model.CpSolver:
    """Without what costs more here than it saves."""
    solver = solver_with(budget)
    solver.parameters.symmetry_level = 0
    solver.parameters.cp_model_probing_level = 0
    return solver


def gap(value: float, bound: float) -> float:
    """Share by which a better plan could still be better [0 to 1]."""
    return min(1.0, max(0.0, bound - value) / max(1.0, abs(bound)))


class Search:
    """The best of a model, found in a first search and then by solving some weeks anew while the others stand."""

    def __init__(
        self, camp: Model, budget: float, told: Told, bound: float = float("inf"), counts: Counts | None = None
    ):
        self.camp, self.told, self.bound = camp, told, bound
        self.best: Values | None = None
        self.value = float("-inf")
        camp.model.maximize(camp.points())
        if counts is not None:
            model, solver = camp.model.clone(), quick(budget)
            camp.count(model, counts)
            self._take(solver, solver.solve(model))
        self.impossible = False
        while self.best is None and not self.impossible and budget <= WHOLE_BUDGET:
            solver = quick(budget)
            status = solver.solve(camp.model)
            self.impossible = status == cp_model.INFEASIBLE
            if camp.known is None:
                self.bound = min(self.bound, solver.best_objective_bound)
            self._take(solver, status)
            budget *= 5

    @property
    def gap(self) -> float | None:
        return None if self.best is None else gap(self.value, self.bound)

    def _take(self, solver: cp_model.CpSolver, status: Any) -> bool:
        """Whether it is better than what there was."""
        if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE) or solver.objective_value <= self.value:
            return False
        count = len(self.camp.model.proto.variables)
        self.best = [solver.value(self.camp.model.get_int_var_from_proto_index(at)) for at in range(count)]
        self.value = solver.objective_value
        self.told(1.0 - gap(self.value, self.bound))
        return True

    def improve(self) -> None:
        """Window after window, until no width betters anything or the bound is near."""
        first, last = self.camp.to_come[0].number, self.camp.to_come[-1].number
        left, close = MOST_WINDOWS, CLOSE if self.camp.coarse else ENOUGH
        for width in WINDOWS:
            better = True
            while better:
                better = False
                for begin in range(first, max(first, last - width + 1) + 1, width // 2):
                    if not left or (self.gap is not None and self.gap <= close):
                        return
                    left -= 1
                    better = self._anew(range(begin, begin + width)) or better

    def _anew(self, window: range) -> bool:
        assert self.best is not None
        model = self.camp.model.clone()
        for at, value in enumerate(self.best):
            model.add_hint(model.get_int_var_from_proto_index(at), value)
        for spot, var in self.camp.spots.items():
            if self.camp.camp.week_of(spot.on).number not in window:
                model.add(model.get_int_var_from_proto_index(var.index) == self.best[var.index])
        solver = quick(WINDOW_BUDGET)
        return self._take(solver, solver.solve(model))
