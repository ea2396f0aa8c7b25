"""What somebody must not do is spoken of wherever a session goes against it, and nothing offered goes against it."""

from dataclasses import replace
from datetime import date

import pytest

from tests.core.people import club_boxer
from yoisho.design.nudge import nudges
from yoisho.design.propose import Limits, ProposalError, propose_all
from yoisho.design.scale import ScaleError, scale
from yoisho.engine.person import person
from yoisho.engine.readout import read
from yoisho.judgement.cautions import cautions
from yoisho.judgement.circumstances import Circumstances, Screening
from yoisho.judgement.limits import LIMITS, Limit, LimitError
from yoisho.judgement.verdict import judge
from yoisho.session.document import Session
from yoisho.session.shorthand import read as line
from yoisho.session.shorthand import read_parts
from yoisho.session.timeline import unroll

ACTIVE = Screening(regularly_active=True, known_disease=False, symptoms=False)
EVERY = {
    "no-kicks": Limit("no-kicks"),
    "no-limb": Limit("no-limb", limb="right hand"),
    "no-power": Limit("no-power"),
    "most-strikes": Limit("most-strikes", limb="right leg", most=60, period="session"),
    "heart-rate": Limit("heart-rate", most=130),
    "joints": Limit("joints"),
    "no-holding": Limit("no-holding"),
    "breaks": Limit("breaks"),
    "heart-untrusted": Limit("heart-untrusted"),
}


def spoken(text, *limits, week=None, who=None):
    around = Circumstances(screening=ACTIVE, limits=limits, strikes_this_week=week or {})
    found = cautions(read(who or club_boxer(), unroll(line(text)), ranges=False), around)
    return next((caution for caution in found if caution.rule == "limit"), None)


def test_every_kind_of_limit_is_tried_here():
    assert set(EVERY) == set(LIMITS)


@pytest.mark.parametrize(
    ("kind", "against", "at_s", "said"),
    [
        ("no-kicks", "10:00 flow shadow, 2:00 technique bag [1-2, rk-l]", 600, "10:00"),
        ("no-kicks", "10:00 flow shadow, 2:00 technique bag [1-2, knee]", 600, "kicks or knees"),
        ("no-limb", "10:00 flow skip, 2:00 technique bag [1-2]", 600, "the right hand strikes"),
        ("no-limb", "10:00 flow skip, 2:00 technique bag", 600, "nothing says with what"),
        ("no-power", "10:00 flow bag, 30 power bag", 600, "power at 10:00"),
        ("no-power", "10:00 flow bag, 10 all out bag", 600, "all out at 10:00"),
        ("most-strikes", "10:00 flow bag [rk-m]", None, "with the right leg here"),
        ("heart-rate", "5:00 flow shadow, 10:00 combination bag", None, "should rise to about"),
        ("joints", "5:00 footwork, 3:00 skip", 300, "skip at 5:00"),
        ("joints", "5:00 footwork, 10 burpees", 300, "burpees at 5:00"),
        ("no-holding", "5:00 flow shadow, 2:00 technique pads in pairs", 300, "hold for each other"),
        ("breaks", "10 burpees, 2:00 flow bag", None, "the clock sets the work"),
    ],
)
def test_what_goes_against_a_limit_is_a_stop_at_its_place_with_a_cure(kind, against, at_s, said):
    caution = spoken(against, EVERY[kind])
    assert caution.severity == "stop"
    assert said in caution.text
    assert caution.cure
    if at_s is not None:
        assert caution.at_s == at_s


@pytest.mark.parametrize(
    ("kind", "within"),
    [
        ("no-kicks", "3 x (2:00 power bag [1-2-3b]) rest 1:00"),
        ("no-kicks", "3:00 power bag"),
        ("no-limb", "3:00 power bag [1-1b-3]"),
        ("no-limb", "3:00 flow skip"),
        ("no-power", "3:00 speed bag, 3:00 technique bag, 3:00 power half power bag"),
        ("most-strikes", "3:00 power bag [1-2]"),
        ("heart-rate", "0:20 flow footwork"),
        ("joints", "5:00 footwork, 3:00 cycle, 2:00 power bag"),
        ("no-holding", "2:00 technique bag in pairs, 2:00 technique pads"),
        ("breaks", "10 burpees, 1:00 rest, 10 squats"),
        ("heart-untrusted", "8 x (20 all out / 10 rest)"),
    ],
)
def test_what_keeps_to_a_limit_is_left_alone(kind, within):
    assert spoken(within, EVERY[kind]) is None


def test_strikes_of_the_week_count_towards_a_weekly_limit_and_not_towards_one_of_a_session():
    kicks, before = "2:00 flow bag [rk-m]", {"right leg": 100.0}
    here = read(club_boxer(), unroll(line(kicks)), ranges=False).volume.limbs["right leg"]
    weekly = Limit("most-strikes", limb="right leg", most=round(here) + 50, period="week")
    assert spoken(kicks, weekly) is None
    assert f"about {here + 100:.0f} with the right leg in seven days" in spoken(kicks, weekly, week=before).text
    assert spoken(kicks, replace(weekly, period="session"), week=before) is None
    # A week that is full does not stop what does not strike with it.
    assert spoken("2:00 flow bag [1-2]", weekly, week={"right leg": 1000.0}) is None


def test_a_limit_of_the_heart_says_nothing_of_a_heart_that_says_nothing():
    who = person(heart_rate_lowering_medication=True)
    assert spoken("10:00 combination bag", EVERY["heart-rate"], who=who) is None


def test_all_that_is_broken_is_said_with_its_last_day():
    until = Limit("no-kicks", until=date(2027, 5, 28))
    text = spoken("10:00 flow skip, 2:00 power bag [1-2, rk-l]", until, Limit("no-power")).text
    assert text.startswith("No kicks or knees until 28 May: ")
    assert "; no power: power at 10:00" in text


def test_a_limit_holds_to_the_end_of_its_last_day():
    limit = Limit("no-kicks", until=date(2027, 5, 28))
    assert limit.holds_on(date(2027, 5, 28))
    assert not limit.holds_on(date(2027, 5, 29))
    assert Limit("no-kicks").holds_on(date(2099, 1, 1))


@pytest.mark.parametrize(
    ("said", "field"),
    [
        ({"kind": "no-fun"}, "kind"),
        ({"kind": "no-limb"}, "limb"),
        ({"kind": "no-limb", "limb": "tail"}, "limb"),
        ({"kind": "no-kicks", "limb": "left leg"}, "limb"),
        ({"kind": "no-kicks", "most": 3}, "most"),
        ({"kind": "heart-rate"}, "most"),
        ({"kind": "heart-rate", "most": 20}, "most"),
        ({"kind": "most-strikes", "limb": "left leg", "most": 0, "period": "week"}, "most"),
        ({"kind": "most-strikes", "limb": "left leg", "most": 10}, "period"),
        ({"kind": "most-strikes", "limb": "left leg", "most": 10, "period": "year"}, "period"),
        ({"kind": "no-power", "period": "week"}, "period"),
    ],
)
def test_a_limit_that_says_too_little_or_too_much_names_the_field(said, field):
    with pytest.raises(LimitError) as error:
        Limit(**said)
    assert error.value.field == field


def test_a_stop_of_a_limit_stands_against_the_verdict():
    around = Circumstances(screening=ACTIVE, limits=(Limit("no-power"),))
    reading = read(club_boxer(), unroll(line("10:00 flow, 8 x (20 power / 10 rest)")), ranges=False)
    verdict = judge(reading, "lactic-capacity", cautions(reading, around))
    assert verdict.strokes == 0
    assert verdict.sentence.startswith("No power: power at 10:00.")


def test_nothing_is_proposed_that_goes_against_a_limit():
    around = Circumstances(screening=ACTIVE, limits=(Limit("no-power"),))
    try:
        found = propose_all(club_boxer(), "aerobic-power", Limits(40), around)
    except ProposalError as error:
        pytest.fail(str(error))
    for proposal in found:
        forces = [i.source.force or 0 for i in proposal.session.unrolled().intervals if i.source.struck]
        assert max(forces) <= 0.8, proposal.family.name


def test_where_nothing_keeps_to_the_limits_the_proposal_says_which_stands_in_the_way():
    around = Circumstances(screening=ACTIVE, limits=(Limit("breaks"),))
    with pytest.raises(ProposalError, match="Breaks whenever wanted"):
        propose_all(club_boxer(), "aerobic-power", Limits(40), around)


def test_a_session_is_not_scaled_into_what_somebody_must_not_do():
    session = Session("Thursday", read_parts("Main: 5:00 flow skip, 3 x (2:00 technique bag [1-2, rk-l]) rest 1:00"))
    around = Circumstances(screening=ACTIVE, limits=(Limit("no-kicks"),))
    with pytest.raises(ScaleError, match="No kicks"):
        scale(session, club_boxer(), club_boxer(), around)


def test_a_nudge_is_offered_that_brings_a_session_back_within_a_limit():
    session = Session("Thursday", read_parts("Warm-up: 10:00 flow shadow\nMain: 3 x 2:00 power bag rest 1:00"))
    around = Circumstances(screening=ACTIVE, limits=(Limit("no-power"),))
    found = nudges(club_boxer(), session, "threshold", around)
    assert any("limit" in nudge.cures for nudge in found)
