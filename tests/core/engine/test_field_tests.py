"""Field tests against hand-worked values of their published formulas (from memory), and the edges of what can be."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from yoisho.engine.field_tests import StrikeTest, TestResultError, anaerobic_scale, cooper, leger, reserve_s_of_model
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
    assert test.reserve_s == pytest.approx(60 * 196 / 176)


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
    assert anaerobic_scale(flat, 50) < anaerobic_scale(StrikeTest(*COUNTS), 50)


def test_the_models_own_reserve_gives_a_scale_of_one():
    reserve_s = reserve_s_of_model(50)
    last = 80
    more = last * reserve_s / 30
    test = StrikeTest(
        70, 190, (last + round(0.5 * more), last + round(0.3 * more), last + round(0.2 * more), *(last,) * 3)
    )
    assert anaerobic_scale(test, 50) == pytest.approx(1.0, abs=0.05)


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
    assert known.speed_scale.value == pytest.approx(172 / 90)


@given(st.floats(8, 19), st.floats(8, 90))
def test_no_shuttle_run_gives_an_absurd_person(speed, age):
    assert 0 < leger(speed, age) < 100
