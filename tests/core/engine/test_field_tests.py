"""Field tests against hand-worked values of their published formulas (from memory), and the edges of what can be."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from yoisho.engine.field_tests import (
    Striker,
    StrikeTest,
    TestResultError,
    cooper,
    counts_of_model,
    leger,
    striker_of,
)
from yoisho.engine.person import person

COUNTS = (64, 172, (166, 150, 122, 104, 94, 88))


def test_cooper_1968():
    assert cooper(2800) == pytest.approx((2800 - 504.9) / 44.73) == pytest.approx(51.3, abs=0.05)


def test_leger_1988_for_an_adult_and_for_a_child():
    # 31.025 + 3.238 x 12 - 3.248 x 18 + 0.1536 x 18 x 12, and the same at ten years.
    assert leger(12, 30) == leger(12, 18) == pytest.approx(44.6, abs=0.05)
    assert leger(12, 10) == pytest.approx(55.8, abs=0.05)


@pytest.mark.parametrize(
    "wrong", [lambda: cooper(90), lambda: cooper(9000), lambda: leger(3, 20), lambda: leger(12, 4)]
)
def test_a_result_that_cannot_be_says_what_can(wrong):
    with pytest.raises(TestResultError, match=r"from|for ages"):
        wrong()


def test_a_strike_test_gives_top_rate_sustained_rate_and_reserve():
    test = StrikeTest(*COUNTS)
    assert (test.top_per_min, test.sustained_per_min) == (384, 176)
    assert test.reserve == 78 + 62 + 34 + 16 + 6


@pytest.mark.parametrize(
    ("counts", "said"),
    [
        ((3, 80, (70,) * 6), "10 s hold"),
        ((64, 400, (70,) * 6), "30 s hold"),
        ((64, 168, (90,) * 5), "6 splits"),
        ((64, 168, (300, 90, 90, 90, 90, 90)), "recount"),
    ],
)
def test_a_miscount_is_refused_with_what_is_possible(counts, said):
    with pytest.raises(TestResultError, match=said):
        StrikeTest(*counts)


def test_a_bigger_reserve_means_bigger_stores():
    flat = StrikeTest(50, 130, (100, 98, 97, 96, 95, 95))
    assert striker_of(flat, 50, 1.0).anaerobic_scale < striker_of(StrikeTest(*COUNTS), 50, 1.0).anaerobic_scale


@pytest.mark.parametrize(
    ("vo2max", "velocity", "counted"),
    [
        (52, 0.88, (48, 132, (128, 112, 98, 90, 86, 84))),
        (57, 1.0, (52, 145, (140, 120, 104, 96, 92, 90))),
        (40, 0.75, (42, 112, (106, 90, 76, 68, 64, 62))),
    ],
)
def test_a_persons_own_strike_test_comes_back(vo2max, velocity, counted):
    """The bar: every count within a tenth. The counts are made up, in the shape that such tests have."""
    test = StrikeTest(*counted)
    found = counts_of_model(vo2max, velocity, striker_of(test, vo2max, velocity))
    counts = [test.ten_s, test.thirty_s, *test.splits]
    assert found == pytest.approx(counts, rel=0.10)


def test_the_models_own_counts_give_the_striker_they_came_from():
    known = Striker(1.1, 0.8, 1.1)
    ten, thirty, *splits = (round(each) for each in counts_of_model(50, 1.0, known))
    found = striker_of(StrikeTest(ten, thirty, tuple(splits)), 50, 1.0)
    assert found.top == pytest.approx(known.top, rel=0.05)
    assert found.force == pytest.approx(known.force, rel=0.05)
    assert found.anaerobic_scale == pytest.approx(known.anaerobic_scale, rel=0.15)


def test_a_measurement_counts_before_a_test_and_a_test_before_a_default():
    both = person(vo2max_ml_kg_min=55, cooper_m=2400)
    assert (both.vo2max_ml_kg_min.value, both.vo2max_ml_kg_min.origin) == (55, "measured")
    tested = person(cooper_m=2400, shuttle_km_h=12)
    assert tested.vo2max_ml_kg_min.origin == "estimated"
    assert "Cooper" in tested.vo2max_ml_kg_min.source
    assert "Léger" in person(shuttle_km_h=12).vo2max_ml_kg_min.source


def test_a_strike_test_narrows_the_spread_and_names_itself():
    known, guessed = person(vo2max_ml_kg_min=50, strike_test=StrikeTest(*COUNTS)), person(vo2max_ml_kg_min=50)
    spread = [who.anaerobic_scale.sd / who.anaerobic_scale.value for who in (known, guessed)]
    assert spread[0] < spread[1]
    assert "strike test" in known.anaerobic_scale.source
    assert known.all_out_force.sd < guessed.all_out_force.sd


@given(st.floats(8, 19), st.floats(8, 90))
def test_no_shuttle_run_gives_an_absurd_person(speed, age):
    assert 0 < leger(speed, age) < 100
