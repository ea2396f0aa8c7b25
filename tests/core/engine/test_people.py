import numpy as np
import pytest

from yoisho.engine import heart_rate
from yoisho.engine.person import PersonError, draws, person


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
    assert np.array_equal(first.demand_scale["power"], second.demand_scale["power"])


def test_at_least_two_hundred_draws_spread_as_the_numbers_are_uncertain():
    cohort = draws(person(vo2max_ml_kg_min=50), count=2000)
    spread = cohort.people.vo2max_ml_kg_s.std() / cohort.people.vo2max_ml_kg_s.mean()
    assert spread == pytest.approx(0.04, abs=0.005)
    assert len(draws(person()).people) >= 200


def test_the_heart_follows_its_target_up_faster_than_down():
    seconds = np.arange(0.0, 241.0)
    uptake = np.where(seconds < 120, 0.9, 0.12)[:, None]
    still = np.zeros(241)
    one = np.ones(1)
    course = heart_rate.course(seconds, uptake, 0.12 * one, still, 60 * one, 190 * one)[:, 0]
    risen = (course[30] - 60) / (course[119] - 60)
    fallen = (course[120] - course[150]) / (course[120] - 60)
    assert risen > fallen > 0.3
    assert course.max() <= 190


def test_an_older_client_with_no_measurements_gets_possible_numbers():
    who = person(age_years=88, sex="female", level="beginner")
    assert 15 <= who.vo2max_ml_kg_min.value <= 30
    assert who.hr_max_bpm.value > who.hr_rest_bpm.value + 30
