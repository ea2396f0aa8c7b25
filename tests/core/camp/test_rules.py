"""Each rule of the table: what it lets pass, and what it speaks of."""

from dataclasses import replace
from datetime import timedelta

import pytest

from tests.core.camp.made import MONDAY, NO_CEILING, camp, day, placed, plan
from yoisho.camp.camp import MAY_GIVE, Camp, Fixed
from yoisho.camp.plan import Barred
from yoisho.camp.rules import BY_ID, RULES, Ceilings, ceilings, ruled
from yoisho.judgement.limits import Limit

CAMP = camp(8)
BOUT = CAMP.bout_on
LACTIC = {"lactic": True}
HARD = {"hard": True}


def broken(held, asked=CAMP, held_by=NO_CEILING):
    """The rules that speak of a plan, with what they say."""
    return {each.rule.id: each.breaches for each in ruled(asked, plan(*held), held_by) if each.breaches}


def on(date, purpose="lactic-capacity", **said):
    return replace(placed(1, 0, purpose, **said), on=date)


FIRST = [placed(1, 0, step=0), placed(1, 2, "skill", step=0)]
WEEKLY = [placed(week, 0, "skill", load=200) for week in (1, 2, 3, 5, 6)]
"""Something in each whole week."""


@pytest.mark.parametrize(
    ("rule", "passes", "speaks"),
    [
        ("lactic-gap", [placed(1, 0, **LACTIC), placed(1, 2, **LACTIC)],
         [placed(1, 0, **LACTIC), placed(1, 1, **LACTIC)]),
        ("lactic-gap", [placed(1, 0, **LACTIC)], [placed(1, 0, **LACTIC), placed(1, 0, "skill", **LACTIC)]),
        ("lactic-cutoff", [on(BOUT - timedelta(9), **LACTIC)], [on(BOUT - timedelta(8), **LACTIC)]),
        ("hard-days", [placed(1, 0, **HARD), placed(1, 1, **HARD), placed(1, 3, **HARD)],
         [placed(1, 0, **HARD), placed(1, 1, **HARD), placed(1, 2, **HARD)]),
        ("apart", [placed(1, 0, **HARD), placed(1, 2, **HARD)], [placed(1, 0, **HARD), placed(1, 1, **HARD)]),
        ("most-a-week", [placed(1, n) for n in (0, 1, 3, 5)], [placed(1, n) for n in (0, 1, 2, 3, 5)]),
        ("available", [placed(1, 0)], [placed(1, 2)]),
        ("available", [placed(1, 0, minutes=75)], [placed(1, 0, minutes=76)]),
        ("available", [placed(1, 0)], [on(BOUT, "skill")]),
        ("one-a-day", [placed(1, 0, "skill"), placed(1, 0, order=1)], [placed(1, 0), placed(1, 0, order=1)]),
        ("skill-first", [placed(1, 0, "skill"), placed(1, 0, order=1, **HARD)],
         [placed(1, 0, **HARD), placed(1, 0, "skill", order=1)]),
        ("climb", [placed(1, 0, load=200), placed(2, 0, load=230)], [placed(1, 0, load=200), placed(2, 0, load=231)]),
        ("ease", [placed(3, 0, load=200), placed(4, 0, load=120)], [placed(3, 0, load=200), placed(4, 0, load=121)]),
        ("taper", [*WEEKLY, placed(7, 0, load=100), placed(8, 0, load=100)],
         [*WEEKLY, placed(7, 0, load=100), placed(8, 0, load=130)]),
        ("taper-least", [*WEEKLY, placed(7, 0, load=100), placed(8, 0, load=100)], [*WEEKLY, placed(7, 0, load=100)]),
        ("frequency", [*WEEKLY, placed(7, 0), placed(8, 0)], [*WEEKLY, placed(7, 0)]),
        ("one-knob", [placed(1, 0, step=0), placed(2, 0, step=1)], [placed(1, 0, step=0), placed(2, 0, step=2)]),
        ("one-knob", [*FIRST, placed(2, 0, step=1), placed(2, 2, "skill", step=0)],
         [*FIRST, placed(2, 0, step=1), placed(2, 2, "skill", step=1)]),
        ("one-knob", [placed(3, 0, step=1), placed(4, 0, step=1)], [placed(3, 0, step=1), placed(4, 0, step=2)]),
        ("rehearsal", [on(CAMP.rehearsal_from, "fight-rehearsal")],
         [on(CAMP.rehearsal_from - timedelta(1), "fight-rehearsal")]),
        ("rehearsed", [placed(7, 0, "fight-rehearsal")], [placed(7, 0, "skill")]),
        ("trains", [placed(week, 0) for week in range(1, 9)], [placed(week, 0) for week in (1, 2, 4, 5, 6, 7, 8)]),
    ],
)  # fmt: skip
def test_a_rule_lets_pass_what_keeps_it_and_speaks_of_what_does_not(rule, passes, speaks):
    assert rule not in broken(passes)
    assert rule in broken(speaks)


def test_what_was_missed_costs_nothing():
    assert "lactic-gap" not in broken([placed(1, 0, **LACTIC), replace(placed(1, 1, **LACTIC), missed=True)])


def test_strikes_are_counted_over_any_seven_days():
    most = Ceilings({"left hand": 600}, {"left hand": "the limit set by the physician"})
    spread = [placed(1, 3, hands=400), placed(2, 1, hands=300)]
    assert "strikes" in broken(spread, held_by=most)
    assert "strikes" not in broken([spread[0], replace(spread[1], on=day(2, 3))], held_by=most)
    assert "the limit set by the physician" in broken(spread, held_by=most)["strikes"][0].text


def test_a_persons_own_ceiling_counts_where_it_is_lower_than_the_levels():
    own = Limit("most-strikes", limb="right hand", most=500, period="week", set_by="coach")
    most = ceilings("club", (own,))
    assert most.most["right hand"] == 500
    assert most.most["left hand"] == ceilings("club").most["left hand"] > 500
    high = replace(own, most=20_000)
    assert ceilings("club", (high,)).most == ceilings("club").most


def test_what_is_fixed_and_not_there_is_told():
    asked = camp(8, fixed=(Fixed("sparring", on=day(2, 5)),))
    assert "fixed" in broken([placed(2, 5)], asked)
    assert "fixed" not in broken([placed(2, 5, "sparring")], asked)


@pytest.mark.parametrize("rule", ["knock", "screening", "limits", "cautions"])
def test_what_bars_a_session_speaks_until_its_last_day(rule):
    barred = (Barred(rule, "not now", day(2, 0)),)
    assert rule in broken([placed(2, 0, barred=barred)])
    assert rule not in broken([placed(2, 1, barred=barred)])


def test_the_first_three_weeks_make_the_load_the_taper_is_measured_by():
    """Ease weeks are none of them: a plan is not let off because it eased."""
    light = [placed(4, 0, load=10)]
    assert "taper" not in broken([*WEEKLY, *light, placed(7, 0, load=100), placed(8, 0, load=100)])


def test_without_a_bout_nothing_speaks_of_one():
    block = Camp(start=MONDAY, weeks=4)
    late = [replace(placed(4, 5, **LACTIC), purpose="lactic-capacity")]
    assert not {"lactic-cutoff", "taper", "taper-least", "rehearsal", "rehearsed", "frequency"} & set(
        broken(late, block)
    )


def test_every_rule_tells_its_sentence_and_source_and_only_those_about_health_are_never_given_way_on():
    for rule in RULES:
        assert rule.sentence(CAMP).endswith(".")
        assert rule.source
    kept = {rule.id for rule in RULES if rule.hard} - set(MAY_GIVE)
    assert kept == {"knock", "screening", "limits", "cautions", "lactic-gap", "strikes", "skill-first"}
    assert set(MAY_GIVE) <= set(BY_ID)


def test_the_climb_is_told_with_its_criticism_and_the_taper_with_whom_it_was_studied_on():
    assert "proven" in BY_ID["climb"].sentence(CAMP)
    assert "none of fights" in BY_ID["taper"].sentence(CAMP)
