"""Gastin PB (2001) Energy system interaction and relative contribution during maximal exercise. Sports Med
31:725-741. Means over many studies of one continuous maximal effort. Figures from memory."""

import pytest

from tests.published.profiles import aerobic_share, exhausting_demand, run


@pytest.mark.parametrize(("seconds", "share"), [(10, 0.06), (15, 0.12), (20, 0.18), (30, 0.27)])
def test_aerobic_share_of_an_all_out_effort(seconds, share):
    assert aerobic_share(run([(seconds, 9)])) == pytest.approx(share, abs=0.04)


@pytest.mark.parametrize(
    ("seconds", "share"), [(45, 0.37), (60, 0.45), (75, 0.51), (90, 0.56), (120, 0.63), (180, 0.73), (240, 0.79)]
)
def test_aerobic_share_of_an_exhausting_effort(seconds, share):
    done = run([(seconds, exhausting_demand(seconds))])
    assert aerobic_share(done) == pytest.approx(share, abs=0.04)
