import numpy as np
import pytest

from yoisho.engine import heart_rate
from yoisho.engine.cohort import best_guess, draws
from yoisho.engine.demand import ceiling_of
from yoisho.engine.field_tests import StrikeTest
from yoisho.engine.parameters import REFERENCE
from yoisho.engine.person import PersonError, person
from yoisho.session.shorthand import read
from yoisho.session.timeline import unroll


def test_what_is_not_known_is_filled_in_and_says_so():
    who = person(age_years=40, sex="female", level="club")
    assert who.vo2max_ml_kg_min.origin == "default"
    assert who.hr_max_bpm.origin == "estimated"
    assert "Gulati" in who.hr_max_bpm.source


def test_what_is_measured_is_trusted_more():
    measured, guessed = person(vo2max_ml_kg_min=50), person()
    assert measured.vo2max_ml_kg_min.origin == "measured"
    share = [v.sd / v.value for v in (measured.vo2max_ml_kg_min, guessed.vo2max_ml_kg_min)]
    assert share == pytest.approx([0.04, 0.15])


@pytest.mark.parametrize(
    "wrong",
    [{"vo2max_ml_kg_min": 5}, {"vo2max_ml_kg_min": 120}, {"hr_max_bpm": 300}, {"mass_kg": 3}, {"hr_rest_bpm": 200},
     {"hr_max_bpm": 110, "hr_rest_bpm": 100}],
)  # fmt: skip
def test_a_number_that_cannot_be_is_refused(wrong):
    with pytest.raises(PersonError):
        person(**wrong)


def test_the_same_person_gets_the_same_ranges_every_time():
    first, second = draws(person(mass_kg=60)), draws(person(mass_kg=60))
    assert np.array_equal(first.people.vo2max_ml_kg_s, second.people.vo2max_ml_kg_s)
    assert np.array_equal(first.striking.share["power"], second.striking.share["power"])


def test_somebody_is_drawn_once_whoever_asks():
    """A reading names the parameters, the page of a person does not: drawing costs more than a short session."""
    who = person(mass_kg=61)
    assert draws(who, REFERENCE) is draws(who)
    assert best_guess(who, REFERENCE) is best_guess(who)


def test_at_least_two_hundred_draws_spread_as_the_numbers_are_uncertain():
    cohort = draws(person(vo2max_ml_kg_min=50), count=2000)
    spread = cohort.people.vo2max_ml_kg_s.std() / cohort.people.vo2max_ml_kg_s.mean()
    assert spread == pytest.approx(0.04, abs=0.005)
    assert len(draws(person()).people) >= 200


def test_the_heart_follows_its_target_up_faster_than_down():
    seconds = np.arange(0.0, 241.0)
    uptake = np.where(seconds < 120, 0.9, 0.12)[:, None]
    whole = np.ones(241)
    one = np.ones(1)
    course = heart_rate.course(seconds, uptake, 0.12 * one, whole, 60 * one, 190 * one)[:, 0]
    risen = (course[30] - 60) / (course[119] - 60)
    fallen = (course[120] - course[150]) / (course[120] - 60)
    assert risen > fallen > 0.3
    assert course.max() <= 190


def test_an_older_client_with_no_measurements_gets_possible_numbers():
    who = person(age_years=88, sex="female", level="beginner")
    assert 15 <= who.vo2max_ml_kg_min.value <= 30
    assert who.hr_max_bpm.value > who.hr_rest_bpm.value + 30


def test_the_stores_go_with_fitness_and_the_flows_with_training():
    average, fit, sprinter = person(vo2max_ml_kg_min=57), person(vo2max_ml_kg_min=80), person(
        vo2max_ml_kg_min=57, training="sprint-trained"
    )  # fmt: skip
    average_store, fit_store, sprinter_store = (best_guess(who).people for who in (average, fit, sprinter))
    assert fit_store.lactic_capacity_ml_kg > average_store.lactic_capacity_ml_kg
    assert fit_store.sprint_capacity_ml_kg / average_store.sprint_capacity_ml_kg == pytest.approx(80 / 57)
    assert sprinter_store.lactic_capacity_ml_kg / average_store.lactic_capacity_ml_kg == pytest.approx(1.15)
    assert sprinter_store.anaerobic_scale[0] == 1.15


def test_a_beginner_is_taken_for_untrained_unless_said_otherwise():
    assert person(level="beginner").anaerobic_scale.value == 0.8
    assert person(level="beginner", training="trained").anaerobic_scale.value == 1.0


@pytest.mark.parametrize("school", ["tanaka", "gulati", "fox"])
def test_the_school_of_maximum_heart_rate_can_be_chosen_and_is_named(school):
    who = person(age_years=40, hr_max_school=school)
    assert who.hr_max_bpm.value == heart_rate.SCHOOLS[school].formula(40)
    assert heart_rate.SCHOOLS[school].name in who.hr_max_bpm.source


def test_no_rule_set_of_that_name():
    with pytest.raises(PersonError, match="boxing-amateur"):
        person(rule_set="pillow-fight")


def test_the_heart_of_who_strikes_with_the_arms_stands_higher_at_the_same_uptake():
    """Kravitz et al. 2003, from memory: punching at 68 to 73 % of VO2max with 85 to 93 % of HRmax."""
    seconds, one = np.arange(0.0, 601.0), np.ones(1)
    uptake = np.full((601, 1), 0.70)

    def settled(line: str) -> float:
        ceiling = ceiling_of(unroll(read(line)).intervals[0])
        course = heart_rate.course(seconds, uptake, 0.11 * one, np.full(601, ceiling), 62 * one, 187 * one)
        return float(course[-1, 0]) / 187

    arms, kicks, legs = (
        settled("3:00 power bag [1-2]"),
        settled("3:00 power bag [rear round kick]"),
        settled("3:00 run"),
    )
    assert 0.85 <= arms <= 0.93
    assert arms > kicks > legs


def test_the_muscle_in_play_is_the_arms_until_a_third_of_the_strikes_are_kicks():
    def ceiling(line: str) -> float:
        return ceiling_of(unroll(read(line)).intervals[0])

    assert ceiling("30 power bag") == ceiling("30 power bag [1-2-3]") == 0.80
    assert ceiling("30 power bag [rk-m]") == pytest.approx(0.95)
    assert 0.80 < ceiling("30 power bag [1-2-3-2-1, rk-m]") < 0.95
    assert ceiling("10:00 run") == 1.0
    assert ceiling("30 carry") == 0.95


def test_who_is_counted_faster_throws_more_at_speed():
    counts = StrikeTest(60, 160, (158, 140, 122, 110, 104, 100))
    slower = StrikeTest(48, 130, (126, 110, 96, 88, 84, 82))
    fast, slow = (best_guess(person(vo2max_ml_kg_min=50, strike_test=each)).striking for each in (counts, slower))
    assert fast.top[0] > slow.top[0]
