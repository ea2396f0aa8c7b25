"""What was done is what was played: nothing that was skipped, all that was done twice. Common practice, no source."""

import pytest

from yoisho.runs.record import Record, Stood, Stretch, done_timeline, lived
from yoisho.session.shorthand import read
from yoisho.session.timeline import unroll

WARM_UP_THEN_ALL_OUT = unroll(read("10:00 flow; then 1:00"), read("8 x (20 all-out) rest 0:10"))
REPS = unroll(read("2 x (50 reps power bag [1-2]) rest 0:30"))


def record(*played, **more):
    return Record(tuple(Stretch(*each) for each in played), **more)


def told(timeline, kept):
    return [(one.tempo, one.start_s, one.seconds) for one in done_timeline(timeline, kept).intervals]


def test_a_swap_of_the_pads_in_the_midst_of_a_round_makes_it_two_turns():
    pads = unroll(read("4:00 combination pads, 1:00 rest"))
    swapped = (Stretch(-10, 90), Stretch(90, 150, 0), Stretch(150, 300, 1))
    own = [lived(pads, Record(swapped, place=place, of=2)) for place in (0, 1)]
    assert [[(i.kind, i.start_s, i.seconds) for i in life.intervals] for life in own] == [
        [("work", 0, 150), ("rest", 150, 90), ("rest", 240, 60)],
        [("rest", 0, 150), ("work", 150, 90), ("rest", 240, 60)],
    ]
    alone = lived(pads, Record(swapped, of=1))
    assert [(i.kind, i.seconds) for i in alone.intervals] == [("work", 240), ("rest", 60)], "alone nobody holds"


def test_a_run_without_a_skip_is_the_plan_itself():
    whole = record((-10, 400), (400, WARM_UP_THEN_ALL_OUT.total_s))
    assert done_timeline(WARM_UP_THEN_ALL_OUT, whole) == WARM_UP_THEN_ALL_OUT


def test_a_warm_up_that_was_skipped_was_not_done_and_all_that_followed_was():
    skipped = done_timeline(WARM_UP_THEN_ALL_OUT, record((-10, 3), (660, WARM_UP_THEN_ALL_OUT.total_s)))
    assert [one.tempo for one in skipped.intervals[:3]] == ["flow", "all-out", "rest"]
    assert skipped.intervals[0].seconds == 3
    assert skipped.work_s == 3 + 8 * 20


def test_efforts_that_were_skipped_are_not_there_though_the_run_went_on_after_them():
    ends = done_timeline(WARM_UP_THEN_ALL_OUT, record((0, 680), (870, 890)))
    assert [one.tempo for one in ends.intervals].count("all-out") == 2


def test_what_was_played_twice_was_done_twice():
    twice = told(unroll(read("30 power, 30 rest")), record((0, 30), (0, 60)))
    assert twice == [("power", 0, 60), ("rest", 60, 30)]


def test_a_pause_of_the_clock_parts_nothing_and_added_time_lengthens_its_rest():
    kept = record((0, 10), (10, 60), stood=(Stood(40.0, 15.0),))
    assert told(unroll(read("30 power, 30 rest")), kept) == [("power", 0, 30), ("rest", 30, 45)]


def test_counted_reps_are_what_was_done_of_a_round_of_reps():
    first, _, second = REPS.intervals
    part = record((0, 30), reps=((first.start_s, 18),))
    assert done_timeline(REPS, part).strikes == 36, "eighteen passes of two"
    quick = record((0, 20), counted=((first.start_s, first.end_s),), reps=((first.start_s, 50),))
    assert done_timeline(REPS, quick).strikes == 100
    back = record((0, 20), (0, 20), reps=((first.start_s, 18),))
    assert done_timeline(REPS, back).strikes == 36, "the clock was moved back, the reps were counted on"
    again = record((0, 20), (first.end_s, first.end_s + 5), (0, 10), reps=((first.start_s, 18),))
    assert done_timeline(REPS, again).strikes == 36, "also where something else was done in between"
    none = record((first.end_s, second.start_s + 5), reps=((second.start_s, 0),))
    assert done_timeline(REPS, none).strikes == 0


def test_reps_that_nobody_counted_are_never_more_than_were_asked_for():
    first = REPS.intervals[0]
    slow = record((0, first.end_s), stood=(Stood(first.end_s - 0.5, 90.0),))
    assert done_timeline(REPS, slow).strikes == 100
    assert done_timeline(REPS, slow).intervals[0].seconds == first.seconds + 90


def test_stretches_that_do_not_touch_share_nothing():
    assert Stretch(0, 10).overlap_s(10, 20) == Stretch(30, 40).overlap_s(10, 20) == 0
    assert Stretch(5, 12.5).overlap_s(10, 20) == 2.5


def test_reps_that_nobody_counted_are_taken_in_proportion_to_their_time():
    first = REPS.intervals[0]
    assert done_timeline(REPS, record((0, first.seconds / 2))).strikes == pytest.approx(50, abs=2)


def test_each_of_a_pair_did_their_own_turns_and_a_swap_by_hand_moves_them():
    pairs = unroll(read("4 x (30 power pairs)"))
    shares = [done_timeline(pairs, record((0, 60, 0), (60, 90, 1), place=place, of=2)).work_s for place in range(2)]
    assert shares == [30, 60], "A, B, and after the swap B again"


def test_a_run_written_down_by_hand_is_so_many_seconds_from_its_start():
    assert Record.by_hand(700).played == (Stretch(0, 700),)
    by_hand = done_timeline(WARM_UP_THEN_ALL_OUT, Record.by_hand(700))
    assert by_hand.total_s == 700
    assert by_hand.work_s == 600 + 20 + 10
