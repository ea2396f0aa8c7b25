import pytest
from hypothesis import given

from tests.core.trees import trees
from yoisho.session.interval import SessionError
from yoisho.session.shorthand import read
from yoisho.session.timeline import unroll
from yoisho.strikes.tempo import TEMPOS


@given(trees)
def test_intervals_follow_each_other_without_gap_or_overlap(tree):
    timeline = unroll(tree)
    clock = 0
    for interval in timeline.intervals:
        assert interval.start_s == clock
        clock = interval.end_s
    assert timeline.total_s == clock


@given(trees)
def test_work_and_rest_make_the_whole(tree):
    timeline = unroll(tree)
    assert timeline.work_s + timeline.rest_s == timeline.total_s


def test_every_interval_knows_its_round_outermost_first():
    timeline = unroll(read("2 x (3 x (20 power) rest 0:10) rest 1:00"))
    work = [i.rounds for i in timeline.intervals if i.kind == "work"]
    assert work == [((set_, 2), (turn, 3)) for set_ in (1, 2) for turn in (1, 2, 3)]


def test_parts_follow_one_another_and_keep_their_number():
    timeline = unroll(read("60 flow"), read("2 x (30 power) rest 0:30"))
    assert [(i.part, i.start_s) for i in timeline.intervals] == [(0, 0), (1, 60), (1, 90), (1, 120)]


def test_recovery_on_the_bag_counts_as_rest_not_as_work():
    timeline = unroll(read("8 x (30 power / 30 recover)"))
    assert (timeline.work_s, timeline.rest_s) == (240, 240)


def test_strikes_are_time_at_each_tempos_rate():
    timeline = unroll(read("2:00 speed, 1:00 technique, 1:00 rest"))
    assert timeline.strikes == 2 * TEMPOS["speed"].strikes_per_min + TEMPOS["technique"].strikes_per_min


def test_the_pulse_is_the_musics_where_there_is_some_and_else_the_efforts_own():
    first, rest, second, off = unroll(read("1:00 flow bag 120 bpm, 10 rest, 20 speed, 20 push-ups")).intervals
    assert unroll(read("1:00 flow at 75 a minute")).intervals[0].pulse_per_min == 75, "as the coach fixes it"
    assert (first.pulse_per_min, rest.pulse_per_min, second.pulse_per_min, off.pulse_per_min) == (120, 0, 180, 0)


def test_on_a_beat_each_beat_is_a_strike_whatever_the_length_of_the_combination():
    (one,) = unroll(read("1:00 flow bag [1-2-3b] to 120 beats")).intervals
    assert one.strikes == 120
    (half,) = unroll(read("1:00 flow bag [1-2-3b] to 120 beats half time")).intervals
    assert half.strikes == 60


def test_of_no_parts_the_timeline_is_empty():
    empty = unroll()
    assert (empty.total_s, empty.work_s, empty.rest_s, empty.strikes) == (0, 0, 0, 0)


def test_four_hours_at_one_bag_are_allowed_and_a_second_more_is_not():
    hour = read("4 x (15:00 flow bag pairs)")
    assert unroll(hour, sharing=4).total_s == 4 * 3600
    with pytest.raises(SessionError, match="longer than 4 hours"):
        unroll(hour, read("1s rest"), sharing=4)
