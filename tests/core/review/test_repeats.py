"""What a field test repeats to: worked by hand, and against scipy's quantile of the normal distribution."""

from datetime import date

import pytest
from scipy.stats import norm

from yoisho.review.repeats import (
    FIELD_TESTS,
    LEAST_REPEATS,
    SURE,
    Tried,
    change,
    repeatability,
    repeats,
    typical_error,
)

PAIRS = [(10.0, 12.0), (20.0, 19.0), (30.0, 33.0)]


def tried(day: int, value: float, month: int = 3) -> Tried:
    return Tried(date(2026, month, day), value)


def test_the_typical_error_is_the_spread_of_the_differences_over_the_root_of_two():
    # Differences 2, -1 and 3: mean 4/3, SD 2.0817; over the root of two 1.472. Worked by hand (method: Hopkins 2000).
    assert typical_error(PAIRS) == pytest.approx(1.472, abs=0.001)
    # Shares 2/11, -1/19.5 and 3/31.5: SD 0.11783; over the root of two 0.0833.
    assert typical_error(PAIRS, relative=True) == pytest.approx(0.0833, abs=0.0001)


def test_one_pair_tells_no_error():
    with pytest.raises(ValueError, match="two pairs"):
        typical_error(PAIRS[:1])


def test_two_tries_within_a_fortnight_are_a_repeat_in_the_order_of_days():
    one, other = [tried(15, 42.0), tried(1, 40.0), tried(30, 50.0)], [tried(5, 7.0)]
    assert repeats([one, other]) == [(40.0, 42.0)]


def test_a_clubs_own_error_counts_from_five_repeats_on():
    test = FIELD_TESTS["shuttle"]
    assert LEAST_REPEATS == 5
    assert repeatability(test, (PAIRS * 2)[:4]).error == test.error
    own = repeatability(test, (PAIRS * 2)[:5])
    assert (own.error, own.source) == (typical_error((PAIRS * 2)[:5]), "the club's 5 repeats")


@pytest.mark.parametrize(("kind", "error"), [("shuttle", 0.5), ("strikes", 0.04 * 52)])
def test_a_change_is_real_where_nothing_changed_would_differ_by_less_four_times_in_five(kind, error):
    test = FIELD_TESTS[kind]
    found = change(test, tried(1, 50.0), tried(2, 54.0), repeatability(test, []))
    assert norm.ppf(0.9) == pytest.approx(SURE, abs=1e-4)
    assert (found.by, found.within) == (4.0, pytest.approx(norm.ppf(0.9) * 2**0.5 * error, rel=1e-3))
    assert found.real == (kind != "strikes" or found.within < 4.0)
