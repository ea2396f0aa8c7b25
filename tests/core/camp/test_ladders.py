"""What stands to choose from: sessions whose knobs are turned in the trade's order, in whole and shortened."""

from datetime import date

import pytest

from tests.core.camp.made import MONDAY, camp
from yoisho.camp.camp import Camp, Fixed
from yoisho.camp.ladders import Circumstance, choices, cost_of, ladder, resized, sparring, standing, text_of
from yoisho.engine.person import person
from yoisho.engine.readout import read
from yoisho.judgement.circumstances import Circumstances, Screening
from yoisho.judgement.limits import Limit
from yoisho.session import shorthand
from yoisho.session.document import Part, Session
from yoisho.session.rules import RULE_SETS
from yoisho.session.timeline import unroll

WHO = person(level="fighter", rule_set="muay-thai-amateur")
NOTHING = Circumstance(WHO, Circumstances(of_somebody=False))


def session(line, purpose="threshold"):
    return Session("Mine", (Part("Main set", shorthand.read(line), purpose),))


THRESHOLD = session("3 x (1:00 speed, 1:00 power, 1:00 carry) rest 1:30")


def test_the_knob_is_rest_90_75_60_then_rounds_then_work():
    steps = ladder(THRESHOLD, "threshold", NOTHING, 75).steps
    assert [step.knob for step in steps[:5]] == [None, "rest", "rest", "rounds", "rounds"]
    assert [step.rest_s for step in steps[:3]] == [90, 75, 60]
    assert [step.rounds for step in steps[:5]] == [3, 3, 3, 4, 5]
    assert steps[-1].knob in ("rounds", "work")


def test_sprints_keep_their_rest():
    steps = ladder(session("8 x (6 all-out, 1:30 rest)", "sprint-power"), "sprint-power", NOTHING, 75).steps
    assert len(steps) > 1
    assert "rest" not in [step.knob for step in steps]


def test_no_step_is_longer_than_the_day():
    for step in ladder(THRESHOLD, "threshold", NOTHING, 18).steps:
        assert step.sessions["whole"].total_s <= 18 * 60


def test_smaller_sizes_have_fewer_rounds_of_the_same_work_and_rest():
    base = session("6 x (2:00 technique) rest 1:00", "skill")
    assert [standing(resized(base, size)) for size in ("whole", "two thirds", "half")] == [
        (6, 120, 60), (4, 120, 60), (3, 120, 60),
    ]  # fmt: skip
    assert standing(resized(session("20:00 flow"), "half"))[1] == 600
    assert standing(resized(session("3 x (3:00 freestyle) rest 1:00"), "half"))[0] == 1


def test_the_warm_up_is_not_shortened():
    warm = Session("Mine", (Part("Warm-up", shorthand.read("8:00 flow shadow"), "warm-up"), *THRESHOLD.parts))
    assert resized(warm, "half").parts[0] == warm.parts[0]


def test_what_a_session_costs_is_what_the_engine_expects_of_it():
    cost = cost_of(THRESHOLD, NOTHING, "threshold")
    reading = read(WHO, unroll(THRESHOLD.parts[0].tree))
    assert cost.load == pytest.approx(reading.figures["rpe"].value * THRESHOLD.total_s / 60, abs=1)
    assert sum(cost.limbs.values()) == pytest.approx(reading.volume.strikes, abs=2)
    assert not cost.lactic


def test_shadow_counts_as_strikes_and_not_as_what_lands():
    cost = cost_of(session("10:00 flow shadow", "skill"), NOTHING, "skill")
    assert sum(cost.limbs.values()) > 100
    assert not any(cost.landed.values())


def test_a_lactic_session_makes_a_hard_day_whatever_its_rating():
    cost = cost_of(session("8 x (30 all-out) rest 2:00", "lactic-power"), NOTHING, "lactic-power")
    assert cost.lactic
    assert cost.hard


def test_what_is_for_the_lactic_store_makes_a_lactic_day_however_few_its_rounds():
    one = session("1 x (10 all-out)", "lactic-power")
    assert cost_of(one, NOTHING, "lactic-power").lactic
    assert not cost_of(one, NOTHING, "sprint-power").lactic


def test_a_limit_bars_what_breaks_it_until_its_day():
    until = date(2027, 1, 20)
    limit = Limit("no-power", until=until, set_by="the physician")
    around = Circumstance(WHO, Circumstances(of_somebody=False, limits=(limit,)))
    barred = cost_of(THRESHOLD, around, "threshold").barred
    assert [(each.rule, each.until) for each in barred] == [("limits", until)]
    assert not cost_of(session("3 x (3:00 flow) rest 1:00", "skill"), around, "skill").barred


def test_a_knob_that_is_turned_past_a_ceiling_is_barred_and_the_session_that_a_coach_likes_is_not():
    novice = Circumstance(person(level="beginner"), Circumstances(of_somebody=False))
    costs = [
        step.costs["whole"]
        for step in ladder(session("8 x (1:30 technique) rest 1:00", "skill"), "skill", novice, 75).steps
    ]
    assert not costs[0].barred
    assert len(costs) > 1


def test_a_knock_bars_everything_and_is_called_so():
    around = Circumstance(WHO, Circumstances(of_somebody=False, concussion_uncleared=True))
    barred = cost_of(session("3 x (3:00 flow) rest 1:00", "skill"), around, "skill").barred
    assert "knock" in [each.rule for each in barred]


def test_a_screening_that_waits_for_a_physician_bars_hard_work():
    ill = Screening(regularly_active=True, known_disease=True, symptoms=False)
    around = Circumstance(WHO, Circumstances(screening=ill))
    assert "screening" in [each.rule for each in cost_of(THRESHOLD, around, "threshold").barred]


def test_what_the_coach_likes_is_the_base_and_the_rest_is_proposed():
    asked = camp(8, weights={"threshold": 1, "skill": 1})
    found = choices(asked, WHO, bases={"threshold": THRESHOLD})
    assert found.ladders["threshold"].steps[0].sessions["whole"] == THRESHOLD
    assert found.ladders["skill"].steps[0].costs["whole"].load > 0
    assert set(found.ladders) == {"threshold", "skill"}
    assert not found.without


def test_a_purpose_that_nothing_can_be_found_for_is_told():
    no_power = Limit("no-kicks", set_by="coach")
    asked = Camp(start=MONDAY, weeks=4, weights={"aerobic-base": 1, "fight-rehearsal": 1}, minutes=dict.fromkeys(
        ("mon", "tue", "thu", "sat"), 15))  # fmt: skip
    found = choices(asked, WHO, Circumstances(of_somebody=False, limits=(no_power,)))
    assert set(found.ladders) | set(found.without) == {"aerobic-base", "fight-rehearsal"}


def test_sparring_is_the_rounds_of_the_rule_set():
    rules = RULE_SETS["muay-thai-amateur"]
    assert standing(sparring("muay-thai-amateur")) == (rules.rounds, rules.round_s, rules.rest_s)


def test_sparring_and_the_test_are_there_where_they_are_fixed():
    asked = camp(8, weights={"skill": 1}, fixed=(Fixed("sparring", weekday="sat"), Fixed("test", on=MONDAY)))
    found = choices(asked, WHO, bases={"skill": THRESHOLD})
    assert set(found.ladders) == {"skill", "sparring", "test"}
    assert found.ladders["test"].steps[0].costs["whole"].hard


def test_the_line_of_a_session_is_read_back_as_the_whole_of_it():
    whole = choices(camp(8, weights={"skill": 1}), WHO).ladders["skill"].steps[0].sessions["whole"]
    assert unroll(shorthand.read(text_of(whole))).total_s == whole.total_s
