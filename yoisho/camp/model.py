"""The variables of a camp for the solver: which session on which day, at which step; what stands already; what is read
back."""

from collections import defaultdict
from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace
from datetime import date
from functools import cached_property
from typing import Any

from ortools.sat.python import cp_model

from yoisho.camp.camp import BESIDES, TRAVEL, WEEKDAYS, Camp, Week, days
from yoisho.camp.ladders import Choices
from yoisho.camp.plan import SIZES, Cost, Placed, Plan, Size, load
from yoisho.camp.rules import BARS, BY_ID, Ceilings, still
from yoisho.camp.weights import weights_of

Var = Any
"""A variable or a linear expression of CP-SAT, whose types speak of themselves alone."""


@dataclass(frozen=True)
class Ask:
    """What is solved: a camp with what stands to choose from, and what is not to be touched."""

    camp: Camp
    choices: Choices
    ceilings: Ceilings
    kept: tuple[Placed, ...] = ()
    """Locked, or past."""
    today: date | None = None
    """Nothing is put on days before it."""
    hold: frozenset[tuple[str, int]] = frozenset()
    """Purposes whose knob is not turned in a week."""
    without: frozenset[str] = frozenset()
    """Rules that are not kept."""


@dataclass(frozen=True)
class Spot:
    """One way to fill a day."""

    on: date
    purpose: str
    step: int
    size: Size
    cost: Cost = field(compare=False)


Steps = Mapping[tuple[str, int], int]
"""The step of each purpose in each week, by its number."""
Counts = dict[tuple[int, str, Size], int]
"""How many sessions, by week, purpose and size."""


class Frame:
    """The variables of a camp, and what keeps them together; its rules stand in `constraints.py`.

    With `guarded`, every hard rule stands under a literal of its own, to be switched on and off. With `coarse`, a spot
    is so many sessions somewhere in a week, and stands at the week's first free day: what is about single days is left
    out, so that what it cannot do, nothing can. With `steps`, those are not chosen any more.
    """

    def __init__(self, ask: Ask, *, guarded: bool = False, coarse: bool = False, steps: Steps | None = None):
        self.ask, self.camp, self.guarded, self.coarse, self.known = ask, ask.camp, guarded, coarse, steps
        # The last lactic day gives way by its own day, not by being left out.
        self.without = ask.without | (frozenset(ask.camp.softened) - {"lactic-cutoff"})
        self.model = cp_model.CpModel()
        self.guards: dict[tuple[str, str], Var] = {}
        self.kept = Plan(ask.kept)
        self.first = max(ask.today or self.camp.start, self.camp.start)
        self.weights = weights_of(self.camp)
        self.spots: dict[Spot, Var] = {}
        self.by_day: dict[date, list[Spot]] = defaultdict(list)
        self._fill()
        self._steps()

    # Pieces

    def guard(self, rule: str, instance: str = "") -> list[Var]:
        assert BY_ID[rule].hard
        if not self.guarded:
            return []
        key = rule, instance
        if key not in self.guards:
            self.guards[key] = self.model.new_bool_var(f"{rule} {instance}")
        return [self.guards[key]]

    def keep(self, rule: str, constraint: Any, instance: str = "") -> None:
        """Something that holds as long as its rule is kept."""
        if rule in self.without:
            return
        self.model.add(constraint).only_enforce_if(self.guard(rule, instance))

    def or_nothing_more(self, rule: str, constraint: Any, free: Var, *, kept: bool) -> None:
        """As `keep`; where what stands already goes past it, nothing more is added instead."""
        if not kept or rule in self.without:
            self.keep(rule, constraint)
            return
        within = self.model.new_bool_var("")
        self.model.add(constraint).only_enforce_if([within, *self.guard(rule)])
        self.model.add(free == 0).only_enforce_if([within.negated(), *self.guard(rule)])

    @cached_property
    def free_days(self) -> tuple[date, ...]:
        return tuple(days(self.first, self.camp.last)) if self.first <= self.camp.last else ()

    def _fill(self) -> None:
        fixtures = defaultdict(set)
        for on, purpose in self.camp.fixtures:
            fixtures[on].add(purpose)
        for on in self.free_days:
            week = self.camp.week_of(on)
            held = self.kept.on(on)
            open_day = WEEKDAYS[on.weekday()] in self.camp.days and TRAVEL not in fixtures[on]
            for purpose, ladder in self.ask.choices.ladders.items():
                fixed = purpose in fixtures[on]
                if not fixed and (purpose in BESIDES or not open_day or purpose not in self.weights):
                    continue
                if any((each.purpose == "skill") == (purpose == "skill") for each in held):
                    continue
                sizes: Iterable[Size] = SIZES if fixed or not week.whole else ("whole",)
                for number, step in enumerate(ladder.steps):
                    if self.known is not None and self.known[purpose, week.number] != number:
                        continue
                    for size in sizes:
                        self._spot(Spot(on, purpose, number, size, step.costs[size]), week)

    def _spot(self, spot: Spot, week: Week) -> None:
        """A way to fill a day; left out where a rule shuts it, unless rules are to be switched off."""
        shut = [rule for rule in self._shut(spot) if rule not in self.without]
        if shut and not self.guarded:
            return
        if self.coarse:
            stands_at = replace(spot, on=max(week.first, self.first))
            if stands_at in self.spots:
                return
            spot = stands_at
        var = self.model.new_int_var(0, 7, "") if self.coarse else self.model.new_bool_var("")
        self.spots[spot] = var
        self.by_day[spot.on].append(spot)
        for rule in shut:
            self.keep(rule, var == 0)

    def _shut(self, spot: Spot) -> Iterator[str]:
        """The rules that a spot breaks by itself."""
        camp = self.camp
        minutes = camp.minutes_on(spot.on)
        if spot.cost.total_s > 60 * minutes:
            yield "available"
        if spot.cost.lactic and camp.lactic_until is not None and spot.on > camp.lactic_until:
            yield "lactic-cutoff"
        if spot.purpose == "fight-rehearsal" and camp.rehearsal_from is not None and spot.on < camp.rehearsal_from:
            yield "rehearsal"
        for rule in BARS:
            if any(bar.rule == rule and bar.on(spot.on) for bar in spot.cost.barred):
                yield rule

    def chosen(self, first: date, last: date, wanted: Callable[[Spot], int] = lambda spot: 1) -> Var:
        """The sum over what is chosen from the first to the last day."""
        found = [
            (weight, self.spots[spot])
            for day in days(first, last)
            for spot in self.by_day.get(day, ())
            if (weight := wanted(spot))
        ]
        return cp_model.LinearExpr.weighted_sum([var for _, var in found], [weight for weight, _ in found])

    def load(self, first: date, last: date) -> tuple[Var, int]:
        """The load of some days, and how much of it stands already."""
        kept = load(self.kept.within(first, last))
        return self.chosen(first, last, lambda spot: spot.cost.load) + kept, kept

    # Steps of the knobs

    def _steps(self) -> None:
        """At which step each purpose stands in each week that is still to come."""
        self.at: dict[tuple[str, int], Var] = {}
        self.rise: dict[tuple[str, int], Var] = {}
        self.is_at: dict[tuple[str, int], list[Var]] = {}
        self.to_come = [week for week in self.camp.calendar if week.last >= self.first]
        for purpose, ladder in self.ask.choices.ladders.items():
            top = len(ladder.steps) - 1
            at: Var
            before: Var = self._begun(purpose, top)
            for week in self.to_come:
                if self.known is not None:
                    at = self.known[purpose, week.number]
                    self.at[purpose, week.number], self.rise[purpose, week.number] = at, at - before
                    before = at
                    continue
                is_at = [self.model.new_bool_var("") for _ in ladder.steps]
                self.model.add_exactly_one(is_at)
                self.is_at[purpose, week.number] = is_at
                at = cp_model.LinearExpr.weighted_sum(is_at, list(range(top + 1)))
                self.model.add(at >= before)
                self.at[purpose, week.number], self.rise[purpose, week.number] = at, at - before
                for day in week.days:
                    for spot in self.by_day.get(day, ()):
                        if spot.purpose == purpose:
                            self.model.add(self.spots[spot] == 0).only_enforce_if(is_at[spot.step].negated())
                before = at

    def _begun(self, purpose: str, top: int) -> int:
        """The step that a purpose has reached in the weeks that are over."""
        over = [week for week in self.camp.calendar if week.last < self.first]
        steps = [each.step for week in over for each in self.stood(week, purpose) if each.step is not None]
        return min(top, max(steps, default=0))

    def stood(self, week: Week, purpose: str) -> tuple[Placed, ...]:
        return tuple(each for each in self.kept.of(week) if each.purpose == purpose)

    def trained(self, purpose: str, week: Week) -> Var:
        chosen = self.chosen(week.first, week.last, lambda spot: int(spot.purpose == purpose))
        return chosen + len(self.stood(week, purpose))

    def knobs(self) -> None:
        for week in self.to_come:
            rises = [self.rise[purpose, week.number] for purpose in self.ask.choices.ladders]
            if self.known is None:
                self.keep("one-knob", sum(rises) <= (0 if still(self.camp, week) else 1))
            for purpose in self.ask.choices.ladders:
                rise = self.rise[purpose, week.number]
                if isinstance(rise, int) and not rise:
                    continue
                # A knob is turned where it is felt: on a session that is done, and was done before.
                self.keep("one-knob", rise <= self.trained(purpose, week))
                earlier = self.camp.calendar[: week.number - 1]
                self.keep("one-knob", rise <= sum(self.trained(purpose, each) for each in earlier))
                if self.known is not None:
                    continue
                if (purpose, week.number) in self.ask.hold:
                    self.keep("one-knob", rise == 0)
                steps = [each.step for each in self.stood(week, purpose) if each.step is not None]
                if steps:
                    self.keep("one-knob", self.at[purpose, week.number] == max(steps))

    # Reading it back

    def steps(self, values: Sequence[int]) -> Steps:
        found = {}
        for (purpose, number), is_at in self.is_at.items():
            found[purpose, number] = next(step for step, var in enumerate(is_at) if values[var.index])
        return found

    def counts(self, values: Sequence[int]) -> Counts:
        """How many of each session a week holds."""
        found: Counts = defaultdict(int)
        for spot, var in self.spots.items():
            found[self.camp.week_of(spot.on).number, spot.purpose, spot.size] += values[var.index]
        return found

    def count(self, model: cp_model.CpModel, counts: Counts) -> None:
        """Hold a copy of the model to so many of each session a week."""
        same: dict[tuple[int, str, Size], list[Var]] = defaultdict(list)
        for spot, var in self.spots.items():
            key = self.camp.week_of(spot.on).number, spot.purpose, spot.size
            same[key].append(model.get_int_var_from_proto_index(var.index))
        for key, vars_ in same.items():
            model.add(sum(vars_) == counts.get(key, 0))

    def plan(self, values: Sequence[int]) -> Plan:
        found = [spot for spot, var in self.spots.items() if values[var.index]]
        placed = [
            Placed(spot.on, spot.purpose, spot.cost, spot.step, spot.size, order=-1 if spot.purpose == "skill" else 100)
            for spot in found
        ]
        whole = Plan((*self.ask.kept, *placed))
        return Plan(tuple(replace(each, order=number) for day in sorted({one.on for one in whole.placed})
                          for number, each in enumerate(whole.on(day))))  # fmt: skip
