"""What the Camp shows of a plan: its weeks, its rules and what was done."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import date

from yoisho.camp.camp import Camp, Phase, Week
from yoisho.camp.plan import Placed, Plan, limbs, load
from yoisho.camp.rules import Breach, Ceilings, Ruled, ruled, turns
from yoisho.judgement.cautions import Severity
from yoisho.strikes.counts import Limb

NOTHING_PROMISED = (
    "No adaptation is promised: a plan says what is done, and nobody can say beforehand what it makes of a person."
)
TAKEN_FOR = "Loads and strikes are the engine's best guess before a session is done, and what was logged after it."


@dataclass(frozen=True)
class BreachAnswer:
    text: str
    days: list[date]
    over: bool
    """It is past: nothing can be done about it."""


@dataclass(frozen=True)
class RuleAnswer:
    id: str
    seal: str
    hard: bool
    may_give: bool
    """Whether a coach may give way on it."""
    softened: bool
    severity: Severity
    sentence: str
    source: str
    breaches: list[BreachAnswer]


@dataclass(frozen=True)
class WeekAnswer:
    number: int
    first: date
    last: date
    phase: Phase
    whole: bool
    load: int
    """As planned, and as logged where it was done."""
    done_load: int
    limbs: dict[Limb, int]
    done_limbs: dict[Limb, int]
    turned: list[str]
    """Purposes whose knob is turned on in it."""


def _over(breach: Breach, camp: Camp, today: date) -> bool:
    """Whether the week of its last day is past."""
    last = max(breach.days)
    return (camp.week_of(last).last if camp.start <= last <= camp.last else last) < today


def _rule(each: Ruled, camp: Camp, may_give: Sequence[str], today: date) -> RuleAnswer:
    rule = each.rule
    return RuleAnswer(
        rule.id, rule.seal, rule.hard, rule.id in may_give, rule.id in camp.softened, rule.severity, each.sentence,
        rule.source, [BreachAnswer(one.text, list(one.days), _over(one, camp, today)) for one in each.breaches],
    )  # fmt: skip


def rules_answer(camp: Camp, plan: Plan, held_by: Ceilings, may_give: Sequence[str], today: date) -> list[RuleAnswer]:
    """What is broken first, the weightiest before the others."""
    found = [_rule(each, camp, may_give, today) for each in ruled(camp, plan, held_by)]
    order = {"stop": 0, "caution": 1, "note": 2}
    return sorted(found, key=lambda each: (not each.breaches, order[each.severity] if each.breaches else 0))


def weeks_answer(camp: Camp, plan: Plan, done: frozenset[str]) -> list[WeekAnswer]:
    """Week by week; `done` are the ids of what was logged."""

    def week(each: Week, turned: list[str]) -> WeekAnswer:
        held = plan.of(each)
        inked = [one for one in held if one.id in done]
        return WeekAnswer(
            each.number, each.first, each.last, each.phase, each.whole, load(held), load(inked), limbs(held),
            limbs(inked), sorted(set(turned)),
        )  # fmt: skip

    return [week(each, turned) for each, turned in turns(camp, plan)]


def as_done(placed: Placed, rpe: float, seconds: float, strikes: dict[Limb, float]) -> Placed:
    """A session as it was logged: what it cost, in the place of what was expected."""
    counted = {limb: round(n) for limb, n in strikes.items()}
    whole, planned = sum(counted.values()), sum(placed.cost.limbs.values())
    share = whole / planned if planned else 0.0
    landed = {limb: round(n * share) for limb, n in placed.cost.landed.items()}
    cost = replace(
        placed.cost, load=round(rpe * seconds / 60), rpe=rpe, total_s=round(seconds), limbs=counted, landed=landed
    )
    return replace(placed, cost=cost)
