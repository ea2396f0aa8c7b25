"""A session without a title is found again by its pattern."""

from yoisho.session.called import LONGEST, UNTITLED, called
from yoisho.session.document import Session
from yoisho.session.shorthand import read_parts
from yoisho.strikes.schools import DEFAULT_SCHOOL

LINES = "Warm-up: 20:00 skip; then 1:00\nMain set: 8 x (20 all out) rest 0:10"


def test_it_is_called_after_its_main_part_not_the_longer_warm_up():
    assert called(Session(UNTITLED, read_parts(LINES)), DEFAULT_SCHOOL).title == "8 × (20 all out) rest 0:10"


def test_a_title_of_its_own_stays_and_one_of_nothing_has_none_yet():
    assert called(Session("Thursday", read_parts(LINES)), DEFAULT_SCHOOL).title == "Thursday"
    assert called(Session(UNTITLED, ()), DEFAULT_SCHOOL).title == UNTITLED


def test_a_long_pattern_is_cut_at_a_word():
    long = "Main set: 2 x (1:00 speed bag, 1:00 power bag, 0:30 technique bag [1-2-3b], 1:00 carry) rest 1:30"
    title = called(Session(UNTITLED, read_parts(long)), DEFAULT_SCHOOL).title
    assert len(title) <= LONGEST + 1
    assert title.endswith(" …")
    assert title.startswith("2 × (1:00 speed bag, 1:00 power bag")
