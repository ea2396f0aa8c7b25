"""Help while a line is typed: what each word is, and what could come next."""

from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.core.trees import trees
from yoisho.session.shorthand import read, write
from yoisho.session.shorthand.assist import complete, spans


def kinds(text):
    return {text[span.start : span.end]: span.kind for span in spans(text)}


def offered(text):
    return [option.text for option in complete(text).options]


def test_every_word_of_a_line_has_its_kind():
    assert kinds('3 x (1:00 power bag [1-2] switch at half call "go" every 0:10 @80-90%HR) rest 0:30') == {
        "3": "dose", "x": "frame", "(": "frame", "1:00": "dose", "power": "effort", "bag": "modality",
        "[1-2]": "strikes",
        "switch": "word", "at half": "word", "call": "word", '"go"': "word", "every": "word", "0:10": "dose",
        "@80-90%HR": "dose", ")": "frame", "rest ": "pause", "0:30": "dose",
    }  # fmt: skip


def test_a_line_that_cannot_be_read_is_told_as_far_as_it_can():
    assert list(kinds("30 power, 20 % flow").values()) == ["dose", "effort", "frame", "dose"]


@given(trees)
def test_what_is_read_is_told_apart_to_its_end(tree):
    text = write(tree)
    found = spans(text)
    assert found[-1].end == len(text)
    assert all(before.end <= after.start for before, after in pairwise(found))


@pytest.mark.parametrize(
    ("typed", "first"),
    [
        ("3:00 pow", "power"),
        ("3:00 power p", "pads"),
        ("8 x (20 all out) r", "rest"),
        ("3:00 power bag sw", "switch at half"),
        ("3:00 power bag switch ", "at half"),
        ("3:00 power bag in", "in pairs"),
        ("3:00 power @", "@80-90%HR"),
        ("3:00 flow to 120 beats d", "double time"),
        ("3:00 power [1-2, sl", "slip"),
        ("Main set (thr", "threshold"),
        ("Main set (threshold, 16", "16 oz gloves"),
        ("Warm-up (bare", "bare hands"),
        ("3:00 power bag in 12 oz gloves st", "straps"),
        ("Warm-up: 10:00 sk", "skip"),
    ],
)
def test_what_could_come_next_is_offered(typed, first):
    assert offered(typed)[0] == first


def test_an_option_takes_the_place_of_what_was_begun():
    found = complete("3:00 po")
    assert "3:00 po"[: found.start] + found.options[0].text == "3:00 power"


def test_what_was_said_is_not_offered_again():
    assert "power" not in offered("3:00 flow ")
    assert "bag" in offered("3:00 flow ")
    assert "pads" not in offered("3:00 flow bag ")
    assert "power" in offered("3:00 flow bag, 2:00 "), "the next interval begins anew"


def test_a_word_that_is_whole_is_left_alone():
    assert offered("3:00 power") == []
    assert offered("") == offered("   ") == []


@given(st.text(max_size=40))
def test_any_text_is_told_and_completed_without_a_fall(text):
    assert all(0 <= span.start < span.end <= len(text) for span in spans(text))
    assert 0 <= complete(text).start <= len(text)


def test_what_is_struck_is_offered_as_struck_and_the_rest_as_off_the_bag():
    told = {option.text: option.meaning for option in complete("3:00 power ").options}
    assert (told["bag"], told["skip"]) == ("struck", "off the bag")


@pytest.mark.parametrize(
    ("typed", "rest"),
    [
        ("3:00 pow", ""),
        ("8 x (20 all out) r", " 1:00"),
        ("3:00 power bag sw", ""),
        ("3:00 power @", ""),
        ("3:00 flow i", ""),
    ],
)
def test_what_is_offered_reads_once_it_is_taken(typed, rest):
    found = complete(typed)
    assert found.options
    for option in found.options:
        assert read(f"{typed[: found.start]}{option.text}{rest}")
