"""Solving a camp: which session on which day, at which step of its knobs, so that every hard rule holds.

The choice is made by OR-Tools CP-SAT over weeks x days x purposes x steps x sizes; what is locked or past stands as it
is. It is made twice: first how many of each session a week holds, whatever the day (a looser problem, whose bound holds
for the whole), then on which day, with the steps that were found. The same camp, choices and seed give the same plan:
the search has one thread and a budget that is counted, not timed.
"""

from collections import defaultdict
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Literal

from ortools.sat.python import cp_model

from yoisho.camp import search
from yoisho.camp.model import Ask
from yoisho.camp.plan import Plan
from yoisho.camp.points import Model
from yoisho.camp.rules import BY_ID
from yoisho.camp.search import AT_ONCE_BUDGET, FIRST_BUDGET, WHOLE_BUDGET, Search, Told, quick

Status = Literal["optimal", "feasible", "impossible"]
CLASH_BUDGET = 2.0
"""For each question whether some rules can be kept together."""
PROVEN = 5e-5
"""Share of the bound that is none."""


@dataclass(frozen=True)
class Clash:
    """A rule that cannot be kept together with the others that are named."""

    rule: str
    sentence: str
    said: tuple[str, ...] = ()
    """Which of what it says, where it says several things."""


@dataclass(frozen=True)
class Solved:
    status: Status
    plan: Plan | None
    bound_gap: float | None
    """Share by which a better plan could still be better; 0 where this is proven best, None where there is none."""
    clash: tuple[Clash, ...] = ()


def solve(ask: Ask, told: Told | None = None) -> Solved:
    """The best plan that keeps every hard rule; where there is none, the smallest set of rules that clash."""
    told = told or (lambda share: None)
    weeks = Search(Model(ask, coarse=True), FIRST_BUDGET, lambda share: told(0.6 * share))
    if weeks.impossible:
        return Solved("impossible", None, None, clash(ask))
    found = None
    if weeks.best is not None:
        weeks.improve()
        days_ = Model(ask, steps=weeks.camp.steps(weeks.best))
        counts = weeks.camp.counts(weeks.best)
        found = Search(days_, FIRST_BUDGET, lambda share: told(0.6 + 0.4 * share), weeks.bound, counts)
    if found is None or found.best is None:
        found = Search(Model(ask), WHOLE_BUDGET, told, weeks.bound)
    if found.best is None:
        return Solved("impossible", None, None, clash(ask))
    found.improve()
    if found.gap is not None and found.gap > search.ENOUGH and found.camp.known is not None:
        # Odd days and hours tie the weeks to what single days hold: everything at once proves more, and may find more.
        whole = Search(Model(ask), AT_ONCE_BUDGET, told, found.bound)
        if whole.value > found.value:
            found = whole
            found.improve()
        else:
            found.bound = whole.bound
    assert found.best is not None
    assert found.gap is not None
    return Solved("optimal" if found.gap < PROVEN else "feasible", found.camp.plan(found.best), round(found.gap, 4))


def possible(ask: Ask) -> bool:
    """Whether there is any plan that keeps every hard rule. What is not settled within the budget counts as none."""
    status = quick(WHOLE_BUDGET).solve(Model(ask).model)
    return status in (cp_model.OPTIMAL, cp_model.FEASIBLE)


def _possible(camp: Model, kept: Iterable[tuple[str, str]]) -> bool:
    """Whether some rules can be kept together. What is not settled within the budget counts as possible."""
    camp.model.clear_assumptions()
    camp.model.add_assumptions([camp.guards[key] for key in kept])
    return quick(CLASH_BUDGET).solve(camp.model) != cp_model.INFEASIBLE


def clash(ask: Ask) -> tuple[Clash, ...]:
    """The smallest set of hard rules that cannot be kept together: without any one of them the others can."""
    camp = Model(ask, guarded=True)
    of_rule: dict[str, list[tuple[str, str]]] = defaultdict(list)
    for key in camp.guards:
        of_rule[key[0]].append(key)
    # The heaviest rules are kept longest: what is named is what a coach can give way on.
    rules = [rule for rule in reversed(BY_ID) if rule in of_rule]
    for rule in list(rules):
        rest = [other for other in rules if other != rule]
        if not _possible(camp, (key for other in rest for key in of_rule[other])):
            rules = rest
    keys = [key for rule in rules for key in of_rule[rule]]
    for key in list(keys):
        if len(of_rule[key[0]]) > 1:
            rest_of = [other for other in keys if other != key]
            if not _possible(camp, rest_of):
                keys = rest_of
    return tuple(
        Clash(rule, BY_ID[rule].sentence(ask.camp), tuple(text for each, text in keys if each == rule and text))
        for rule in BY_ID
        if rule in rules
    )
