import pytest
from hypothesis import example, given
from hypothesis import strategies as st

from yoisho.strikes.combination import Action, Combination, CombinationError
from yoisho.strikes.notation import EXAMPLE, NotationError, calls, read, write
from yoisho.strikes.schools import SCHOOLS
from yoisho.strikes.techniques import TECHNIQUES, spellings

ACTIONS = [
    Action(technique.id, side, height)
    for technique in TECHNIQUES.values()
    for side in technique.sides or (None,)
    for height in technique.heights or (None,)
]
_groups = st.lists(st.sampled_from(ACTIONS), min_size=1, max_size=6).map(tuple)
combinations = st.lists(_groups, min_size=1, max_size=3).map(lambda groups: Combination(tuple(groups)))


@given(combinations, st.sampled_from(sorted(SCHOOLS)))
def test_writing_and_reading_back_loses_nothing_in_any_school(combination, school):
    assert read(write(combination, school), school) == combination


@pytest.mark.parametrize(
    ("typed", "canonical"),
    [
        ("1-2-3b, slip, 2", "1-2-3b, slip, 2"),
        ("1 2 3 body slip 2", "1-2-3b, slip, 2"),
        ("Jab, Cross, Lead Hook to the body", "1-2-3b"),
        ("5-2-4 then 1-3-2", "5-2-4 then 1-3-2"),
        ("rk-m, rk-m, 2, lk-l", "rk-m, rk-m, 2, lk-l"),
        ("right round kick body, 2, left kick low", "rk-m, 2, lk-l"),
        ("rear kick leg", "rear round kick leg"),
        ("front kick; knee", "lead push kick, rear knee"),
        ("1-2, weave, 3-2", "1-2, roll, 3-2"),
        ("straight", "2"),
    ],
)
def test_what_coaches_type_is_shown_back_in_one_form(typed, canonical):
    assert write(read(typed)) == canonical


def test_one_to_six_are_common_and_beyond_schools_differ():
    assert write(read("1-2-3-4-5-6", "overhands"), "body-hooks") == "1-2-3-4-5-6"
    assert calls(read("7-8", "overhands")) == ["lead overhand", "rear overhand"]
    assert calls(read("7-8", "body-hooks")) == ["lead hook to the body", "rear hook to the body"]
    assert write(read("7", "body-hooks"), "overhands") == "3b"


def test_the_floor_hears_words_not_numbers():
    assert calls(read("1-2-3b, slip, lk-l")) == [
        "jab", "cross", "lead hook to the body", "slip", "left round kick to the leg",
    ]  # fmt: skip


@pytest.mark.parametrize(
    ("text", "position", "said"),
    [
        ("1-2, slpi", 5, "Did you mean slip?"),
        ("1-2-9", 4, "the numbers go from 1 to 8"),
        ("1-0008", 2, "0008 is no punch"),
        ("1-2, elbow leg", 5, "no height leg"),
        ("1-@", 2, "“@” at character 3"),
        ("1-2 then", 8, "the end of the line"),
        ("", 0, "Nothing to read yet"),
        ("left jab", 0, "no side left; it has lead"),
        ("jab leg", 0, "it has no height leg; it has head, body"),
        ("slip leg", 0, "it has no height leg; it has none"),
    ],
)
def test_a_wrong_combination_says_at_which_character_what_was_expected_and_an_example(text, position, said):
    with pytest.raises(NotationError) as caught:
        read(text)
    assert caught.value.position == position
    assert said in caught.value.message
    assert caught.value.as_dict()["example"] == EXAMPLE
    read(EXAMPLE)


@given(st.text(alphabet=st.sampled_from("0123456789-,; bhlmrk slipthencrosjab"), max_size=30))
@example("1" * 3000)
@example("9" * 400)
@example("1-" * 300)
@example("٣")
def test_the_reader_answers_any_text_with_a_combination_or_a_plain_error(text):
    try:
        found = read(text)
    except NotationError as error:
        said, place = error.message, error.position
    else:
        said, place = write(found), 0
        assert read(said) == found
    assert said
    assert 0 <= place <= len(text)


@pytest.mark.parametrize("word", sorted(spellings()))
def test_every_spelling_of_every_technique_reads(word):
    assert read(word).actions[0].technique == spellings()[word]


def test_a_technique_is_never_done_with_a_side_or_at_a_level_it_has_not():
    with pytest.raises(CombinationError, match="no side rear"):
        Action("jab", "rear", "head")
    with pytest.raises(CombinationError, match="needs a side"):
        Action("hook")
    with pytest.raises(CombinationError, match="is not a technique"):
        Action("flying-teapot")
