"""Drills: what a round is filled with, from repetition to repetition."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.core.trees import drills
from yoisho.strikes.combination import CombinationError
from yoisho.strikes.drill import MOST_COMBINATIONS, Drill, one
from yoisho.strikes.notation import NotationError, read, read_drill, write, write_drill


def rounds(text, of):
    drill = read_drill(text)
    return [write(drill.at(turn, of)) for turn in range(1, of + 1)]


def test_combinations_take_turns_and_begin_again():
    assert rounds("1 | 2 | 3", 5) == ["1", "2", "3", "1", "2"]


def test_the_last_round_recalls_all_that_was_drilled():
    assert rounds("1-2 | 3-2 | recall", 3) == ["1-2", "3-2", "1-2 then 3-2"]


def test_adding_rounds_grow_by_one_and_stay_whole():
    assert rounds("adding 5-2-4 | 1-3-2 | 2b-3", 4) == [
        "5-2-4", "5-2-4 then 1-3-2", "5-2-4 then 1-3-2 then 2b-3", "5-2-4 then 1-3-2 then 2b-3",
    ]  # fmt: skip


def test_a_draw_brings_each_once_before_any_comes_again():
    drawn = rounds("draw 1 | 2 | 3 | 4", 8)
    assert sorted(drawn[:4]) == sorted(drawn[4:]) == ["1", "2", "3", "4"]
    assert drawn == rounds("draw 1 | 2 | 3 | 4", 8), "the same lot on the Bench and on the floor"
    assert drawn[:4] != ["1", "2", "3", "4"]


def test_a_draw_recalls_in_its_last_round():
    assert rounds("draw 1 | 2 | recall", 3)[-1] == "1 then 2"


def test_a_pyramid_climbs_in_every_round_with_its_finish():
    assert rounds("pyramid 1-2-3b", 2) == ["1 then 1-2 then 1-2-3b"] * 2
    assert rounds("pyramid 1-2 | 3", 1) == ["1-3 then 1-2-3"]


def test_outside_a_repeat_all_is_done_one_after_the_other():
    assert rounds("1 | 2 | 3", 1) == ["1 then 2 then 3"]


@given(drills, st.integers(1, 12))
def test_every_round_of_every_drill_is_made_of_what_it_holds(drill, of):
    whole = set(drill.whole.actions)
    for turn in range(1, of + 1):
        assert set(drill.at(turn, of).actions) <= whole


@given(drills)
def test_a_drill_is_written_and_read_back_without_loss(drill):
    assert read_drill(write_drill(drill)) == drill


def test_one_combination_is_the_drill_of_it():
    assert one(read("1-2")) == read_drill("1-2")


@pytest.mark.parametrize(
    ("made", "words"),
    [
        (lambda: Drill(()), "at least one combination"),
        (lambda: Drill((read("1"),), "random"), "turns, adding, pyramid, draw"),
        (lambda: Drill((read("1"),) * (MOST_COMBINATIONS + 1)), "at most 40"),
        (lambda: Drill((read("1"), read("2"), read("3")), "pyramid"), "one finish at most"),
        (lambda: Drill((read("1"), read("2")), "adding", recall=True), "recall all by themselves"),
        (lambda: Drill((read("100x 1"), read("101x 2"))), "at most 200 techniques"),
        (lambda: Drill((read("30x 1"),), "pyramid"), "at most 200 techniques"),
    ],
)
def test_an_impossible_drill_says_what_is_possible(made, words):
    with pytest.raises(CombinationError, match=words):
        made()


def test_a_draw_comes_in_another_order_each_time_through():
    drawn = rounds("draw 1 | 2 | 3 | 4 | 5 | 6", 24)
    assert len({tuple(drawn[start : start + 6]) for start in range(0, 24, 6)}) > 1


def test_a_fault_in_a_later_combination_is_shown_at_its_own_place():
    text = "adding 1-2 | 1-3 | 1-zz"
    with pytest.raises(NotationError) as caught:
        read_drill(text)
    assert text[caught.value.position :].startswith("zz")
