"""The solver as it is used here: one thread, one seed, and a budget that is counted and not timed.

The same question has the same answer.
"""

from ortools.sat.python import cp_model

SEED = 20_260


def solver_with(budget: float) -> cp_model.CpSolver:
    """With so many deterministic seconds, each about one of an ordinary machine."""
    solver = cp_model.CpSolver()
    solver.parameters.random_seed = SEED
    solver.parameters.num_workers = 1
    solver.parameters.max_deterministic_time = budget
    return solver
