"""What sets sessions apart: only what stands out by enough, and of the right one."""

from tests.core.people import club_boxer
from yoisho.design.tradeoffs import MOST_SAID, stands_out, tradeoffs
from yoisho.engine.readout import read
from yoisho.session.shorthand import read as line
from yoisho.session.timeline import unroll


def readings(*lines):
    return [read(club_boxer(), unroll(line(text)), ranges=False) for text in lines]


def test_one_alone_is_compared_with_nothing():
    assert tradeoffs(readings("10:00 flow")) == [""]


def test_two_alike_have_nothing_to_say():
    assert tradeoffs(readings("10:00 flow", "10:00 flow")) == ["", ""]


def test_the_quicker_and_the_longer_are_told_with_their_length():
    short, long = tradeoffs(readings("10:00 flow", "20:00 flow"))
    assert "The quickest, 10:00 in all." in short
    assert "The longest, 20:00 in all." in long


def test_fewer_strikes_are_easier_on_the_hands():
    few, many = tradeoffs(readings("10:00 power bag", "10:00 speed bag"))
    assert "Easiest on the hands and shins: about" in few
    assert "The most strikes" in many


def test_what_goes_deepest_is_told_and_the_fresh_one_too():
    deep, *others = tradeoffs(readings("8 x (30 power / 30 flow)", "16:00 flow", "4 x (1:00 speed / 1:00 rest)"))
    assert "Goes deepest into the lactic store" in deep
    assert not any("deepest" in other for other in others)
    fresh, tired = tradeoffs(readings("6 x (10 all out / 1:50 rest)", "6 x (10 all out / 20 rest)"))
    assert "fresh" in fresh
    assert "fresh" not in tired


def test_no_more_is_said_than_can_be_taken_in():
    said = tradeoffs(readings("4 x (30 all out / 4:00 rest)", "40:00 combination bag", "10:00 flow"))
    assert all(words.count(". ") + words.endswith(".") <= MOST_SAID for words in said)


def test_what_stands_out_does_so_by_its_share_of_the_next_however_small_both_are():
    assert stands_out([0.01, 0.02, 0.03], 0, 0.5, low=True)
    assert not stands_out([0.011, 0.02, 0.03], 0, 0.5, low=True)
    assert stands_out([0.01, 0.02, 0.04], 2, 0.5, low=False)
    assert not stands_out([0.01, 0.02, 0.03], 1, 0.1, low=False), "another is higher"
    assert stands_out([0.0, 0.0, 1e-6], 2, 0.5, low=False)
    assert stands_out([0.50, 0.56], 1, 0.06, low=False, points=True)
