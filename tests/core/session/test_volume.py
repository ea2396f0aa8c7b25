"""Volume: strikes by limb and level of intervals, parts, sessions and weeks."""

import pytest
from hypothesis import given

from tests.core.trees import trees
from yoisho.session.shorthand import read
from yoisho.session.timeline import unroll
from yoisho.session.volume import Volume, by_hand, interval_volume, total, volume


def of(text, stance="orthodox"):
    return volume(unroll(read(text)).intervals, stance)


@given(trees)
def test_limbs_add_up_to_all_strikes_and_parts_to_the_whole(tree):
    intervals = unroll(tree).intervals
    whole = volume(intervals)
    assert sum(whole.limbs.values()) == pytest.approx(whole.strikes)
    assert sum(whole.heights.values()) + whole.open == pytest.approx(whole.strikes)
    assert whole.counted <= whole.strikes + 1e-6
    middle = len(intervals) // 2
    halves = total((volume(intervals[:middle]), volume(intervals[middle:])))
    assert halves.strikes == pytest.approx(whole.strikes)


@given(trees)
def test_a_southpaw_strikes_as_many_with_the_other_hand_unless_sides_are_named(tree):
    orthodox, southpaw = (volume(unroll(tree).intervals, stance) for stance in ("orthodox", "southpaw"))
    assert orthodox.strikes == pytest.approx(southpaw.strikes)


def test_strikes_on_a_limb_are_those_of_it_alone_and_none_where_it_does_nothing():
    found = of("10 reps technique bag [1-2-rk]")
    assert (found.on("right hand"), found.on("right hand", "right leg"), found.on("left leg")) == (10, 20, 0)


def test_rep_rounds_are_counted_exactly_and_timed_ones_are_estimates():
    counted = of("4 x (100 reps technique bag [1-2b]) rest 0:30")
    assert (counted.strikes, counted.counted) == (800, 800)
    assert counted.heights == {"head": 400, "body": 400}
    assert of("3:00 technique bag [1-2b]").counted == 0


def test_what_no_combination_places_is_shared_over_two_hands_and_said_to_be_open():
    held = of("1:00 power bag")
    assert held.limbs == by_hand(40)
    assert held.open == 40
    assert held.heights == {}


def test_switching_sides_makes_left_and_right_even():
    assert of("2:00 power bag [1-3-2]").left_share == pytest.approx(2 / 3)
    assert of("2:00 power bag [1-3-2] switch at half").left_share == pytest.approx(0.5)


def test_the_lead_said_goes_before_the_persons_stance():
    assert of("10 reps power [1] right lead").limbs == of("10 reps power [1]", "southpaw").limbs == {"right hand": 10}


def test_off_the_bag_nothing_is_struck():
    assert of("20 push-ups, 1:00 plank, 2:00 skip").strikes == 0


def test_the_partner_who_waits_strikes_nothing():
    intervals = unroll(read("1:00 power bag in pairs")).intervals
    assert [interval_volume(one).strikes for one in intervals] == [40, 0]


def test_a_count_takes_the_place_of_the_estimate_and_is_shared_out_alike():
    counted = of("10 reps power [1-3-2]").scaled_to(60)
    assert counted.limbs == {"left hand": 40, "right hand": 20}
    assert counted.counted == 60
    assert Volume().scaled_to(10).limbs == by_hand(10)


def test_nothing_struck_has_no_side():
    assert Volume().left_share is None
