"""Statements a coach would sign."""

import re

import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from tests.core.people import club_boxer
from tests.core.trees import trees
from yoisho.engine.person import person
from yoisho.engine.readout import read
from yoisho.judgement.cautions import cautions
from yoisho.judgement.circumstances import Circumstances
from yoisho.judgement.fade import fade_onset
from yoisho.judgement.targets import TARGETS, Measure
from yoisho.judgement.verdict import NOT_NOW, WELL_AIMED, judge, measure_values, score
from yoisho.session.document import Session
from yoisho.session.shorthand import read as line
from yoisho.session.shorthand import read_parts
from yoisho.session.timeline import unroll


def verdict(text, target=None):
    return judge(read(club_boxer(), unroll(line(text)), ranges=False), target)


@pytest.mark.parametrize(
    ("text", "trains"),
    [
        ("12 x (6 all out) rest 1:30", "sprint-power"),
        ("10 x (12 all out) rest 1:00", "sprint-capacity"),
        ("5 x (30 all out) rest 3:00", "lactic-power"),
        ("2 x (8 x (30 power / 30 flow)) rest 2:00", "lactic-capacity"),
        ("4 x (5:00 freestyle) rest 1:30", "threshold"),
        ("4 x (4:00 combination) rest 3:00", "aerobic-power"),
        ("20:00 flow", "aerobic-base"),
        ("6 x (2:00 technique) rest 1:00", "skill"),
        ("3 x (1:00 speed, 1:00 technique, 1:00 power) rest 1:00", "fight-rehearsal"),
    ],
)
def test_each_school_trains_what_it_says(text, trains):
    found = verdict(text, trains)
    assert found.trains_best == trains
    assert found.strokes == 5
    assert verdict(text).target == trains or found.score > verdict(text).score - 0.02


def test_there_are_nine_purposes():
    assert len(TARGETS) == 9


def test_a_bout_is_rehearsed_by_the_persons_own_rules():
    rounds = line("3 x (2:00 speed, 1:00 technique, 2:00 power) rest 1:00")
    fighter = person(vo2max_ml_kg_min=56, rule_set="mma-pro")
    boxer = person(vo2max_ml_kg_min=56, rule_set="boxing-amateur")
    as_fighter, as_boxer = (
        judge(read(who, unroll(rounds), ranges=False), "fight-rehearsal") for who in (fighter, boxer)
    )
    assert as_fighter.score > as_boxer.score
    reason = next(reason for reason in as_boxer.reasons if reason.measure == "length of a round")
    assert "167 % of those of amateur boxing, elite (3 × 3:00, rest 1:00)" in reason.text


def test_the_learning_order_is_not_the_fight_order():
    learning = verdict("3 x (1:00 technique, 1:00 speed, 1:00 power) rest 1:00", "fight-rehearsal")
    assert any(r.measure == "order of effort" and not r.met for r in learning.reasons)


def test_on_medication_threshold_is_read_from_uptake_not_from_the_heart():
    who = person(vo2max_ml_kg_min=50, heart_rate_lowering_medication=True)
    reading = read(who, unroll(line("4 x (5:00 freestyle) rest 1:30")), ranges=False)
    assert measure_values(reading)["threshold_min"] == reading.figures["vo2_75_88_min"].value


def test_hard_and_lactic_capacity_are_told_apart():
    found = verdict("4 x (4:00 combination) rest 3:00", "lactic-capacity")
    assert found.strokes <= 2
    assert found.sentence.startswith("This trains aerobic power more than lactic capacity.")


def test_ten_second_rests_are_not_sprint_power_and_the_reason_names_the_rest_and_the_store():
    found = verdict("10 x (6 all out) rest 0:10", "sprint-power")
    reason = next(reason for reason in found.reasons if reason.measure == "sprint store at the start")
    assert not reason.met
    assert "Rests of 0:10 leave the sprint store at" in reason.text
    assert "%" in reason.text


def test_a_reason_points_at_the_intervals_it_speaks_of():
    timeline = unroll(line("10 x (6 all out) rest 0:10"))
    reasons = {r.measure: r for r in verdict("10 x (6 all out) rest 0:10", "sprint-power").reasons}
    assert {timeline.intervals[i].kind for i in reasons["sprint store at the start"].intervals} == {"rest"}
    assert {timeline.intervals[i].kind for i in reasons["efforts"].intervals} == {"work"}
    rounds = unroll(line("3 x 3:00 fight pace rest 1:00"))
    reasons = {r.measure: r for r in verdict("3 x 3:00 fight pace rest 1:00", "fight-rehearsal").reasons}
    at = {name: {rounds.intervals[i].start_s for i in reason.intervals} for name, reason in reasons.items()}
    assert at["length of a round"] == {0, 240, 480}
    assert at["fade in the last round"] == {480}


def test_what_falls_short_is_said_before_what_is_met():
    met = [reason.met for reason in verdict("8 x (20 all out / 10 rest)", "lactic-capacity").reasons]
    assert met == sorted(met)


def test_the_best_purpose_is_judged_where_none_is_asked():
    assert verdict("20:00 flow").target == "aerobic-base"


@pytest.mark.parametrize("target", TARGETS.values(), ids=lambda target: target.id)
def test_every_purpose_says_a_plain_sentence_for_every_way_to_miss_it(target):
    values = measure_values(read(club_boxer(), unroll(line("3 x 3:00 technique rest 1:00"))))
    for measure in target.measures:
        assert measure.figure in values
        assert measure.met
        assert measure.source
        assert measure.low or measure.none_below == float("-inf") == measure.full_from
        assert measure.high or measure.full_to == float("inf") == measure.none_above
    assert 0 < score(target, values) <= 1


def test_desirability_is_a_trapezoid():
    measure = Measure("x", "x", "count", 2, 6, 24, 40, "", "", "")
    assert [measure.desirability(x) for x in (0, 2, 4, 6, 15, 24, 32, 40, 99)] == [0, 0, 0.5, 1, 1, 1, 0.5, 0, 0]


def test_the_score_is_the_weighted_geometric_mean_of_derringer_and_suich():
    # Derringer and Suich 1980, from memory: two measures at 1 and 0.5 with weights 1 and 2 give 0.5^(2/3).
    from yoisho.judgement.targets import Target

    full = Measure("a", "a", "count", 0, 1, 2, 3, "", "", "", weight=1)
    half = Measure("b", "b", "count", 0, 2, 3, 4, "", "", "", weight=2)
    assert score(Target("t", "t", "t", "", "", "", (full, half)), {"a": 1, "b": 1}) == pytest.approx(0.5 ** (2 / 3))


def test_on_medication_minutes_in_the_hearts_band_are_no_minutes_at_the_threshold():
    """A session whose heart rate would be in the band for longer than its uptake is."""
    rounds = unroll(line("6 x (4:00 technique bag at 70 %) rest 1:00"))
    medicated = read(person(vo2max_ml_kg_min=50, heart_rate_lowering_medication=True), rounds, ranges=False)
    well = read(person(vo2max_ml_kg_min=50), rounds, ranges=False)
    heart, uptake = (medicated.figures[name].value for name in ("hr_80_90_min", "vo2_75_88_min"))
    assert heart > uptake + 1, "else this says nothing"
    assert measure_values(medicated)["threshold_min"] == uptake
    assert measure_values(well)["threshold_min"] == well.figures["hr_80_90_min"].value


def test_of_what_falls_short_the_worst_is_said_first():
    reasons = verdict("30 x (12 power) rest 0:50", "sprint-power").reasons
    short = [reason.desirability for reason in reasons if not reason.met]
    assert len(set(short)) > 2
    assert short == sorted(short)


def test_a_verdict_tells_for_how_many_like_this_person_it_holds():
    text = line("20:00 flow")
    plain, certain = (judge(read(club_boxer(), unroll(text), ranges=r), "aerobic-base") for r in (False, True))
    assert plain.sureness is None
    assert certain.sureness > 0.8
    assert judge(read(club_boxer(), unroll(text)), "lactic-capacity").sureness == 0


def test_what_fixes_its_strikes_is_less_sure_than_a_word():
    """Nobody knows well what a strike costs: a fixed line gets a wide range, and never a bare yes or no."""
    fixed, word = (
        read(club_boxer(), unroll(line(text))).figures["lactate_peak_mmol"]
        for text in ("4 x (4:00 technique bag at 90 a minute) rest 1:00", "4 x (4:00 freestyle bag) rest 1:00")
    )
    assert (fixed.high - fixed.low) / fixed.value > (word.high - word.low) / word.value
    sure = judge(read(club_boxer(), unroll(line("4 x (4:00 technique bag at 110 a minute) rest 1:30"))), "threshold")
    assert 0 < sure.sureness < 1


PEOPLE = (club_boxer(), person(level="beginner", age_years=60, heart_rate_lowering_medication=True),
          person(level="fighter", vo2max_ml_kg_min=62))  # fmt: skip


@given(trees, st.sampled_from(PEOPLE), st.sampled_from([None, *TARGETS]))
@settings(max_examples=100)
def test_whatever_the_session_a_verdict_holds_together(tree, who, stated):
    """Over random sessions, people and stated purposes, each judged for all nine."""
    timeline = unroll(tree, purposes=(stated,))
    assume(any(interval.kind == "work" for interval in timeline.intervals))
    found = read(who, timeline, ranges=False)
    for target in TARGETS.values():
        around = Circumstances(of_somebody=False, purpose=target.id)
        spoken = cautions(found, around)
        told = judge(found, target.id, spoken)
        assert (told.strokes == 5) == all(reason.met for reason in told.reasons)
        assert (told.strokes >= 4) == (told.score >= WELL_AIMED or told.strokes == 5)
        assert told.reasons[0].text in told.sentence
        for reason, measure in ((r, m) for r in told.reasons for m in target.measures if m.label == r.measure):
            value = measure_values(found, target.id)[measure.figure]
            expected = "met" if reason.desirability >= 0.999 else "short" if value < measure.full_from else "over"
            assert reason.side == expected
            assert who.heart_holds or "heart rate" not in reason.text
            if measure.label == "fade" and reason.met:
                assert fade_onset(found, target).bout is None
                assert not [caution for caution in spoken if caution.rule == "fade"]


def test_a_stop_stands_against_any_verdict():
    found = read(club_boxer(), unroll(line("20:00 flow")), ranges=False)
    around = Circumstances(concussion_uncleared=True)
    told = judge(found, "aerobic-base", cautions(found, around))
    assert (told.strokes, told.grade, told.sureness) == (0, NOT_NOW, None)
    assert "licensed physician" in told.sentence
    assert judge(found, "aerobic-base").strokes == 5


def test_a_warm_up_is_no_round_and_a_part_is_judged_by_what_it_says_it_is_for():
    session = Session("Thursday", read_parts(
        "Warm-up: 10:00 skip, 5:00 flow\nSkill (skill): 4 x 2:00 technique rest 1:00\n"
        "Bursts (sprint power): 8 x (6 all out) rest 1:30"))  # fmt: skip
    found = read(club_boxer(), session.unrolled(), ranges=False)
    lengths = {r.measure: r.text for r in judge(found, "sprint-power").reasons}
    assert "0:06" in lengths["length of an effort"]
    assert "all out" in lengths["effort"]
    rounds = next(r for r in judge(found, "threshold").reasons if r.measure == "length of a round")
    assert "15:00" not in rounds.text


def test_forty_twenty_is_told_as_a_stretch_and_rounds_as_rounds():
    def said(text):
        return next(r.text for r in verdict(text, "threshold").reasons if r.measure == "length of a round")

    assert said("10 x (40 combination / 20 recover)").startswith("Stretches with no long pause of 10:00")
    assert said("3 x 3:00 combination rest 1:00").startswith("Rounds of 3:00")


@pytest.mark.parametrize(
    ("purpose", "figure", "unit_s"),
    [
        ("sprint-power", "bout_s", 1), ("sprint-capacity", "bout_s", 1), ("lactic-power", "bout_s", 1),
        ("lactic-capacity", "bout_s", 1), ("threshold", "round_s", 60),
    ],
)  # fmt: skip
def test_the_efforts_that_a_purpose_names_in_words_are_those_it_is_full_marks_for(purpose, figure, unit_s):
    target = TARGETS[purpose]
    least, most = (int(number) for number in re.findall(r"[0-9]+", target.work)[:2])
    measure = next(each for each in target.measures if each.figure == figure)
    assert (measure.full_from, measure.full_to) == (least * unit_s, most * unit_s)


def test_each_purpose_is_judged_by_the_efforts_of_the_part_that_states_it():
    parts = read_parts(
        "Warm-up: 10:00 flow shadow; then 2:00\n"
        "Bursts (sprint-power): 6 x (6 all out) rest 2:00; then 3:00\n"
        "Long (lactic-capacity): 4 x (40 all out) rest 0:40"
    )
    found = read(club_boxer(), Session("Two", parts).unrolled(), ranges=False)
    bursts, long = (measure_values(found, purpose) for purpose in ("sprint-power", "lactic-capacity"))
    assert (bursts["bout_s"], long["bout_s"]) == (6, 40)
    assert bursts["sprint_at_start"] > long["sprint_at_start"] + 0.1
    assert bursts["fade_mean"] < long["fade_mean"]
    alone = read(club_boxer(), Session("One", parts[:2]).unrolled(), ranges=False)
    assert bursts["lactic_share"] == pytest.approx(alone.figures["lactic_share"].value)
