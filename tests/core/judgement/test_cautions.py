from tests.core.people import club_boxer
from yoisho.engine.person import person
from yoisho.engine.readout import read
from yoisho.judgement.cautions import cautions
from yoisho.session.shorthand import read as line
from yoisho.session.timeline import unroll


def seals(text, who=None):
    who = who or club_boxer()
    return {caution.seal: caution for caution in cautions(who, read(who, unroll(line(text)), ranges=False))}


def test_hard_work_before_a_warm_up_is_cautioned_at_its_place_with_a_cure():
    caution = seals("1:00 flow, 8 x (20 power / 10 rest)")["Cold"]
    assert caution.at_s == 60
    assert "5:00" in caution.cure


def test_five_easy_minutes_clear_the_warm_up_rule():
    assert "Cold" not in seals("5:00 flow, 8 x (20 power / 10 rest)")


def test_rest_is_not_a_warm_up():
    assert "Cold" in seals("5:00 rest, 8 x (20 power / 10 rest)")


def test_easy_work_alone_needs_no_warm_up():
    assert seals("20:00 flow") == {}


def test_work_that_cannot_be_held_says_when_and_in_which_effort():
    caution = seals("10:00 flow, 12 x (20 all out / 10 rest)")["Fade"]
    assert "of 12" in caution.text
    assert caution.level == "note"


def test_medication_that_lowers_heart_rate_turns_the_coach_to_effort_and_the_physician():
    caution = seals("20:00 flow", person(heart_rate_lowering_medication=True))["RPE"]
    assert "physician" in caution.cure


def test_every_caution_has_a_cure_and_a_source():
    for caution in seals("12 x (30 all out / 10 rest)", person(heart_rate_lowering_medication=True)).values():
        assert caution.cure
        assert caution.source
