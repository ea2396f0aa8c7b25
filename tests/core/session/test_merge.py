"""Two coaches, or two tabs, on one session: both edits come together, and nothing is lost silently."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from yoisho.session.document import Part, Session
from yoisho.session.interval import Interval, SessionError
from yoisho.session.merge import THEIRS, merge
from yoisho.session.tree import Repeat

WARM_UP = Part("Warm-up", Interval(300, "flow"), "warm-up")
ROUNDS = Part("Rounds", Repeat(3, Interval(180, "technique"), Interval(60, "rest")))
COOL_DOWN = Part("Cool-down", Interval(180, "recover"), "cool-down")
BASE = Session("Thursday", (WARM_UP, ROUNDS, COOL_DOWN))


def with_part(session: Session, at: int, part: Part) -> Session:
    return Session(session.title, (*session.parts[:at], part, *session.parts[at + 1 :]))


LONGER_WARM_UP = Part("Warm-up", Interval(480, "flow"), "warm-up")
FIVE_ROUNDS = Part("Rounds", Repeat(5, Interval(180, "technique"), Interval(60, "rest")))


def test_edits_of_different_parts_come_together_without_a_word():
    merged = merge(BASE, with_part(BASE, 0, LONGER_WARM_UP), with_part(BASE, 2, Part("Breathe", COOL_DOWN.tree)))
    assert [part.name for part in merged.session.parts] == ["Warm-up", "Rounds", "Breathe"]
    assert merged.session.parts[0] == LONGER_WARM_UP
    assert merged.notes == ()


def test_gloves_here_and_more_rounds_there_make_one_part():
    gloved = with_part(BASE, 1, Part("Rounds", ROUNDS.tree, None, "16-oz", ("straps",)))
    merged = merge(BASE, gloved, with_part(BASE, 1, FIVE_ROUNDS))
    assert merged.session.parts[1] == Part("Rounds", FIVE_ROUNDS.tree, None, "16-oz", ("straps",))
    others = with_part(BASE, 1, Part("Rounds", ROUNDS.tree, None, "10-oz"))
    assert len(merge(BASE, gloved, others).session.parts) == 4, "other gloves on both sides: both stand"


def test_a_new_name_here_and_new_rounds_there_make_one_part():
    renamed = with_part(BASE, 1, Part("Bag rounds", ROUNDS.tree))
    merged = merge(BASE, renamed, with_part(BASE, 1, FIVE_ROUNDS))
    assert merged.session.parts[1] == Part("Bag rounds", FIVE_ROUNDS.tree)
    assert merged.notes == ()


def test_where_both_changed_the_rounds_mine_stand_and_theirs_follow_by_name():
    mine = with_part(BASE, 1, Part("Rounds", Repeat(4, Interval(120, "power"), Interval(60, "rest"))))
    merged = merge(BASE, mine, with_part(BASE, 1, FIVE_ROUNDS))
    assert merged.session.parts[1] == mine.parts[1]
    assert merged.session.parts[2] == Part("Rounds" + THEIRS, FIVE_ROUNDS.tree)
    assert merged.notes == ("Both changed Rounds: yours stands, and theirs after it.",)


def test_a_part_added_there_and_a_part_removed_here_are_both_done():
    mine = Session("Thursday", (WARM_UP, ROUNDS))
    theirs = Session("Thursday", (Part("Screening talk", Interval(60, "rest")), *BASE.parts))
    names = [part.name for part in merge(BASE, mine, theirs).session.parts]
    assert names == ["Screening talk", "Warm-up", "Rounds"]


def test_two_titles_leave_mine_and_name_theirs():
    merged = merge(BASE, Session("Friday", BASE.parts), Session("Saturday", BASE.parts))
    assert merged.session.title == "Friday"
    assert "Saturday" in merged.notes[0]


def test_more_parts_than_a_session_holds_are_refused():
    many = tuple(Part(str(n), Interval(60 + n, "flow")) for n in range(39))
    base = Session("Long", many[:1])
    with pytest.raises(SessionError, match="at most 40 parts"):
        merge(base, Session("Long", many), Session("Long", tuple(Part(p.name, Interval(9, "flow")) for p in many)))


PARTS = st.lists(st.sampled_from((WARM_UP, ROUNDS, COOL_DOWN, FIVE_ROUNDS, LONGER_WARM_UP)), max_size=5)


@given(PARTS, PARTS, PARTS)
def test_an_edit_beside_none_is_taken_whole_and_every_new_part_is_found_again(base, mine, theirs):
    sessions = [Session("S", tuple(parts)) for parts in (base, mine, theirs)]
    was, one, other = sessions
    assert merge(was, one, was).session == one
    assert merge(was, was, other).session == other
    merged = merge(was, one, other).session
    trees = {part.tree for part in merged.parts}
    for side in (one, other):
        assert all(part.tree in trees for part in side.parts if part not in was.parts)


def test_the_same_edit_made_twice_is_no_conflict():
    same = with_part(BASE, 1, FIVE_ROUNDS)
    merged = merge(BASE, same, with_part(BASE, 1, Part("Rounds", FIVE_ROUNDS.tree)))
    assert merged.session == same
    assert merged.notes == ()
    titled = Session("Friday", BASE.parts)
    assert merge(BASE, titled, titled).notes == ()


def test_one_thing_that_both_made_the_same_and_another_that_one_made_come_together():
    mine = with_part(BASE, 1, Part("Bag", FIVE_ROUNDS.tree))
    theirs = with_part(BASE, 1, Part("Bag", FIVE_ROUNDS.tree, "lactic-capacity"))
    merged = merge(BASE, mine, theirs)
    assert merged.session.parts[1] == Part("Bag", FIVE_ROUNDS.tree, "lactic-capacity")
    assert merged.notes == ()
