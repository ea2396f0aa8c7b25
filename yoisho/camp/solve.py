"""Solving a camp: which session on which day, at which step of its knobs, so that every hard rule holds.

The choice is made by OR-Tools CP-SAT over weeks x days x purposes x steps x sizes; what is locked or past stands as it
is. It is made twice: first how many of each session a week holds, whatever the day (a looser problem, whose bound holds
for the whole), then on which day, with the steps that were found. The same camp, choices and seed give the same plan:
the search has one thread and a budget that is counted, not timed.
"""

from collections import defaultdict
from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace
from datetime import date
from functools import cached_property
from math import ceil, floor
from typing import Any, Literal

from ortools.sat.python import cp_model

from yoisho.camp.camp import BESIDES, DAY, TRAVEL, WEEKDAYS, Camp, Phase, Week, days
from yoisho.camp.ladders import Choices
from yoisho.camp.plan import SIZES, Cost, Placed, Plan, Size, limbs, load
from yoisho.camp.rules import (
    BARS,
    BY_ID,
    EASE_AIM,
    EASE_MOST,
    LACTIC_GAP_DAYS,
    MOST_HARD_RUNNING,
    SEVEN_DAYS,
    TAPER_LEAST,
    TAPER_MOST,
    Ceilings,
    done,
    must_train,
    reference_weeks,
    rehearsal_weeks,
    said,
    still,
    taper_days,
)
from yoisho.camp.weights import emphasis, weights_of

SEED = 20_260
FIRST_BUDGET, WINDOW_BUDGET, AT_ONCE_BUDGET, WHOLE_BUDGET = 0.15, 0.05, 1.0, 6.0
"""Deterministic seconds of the solver, each about one of an ordinary machine: for a first plan, for some weeks of it
anew, for everything at once where the bound is far, and where the two steps do not come out."""
WINDOWS = (4, 6)
"""So many weeks are solved anew at once, while the others stand."""
CLOSE, ENOUGH = 0.01, 0.02
"""Shares of the bound from which the weeks, and the days, are good enough."""
MOST_WINDOWS = 14
CLASH_BUDGET = 2.0
"""For each question whether some rules can be kept together."""

# What the plan is good for, in points. Own settings.
SESSION = 1000
AGAIN = 200
"""The second session of a purpose in a week, and each further one twice as much."""
OFF_SHARE = 300
"""A session that a purpose has too many or too few in a phase of the camp."""
TURN = 150
"""A knob that is turned on, of the purpose that weighs most; as much less as another weighs less."""
ADJACENT = 60
NOT_REHEARSED = 800
SMALL = 100
"""A session that is shortened where the week is not eased."""
OFF_EASE = 1
"""Each unit of load that an ease week is off its half."""
OFF_TAPER = 5
"""Each unit of load under the least of a taper."""

Status = Literal["optimal", "feasible", "impossible"]
Var = Any
"""A variable or a linear expression of CP-SAT, whose types speak of themselves alone."""
Told = Callable[[float], None]


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


@dataclass(frozen=True)
class _Spot:
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


class _Camp:
    """The model.

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
        self.spots: dict[_Spot, Var] = {}
        self.by_day: dict[date, list[_Spot]] = defaultdict(list)
        self._fill()
        self._steps()
        self.hard: dict[date, Var] = {}
        pieces = [self._days, self._room, self._limbs, self._fixtures]
        if coarse:
            pieces = [self._room_in_weeks]
        for each in (*pieces, self._weeks, self._loads, self._knobs):
            each()

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

    def _or_nothing_more(self, rule: str, constraint: Any, free: Var, *, kept: bool) -> None:
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
                        self._spot(_Spot(on, purpose, number, size, step.costs[size]), week)

    def _spot(self, spot: _Spot, week: Week) -> None:
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

    def _shut(self, spot: _Spot) -> Iterator[str]:
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

    def chosen(self, first: date, last: date, wanted: Callable[[_Spot], int] = lambda spot: 1) -> Var:
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
        steps = [each.step for week in over for each in self._stood(week, purpose) if each.step is not None]
        return min(top, max(steps, default=0))

    def _stood(self, week: Week, purpose: str) -> tuple[Placed, ...]:
        return tuple(each for each in self.kept.of(week) if each.purpose == purpose)

    def _trained(self, purpose: str, week: Week) -> Var:
        chosen = self.chosen(week.first, week.last, lambda spot: int(spot.purpose == purpose))
        return chosen + len(self._stood(week, purpose))

    def _knobs(self) -> None:
        for week in self.to_come:
            rises = [self.rise[purpose, week.number] for purpose in self.ask.choices.ladders]
            if self.known is None:
                self.keep("one-knob", sum(rises) <= (0 if still(self.camp, week) else 1))
            for purpose in self.ask.choices.ladders:
                rise = self.rise[purpose, week.number]
                if isinstance(rise, int) and not rise:
                    continue
                # A knob is turned where it is felt: on a session that is done, and was done before.
                self.keep("one-knob", rise <= self._trained(purpose, week))
                earlier = self.camp.calendar[: week.number - 1]
                self.keep("one-knob", rise <= sum(self._trained(purpose, each) for each in earlier))
                if self.known is not None:
                    continue
                if (purpose, week.number) in self.ask.hold:
                    self.keep("one-knob", rise == 0)
                steps = [each.step for each in self._stood(week, purpose) if each.step is not None]
                if steps:
                    self.keep("one-knob", self.at[purpose, week.number] == max(steps))

    # Rules

    def _room_s(self, day: date) -> int:
        if "available" in self.without:
            return 24 * 3600
        return max(0, 60 * self.camp.minutes_on(day) - sum(each.cost.total_s for each in self.kept.on(day)))

    def _room(self) -> None:
        for day in self.free_days:
            for skill in (True, False):
                same = [self.spots[spot] for spot in self.by_day[day] if (spot.purpose == "skill") == skill]
                if same:
                    self.keep("one-a-day", sum(same) <= 1)
            total_s = self.chosen(day, day, lambda spot: spot.cost.total_s)
            if self.by_day[day]:
                self.keep("available", total_s <= self._room_s(day))

    def _room_in_weeks(self) -> None:
        """What the days of a week hold together."""
        wanted: dict[tuple[int, str], int] = defaultdict(int)
        for on, purpose in self.camp.fixtures:
            if purpose != TRAVEL and on >= self.first and not any(o.purpose == purpose for o in self.kept.on(on)):
                wanted[self.camp.week_of(on).number, purpose] += 1
        for week in self.to_come:
            free = [
                day for day in week.days if day >= self.first and (self._room_s(day) or "available" in self.without)
            ]
            for skill in (True, False):
                open_days = sum(not any((o.purpose == "skill") == skill for o in self.kept.on(day)) for day in free)
                count = self.chosen(week.first, week.last, lambda s, skill=skill: int((s.purpose == "skill") == skill))  # type: ignore[misc]
                self.keep("one-a-day", count <= open_days)
            room_s = sum(self._room_s(day) for day in free)
            # Beside a skill session there is room for another where both are short enough.
            twice = sum(self._shortest_s(week) <= self._room_s(day) and not self.kept.on(day) for day in free)
            self.keep("one-a-day", self.chosen(week.first, week.last) <= len(free) + twice)
            self.keep("available", self.chosen(week.first, week.last, lambda spot: spot.cost.total_s) <= room_s)
            lactic = self.chosen(week.first, week.last, lambda spot: int(spot.cost.lactic))
            self.keep("lactic-gap", lactic <= self._most_lactic(free))
            for limb, most in self.ask.ceilings.most.items():
                stood = limbs(self.kept.of(week), landed=True).get(limb, 0)
                struck = self.chosen(week.first, week.last, lambda s, limb=limb: s.cost.landed.get(limb, 0))  # type: ignore[misc]
                if len(week.days) == 7:
                    self.keep("strikes", struck <= max(0, most - stood))
            for purpose in self.ask.choices.ladders:
                least = wanted.get((week.number, purpose), 0)
                count = self.chosen(week.first, week.last, lambda s, p=purpose: int(s.purpose == p))  # type: ignore[misc]
                if least:
                    self.keep("fixed", count >= least)
                if purpose in BESIDES or purpose not in self.weights:
                    self.model.add(count <= least)

    def _shortest_s(self, week: Week) -> int:
        """The shortest skill session and another after it."""
        here = [spot for day in week.days for spot in self.by_day.get(day, ())]
        each = [[spot.cost.total_s for spot in here if (spot.purpose == "skill") == skill] for skill in (True, False)]
        return sum(min(lengths, default=24 * 3600) for lengths in each)

    def _most_lactic(self, free: Sequence[date]) -> int:
        """Lactic days that can stand among some days at the most."""
        stands = [on.on for on in done(self.kept.placed) if on.cost.lactic]
        count, last = 0, None
        for day in sorted(free):
            near = any(abs((day - on).days) < LACTIC_GAP_DAYS for on in stands)
            if not near and (last is None or (day - last).days >= LACTIC_GAP_DAYS):
                count, last = count + 1, day
        return count

    def _days(self) -> None:
        self.hard = {day: self._is(day, lambda cost: cost.hard) for day in days(self.camp.start, self.camp.last)}
        self.lactic = {day: self._is(day, lambda cost: cost.lactic) for day in days(self.camp.start, self.camp.last)}
        for day in self.hard:
            self._at_most(self.hard, day, MOST_HARD_RUNNING + 1, MOST_HARD_RUNNING, "hard-days")
            for gap in range(1, LACTIC_GAP_DAYS):
                self._at_most(self.lactic, day, gap + 1, 1, "lactic-gap")
            both = [self.spots[spot] for spot in self.by_day[day] if spot.cost.lactic]
            already = any(each.cost.lactic for each in done(self.kept.on(day)))
            if len(both) > 1 or (both and already):
                self.keep("lactic-gap", sum(both) <= (0 if already else 1))

    def _is(self, day: date, wanted: Callable[[Cost], bool]) -> Var:
        """Whether a day is of a kind, by what stands or is chosen."""
        if any(wanted(each.cost) for each in done(self.kept.on(day))):
            return 1
        ways = [self.spots[spot] for spot in self.by_day.get(day, ()) if wanted(spot.cost)]
        if not ways:
            return 0
        found = self.model.new_bool_var("")
        self.model.add_max_equality(found, ways)
        return found

    def _at_most(self, kind: dict[date, Var], day: date, running: int, most: int, rule: str) -> None:
        those = [kind.get(day + number * DAY, 0) for number in range(running)]
        known = sum(each for each in those if isinstance(each, int))
        if any(not isinstance(each, int) for each in those):
            self.keep(rule, sum(those) <= max(most, known))

    def _weeks(self) -> None:
        for week in self.to_come:
            sessions = self.chosen(week.first, week.last)
            held = len(self.kept.of(week))
            self.keep("most-a-week", sessions <= max(0, self.camp.most_a_week - held))
            if must_train(self.camp, week) and not held and any(day >= self.first for day in week.days):
                self.keep("trains", sessions >= 1, f"week {week.number}")

    def _loads(self) -> None:
        camp = self.camp
        climbs = 100 + round(100 * camp.most_climb)
        for week in self.to_come:
            before = camp.before(week)
            if before is None:
                continue
            (now, kept), (was, stood) = self.load(week.first, week.last), self.load(before.first, before.last)
            over = before.last < self.first
            if over and not stood:
                continue
            free = self.chosen(week.first, week.last)
            if week.whole:
                self._or_nothing_more("climb", 100 * now <= climbs * was, free, kept=kept > 0)
            elif week.phase == "ease":
                most = round(100 * EASE_MOST)
                self._or_nothing_more("ease", 100 * now <= most * was, free, kept=kept > 0)
        weeks = reference_weeks(camp)
        if camp.taper_from is None or not weeks or camp.last < self.first:
            return
        (now, kept), whole = self.load(camp.taper_from, camp.last), sum(self.load(w.first, w.last)[0] for w in weeks)
        if isinstance(whole, int) and not whole:
            return
        free = self.chosen(camp.taper_from, camp.last)
        share = round(100 * TAPER_MOST) * taper_days(camp)
        self._or_nothing_more("taper", 700 * len(weeks) * now <= share * whole, free, kept=kept > 0)

    def _limbs(self) -> None:
        for limb, most in self.ask.ceilings.most.items():
            for day in self.free_days:
                first = day - SEVEN_DAYS
                stood = limbs(self.kept.within(first, day), landed=True).get(limb, 0)
                struck = self.chosen(first, day, lambda spot, limb=limb: spot.cost.landed.get(limb, 0))  # type: ignore[misc]
                if self.by_day[day]:
                    self.keep("strikes", struck <= max(0, most - stood))

    def _fixtures(self) -> None:
        for on, purpose in self.camp.fixtures:
            if purpose == TRAVEL or on < self.first or any(each.purpose == purpose for each in self.kept.on(on)):
                continue
            ways = [self.spots[spot] for spot in self.by_day[on] if spot.purpose == purpose]
            name = BESIDES.get(purpose, purpose.replace("-", " "))
            self.keep("fixed", sum(ways) >= 1, f"{name} on {said(on)}")

    # What is best

    def points(self) -> Var:
        """What is maximised."""
        terms: list[Var] = []
        for week in self.to_come:
            for purpose in self.weights:
                if purpose in self.ask.choices.ladders:
                    terms += self._of_purpose(purpose, week)
        for (phase, purpose), share in self._shares().items():
            count = sum(self._trained(purpose, week) for week in self.camp.calendar if week.phase == phase)
            off = self.model.new_int_var(0, 100, "")
            self.model.add(off >= floor(share) - count)
            self.model.add(off >= count - ceil(share))
            terms.append(-OFF_SHARE * off)
        for spot, var in self.spots.items():
            if spot.size != "whole" and not still(self.camp, self.camp.week_of(spot.on)):
                terms.append(-SMALL * var)
        for day in self.free_days if not self.coarse else ():
            if day + DAY in self.hard and not (
                isinstance(self.hard[day], int) and isinstance(self.hard[day + DAY], int)
            ):
                both = self.model.new_bool_var("")
                self.model.add(both >= self.hard[day] + self.hard[day + DAY] - 1)
                terms.append(-ADJACENT * both)
        terms += self._at_the_end()
        return sum(terms)

    def _of_purpose(self, purpose: str, week: Week) -> list[Var]:
        count = self._trained(purpose, week)
        turn = round(TURN * self.weights[purpose] / max(self.weights.values()))
        over = [self.model.new_int_var(0, 14, "") for _ in range(2)]
        for number, each in enumerate(over, 1):
            self.model.add(each >= count - number)
        return [SESSION * count, *(-AGAIN * each for each in over), turn * self.rise[purpose, week.number]]

    def _shares(self) -> dict[tuple[Phase, str], float]:
        """How many sessions of each purpose a phase should hold, by its weight there and what is possible."""
        shares: dict[tuple[Phase, str], float] = defaultdict(float)
        for week in self.camp.calendar:
            here = {
                purpose: self.weights[purpose] * emphasis(purpose, week.phase)
                for purpose in self.weights
                if self._stood(week, purpose)
                or any(spot.purpose == purpose for day in week.days for spot in self.by_day.get(day, ()))
            }
            open_days = sum(self.camp.minutes_on(day) > 0 for day in week.days)
            besides = {(on, purpose) for on, purpose in self.camp.fixtures if purpose in BESIDES and on in week.days}
            sessions = max(0, min(self.camp.most_a_week, open_days) - sum(purpose != TRAVEL for _, purpose in besides))
            for purpose, weight in here.items():
                shares[week.phase, purpose] += sessions * weight / sum(here.values())
        return shares

    def _at_the_end(self) -> list[Var]:
        camp, terms = self.camp, []
        for week in self.to_come:
            before = camp.before(week)
            if week.phase == "ease" and before is not None:
                now, was = self.load(week.first, week.last)[0], self.load(before.first, before.last)[0]
                off = self.model.new_int_var(0, 10**6, "")
                self.model.add(100 * off >= 100 * now - round(100 * EASE_AIM) * was)
                self.model.add(100 * off >= round(100 * EASE_AIM) * was - 100 * now)
                terms.append(-OFF_EASE * off)
        if "fight-rehearsal" in self.ask.choices.ladders:
            for week in rehearsal_weeks(camp):
                if week in self.to_come:
                    missing = self.model.new_bool_var("")
                    self.model.add(missing >= 1 - self._trained("fight-rehearsal", week))
                    terms.append(-NOT_REHEARSED * missing)
        weeks = reference_weeks(camp)
        if camp.taper_from is not None and weeks and camp.last >= self.first:
            now = self.load(camp.taper_from, camp.last)[0]
            whole = sum(self.load(each.first, each.last)[0] for each in weeks)
            under = self.model.new_int_var(0, 10**6, "")
            least = round(100 * TAPER_LEAST) * taper_days(camp)
            self.model.add(700 * len(weeks) * under >= least * whole - 700 * len(weeks) * now)
            terms.append(-OFF_TAPER * under)
        return terms

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


def _solver(budget: float) -> cp_model.CpSolver:
    solver = cp_model.CpSolver()
    solver.parameters.random_seed = SEED
    solver.parameters.num_workers = 1
    # What they find out costs more here than it saves.
    solver.parameters.symmetry_level = 0
    solver.parameters.cp_model_probing_level = 0
    solver.parameters.max_deterministic_time = budget
    return solver


def gap(value: float, bound: float) -> float:
    """Share by which a better plan could still be better [0 to 1]."""
    return min(1.0, max(0.0, bound - value) / max(1.0, abs(bound)))


def solve(ask: Ask, told: Told | None = None) -> Solved:
    """The best plan that keeps every hard rule; where there is none, the smallest set of rules that clash."""
    told = told or (lambda share: None)
    weeks = _Search(_Camp(ask, coarse=True), FIRST_BUDGET, lambda share: told(0.6 * share))
    if weeks.impossible:
        return Solved("impossible", None, None, clash(ask))
    found = None
    if weeks.best is not None:
        weeks.improve()
        days_ = _Camp(ask, steps=weeks.camp.steps(weeks.best))
        counts = weeks.camp.counts(weeks.best)
        found = _Search(days_, FIRST_BUDGET, lambda share: told(0.6 + 0.4 * share), weeks.bound, counts)
    if found is None or found.best is None:
        found = _Search(_Camp(ask), WHOLE_BUDGET, told, weeks.bound)
    if found.best is None:
        return Solved("impossible", None, None, clash(ask))
    found.improve()
    if found.gap is not None and found.gap > ENOUGH and found.camp.known is not None:
        # Odd days and hours tie the weeks to what single days hold: everything at once proves more, and may find more.
        whole = _Search(_Camp(ask), AT_ONCE_BUDGET, told, found.bound)
        if whole.value > found.value:
            found = whole
            found.improve()
        else:
            found.bound = whole.bound
    assert found.best is not None
    assert found.gap is not None
    return Solved("optimal" if found.gap < PROVEN else "feasible", found.camp.plan(found.best), round(found.gap, 4))


PROVEN = 5e-5
"""Share of the bound that is none."""
Values = Sequence[int]
"""Of every variable, by its index."""


class _Search:
    """The best of a model, found in a first search and then by solving some weeks anew while the others stand."""

    def __init__(
        self, camp: _Camp, budget: float, told: Told, bound: float = float("inf"), counts: Counts | None = None
    ):
        self.camp, self.told, self.bound = camp, told, bound
        self.best: Values | None = None
        self.value = float("-inf")
        camp.model.maximize(camp.points())
        if counts is not None:
            model, solver = camp.model.clone(), _solver(budget)
            camp.count(model, counts)
            self._take(solver, solver.solve(model))
        self.impossible = False
        while self.best is None and not self.impossible and budget <= WHOLE_BUDGET:
            solver = _solver(budget)
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
        solver = _solver(WINDOW_BUDGET)
        return self._take(solver, solver.solve(model))


def possible(ask: Ask) -> bool:
    """Whether there is any plan that keeps every hard rule. What is not settled within the budget counts as none."""
    status = _solver(WHOLE_BUDGET).solve(_Camp(ask).model)
    return status in (cp_model.OPTIMAL, cp_model.FEASIBLE)


def _possible(camp: _Camp, kept: Iterable[tuple[str, str]]) -> bool:
    """Whether some rules can be kept together. What is not settled within the budget counts as possible."""
    camp.model.clear_assumptions()
    camp.model.add_assumptions([camp.guards[key] for key in kept])
    return _solver(CLASH_BUDGET).solve(camp.model) != cp_model.INFEASIBLE


def clash(ask: Ask) -> tuple[Clash, ...]:
    """The smallest set of hard rules that cannot be kept together: without any one of them the others can."""
    camp = _Camp(ask, guarded=True)
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
