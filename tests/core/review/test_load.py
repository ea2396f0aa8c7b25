"""Load, monotony and strain against a worked example of our own, and the moving means against scipy's filter
and pandas' own."""

import numpy as np
import pandas as pd
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.signal import lfilter, lfiltic

from yoisho.review.load import ewma, session_load, week_load

WEEK = (300, 450, 0, 400, 200, 600, 0)


def test_a_session_costs_its_rating_times_its_minutes():
    assert session_load(7, 45 * 60) == 315


def test_the_week_of_the_worked_example():
    """Arithmetic: 1950, mean 278.6, sample SD 227.0: monotony 1.227, strain 2392."""
    found = week_load(WEEK)
    assert found.load == 1950
    assert found.monotony == pytest.approx(1.227, abs=0.0005)
    assert found.strain == pytest.approx(2392, abs=1)


def test_days_that_are_all_alike_have_no_monotony_that_could_be_told():
    for days in ((250,) * 7, (0,) * 7):
        assert week_load(days).monotony is None
        assert week_load(days).strain is None


def test_a_day_of_rest_is_a_day_of_the_week():
    with pytest.raises(ValueError, match="7 days, not 5"):
        week_load(WEEK[:5])


@given(st.lists(st.floats(0, 2000), min_size=7, max_size=7), st.floats(0.1, 5))
def test_monotony_does_not_depend_on_how_hard_the_week_was(days, factor):
    one, other = week_load(days), week_load([factor * day for day in days])
    if one.monotony is not None and other.monotony is not None:
        assert other.monotony == pytest.approx(one.monotony, rel=1e-6)


@given(st.lists(st.floats(0, 2000), min_size=1, max_size=80), st.sampled_from([7, 28]))
def test_a_moving_mean_is_the_recursive_filter_of_its_share(days, span):
    share = 2 / (span + 1)
    start = lfiltic([share], [1, share - 1], [days[0]])
    found, _ = lfilter([share], [1, share - 1], days[1:], zi=start) if len(days) > 1 else ([], None)
    assert ewma(days, span) == pytest.approx([days[0], *found])


@given(st.lists(st.floats(0, 2000), min_size=1, max_size=80), st.sampled_from([7, 28]))
def test_a_moving_mean_is_that_of_a_reference_library(days, span):
    """pandas' exponentially weighted mean, recursive from the first day on."""
    assert ewma(days, span) == pytest.approx(list(pd.Series(days).ewm(span=span, adjust=False).mean()))


def test_the_shares_are_a_quarter_and_seven_hundredths():
    assert ewma([0, 100], 7)[1] == pytest.approx(25)
    assert ewma([0, 100], 28)[1] == pytest.approx(6.90, abs=0.005)
    assert ewma(np.full(50, 80.0), 7)[-1] == pytest.approx(80)
