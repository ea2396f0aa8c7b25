"""A session for somebody else, or under other rules: what it does stays, what is done changes."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.core.people import SOMEBODY
from yoisho.design.nudge import searchable
from yoisho.design.rounds import RoundsError, at, fit, keeps_rules, places, to_rules
from yoisho.design.scale import EFFECT, ScaleError, _traded, _weight, convert, distance, scale, softened, three_of
from yoisho.engine.person import person
from yoisho.engine.readout import read
from yoisho.judgement.cautions import BARRING, CURABLE, RULES, bars, cautions
from yoisho.judgement.circumstances import Circumstances
from yoisho.session.document import Part, Session
from yoisho.session.rules import RULE_SETS
from yoisho.session.shorthand import read as line
from yoisho.session.shorthand import read_parts, write
from yoisho.session.timeline import unroll
from yoisho.session.tree import duration_s

FIGHTER = person(level="fighter", sex="male", age_years=24, mass_kg=70, vo2max_ml_kg_min=60)
CLUB = person(level="club", sex="male", age_years=31, mass_kg=70)
OLDER = person(level="beginner", sex="female", age_years=58, mass_kg=68)
WARM = "Warm-up: 10:00 flow shadow; then 1:00\n"


def session(text: str) -> Session:
    return Session("Thursday", read_parts(WARM + text))


def reading(who, of: Session):
    return read(who, unroll(*(part.tree for part in of.parts)), ranges=False)


ROUNDS = session("Main: 4 x (30 technique, 30 speed, 30 power) rest 1:00")
LONG_HARD = session("Main: 3 x 3:00 power rest 0:30")


def test_a_stop_weighs_most_then_what_bars_then_what_a_change_could_answer_and_all_else_nothing():
    def weight(rule, severity):
        return _weight(replace(rule.caution("note", "", ""), severity=severity))

    barring = [rule for rule in RULES if rule.id in BARRING]
    curable = [rule for rule in RULES if rule.id in CURABLE - BARRING]
    others = [rule for rule in RULES if rule.id not in CURABLE | BARRING]
    assert barring
    assert curable
    assert others
    stop, bar, cure = (
        weight(each[0], at) for each, at in ((others, "stop"), (barring, "caution"), (curable, "caution"))
    )
    assert stop > bar > cure > 0
    assert {weight(rule, "caution") for rule in curable} == {cure}
    assert {weight(rule, "caution") for rule in others} == {weight(rule, "note") for rule in RULES} == {0}


@pytest.mark.parametrize("of", [ROUNDS, LONG_HARD], ids=["thirties", "power rounds"])
@pytest.mark.parametrize("to", [CLUB, OLDER], ids=["club", "older"])
def test_scaling_never_ends_further_from_the_effect_than_it_began(of, to):
    before = reading(FIGHTER, of)
    scaled = scale(of, FIGHTER, to)
    assert scaled.distance <= distance(before, reading(to, of)) + 0.05
    assert scaled.same or scaled.distance < 0.65 * distance(before, reading(to, of))
    assert len(scaled.effect) == len(EFFECT)


def test_the_same_person_gets_the_session_as_it_is():
    scaled = scale(ROUNDS, FIGHTER, FIGHTER)
    assert scaled.session == ROUNDS
    assert scaled.steps == ()
    assert all(each.kept for each in scaled.effect)


def test_what_is_far_from_the_effect_is_changed_and_each_change_is_named():
    scaled = scale(ROUNDS, FIGHTER, OLDER)
    assert scaled.steps
    assert scaled.session.parts[0] == ROUNDS.parts[0], "the warm-up stays"
    assert scaled.session.parts[1] != ROUNDS.parts[1]


@pytest.mark.parametrize("rules", RULE_SETS.values(), ids=lambda rules: rules.id)
def test_converted_rounds_and_rests_are_those_of_the_rules(rules):
    converted = convert(ROUNDS, FIGHTER, rules.id).session
    found = places(converted)
    assert len(found) == 1
    assert keeps_rules(converted, found, rules)
    assert duration_s(at(converted.parts[1].tree, (*found[0].path, "body"))) == rules.round_s


def test_two_minute_rounds_keep_the_effect_of_three_minute_rounds_by_their_number():
    boxing = session("Main: 3 x 3:00 combination rest 1:00")
    converted = convert(boxing, FIGHTER, "kickboxing-amateur")
    assert sum(not each.kept for each in converted.effect) <= 1, "short rounds hold less time at the highest uptake"
    assert write(converted.session.parts[1].tree).startswith(("4 ×", "5 ×"))


def test_a_session_without_rounds_says_so():
    with pytest.raises(ScaleError, match="no rounds here"):
        convert(session("Main: 20:00 flow"), FIGHTER, "mma-pro")


def test_rounds_of_reps_have_no_clock_to_fit():
    with pytest.raises(ScaleError, match="no clock to fit"):
        convert(session("Main: 4 x (100 reps combination) rest 1:00"), FIGHTER, "mma-pro")


def test_no_such_rules_and_no_effort_are_named():
    with pytest.raises(ScaleError, match="boxing-amateur"):
        convert(ROUNDS, FIGHTER, "pillow-fight")
    with pytest.raises(ScaleError, match="no effort"):
        scale(Session("Empty", ()), FIGHTER, CLUB)


def test_short_tens_are_a_drill_and_not_rounds():
    assert places(session("Main: 8 x (20 all out) rest 0:10")) == ()
    [found] = places(session("Main: 3 x (6 x (20 all out, 10 rest)) rest 1:00"))
    assert found.part == 1


@pytest.mark.parametrize(
    ("content", "seconds", "fitted"),
    [
        ("3:00 technique", 120, "2:00 technique"),
        ("(30 technique, 30 speed, 30 power)", 120, "40 technique, 40 speed, 40 power"),
        ("6 x (20 all out, 10 rest)", 120, "4 × (20 all out, 10 rest)"),
        ("5 x (20 all out, 10 rest)", 130, "4 × (20 all out, 10 rest), 10 recover"),
        ("4 x (2:00 power, 1:00 flow)", 120, "1:20 power, 40 flow"),
    ],
)
def test_a_round_is_fitted_by_proportion_and_repeats_by_number(content, seconds, fitted):
    assert write(fit(line(content), seconds)) == fitted


@given(st.lists(st.integers(5, 300), min_size=2, max_size=6), st.sampled_from((120, 180, 300)))
def test_a_fitted_round_is_exactly_as_long_as_the_rules_say(lengths, seconds):
    tree = line("(" + ", ".join(f"{length}s technique" for length in lengths) + ")")
    try:
        fitted = fit(tree, seconds)
    except RoundsError:
        assert max(lengths) * seconds / sum(lengths) < 5 * len(lengths), "only where short ones are too many"
    else:
        assert duration_s(fitted) == seconds


def test_as_many_rounds_as_fill_the_time():
    shaped = to_rules(session("Main: 10 x 1:00 power rest 1:00"), RULE_SETS["boxing-amateur"])
    assert write(shaped.parts[1].tree) == "5 × (3:00 power) rest 1:00"


def test_a_group_stands_for_its_weakest_middle_and_strongest():
    people = [FIGHTER, OLDER, CLUB]
    assert three_of(people) == {"weakest": 1, "middle": 2, "strongest": 0}
    assert three_of([*people, CLUB]) == {"weakest": 1, "middle": 3, "strongest": 0}, "of four, the upper of the two"
    assert three_of(people[:1]) == {"": 0}
    assert three_of(people[:2]) == {"weakest": 1, "strongest": 0}


def test_parts_that_frame_the_main_set_are_not_shaped():
    of = Session("T", (Part("Warm-up", line("3 x 2:00 flow rest 0:30"), "warm-up"), *ROUNDS.parts[1:]))
    assert [place.part for place in places(of)] == [1]


def test_where_a_change_answers_a_caution_the_effect_gives_way_a_little():
    """Sixteen hard minutes for a beginner whose ceiling is eight: the changes bring them down."""
    beginner = person(level="beginner", vo2max_ml_kg_min=44)
    of = session("Main: 9 x (1:00 power) rest 1:00")
    scaled = scale(of, CLUB, beginner)
    hard = sum(i.seconds for i in scaled.session.unrolled().intervals if i.demand_frac >= 0.95)
    assert "beginner" in {c.rule for c in cautions(reading(beginner, of))}
    assert "beginner" not in {c.rule for c in cautions(scaled.reading)}
    assert hard <= 480


def test_repeats_go_into_a_round_with_their_pauses_between_and_none_after():
    """Three minutes hold four efforts of thirty with three pauses of twenty: exactly."""
    assert write(fit(line("9 x (30 power) rest 0:20"), 180)) == "4 × (30 power) rest 0:20"
    assert write(fit(line("9 x (30 power) rest 0:20"), 179)).startswith("3 × (30 power) rest 0:20, 49")


HARD = {
    "kicks all out": "Main: 2 x (8 x (20 all out bag [4x lk-m, 4x rk-m]) rest 0:10) rest 2:00",
    "lactic rounds": "Main: 2 x (8 x (30 power bag / 30 flow bag)) rest 2:00",
    "thirds": "Main: 4 x (30 technique, 30 speed, 30 power) bag rest 1:00",
}


@pytest.mark.parametrize(("to", "around"), SOMEBODY.values(), ids=SOMEBODY)
@pytest.mark.parametrize("text", HARD.values(), ids=HARD)
def test_nothing_is_scaled_to_somebody_that_could_have_been_left_out_for_them(text, to, around):
    def barring(of):
        return [caution.text for caution in cautions(reading(to, of), around) if bars(caution)]

    scaled = scale(session(text), FIGHTER, to, around)
    assert not barring(scaled.session)
    assert scaled.steps or not barring(session(text))


def test_a_stop_against_all_training_is_said_before_anything_is_looked_for(monkeypatch):
    monkeypatch.setattr("yoisho.design.scale.candidates", lambda *_, **__: pytest.fail("it was looked for"))
    with pytest.raises(ScaleError, match="not for this person: A knock-out"):
        scale(ROUNDS, FIGHTER, CLUB, Circumstances(concussion_uncleared=True))


@pytest.mark.parametrize(("text", "rounds"), [
    ("Main: 4 x 0:45 power rest 0:20", 1), ("Main: 4 x 0:44 power rest 0:20", 0), ("Main: 4 x 0:45 power rest 0:19", 0),
])  # fmt: skip
def test_rounds_are_efforts_of_three_quarters_of_a_minute_and_more_with_a_rest_to_sit_down_in(text, rounds):
    assert len(places(session(text))) == rounds


def test_the_big_steps_down_are_half_the_rounds_of_a_main_part_and_no_word_above_a_rung():
    given_ = session("Main: 2 x (8 x (30 power / 30 flow)) rest 2:00\nMore: 5 x (1:00 all out) rest 1:00")
    steps = {name: [write(part.tree) for part in found.parts[1:]] for name, found in softened(given_)}
    whole = [write(part.tree) for part in given_.parts[1:]]
    assert steps["half the sets"] == ["1 × (8 × (30 power, 30 flow)) rest 2:00", whole[1]]
    assert steps["half the rounds"] == [whole[0], "2 × (1:00 all out) rest 1:00"]
    assert steps["technique instead of all that is harder"] == [
        "2 × (8 × (30 technique, 30 flow)) rest 2:00", "5 × (1:00 technique) rest 1:00"
    ]  # fmt: skip


def test_a_session_of_thousands_is_refused_with_the_limit_and_one_at_the_limit_is_not():
    with pytest.raises(ScaleError, match="from up to 600 another can be worked out"):
        scale(Session("Large", (Part("Main", line("31 x (10 x (20 power, 10 rest))")),)), person(), person())
    searchable(Session("Just", (Part("Main", line("30 x (10 x (20 power, 10 rest))")),)))


def test_seconds_are_traded_inside_a_round_from_each_effort_to_each_other_and_reps_are_left_alone():
    def traded(text):
        return [write(each) for each in _traded(line(text))]

    assert traded("30 technique, 20 power") == ["25 technique, 25 power", "35 technique, 15 power"]
    assert traded("5s technique, 10 power") == ["10 technique, 5s power"], "nothing is traded to nothing"
    assert traded("20 reps power, 30 flow") == []
    assert traded("30 flow") == []
    assert traded("2 x (30 flow, 10 power) rest 0:20") == [
        "2 × (25 flow, 15 power) rest 0:20", "2 × (35 flow, 5s power) rest 0:20",
    ]  # fmt: skip


def test_under_other_rules_there_are_at_least_two_rounds():
    short = to_rules(session("Main: 2 x (1:00 power) rest 0:30"), RULE_SETS["mma-pro"])
    assert write(short.parts[1].tree) == "2 × (5:00 power) rest 1:00"
