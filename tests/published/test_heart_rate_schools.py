"""Formulas for maximum heart rate, worked by hand from their published form (from memory), and the punching
figures of Kravitz et al. 2003 (from memory)."""

import numpy as np
import pytest

from yoisho.engine import heart_rate
from yoisho.engine.strike_cost import mix_of


def test_tanaka_2001():
    assert heart_rate.tanaka(40) == pytest.approx(180)


def test_gulati_2010():
    assert heart_rate.gulati(50) == pytest.approx(162)


def test_fox_1971():
    assert heart_rate.fox(40) == 180


@pytest.mark.parametrize("uptake_frac", [0.68, 0.73])
def test_punching_at_about_70_percent_of_vo2max_gives_85_to_93_percent_of_hrmax(uptake_frac):
    seconds = np.arange(0.0, 601.0)
    one = np.ones(1)
    steady = np.full((601, 1), uptake_frac)
    arms = np.full(601, mix_of(()).ceiling_frac)
    share = heart_rate.course(seconds, steady, 0.1 * one, arms, 65 * one, 196 * one)[-1, 0] / 196
    assert 0.83 <= share <= 0.935


def test_of_the_whole_body_heart_rate_reserve_equals_uptake_reserve():
    """Swain and Leutholtz 1997, from memory."""
    seconds = np.arange(0.0, 601.0)
    one = np.ones(1)
    course = heart_rate.course(seconds, np.full((601, 1), 0.55), 0.1 * one, np.ones(601), 60 * one, 190 * one)
    assert (course[-1, 0] - 60) / 130 == pytest.approx((0.55 - 0.1) / 0.9, abs=1e-3)
