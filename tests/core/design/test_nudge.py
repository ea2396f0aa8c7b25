"""Nudges: small changes with what they would do, and the shortest series that reaches the purpose."""

import pytest
from hypothesis import given, settings

from tests.core.people import SOMEBODY, club_boxer
from tests.core.trees import trees
from yoisho.design.nudge import (
    CURE_COST,
    MOST_SEARCHED,
    MOST_SHOWN,
    REACHED,
    SURE,
    SURER,
    SURER_COST,
    TooLargeError,
    candidates,
    make_it_so,
    nudges,
    variants,
)
from yoisho.engine.person import person
from yoisho.engine.readout import read
from yoisho.judgement.cautions import cautions, stops
from yoisho.judgement.verdict import judge
from yoisho.session.document import Part, Session
from yoisho.session.shorthand import read as line
from yoisho.session.shorthand import read_parts, write
from yoisho.session.timeline import unroll
from yoisho.session.tree import duration_s

WARM = "Warm-up: 10:00 flow shadow; then 1:00\n"


def named(turns):
    """What each turn of a knob makes, by its name."""
    return {turn.name: changed for turn, changed in turns}


def session(lines):
    return Session("Thursday", read_parts(lines))


def strokes(of, target):
    return judge(read(club_boxer(), unroll(*(part.tree for part in of.parts)), ranges=False), target).strokes


TOO_LONG = session(WARM + "Bursts: 10 x (20 all out) rest 0:30")
NEARLY = session(WARM + "Main: 2 x (8 x (30 power / 30 flow)) rest 2:00")


@given(trees)
@settings(max_examples=50)
def test_every_variant_is_another_tree_of_the_same_kind(tree):
    found = list(variants(tree))
    assert found
    for turn, changed in found:
        assert changed != tree
        assert type(changed) is type(tree)
        assert turn.name


def test_the_reset_is_a_knob_shorter_for_more_passes():
    names = named(variants(line("2:00 combination bag [1-2]")))
    assert names["a shorter reset"] == line("2:00 combination bag [1-2] reset 1")
    assert names["a longer reset"] == line("2:00 combination bag [1-2] reset 3")
    assert unroll(names["a shorter reset"]).strikes > unroll(names["a longer reset"]).strikes
    assert "a shorter reset" not in named(variants(line("2:00 combination bag [1-2] no reset")))


def test_at_a_word_strikes_are_fewer_and_harder_or_more_and_lighter_for_the_same_effort():
    names = named(variants(line("3:00 combination bag [1-2]")))
    assert names["fewer, harder: 74 % power"] == line("3:00 combination bag [1-2] at 74% power")
    before, harder, lighter = (
        read(person(), unroll(tree), ranges=False)
        for tree in (line("3:00 combination bag [1-2]"), names["fewer, harder: 74 % power"],
                     names["more, lighter: 54 % power"])
    )  # fmt: skip
    strikes = [reading.measured.strikes.sum() for reading in (harder, before, lighter)]
    assert strikes == sorted(strikes)
    assert harder.figures["rpe"].value == pytest.approx(before.figures["rpe"].value, abs=0.3)


def test_at_a_rate_the_energy_stays_or_the_rate_alone_is_turned():
    names = named(variants(line("3:00 flow bag [1-2] 100 a minute at 50% power")))
    assert names["fewer, harder: 83 a minute at 60 % power"] == line("3:00 flow bag [1-2] 83 a minute at 60% power")
    assert names["more, lighter: 125 a minute at 40 % power"] == line("3:00 flow bag [1-2] 125 a minute at 40% power")
    assert names["10 strikes a minute fewer"] == line("3:00 flow bag [1-2] 90 a minute at 50% power")


def test_all_out_and_what_is_struck_to_a_beat_have_no_such_knob():
    for text in ("20 all out bag [1-2]", "2:00 flow to 120 beats", "2:00 flow skip"):
        assert not [name for name in named(variants(line(text))) if "harder:" in name or "a minute" in name], text


def test_a_rate_that_cannot_be_thrown_is_cured_by_fewer_strikes():
    fast = session(WARM + "Main: 4 x (3:00 flow bag [1-2] 480 a minute at 30% power) rest 1:00")
    found = nudges(club_boxer(), fast, "aerobic-power")
    cured = [nudge.name for nudge in found if "rate" in nudge.cures]
    assert cured[0] == "50 strikes a minute fewer"
    assert "fewer, harder: 360 a minute at 40 % power" in cured


def test_an_empty_session_has_no_nudge_yet():
    assert nudges(club_boxer(), Session("Empty", ()), "skill") == ()
    assert not make_it_so(club_boxer(), Session("Empty", ()), "skill").reached


def test_a_nudge_changes_one_thing_and_names_it():
    names = named(variants(line("8 x (20 all out) rest 0:10")))
    assert names["1 round more"] == line("9 x (20 all out) rest 0:10")
    assert names["0:05 more rest between"] == line("8 x (20 all out) rest 0:15")
    assert names["0:05 shorter all out"] == line("8 x (15 all out) rest 0:10")
    assert names["power instead of all out"] == line("8 x (20 power) rest 0:10")
    assert "1 set more" in named(variants(line("2 x (8 x (30 power, 30 flow)) rest 2:00")))


@pytest.mark.parametrize(("given_", "knob", "ways", "turned"), [
    ("9s all out", "work", "+-", {"0:01 longer all out": "10 all out", "0:01 shorter all out": "8 all out"}),
    ("10 power", "work", "+-", {"0:05 longer power": "15 power", "0:05 shorter power": "5s power"}),
    ("55 speed", "work", "+-", {"0:05 longer speed": "1:00 speed", "0:05 shorter speed": "50 speed"}),
    ("1:00 rest", "rest", "+-", {"0:15 longer rest": "1:15 rest", "0:15 shorter rest": "45 rest"}),
    ("4:45 rest", "rest", "+-", {"0:15 longer rest": "5:00 rest", "0:15 shorter rest": "4:30 rest"}),
    ("5:00 rest", "rest", "+-", {"1:00 longer rest": "6:00 rest", "1:00 shorter rest": "4:00 rest"}),
    ("1s power", "work", "+", {"0:01 longer power": "2s power"}),
    ("15 rest", "rest", "+-", {"0:05 longer rest": "20 rest", "0:05 shorter rest": "10 rest"}),
    ("1 x (20 power)", "rounds", "+", {"1 round more": "2 × (20 power)"}),
    ("11 x (20 power) rest 0:40", "rounds", "+-",
     {"1 round more": "12 × (20 power) rest 0:40", "1 round fewer": "10 × (20 power) rest 0:40"}),
    ("12 x (20 power) rest 0:40", "rounds", "+-",
     {"2 rounds more": "14 × (20 power) rest 0:40", "2 rounds fewer": "10 × (20 power) rest 0:40"}),
    ("8 x (3:00 freestyle) rest 0:40", "rest", "+-",
     {"0:05 more rest between": "8 × (3:00 freestyle) rest 0:45",
      "0:05 less rest between": "8 × (3:00 freestyle) rest 0:35"}),
    ("8 x (3:00 freestyle) rest 0:45", "rest", "+-",
     {"0:15 more rest between": "8 × (3:00 freestyle) rest 1:00",
      "0:15 less rest between": "8 × (3:00 freestyle) rest 0:30"}),
    ("8 x (3:00 freestyle) rest 2:15", "rest", "+-",
     {"0:15 more rest between": "8 × (3:00 freestyle) rest 2:30",
      "0:15 less rest between": "8 × (3:00 freestyle) rest 2:00"}),
    ("8 x (3:00 freestyle) rest 2:30", "rest", "+-",
     {"0:30 more rest between": "8 × (3:00 freestyle) rest 3:00",
      "0:30 less rest between": "8 × (3:00 freestyle) rest 2:00"}),
    ("4 x (30 power, 30 rest)", "rest", "+-",
     {"0:05 longer rest": "4 × (30 power, 35 rest)", "0:05 shorter rest": "4 × (30 power, 25 rest)"}),
    ("3 x (3:00 freestyle)", "rest", "+", {"0:30 rest between": "3 × (3:00 freestyle) rest 0:30"}),
    ("1 x (8 x (20 power) rest 0:05)", "rounds", "++-",
     {"1 set more": "2 × (8 × (20 power) rest 0:05)", "1 round more": "1 × (9 × (20 power) rest 0:05)",
      "1 round fewer": "1 × (7 × (20 power) rest 0:05)"}),
    ("3 x (20 power) rest 0:10", "rest", "+-",
     {"0:05 more rest between": "3 × (20 power) rest 0:15", "0:05 less rest between": "3 × (20 power) rest 0:05"}),
    ("30 power", "effort", "+-",
     {"all out instead of power": "30 all out", "combination instead of power": "30 combination"}),
    ("9-7-5 reps power", "work", "+-",
     {"1 rep more a round": "3 × (10-8-6 reps power)", "1 rep fewer a round": "3 × (8-6-4 reps power)"}),
    ("2-1 reps power", "work", "+", {"1 rep more a round": "2 × (3-2 reps power)"}),
    ("3 x (20 power) rest 0:05", "rest", "+", {"0:05 more rest between": "3 × (20 power) rest 0:10"}),
    ("1:00 combination bag [1-2] reset 30", "strikes", "+==",
     {"a shorter reset": "1:00 combination bag [1-2] reset 29",
      "fewer, harder: 74 % power": "1:00 combination 74 % power bag [1-2] reset 30",
      "more, lighter: 54 % power": "1:00 combination 54 % power bag [1-2] reset 30"}),
    ("2:00 flow bag [1-2] no reset", "strikes", "-==",
     {"a longer reset": "2:00 flow bag [1-2] reset 1",
      "fewer, harder: 62 % power": "2:00 flow 62 % power bag [1-2] no reset",
      "more, lighter: 42 % power": "2:00 flow 42 % power bag [1-2] no reset"}),
    ("2:00 flow bag 14 a minute at 80% power", "strikes", "==+-",
     {"fewer, harder: 12 a minute at 90 % power": "2:00 flow at 12 a minute 90 % power bag",
      "more, lighter: 16 a minute at 70 % power": "2:00 flow at 16 a minute 70 % power bag",
      "1 strike a minute more": "2:00 flow at 15 a minute 80 % power bag",
      "1 strike a minute fewer": "2:00 flow at 13 a minute 80 % power bag"}),
    ("2:00 flow bag 120 a minute at 20% power", "strikes", "==+-",
     {"fewer, harder: 80 a minute at 30 % power": "2:00 flow at 80 a minute 30 % power bag",
      "more, lighter: 240 a minute at 10 % power": "2:00 flow at 240 a minute 10 % power bag",
      "10 strikes a minute more": "2:00 flow at 130 a minute 20 % power bag",
      "10 strikes a minute fewer": "2:00 flow at 110 a minute 20 % power bag"}),
    ("2:00 flow 90 % power", "strikes", "==",
     {"fewer, harder: 100 % power": "2:00 flow 100 % power", "more, lighter: 80 % power": "2:00 flow 80 % power"}),
    ("1:00 power bag [1-2]", "side", "=", {"sides changed at half": "1:00 power bag [1-2] switch at half"}),
    ("1:00 power bag [1-2] switch at half", "side", "", {}),
    ("1:00 power bag", "side", "", {}),
])  # fmt: skip
def test_a_knob_is_turned_by_a_notch_that_suits_how_much_there_is_and_never_to_nothing(given_, knob, ways, turned):
    """Seconds by ones, fives and quarters of a minute; rounds by an eighth; a rate for the same energy, and alone."""
    found = [(turn, changed) for turn, changed in variants(line(given_)) if turn.knob == knob]
    assert {turn.name: write(changed, "overhands") for turn, changed in found} == turned
    assert "".join({True: "+", False: "-", None: "="}[turn.up] for turn, _ in found) == ways


@pytest.mark.parametrize(("given_", "target"), [(TOO_LONG, "sprint-power"), (NEARLY, "lactic-capacity")])
def test_nudges_serve_the_purpose_and_say_what_they_would_do(given_, target):
    found = nudges(club_boxer(), given_, target)
    assert 1 <= len(found) <= MOST_SHOWN
    before = judge(read(club_boxer(), unroll(*(p.tree for p in given_.parts)), ranges=False), target).score
    for nudge in found:
        surer = nudge.changes[0].name == "sureness"
        may_cost = CURE_COST if nudge.cures else SURER_COST if surer else 0
        assert nudge.score > before - may_cost, "only a cure, or what is surer, may cost a little"
        assert nudge.changes
        assert all(change.before != change.after for change in nudge.changes)
        assert nudge.session.parts[0] == given_.parts[0], "the warm-up stays as it is"


def test_what_reaches_the_purpose_for_too_few_is_made_surer():
    """Of those who are like this person: how many reach it is told before and after, and more do."""

    def judged(of):
        return judge(read(club_boxer(), of.unrolled()), "lactic-capacity")

    unsure = session(WARM + "Main: 2 x (8 x (30 fight pace / 30 flow)) rest 2:00")
    before = judged(unsure)
    assert before.strokes >= REACHED
    assert before.sureness < SURE
    found = nudges(club_boxer(), unsure, "lactic-capacity")
    (surer,) = (nudge for nudge in found if any(change.name == "sureness" for change in nudge.changes))
    after = judged(surer.session)
    assert after.sureness >= before.sureness + SURER
    assert after.strokes >= REACHED
    assert surer.score > before.score - 0.05, "what makes it surer does not make it worse"
    assert (surer.changes[0].before, surer.changes[0].after) == ("6 in 10", "9 in 10")
    assert len({str(nudge.session.parts) for nudge in found}) == len(found), "told once"


def test_what_is_sure_or_not_reached_has_no_surer_one():
    for text, target in (
        ("Main: 3 x (10:00 flow) rest 1:00", "aerobic-base"),
        ("Main: 3 x (3:00 flow)", "sprint-power"),
    ):
        for nudge in nudges(club_boxer(), session(WARM + text), target):
            assert all(change.name != "sureness" for change in nudge.changes)


def test_no_nudge_calls_up_a_caution_that_was_silent():
    who = person(level="beginner")
    given_ = session(WARM + "Main: 6 x (1:00 combination) rest 1:00")
    before = {caution.rule for caution in cautions(read(who, unroll(*(p.tree for p in given_.parts))))}
    for nudge in nudges(who, given_, "aerobic-power"):
        after = {caution.rule for caution in cautions(read(who, unroll(*(p.tree for p in nudge.session.parts))))}
        assert after <= before


def test_a_caution_that_a_change_can_answer_is_answered():
    cold = nudges(club_boxer(), session("Main: 6 x (10 all out) rest 2:00"), "sprint-power")
    assert "warm-up" in {rule for nudge in cold for rule in nudge.cures}
    one_sided = nudges(club_boxer(), session(WARM + "Kicks: 3 x (3:00 technique bag [rk-m]) rest 1:00"), "skill")
    assert "side" in {rule for nudge in one_sided for rule in nudge.cures}


def test_made_so_by_the_shortest_series():
    assert strokes(TOO_LONG, "sprint-power") < REACHED
    found = make_it_so(club_boxer(), TOO_LONG, "sprint-power")
    assert found.reached
    assert found.steps == ("0:05 shorter all out",) * len(found.steps)
    assert strokes(found.session, "sprint-power") >= REACHED
    single = nudges(club_boxer(), TOO_LONG, "sprint-power")
    assert (len(found.steps) > 1) == all(nudge.strokes < REACHED for nudge in single), "no step too many"


def test_where_none_can_it_says_so_and_comes_as_near_as_it_gets():
    found = make_it_so(club_boxer(), session("Main: 3 x (3:00 technique) rest 1:00"), "sprint-power")
    assert not found.reached
    assert found.strokes < REACHED


def test_what_is_on_target_needs_no_step():
    given_ = session(WARM + "Main: 2 x (8 x (30 all out / 30 flow)) rest 2:00")
    found = make_it_so(club_boxer(), given_, "lactic-capacity")
    assert (found.reached, found.steps, found.session) == (True, (), given_)


def test_a_session_longer_than_the_minutes_is_still_made_better_and_gets_no_longer():
    found = nudges(club_boxer(), NEARLY, "lactic-capacity", minutes=10)
    assert NEARLY.total_s > 600
    assert found
    assert all(each.session.total_s <= NEARLY.total_s for each in found)


def test_the_minutes_are_kept():
    minutes = 30
    assert sum(duration_s(part.tree) for part in NEARLY.parts) <= 60 * minutes
    for nudge in nudges(club_boxer(), NEARLY, "lactic-capacity", minutes=minutes):
        assert sum(duration_s(part.tree) for part in nudge.session.parts) <= 60 * minutes


def test_a_session_of_rest_has_no_nudges():
    assert nudges(club_boxer(), session("Rest: 5:00 rest"), "skill") == ()


def test_a_nudge_that_serves_the_purpose_is_left_out_where_it_would_call_up_a_caution():
    """Seven hard minutes of a beginner's eight: longer efforts would serve, and pass the ceiling."""
    beginner = person(level="beginner", vo2max_ml_kg_min=45)
    given_ = session(WARM + "Main: 7 x (1:00 power) rest 1:00")
    offered = {turn.name: changed for turn, _part, changed in candidates(given_)}
    more = read(beginner, offered["0:15 longer power"].unrolled(), ranges=False)
    assert {caution.rule for caution in cautions(more)} >= {"beginner"}
    score = judge(read(beginner, given_.unrolled(), ranges=False), "threshold").score
    assert judge(more, "threshold").score > score + 0.02, "it would be offered, were it not for the caution"
    assert "0:15 longer power" not in {nudge.name for nudge in nudges(beginner, given_, "threshold")}


@pytest.mark.parametrize(("who", "around"), SOMEBODY.values(), ids=SOMEBODY)
def test_no_nudge_and_no_series_ends_in_a_stop_or_calls_up_what_did_not_speak(who, around):
    def spoken(of):
        return cautions(read(who, of.unrolled(), ranges=False), around)

    before = {caution.rule for caution in spoken(NEARLY)}
    for target in ("lactic-capacity", "aerobic-base"):
        series = make_it_so(who, NEARLY, target, around)
        for found in (*(nudge.session for nudge in nudges(who, NEARLY, target, around)), series.session):
            if found != NEARLY:
                assert not stops(spoken(found))
            assert {caution.rule for caution in spoken(found)} <= before | {"fade", "side"}
        if series.reached:
            assert judge(read(who, series.session.unrolled(), ranges=False), target).trains_best == target


@pytest.mark.parametrize(("reps", "names"), [(1, {"1 rep more"}), (2, {"1 rep more", "1 rep fewer"}),
                                             (10, {"1 rep more", "1 rep fewer"}),
                                             (25, {"2 reps more", "2 reps fewer"})])  # fmt: skip
def test_reps_change_by_one_or_by_a_tenth_and_never_to_none(reps, names):
    assert {name for name in named(variants(line(f"{reps} reps power bag [1-2]"))) if "rep" in name} == names


@pytest.mark.parametrize(("word", "others"), [
    ("flow", {"technique"}), ("technique", {"flow", "freestyle"}), ("freestyle", {"technique", "combination"}),
    ("combination", {"freestyle", "power"}), ("power", {"combination", "all out"}), ("all out", {"power"}),
])  # fmt: skip
def test_an_effort_goes_one_rung_up_or_down_the_ladder(word, others):
    turned = {name.split(" instead")[0] for name in named(variants(line(f"30 {word}"))) if f"instead of {word}" in name}
    assert turned == others


def test_a_series_from_a_session_of_thousands_is_refused_with_the_limit():
    large = Session("Large", (Part("Main", line("31 x (10 x (20 power, 10 rest))")),))
    assert len(large.unrolled().intervals) > MOST_SEARCHED
    with pytest.raises(TooLargeError, match=f"{len(large.unrolled().intervals)} intervals, and from up to 600"):
        make_it_so(person(), large, "lactic-capacity")
