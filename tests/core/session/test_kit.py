"""Kit: what is said of it, when it changes, what that takes, and what to bring. Common practice, no source."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.core.trees import trees
from yoisho.session.document import Part, Session
from yoisho.session.interval import Interval, SessionError
from yoisho.session.kit import GLOVES, ITEMS, SAID, kit_spellings
from yoisho.session.modality import MODALITIES
from yoisho.session.shorthand import ShorthandError, read, read_parts, write, write_parts
from yoisho.session.timeline import unroll
from yoisho.session.wearing import kit_changes, to_bring

CARRY = "3 x (1:00 speed bag in 16 oz gloves, 1:00 carry with bare hands) rest 1:00"


def changes(line):
    return [(change.at_s, change.words) for change in kit_changes(unroll(read(line)))]


@pytest.mark.parametrize(
    ("line", "gloves", "kit"),
    [
        ("3:00 power bag 16 oz", "16-oz", ()),
        ("3:00 power bag, in 10 ounce gloves", "10-oz", ()),
        ("2:00 flow bag gloves off", "none", ()),
        ("2:00 flow bag in bag gloves", "bag-gloves", ()),
        ("2:00 flow bag with straps in wraps", "wraps", ("straps",)),
        ("40 squats with a medicine ball", None, ("ball",)),
    ],
)
def test_what_coaches_say_of_kit_is_read_wherever_it_stands(line, gloves, kit):
    found = read(line)
    assert (found.gloves, found.kit) == (gloves, kit)
    assert read(write(found)) == found


def test_a_ball_that_is_carried_and_a_ball_that_is_struck_are_no_kit_of_their_own():
    assert (read("1:00 ball carry").modality, read("1:00 ball carry").kit) == ("carry", ())
    assert (read("1:00 speed reflex ball").modality, read("1:00 speed reflex ball").kit) == ("reflex-bag", ())


@pytest.mark.parametrize("spelling", sorted(kit_spellings()))
def test_every_spelling_is_read(spelling):
    field, id = kit_spellings()[spelling]
    assert getattr(read(f"2:00 flow bag with {spelling}"), field) in (id, (id,))


def test_gloves_said_behind_a_bracket_are_those_of_all_work_that_says_no_others():
    rounds = read("4 x (1:00 speed bag, 30 flow bag bare hands, 0:20 rest) in 12 oz gloves")
    assert [each.gloves for each in rounds.body.items] == ["12-oz", "none", None]
    shared = "2 × (1:00 speed, 1:00 power) bag in 12 oz gloves with straps rest 1:00"
    assert write(read(shared)) == shared


def test_gloves_that_there_are_none_of_are_asked_about_and_two_kinds_are_refused():
    with pytest.raises(ShorthandError, match="not an effort"):
        read("1:00 power bag 9 oz")
    with pytest.raises(ShorthandError, match="gloves is said twice"):
        read("1:00 power bag 10 oz 16 oz")
    with pytest.raises(SessionError, match="each said once"):
        Interval(60, "power", kit=("straps", "straps"))
    with pytest.raises(SessionError, match="are no gloves"):
        Part("Main", Interval(60, "power"), gloves="mittens")


def test_a_part_says_its_kit_in_its_brackets_with_or_without_a_purpose():
    text = "Warm-up (bare hands): 5:00 skip\nMain set (lactic capacity, 16 oz gloves, straps): 3:00 power bag"
    first, second = read_parts(text)
    assert (first.purpose, first.gloves, first.kit) == ("warm-up", "none", ())
    assert (second.purpose, second.gloves, second.kit) == ("lactic-capacity", "16-oz", ("straps",))
    assert write_parts((first, second)) == text
    with pytest.raises(ShorthandError, match="Did you mean 16 oz gloves") as caught:
        read_parts("Main (lactic capacity, 16 oz glovs): 3:00 power")
    assert caught.value.position == len("Main (lactic capacity, ")
    with pytest.raises(ShorthandError, match="Did you mean aerobic base") as caught:
        read_parts("Main (aerobc): 3:00 flow")
    assert caught.value.suggestion == "aerobic base"
    with pytest.raises(ShorthandError, match="Purposes are warm-up, sprint power"):
        read_parts("Main (strength): 3:00 power")


def test_what_a_part_is_done_in_all_its_work_is_done_in_save_where_it_says_otherwise():
    parts = read_parts("Main (16 oz gloves): 2:00 flow shadow, 1:00 power bag, 1:00 carry with bare hands, 1:00 rest")
    worn = [interval.source.gloves for interval in Session("Kit", parts).unrolled().intervals]
    assert worn == ["16-oz", "16-oz", "none", None]
    assert parts[0].tree == read("2:00 flow shadow, 1:00 power bag, 1:00 carry with bare hands, 1:00 rest")


def test_a_part_that_says_straps_alone_has_them_on_in_all_its_work():
    straps = Session("Kit", (Part("Main", read("1:00 flow, 1:00 power"), kit=("straps",)),)).unrolled()
    assert [interval.source.kit for interval in straps.intervals] == [("straps",)] * 2


def test_gloves_come_off_for_the_carry_and_on_again_for_the_bag():
    assert changes(CARRY) == [
        (60, ("gloves off",)), (180, ("16 ounce gloves on",)), (240, ("gloves off",)),
        (360, ("16 ounce gloves on",)), (420, ("gloves off",)),
    ]  # fmt: skip


def test_what_the_first_work_asks_for_is_put_on_before_the_start_and_stays_on():
    assert changes("1:00 speed bag in 12 oz gloves, 1:00 rest, 2:00 power bag, 1:00 speed bag in 12 oz gloves") == []


def test_straps_come_off_and_a_ball_is_just_put_down():
    line = "1:00 squats, 1:00 squats with ball, 1:00 carry with straps, 1:00 squats"
    assert changes(line) == [
        (60, ("take the ball",)), (120, ("straps on",)), (180, ("straps off",)),
    ]  # fmt: skip


def test_a_change_is_held_against_the_pause_before_it_however_that_is_made_up():
    first, second = kit_changes(unroll(read(
        "1:00 power bag in 16 oz gloves, 0:10 recover, 0:15 rest, 0:30 carry bare hands, 1:00 power bag in 16 oz gloves"
    )))  # fmt: skip
    assert (first.needs_s, first.room_s, first.short_s) == (GLOVES["16-oz"].off_s, 25, 0)
    assert (second.needs_s, second.room_s, second.short_s) == (GLOVES["16-oz"].on_s, 0, GLOVES["16-oz"].on_s)
    (at_once,) = kit_changes(unroll(read("1:00 squats, 1:00 squats with straps")))
    assert (at_once.room_s, at_once.short_s) == (0, ITEMS["straps"].on_s)


def test_other_gloves_take_as_long_as_those_that_come_off_and_those_that_go_on():
    (change,) = kit_changes(unroll(read("1:00 flow bag in 10 oz gloves, 1:00 rest, 1:00 flow bag in bag gloves")))
    assert change.needs_s == GLOVES["10-oz"].off_s + GLOVES["bag-gloves"].on_s


def test_what_to_bring_is_each_thing_once_with_what_the_means_need_and_never_bare_hands():
    session = unroll(read("5:00 skip, 3:00 flow pads in 14 oz gloves, 2 x (1:00 power bag in 14 oz gloves), " + CARRY))
    assert to_bring(session) == ("14 oz gloves", "16 oz gloves", "pads", "ball", "rope")
    assert to_bring(unroll(read("5:00 flow bag with bare hands"))) == ()


def test_every_means_needs_only_kit_that_there_is():
    assert {item for modality in MODALITIES.values() for item in modality.items} <= set(ITEMS)


worn = st.tuples(
    st.none() | st.sampled_from(sorted(GLOVES)), st.lists(st.sampled_from(SAID), unique=True).map(tuple)
)  # fmt: skip


@given(trees, worn)
def test_a_part_with_kit_is_written_and_read_back(tree, kit):
    gloves, items = kit
    part = Part("Main set", tree, "threshold", gloves, items)
    assert read_parts(write_parts((part,))) == (part,)


@given(trees, worn)
def test_kit_changes_no_second_and_no_strike(tree, kit):
    gloves, items = kit
    bare, equipped = Session("A", (Part("M", tree),)), Session("A", (Part("M", tree, None, gloves, items),))
    assert equipped.unrolled().total_s == bare.unrolled().total_s
    assert equipped.unrolled().strikes == pytest.approx(bare.unrolled().strikes)
