"""Camps and what stands to choose from, made for tests: numbers by hand, nothing simulated."""

from datetime import date

from yoisho.camp.camp import Camp
from yoisho.camp.ladders import Choices, Ladder, Step
from yoisho.camp.plan import SIZES, Cost, Placed, Plan
from yoisho.camp.rules import Ceilings
from yoisho.session.document import Session

MONDAY = date(2027, 1, 4)
SESSION = Session("Made", ())
NO_CEILING = Ceilings({}, {})


def cost(load=200, minutes=40, *, lactic=False, hard=None, hands=300, barred=()):
    strikes = {"left hand": hands, "right hand": hands}
    return Cost(load, load / minutes, 60 * minutes, strikes, strikes, lactic, lactic if hard is None else hard, barred)


def ladder(purpose, *loads, minutes=40, lactic=False, hard=False, hands=300, barred=(), shortens=True):
    """A step for each load; smaller sizes are as much less, unless it cannot be shortened."""
    steps = []
    for number, load in enumerate(loads):
        costs = {
            size: cost(
                round(load * share),
                round(minutes * share),
                lactic=lactic,
                hard=hard or lactic,
                hands=round(hands * share),
                barred=barred,
            )
            for size, share in ((size, share if shortens else 1.0) for size, share in SIZES.items())
        }
        steps.append(Step(f"turn {number}", "rest", "", 3, 180, 90 - 15 * number, dict.fromkeys(SIZES, SESSION), costs))
    return Ladder(purpose, purpose, tuple(steps))


def choices(*ladders):
    return Choices({each.purpose: each for each in ladders}, {})


USUAL = choices(
    ladder("threshold", 220, 230, 240, 260, hard=True),
    ladder("lactic-capacity", 250, 270, 280, lactic=True),
    ladder("skill", 120, 130, minutes=30),
    ladder("fight-rehearsal", 180, 200),
    ladder("sparring", 150, hands=200),
    ladder("test", 260, lactic=True),
)


def camp(weeks=8, **said):
    """To a bout on a Saturday, so many weeks from a Monday."""
    days = 7 * weeks - 2
    told = {"start": MONDAY, "bout_on": date.fromordinal(MONDAY.toordinal() + days), "rule_set": "muay-thai-amateur"}
    return Camp(**{**told, **said})


def day(week, weekday):
    """A day of a week from 1: Monday is 0."""
    return date.fromordinal(MONDAY.toordinal() + 7 * (week - 1) + weekday)


def placed(week, weekday, purpose="threshold", **said):
    about = {name: said.pop(name) for name in ("load", "minutes", "lactic", "hard", "hands", "barred") if name in said}
    return Placed(day(week, weekday), purpose, cost(**about), **said)


def plan(*held):
    return Plan(tuple(held))
