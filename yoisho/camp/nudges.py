"""Small changes to a plan that mend what a rule speaks of: a session moved, made shorter or left out, a knob turned
back."""

from collections.abc import Iterator
from dataclasses import dataclass, replace

from yoisho.camp.camp import Camp
from yoisho.camp.ladders import Choices
from yoisho.camp.plan import SIZES, Placed, Plan, load
from yoisho.camp.rules import Ceilings, Ruled, ruled, said

MOST_SHOWN = 3
MOST_TRIED = 150
WEIGHT = {"stop": 100, "caution": 20, "note": 3}
"""Of a rule that is broken, by its severity; one that may be broken weighs a third of it. Own setting."""


@dataclass(frozen=True)
class PlanNudge:
    name: str
    effect: str
    """What it does to the week's load, and which rules then hold."""
    placed: tuple[Placed, ...]
    """The whole plan with it."""


def _weight(rules: tuple[Ruled, ...]) -> float:
    return sum(len(each.breaches) * WEIGHT[each.rule.severity] * (1.0 if each.rule.hard else 1 / 3) for each in rules)


def _called(each: Placed) -> str:
    return each.purpose.replace("-", " ").replace("fight rehearsal", "bout rehearsal").capitalize()


def _changes(camp: Camp, choices: Choices, each: Placed) -> Iterator[tuple[str, Placed | None]]:
    """What may be done to one session, in words; None where it goes."""
    ladder = choices.ladders.get(each.purpose)
    if ladder is not None and each.step is not None:
        if each.step:
            step = ladder.steps[each.step - 1]
            back = replace(each, step=each.step - 1, cost=step.costs[each.size])
            yield f"{_called(each)} on {said(each.on)} back to {step.words}", back
        sizes = list(SIZES)
        for size in sizes[sizes.index(each.size) + 1 :]:
            shorter = replace(each, size=size, cost=ladder.steps[each.step].costs[size])
            yield f"{_called(each)} on {said(each.on)}: {size} of the rounds", shorter
    for day in camp.week_of(each.on).days:
        if day != each.on and camp.minutes_on(day):
            yield f"{_called(each)} from {said(each.on)} to {said(day)}", replace(each, on=day, order=9)
    yield f"{_called(each)} on {said(each.on)} left out", None


def nudges(
    camp: Camp, plan: Plan, held_by: Ceilings, choices: Choices, fixed: frozenset[str] = frozenset()
) -> tuple[PlanNudge, ...]:
    """The best changes of one session after which less is broken, and nothing that held before. `fixed` are the ids of
    what is not to be touched: locked, or past."""
    before = ruled(camp, plan, held_by)
    broken = {each.rule.id for each in before if each.breaches}
    days = {day for each in before for breach in each.breaches for day in breach.days}
    weeks = {camp.week_of(day).number for day in days if camp.start <= day <= camp.last}
    weight, found, tried = _weight(before), [], 0
    for each in plan.placed:
        if each.id in fixed or not camp.start <= each.on <= camp.last or camp.week_of(each.on).number not in weeks:
            continue
        for name, changed in _changes(camp, choices, each):
            tried += 1
            if tried > MOST_TRIED:
                break
            others = tuple(other for other in plan.placed if other is not each)
            after = Plan((*others, changed) if changed else others)
            rules = ruled(camp, after, held_by)
            now = {one.rule.id for one in rules if one.breaches}
            if now - broken or _weight(rules) >= weight:
                continue
            found.append(
                (
                    _weight(rules),
                    changed is None,
                    PlanNudge(name, _effect(camp, plan, after, each, broken - now), after.placed),
                )
            )
    found.sort(key=lambda one: one[:2])
    return tuple(nudge for _, _, nudge in found[:MOST_SHOWN])


def _effect(camp: Camp, before: Plan, after: Plan, each: Placed, mended: set[str]) -> str:
    week = camp.week_of(each.on)
    was, now = load(before.of(week)), load(after.of(week))
    moved = f"Week {week.number} load {was:,} to {now:,}" if was != now else f"Week {week.number} load stays"
    return f"{moved}; {len(mended)} more rule{'' if len(mended) == 1 else 's'} held." if mended else f"{moved}."
