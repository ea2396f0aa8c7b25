"""One bag, two people or three: who works when. Common practice, no source."""

from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.core.trees import trees
from yoisho.runs.pairs import lived_by, turns, whose
from yoisho.runs.plan import Plan
from yoisho.session.document import Session
from yoisho.session.interval import SessionError
from yoisho.session.shorthand import read, read_parts
from yoisho.session.timeline import unroll

THIRTIES = unroll(read("6 x (30 power pairs)"))


def kinds(timeline):
    return [interval.kind for interval in timeline.intervals]


def test_two_alternate_thirty_on_thirty_off():
    first, second = lived_by(THIRTIES, 0, 2), lived_by(THIRTIES, 1, 2)
    assert kinds(first) == ["work", "rest"] * 6
    assert kinds(second) == ["rest", "work"] * 6
    assert first.work_s == second.work_s == 180
    assert THIRTIES.total_s == 360, "two on one bag double the clock"


@pytest.mark.parametrize("people", [2, 3, 6])
def test_everybody_at_one_bag_does_all_of_it_and_the_clock_is_as_many_times_as_long(people):
    shared = unroll(read("5 x (30 power bag [2, 3-1] pairs) rest 1:00"), sharing=people)
    assert shared.total_s == 5 * 30 * people + 4 * 60
    lives = [lived_by(shared, place, people) for place in range(people)]
    assert [life.work_s for life in lives] == [150] * people
    assert len({tuple(i.combination for i in life.intervals if i.kind == "work") for life in lives}) == 1
    assert kinds(lives[0])[: people + 1] == ["work"] + ["rest"] * people


def test_the_plan_of_one_alone_is_that_of_two_and_of_three_a_half_longer():
    pairs = Session("Pairs", read_parts("Main: 6 x (30 power pairs)"))
    assert [Plan(pairs, people).timeline.total_s for people in (1, 2, 3)] == [360, 360, 540]


def test_so_many_that_it_would_never_end_are_refused():
    with pytest.raises(SessionError, match="with 6 at one bag"):
        unroll(read("4 x (15:00 flow bag pairs)"), sharing=6)


def test_a_swap_by_hand_gives_the_next_turn_to_the_other():
    swapped = lived_by(THIRTIES, 0, 2, [0] * 4 + [1] * 8)
    assert kinds(swapped)[:8] == ["work", "rest", "work", "rest", "rest", "work", "rest", "work"]


def test_one_alone_still_waits_for_the_partner_who_has_no_name():
    assert lived_by(THIRTIES, 0, 1).work_s == 180


def test_the_partner_strikes_as_often_and_as_hard():
    first, second = lived_by(THIRTIES, 0, 2), lived_by(THIRTIES, 1, 2)
    assert second.strikes == first.strikes > 0
    assert second.intervals[1].demand_frac == first.intervals[0].demand_frac


def test_what_is_not_done_in_pairs_all_do():
    mixed = unroll(read("3:00 flow; then 2 x (30 power pairs)"))
    assert turns(mixed, 2) == (None, 0, 1, 2, 3)
    assert all(kinds(lived_by(mixed, place, 4))[0] == "work" for place in range(4))


PADS = unroll(read("3 x (2:00 combination pads [3, 2b]) rest 0:40"))


def test_of_two_on_pads_one_holds_until_the_coach_swaps_them():
    assert kinds(lived_by(PADS, 0, 2)) == ["work", "rest"] * 2 + ["work"]
    assert lived_by(PADS, 1, 2).work_s == 0
    swapped = [0, 0, 1, 1, 1]
    assert [lived_by(PADS, place, 2, swapped).work_s for place in (0, 1)] == [120, 240]
    assert set(turns(PADS, 2)) == {0, None}, "the turn of the first, whatever came before"
    holder = lived_by(PADS, 1, 2).intervals[0]
    assert holder.strikes == 0


@pytest.mark.parametrize("of", [1, 3, 6])
def test_others_on_pads_have_holders_of_their_own(of):
    assert set(turns(PADS, of)) == {None}
    assert all(lived_by(PADS, place, of).work_s == 360 for place in range(of))


def test_nobody_holds_a_bag():
    assert set(turns(unroll(read("2:00 combination bag [3, 2b]")), 2)) == {None}


@pytest.mark.parametrize(("place", "of"), [(2, 2), (-1, 2), (0, 0), (0, 7)])
def test_a_place_that_is_not_there_is_refused(place, of):
    with pytest.raises(ValueError, match="there are 1 to 6 people"):
        lived_by(THIRTIES, place, of)


@given(trees, st.integers(2, 6), st.integers(0, 5))
def test_every_turn_is_somebodys_and_only_theirs(tree, of, shift):
    timeline = unroll(tree)
    lives = [lived_by(timeline, place, of, [shift] * len(timeline.intervals)) for place in range(of)]
    for index, turn in enumerate(turns(timeline, of)):
        if turn is not None:
            assert [life.intervals[index].kind for life in lives].count("work") == 1
    assert all(life.total_s == timeline.total_s for life in lives)


@given(st.integers(0, 100), st.integers(2, 6))
def test_nobody_has_two_turns_in_a_row(turn, of):
    assert all(a != b for a, b in pairwise(whose(n, of) for n in range(turn, turn + of + 1)))


def test_of_three_a_swap_by_hand_gives_the_turn_to_the_next_place():
    assert [whose(0, 3, shift) for shift in range(4)] == [0, 1, 2, 0]
    assert [whose(turn, 3, 1) for turn in range(3)] == [1, 2, 0]
