"""Pain flags carry the trade's cautions and diagnose nothing. Common practice, no source."""

import pytest

from yoisho.review.pain import GENERAL, PLACES, told


def test_a_flag_is_said_with_its_side_where_there_are_two():
    assert told("wrist", "left") == "left wrist"
    assert told("back", "left") == "back"
    assert told("knee", None) == "knee"


@pytest.mark.parametrize("where", ["head", "chest"])
def test_head_and_chest_are_for_a_physician(where):
    assert "physician" in PLACES[where].said


@pytest.mark.parametrize("place", PLACES.values(), ids=lambda place: place.id)
def test_every_place_says_what_to_do_and_diagnoses_nothing(place):
    assert place.said.endswith(".")
    assert not any(word in place.said.lower() for word in ("fracture", "sprain", "tear", "infarct", "you have"))
    assert PLACES["elbow"].said == GENERAL


def test_a_place_that_is_not_there_is_an_error():
    with pytest.raises(KeyError):
        told("tail", None)


def test_what_is_there_twice_has_its_side():
    assert {place.id for place in PLACES.values() if not place.sides} == {"head", "neck", "chest", "back"}
