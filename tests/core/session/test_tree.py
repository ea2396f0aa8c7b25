import pytest
from hypothesis import given

from tests.core.trees import trees
from yoisho.session.timeline import unroll
from yoisho.session.tree import (
    DEEPEST,
    MOST_INTERVALS,
    Interval,
    Repeat,
    Sequence,
    SessionError,
    check_size,
    duration_s,
    interval_count,
    sequence,
)


def test_a_rest_stands_between_repetitions_and_never_after_the_last():
    timeline = unroll(Repeat(3, Interval(20, "all-out"), Interval(10, "rest")))
    assert [i.tempo for i in timeline.intervals] == ["all-out", "rest", "all-out", "rest", "all-out"]


def test_work_cannot_stand_between_repetitions():
    with pytest.raises(SessionError, match="only rest or recover"):
        Repeat(3, Interval(20, "all-out"), Interval(10, "flow"))


@pytest.mark.parametrize("seconds", [0, -5, 7201, 1.5, True, None])
def test_an_impossible_length_is_refused(seconds):
    with pytest.raises(SessionError):
        Interval(seconds, "flow")


def test_an_unknown_effort_is_refused_with_the_efforts_there_are():
    with pytest.raises(SessionError, match="technique"):
        Interval(30, "sped")


@pytest.mark.parametrize("count", [0, -1, 201, 2.0, True])
def test_a_repeat_runs_a_possible_number_of_times(count):
    with pytest.raises(SessionError):
        Repeat(count, Interval(20, "flow"))


def test_one_thing_is_not_a_sequence():
    with pytest.raises(SessionError):
        Sequence((Interval(20, "flow"),))
    assert sequence([Interval(20, "flow")]) == Interval(20, "flow")


def test_a_session_longer_than_four_hours_is_refused_without_being_unrolled():
    huge = Repeat(200, Repeat(200, Repeat(200, Interval(7200, "flow"))))
    with pytest.raises(SessionError, match="4 hours"):
        check_size(huge)


def test_too_many_intervals_are_refused():
    with pytest.raises(SessionError, match="intervals"):
        check_size(Repeat(200, Repeat(50, Interval(1, "flow"))))


def test_brackets_cannot_go_on_for_ever():
    node = Interval(1, "flow")
    for _ in range(DEEPEST - 1):
        node = Repeat(1, node)
    check_size(node)
    node = Repeat(1, node)
    with pytest.raises(SessionError, match="deep"):
        check_size(node)


@given(trees)
def test_length_and_count_are_known_without_unrolling(tree):
    timeline = unroll(tree)
    assert timeline.total_s == duration_s(tree)
    assert len(timeline.intervals) == interval_count(tree)


def test_brackets_go_no_deeper_for_standing_in_a_row():
    node = Interval(1, "flow")
    for _ in range(DEEPEST - 2):
        node = Repeat(1, node)
    check_size(Sequence((node, Interval(1, "rest"))))
    with pytest.raises(SessionError, match="deep"):
        check_size(Sequence((Repeat(1, node), Interval(1, "rest"))))


def test_as_many_intervals_as_a_session_holds_are_taken_and_one_more_is_not():
    """A turn in pairs is two of them."""
    flow, paired = Interval(1, "flow"), Interval(1, "flow", pairs=True)
    hundred = Repeat(100, flow)
    assert interval_count(Sequence((flow, paired, hundred))) == 1 + 2 + 100
    full = Repeat(MOST_INTERVALS // 100, hundred)
    assert interval_count(full) == MOST_INTERVALS
    check_size(full)
    with pytest.raises(SessionError, match=f"at most {MOST_INTERVALS} intervals"):
        check_size(Sequence((full, flow)))
