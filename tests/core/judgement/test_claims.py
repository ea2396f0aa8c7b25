import numpy as np
import pytest
from scipy.stats import lognorm

from tests.core.people import club_boxer
from yoisho.engine.energy_cost import kcal_of_met
from yoisho.engine.readout import read
from yoisho.judgement.claims import ClaimError, kcal, tabata, trains
from yoisho.judgement.verdict import judge
from yoisho.session.shorthand import read as line
from yoisho.session.timeline import unroll


def reading(text, ranges=True):
    return read(club_boxer(), unroll(line(text)), ranges=ranges)


def test_five_hundred_kcal_in_twenty_minutes_of_flow_is_very_unlikely():
    found = kcal(reading("20:00 flow"), 500)
    assert found.probability <= 0.02
    assert found.answer == "very unlikely"
    assert "under 1 %" in found.text
    assert "over 99 %" in kcal(reading("20:00 flow"), 20).text


def test_what_the_model_itself_gives_may_be_true():
    session = reading("20:00 flow")
    assert 0.3 < kcal(session, session.figures["kcal"].value).probability < 0.7


def test_a_smaller_claim_is_never_less_likely():
    session = reading("3 x 3:00 combination rest 1:00")
    probabilities = [kcal(session, claimed).probability for claimed in (50, 100, 150, 200, 300)]
    assert probabilities == sorted(probabilities, reverse=True)


def test_the_tables_stand_beside_the_model():
    # 2011 Compendium, bag 5.5 MET, 70 kg, 20 min: 5.5 x 3.5 x 70 / 200 x 20 kcal. From memory.
    assert kcal_of_met(5.5, 70, 20) == pytest.approx(134.75)
    assert reading("20:00 flow").figures["kcal_met"].value == pytest.approx(134.75)
    # 8 MET at 70 kg is 9.8 kcal a minute.
    assert kcal_of_met(8, 70, 1) == pytest.approx(9.8)


def test_the_model_and_the_tables_do_not_contradict_each_other_for_a_usual_class():
    session = reading("10:00 flow, 6 x (3:00 technique) rest 1:00, 5:00 recover")
    model, tables = session.figures["kcal"], session.figures["kcal_met"]
    assert model.high > tables.low
    assert model.low < 2 * tables.high


def test_the_research_protocol_and_its_clock_are_told_apart():
    research = tabata(reading("8 x (20 at 170 % / 10 rest)"))
    assert 0.1 < research.probability < 1
    assert "research protocol" in research.text
    all_out = tabata(reading("8 x (20 all out / 10 rest)"))
    assert (all_out.answer, all_out.probability) == ("not true", None)
    assert "paced" in all_out.text
    format_ = tabata(reading("8 x (20 power / 10 rest)"))
    assert (format_.answer, format_.probability) == ("not true", None)
    assert "20/10 format at 120 %" in format_.text
    assert "not 6 efforts" in tabata(reading("20:00 flow")).text


def test_a_purpose_can_be_claimed_too():
    assert trains(reading("20:00 flow"), "aerobic-base").answer == "true"
    assert trains(reading("20:00 flow"), "lactic-capacity").answer == "not true"


@pytest.mark.parametrize(("text", "strokes", "answer"), [
    ("20:00 flow", 5, "true"), ("8 x (15 all out) rest 0:30", 4, "true"),
    ("8 x (20 all out, 10 rest)", 3, "true in part"), ("10 x (20 all out) rest 0:10", 2, "not true"),
])  # fmt: skip
def test_four_strokes_of_five_make_a_claim_true_and_three_in_part(text, strokes, answer):
    purpose = "aerobic-base" if "flow" in text else "sprint-capacity"
    found = reading(text)
    assert judge(found, purpose).strokes == strokes
    assert trains(found, purpose).answer == answer


@pytest.mark.parametrize("wrong", [0, -5, 1e9])
def test_an_impossible_claim_is_refused(wrong):
    with pytest.raises(ClaimError, match="from 1 to 20000"):
        kcal(reading("20:00 flow"), wrong)


def test_a_claim_needs_the_ranges():
    with pytest.raises(ClaimError, match="ranges"):
        kcal(reading("20:00 flow", ranges=False), 200)


def test_no_purpose_of_that_name():
    with pytest.raises(ClaimError, match="sprint-power"):
        trains(reading("20:00 flow"), "fat-burning")


def test_with_four_minutes_of_rest_in_the_middle_it_is_the_research_protocol_no_more():
    eased = tabata(reading("4 x (20 at 170 % / 10 rest), 4:00 rest, 4 x (20 at 170 % / 10 rest)"))
    straight = tabata(reading("8 x (20 at 170 % / 10 rest)"))
    assert (eased.answer, eased.probability) == ("not true", None)
    assert straight.probability > 0.3


@pytest.mark.parametrize("share", [0.9, 1.0, 1.1])
def test_the_share_of_the_draws_that_spend_so_much_is_scipys_of_a_lognormal(share):
    session = reading("20:00 flow")
    drawn = np.log(session.spread.figures["kcal"])
    claimed = share * float(np.exp(drawn.mean()))
    expected = lognorm.sf(claimed, s=drawn.std(), scale=np.exp(drawn.mean()))
    assert 0.05 < expected < 0.95
    assert kcal(session, claimed).probability == pytest.approx(expected, abs=1e-6)


def test_an_answer_is_as_sure_as_its_share():
    session = reading("20:00 flow")
    drawn = np.log(session.spread.figures["kcal"])
    for share, answer in ((0.93, "very likely true"), (0.75, "likely true"), (0.5, "may be true"), (0.4, "may be true"),
                          (0.2, "unlikely"), (0.05, "very unlikely")):  # fmt: skip
        claimed = lognorm.isf(share, s=drawn.std(), scale=np.exp(drawn.mean()))
        assert kcal(session, float(claimed)).answer == answer, share
