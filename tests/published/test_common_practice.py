"""Facts of the trade that coaches do in their heads. Common practice, no source."""

import pytest

from yoisho.session.shorthand import read
from yoisho.session.timeline import unroll


@pytest.mark.parametrize(
    ("text", "seconds"),
    [
        ("8 x (20 all out / 10 rest)", 4 * 60),
        ("2 x (30 technique, 30 speed, 30 power)", 3 * 60),
        ("2 x (30 technique, 30 speed, 30 power) rest 0:15", 3 * 60 + 15),
        ("2 x (8 x (30 power / 30 flow)) rest 2:00", 18 * 60),
        ("10 x (40 combination / 20 recover)", 10 * 60),
        ("3 x (5 x (1:00 freestyle))", 15 * 60),
    ],
)
def test_how_long_a_format_takes(text, seconds):
    assert unroll(read(text)).total_s == seconds


def test_the_lactic_sets_hold_sixteen_hard_bouts():
    intervals = unroll(read("2 x (8 x (30 power / 30 flow)) rest 2:00")).intervals
    assert sum(interval.tempo == "power" for interval in intervals) == 16


def test_bursts_put_nine_sprints_into_a_round():
    intervals = unroll(read("9 x (10 combination, 10 all out)")).intervals
    assert sum(i.tempo == "all-out" for i in intervals) == 9
    assert intervals[-1].end_s == 180
