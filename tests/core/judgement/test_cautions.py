from dataclasses import replace
from datetime import date

import pytest

from tests.core.people import club_boxer
from yoisho.engine.person import Value, person
from yoisho.engine.readout import read
from yoisho.judgement.cautions import BARRING, CURABLE, DAILY, FINAL, HEAT, RULES, cautions, is_lactic
from yoisho.judgement.circumstances import Circumstances, Screening
from yoisho.review.pain import niggle
from yoisho.session.shorthand import read as line
from yoisho.session.timeline import unroll

ACTIVE = Screening(regularly_active=True, known_disease=False, symptoms=False)
WARM = "10:00 flow, "
LACTIC = "10:00 flow, 2 x (8 x (30 all out / 30 recover)) rest 2:00"


def seals(text, who=None, around=None):
    reading = read(who or club_boxer(), unroll(line(text)), ranges=False)
    return {caution.seal: caution for caution in cautions(reading, around or Circumstances(screening=ACTIVE))}


def test_hard_work_before_a_warm_up_is_cautioned_at_its_place_with_a_cure():
    caution = seals("1:00 flow, 8 x (20 power / 10 rest)")["Cold"]
    assert caution.at_s == 60
    assert "5:00" in caution.cure


def test_five_easy_minutes_clear_the_warm_up_rule():
    assert "Cold" not in seals("5:00 flow, 8 x (20 power / 10 rest)")


@pytest.mark.parametrize(
    ("line", "said"),
    [
        ("2:00 power bag with bare hands", "bare hands, and power"),
        ("2:00 technique bag in wraps", "wraps, and technique"),
        ("2:00 speed pads with bare hands", "bare hands, and speed"),
        ("2:00 flow 70 % power bag with bare hands", "bare hands, and 70 % power"),
    ],
)
def test_bare_hands_hit_nothing_beyond_flow_and_half_power(line, said):
    caution = seals(WARM + line)["Bare"]
    assert said in caution.text
    assert (caution.severity, caution.at_s) == ("caution", 600)


@pytest.mark.parametrize(
    "line",
    [
        "2:00 flow bag with bare hands", "2:00 flow half power bag with bare hands", "2:00 power bag in 16 oz gloves",
        "2:00 power bag", "2:00 power shadow with bare hands", "2:00 carry with bare hands",
        "2:00 power bag [lk-m] with bare hands",
    ],
)  # fmt: skip
def test_bare_hands_may_flow_strike_the_air_carry_and_kick(line):
    assert "Bare" not in seals(WARM + line)


def test_gloves_that_change_with_no_time_for_it_are_told_with_what_is_wanted():
    caution = seals(WARM + "3 x (1:00 flow bag in 16 oz gloves, 1:00 carry bare hands) rest 0:30")["Kit"]
    assert "gloves off takes about 0:20, and the pause before is 0:00, and 4 more such" in caution.text
    assert (caution.severity, caution.at_s) == ("note", 660)
    assert "Kit" not in seals(WARM + "2 x (1:00 flow bag in 16 oz gloves, 0:20 rest, 1:00 carry bare hands) rest 0:40")


def test_rest_is_not_a_warm_up():
    assert "Cold" in seals("5:00 rest, 8 x (20 power / 10 rest)")
    assert "Cold" not in seals("5:00 recover, 8 x (20 power / 10 rest)"), "light moving is"
    assert "Cold" in seals("4:59 recover, 8 x (20 power / 10 rest)")


def test_easy_work_alone_needs_no_warm_up():
    assert seals("20:00 flow") == {}


def test_work_that_cannot_be_held_says_when_and_in_which_effort():
    caution = seals("10:00 flow, 12 x (20 at 170 % / 10 rest)")["Fade"]
    assert "of 12" in caution.text
    assert caution.severity == "note"


def test_medication_that_lowers_heart_rate_turns_the_coach_to_effort_and_the_physician():
    caution = seals("20:00 flow", person(heart_rate_lowering_medication=True))["RPE"]
    assert "physician" in caution.cure


def test_every_caution_has_a_cure_and_a_source():
    for caution in seals("12 x (30 all out / 10 rest)", person(heart_rate_lowering_medication=True)).values():
        assert caution.cure
        assert caution.source


def test_the_weightiest_rule_speaks_first():
    around = Circumstances(concussion_uncleared=True, wbgt_c=34)
    assert list(seals("8 x (20 all out / 10 rest)", around=around))[:3] == ["Head", "Screen", "Heat"]
    assert RULES[0].id == "concussion"


def test_a_concussion_stops_everything_until_a_physician_clears_it():
    caution = seals("20:00 flow", around=Circumstances(screening=ACTIVE, concussion_uncleared=True))["Head"]
    assert caution.severity == "stop"
    assert "physician" in caution.text
    assert "suspension" in caution.cure


SCREENED = [
    # Riebe et al. 2015, MSSE 47:2473-2479, the table of its logic, from memory.
    # active, disease, symptoms, cleared -> outcome, level at vigorous work, level at light work
    (True, False, False, False, "clear", None, None),
    (False, False, False, False, "gradual", "caution", None),
    (True, True, False, False, "clearance before vigorous", "caution", None),
    (False, True, False, False, "clearance", "stop", "stop"),
    (True, False, True, False, "stop", "stop", "stop"),
    (False, True, True, False, "clearance", "stop", "stop"),
    (False, True, False, True, "clear", None, None),
]


@pytest.mark.parametrize(("active", "disease", "symptoms", "cleared", "outcome", "vigorous", "light"), SCREENED)
def test_the_screening_decides_how_hard_the_work_may_be(active, disease, symptoms, cleared, outcome, vigorous, light):
    screening = Screening(active, disease, symptoms, cleared)
    assert screening.outcome == outcome
    for text, severity in (("10:00 flow, 3 x 3:00 technique rest 1:00", vigorous), ("20:00 flow", light)):
        found = seals(text, around=Circumstances(screening=screening)).get("Screen")
        assert (found and found.severity) == severity


@pytest.mark.parametrize(
    ("left", "said"), [(31, None), (30, "in 30 days"), (1, "tomorrow"), (0, "today"), (None, None)]
)
def test_a_clearance_that_is_about_to_end_is_asked_for_in_time(left, said):
    screening = Screening(True, True, False, cleared=True, days_left=left)
    found = seals("20:00 flow", around=Circumstances(screening=screening)).get("Ends")
    assert (found and found.text) == (said and f"The physician's clearance ends {said}.")
    if found:
        assert found.severity == "note"
    over = Screening(True, True, False, cleared=False, days_left=-1)
    assert "Ends" not in seals("20:00 flow", around=Circumstances(screening=over)), "what is over is the screening's"


def test_a_missing_screening_is_said_before_vigorous_work_only():
    assert seals("3 x 3:00 technique rest 1:00", around=Circumstances())["Screen"].at_s == 0
    assert "Screen" not in seals("20:00 flow", around=Circumstances())


@pytest.mark.parametrize(
    ("days", "severity"),
    [(3, "stop"), (6, "stop"), (7, "caution"), (8, "caution"), (9, "note"), (28, "note"), (29, None)],
)
def test_the_last_lactic_session_is_nine_days_before_the_bout_and_seven_at_the_very_latest(days, severity):
    # common practice, no source
    found = seals(LACTIC, around=Circumstances(screening=ACTIVE, days_to_fight=days)).get("Bout")
    assert (found and found.severity) == severity


def test_skill_work_may_go_on_to_the_day_before():
    around = Circumstances(screening=ACTIVE, days_to_fight=1)
    found = seals("6 x 2:00 technique rest 1:00", around=around)["Bout"]
    assert found.severity == "note"
    assert found.text.startswith("1 day to the bout")


def test_two_lactic_days_need_48_hours_between_them():
    assert "Gap" in seals(LACTIC, around=Circumstances(screening=ACTIVE, hours_since_lactic=26))
    assert "Gap" not in seals(LACTIC, around=Circumstances(screening=ACTIVE, hours_since_lactic=49))
    assert "Gap" not in seals("20:00 flow", around=Circumstances(screening=ACTIVE, hours_since_lactic=2))


def test_thirty_thirties_are_a_lactic_day_and_flow_is_not():
    lactic, flow = (read(club_boxer(), unroll(line(text)), ranges=False) for text in (LACTIC, "20:00 flow"))
    assert is_lactic(lactic)
    assert not is_lactic(flow)


@pytest.mark.parametrize(
    ("wbgt", "severity"),
    # Armstrong et al. 2007, MSSE 39:556-572, from memory.
    [(18.3, None), (18.4, "note"), (22.3, "caution"), (25.7, "caution"), (27.9, "stop"), (30.1, "stop"), (33, "stop")],
)
def test_heat_by_wbgt(wbgt, severity):
    found = seals("20:00 flow", around=Circumstances(screening=ACTIVE, wbgt_c=wbgt)).get("Heat")
    assert (found and found.severity) == severity


def test_the_heat_table_goes_from_the_hottest_down():
    assert [least for least, *_ in HEAT] == sorted((least for least, *_ in HEAT), reverse=True)


def test_beginners_and_those_under_sixteen_have_ceilings():
    hard = "10:00 flow, 12 x (1:00 power) rest 1:00"
    assert "Dose" in seals(hard, person(level="beginner"))
    assert "Dose" not in seals(hard)
    assert "Youth" in seals(hard, person(age_years=15))
    assert "Youth" in seals("10:00 flow, 4 x (20 all out) rest 2:00", person(age_years=15))
    assert "Youth" not in seals("10:00 flow, 4 x (8 all out) rest 2:00", person(age_years=15))
    assert "Youth" not in seals(hard, person(age_years=16))


def test_strikes_of_a_session_and_of_a_week_have_a_ceiling_for_each_hand():
    assert "hand" in seals("20:00 speed")["Strikes"].text
    week = Circumstances(screening=ACTIVE, strikes_this_week={"left hand": 2300, "right hand": 2300})
    assert "seven days" in seals("6:00 flow", around=week)["Strikes"].text
    assert "Strikes" not in seals("6:00 flow")


def test_a_bout_that_is_over_closes_nothing():
    assert "Bout" not in seals(LACTIC, around=Circumstances(screening=ACTIVE, days_to_fight=-2))
    today = seals(LACTIC, around=Circumstances(screening=ACTIVE, days_to_fight=0))["Bout"]
    assert today.severity == "stop"
    assert today.text.startswith("The bout is today")


def test_sides_are_weighed_by_placed_strikes_alone():
    """Unplaced strikes are shared evenly over two hands by us: they say nothing of anybody's balance."""
    few = "12 flow shadow, 4 x (9 reps technique bag [rk-m]) rest 0:30"
    assert "Side" not in seals(few), "thirty-six kicks are too few to speak of, whatever is struck besides"
    assert "Side" in seals(few.replace("9 reps", "12 reps"))


def test_a_fight_ahead_tells_the_day_of_the_last_hard_lactic_work_by_the_clubs_school():
    # common practice, no source
    def said(**more):
        around = Circumstances(screening=ACTIVE, days_to_fight=23, today=date(2026, 3, 2), **more)
        return seals("20:00 flow", around=around)["Bout"].text

    assert said() == "23 days to the bout. The last hard lactic day is 16 March, 9 days before it."
    assert "15 March, 10 days" in said(last_lactic_days=10)


@pytest.mark.parametrize(("days", "speaks"), [(0, True), (14, True), (15, False)])
def test_what_hurt_speaks_for_two_weeks_where_it_is_loaded_and_louder_where_hard(days, speaks):
    wrist = Circumstances(screening=ACTIVE, niggles=(niggle("wrist", "left", days),))
    hard, soft = (seals(text, around=wrist).get("Hurt") for text in (f"{WARM}3:00 power [1-2]", "3:00 flow [1-2]"))
    if not speaks:
        assert (hard, soft) == (None, None)
        return
    assert (hard.severity, soft.severity) == ("caution", "note")
    assert "left wrist" in hard.text
    assert "Hurt" not in seals("3:00 power [2]", around=wrist), "the other hand alone does not load it"
    shin = Circumstances(screening=ACTIVE, niggles=(niggle("shin", None, days),))
    assert "Hurt" in seals("3:00 power [rk]", around=shin)
    assert "Hurt" not in seals("3:00 power [1-2]", around=shin)


def test_past_an_hour_the_model_says_that_it_has_no_evidence():
    assert "no evidence" in seals("61:00 flow")["Long"].text
    assert "Long" not in seals("60:00 flow")


def test_a_fade_speaks_by_the_bound_of_the_purpose_and_not_of_work_meant_to_end_empty():
    def fades(text, purpose):
        return seals(text, around=Circumstances(screening=ACTIVE, purpose=purpose)).get("Fade")

    tiring = "10:00 flow, 8 x (20 all out, 10 rest)"
    assert fades(tiring, "sprint-power") is not None
    assert "more than 5 %" in fades(tiring, "sprint-power").text
    assert fades("10:00 flow, 3 x 3:00 power rest 1:00", "lactic-capacity") is None
    assert fades("10:00 flow, 1:00 all out", "sprint-power") is None, "one effort has nothing to fade from"


@pytest.mark.parametrize(
    ("text", "speaks"),
    [
        ("2:00 flow bag [1-2] 180 a minute", False),
        ("2:00 flow bag [1-2] 470 a minute", True),
        ("2:00 power bag [1-2] 300 a minute", True),
        ("2:00 flow bag [4x lk-m] 90 a minute", False),
        ("2:00 flow bag [4x lk-m] 150 a minute", True),
        ("2:00 speed bag [1-2]", False),
    ],
)
def test_more_strikes_a_minute_than_a_limb_can_throw_are_questioned(text, speaks):
    """Punches all out come at 5 to 7 a second in short counts, kicks at about 2: common practice, no source."""
    assert ("Rate" in seals(text)) == speaks


def test_the_quick_are_asked_for_more_than_the_slow():
    quick = replace(person(), speed_scale=Value(1.4, 0.05, "measured", "10 s strike test"))
    text = "2:00 flow bag [1-2] 470 a minute"
    assert "Rate" in seals(text)
    assert "Rate" not in seals(text, who=quick)


def test_what_is_told_of_a_day_is_what_holds_whatever_is_done_on_it():
    of_the_person = {
        "concussion",
        "screening",
        "clearance-ends",
        "limit",
        "heat",
        "bout-cut-off",
        "niggle",
        "lactic-gap",
    }
    assert of_the_person | {"strike-ceiling"} == DAILY


def test_a_knock_to_the_head_alone_can_never_be_gone_past():
    assert {"concussion"} == FINAL


def test_what_another_line_can_cure_is_all_but_what_only_a_physician_a_day_or_a_clock_cures():
    assert {rule.id for rule in RULES} - CURABLE == {
        "concussion", "screening", "clearance-ends", "heat", "medication", "bare-hands", "kit", "evidence"
    }  # fmt: skip


def test_nothing_is_proposed_past_what_bars_it():
    assert {rule.id for rule in RULES} - BARRING == {
        "concussion", "clearance-ends", "heat", "medication", "bare-hands", "kit", "evidence", "fade", "side"
    }, "a stop bars whatever it is called by"  # fmt: skip
