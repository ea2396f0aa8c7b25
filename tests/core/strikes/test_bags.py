"""What belongs on which bag. Common practice, no source."""

import pytest

from yoisho.session.modality import MODALITIES
from yoisho.strikes.bags import BAGS, against, suitable
from yoisho.strikes.notation import read


@pytest.mark.parametrize("bag", ["bag", "stationary-bag"])
def test_no_uppercut_to_the_head_on_a_straight_bag(bag):
    assert "bends the wrist" in against(read("1-2-6"), bag)[0]
    assert against(read("1-2-6b"), bag) == ()
    assert against(read("1-2-3"), bag) == ()


@pytest.mark.parametrize("bag", ["reflex-bag", "uppercut-bag"])
@pytest.mark.parametrize("kick", ["rk-m", "push kick", "knee", "clinch knee"])
def test_no_kicks_and_knees_on_what_hangs_high(bag, kick):
    assert against(read(kick), bag)
    assert against(read("5b-6b"), bag) == ()


@pytest.mark.parametrize("bag", ["pads", "shadow", "partner"])
def test_everything_can_be_held_up_or_done_in_the_air(bag):
    assert against(read("1-6, rk-h, knee, slip, pivot"), bag) == ()


def test_what_suits_is_what_nothing_speaks_against():
    assert suitable(read("1-2")) == tuple(BAGS)
    assert suitable(read("6, rk-m")) == ("pads", "shadow", "partner")


def test_every_bag_is_a_means_that_is_struck_by_all_its_names():
    for bag in BAGS.values():
        assert MODALITIES[bag.id].strikes
        assert MODALITIES[bag.id].aliases == bag.aliases
        assert bag.suits


def test_there_is_no_bag_that_is_not_known():
    with pytest.raises(KeyError):
        against(read("1"), "trampoline")
