import pytest
from hypothesis import example, given
from hypothesis import strategies as st

from tests.core.trees import trees
from yoisho.session.clock import clock
from yoisho.session.shorthand import EXAMPLE, ShorthandError, read, read_parts, write
from yoisho.session.timeline import unroll
from yoisho.session.tree import Interval, Repeat, Sequence, check_size
from yoisho.strikes.notation import write as write_combination
from yoisho.strikes.tempo import TEMPOS

CANONICAL = {
    "8x(20 all-out / 10 rest)": "8 × (20 all out, 10 rest)",
    "8 × (20/10 all out)": "8 × (20 all out, 10 rest)",
    "8 x (20 all out / 10)": "8 × (20 all out, 10 rest)",
    "8 x 20/10 all out, then 2:00": "8 × (20 all out) rest 0:10; then 2:00",
    "8 x 20 all-out / 10": "8 × (20 all out) rest 0:10",
    "2x(30 technique, 30 speed, 30 power) r0:15": "2 × (30 technique, 30 speed, 30 power) rest 0:15",
    "2 x (30 technique, 30 speed, 30 power) rest 0:15; then 1:00":
        "2 × (30 technique, 30 speed, 30 power) rest 0:15; then 1:00",
    "2 × (8 × (20 all out) rest 0:10) rest 2:00": "2 × (8 × (20 all out) rest 0:10) rest 2:00",
    "4 × 2 × (30 technique, 30 speed, 30 power) rest 1:15":
        "4 × (2 × (30 technique, 30 speed, 30 power)) rest 1:15",
    "3 x 3:00 technique rest 1:00": "3 × (3:00 technique) rest 1:00",
    "6 x (30 ALL OUT) Rest 2:30": "6 × (30 all out) rest 2:30",
    "20 min flow": "20:00 flow",
    "90s power then 2:00 recover": "1:30 power, 2:00 recover",
    "3:00 flow\n1:00 rest": "3:00 flow; then 1:00",
    "8 x (30 hard / 30 light)": "8 × (30 power, 30 flow)",
    "3 x (2:00 freestyle) recover 0:45": "3 × (2:00 freestyle) recover 0:45",
}  # fmt: skip


@pytest.mark.parametrize(("typed", "canonical"), CANONICAL.items())
def test_what_coaches_type_is_shown_back_in_one_form(typed, canonical):
    assert write(read(typed)) == canonical
    assert read(canonical) == read(typed)


@given(trees)
@example(Repeat(1, Repeat(2, Interval(5, "rest"), Interval(5, "recover"))))
@example(Sequence((Interval(60, "rest"), Interval(60, "rest"))))
@example(Sequence((Sequence((Interval(1, "flow"), Interval(59, "rest"))), Interval(3599, "all-out"))))
def test_writing_and_reading_back_loses_nothing(tree):
    assert read(write(tree)) == tree


def test_a_rest_inside_the_brackets_belongs_to_every_repetition():
    inside, between = unroll(read("8 x (20 all out / 10 rest)")), unroll(read("8 x (20 all out) rest 0:10"))
    assert (inside.total_s, between.total_s) == (240, 230)


def test_then_comes_once_after_the_last_repetition():
    timeline = unroll(read("3 x (1:00 power) rest 0:30; then 2:00"))
    assert [i.seconds for i in timeline.intervals if i.kind == "rest"] == [30, 30, 120]


def test_a_rest_behind_several_multipliers_stands_between_the_outermost():
    assert read("4 x 2 x (30 speed) rest 1:15") == Repeat(4, Repeat(2, Interval(30, "speed")), Interval(75, "rest"))


@pytest.mark.parametrize(
    ("text", "position", "said"),
    [
        ("3 x (30 technique, 30 sped) rest 0:15", 22, "Did you mean speed?"),
        ("8x(20 all-out / 10 rest", 23, "closing bracket"),
        ("8 x (20/10)", 5, "Say an effort"),
        ("1:75 flow", 0, "seconds go from 00 to 59"),
        ("999 x (20 flow)", 0, "1 to 200 times"),
        ("20 speed and 30 power", 9, "“and” is not an effort"),
        ("8 x (20 all-out @ 10)", 16, "A heart-rate target reads @80-90%HR"),
        ("0 flow", 0, "1 second to 2 hours"),
        ("8x()", 3, "expected a number"),
        ("", 0, "Nothing to read yet"),
        ("200 x (200 x (20 flow))", 0, "at most 4 hours"),
        ("3:00 flow, open", 11, "Open-ended what?"),
        ("3:00 flow, 1-2 x 0", 11, "Reps go from 1 to 2000"),
        ("20 open technique", 0, "20 of what?"),
        ("20/(10 all out)", 0, "0:20 of what?"),
        ("open 5 technique", 0, "5 seconds or 5 minutes?"),
        ("open technique switch every 0:30", 0, "switch sides on call"),
        ("2:00 flow switch every open", 10, "a time such as 0:15"),
        ("2:00 flow switch at half switch on call", 25, "the side switch is said twice"),
        ("2:00 power flow", 11, "the effort is said twice"),
        ("4 x (30 power) to 120 beats", 15, "said for each interval, inside the brackets"),
    ],
)
def test_a_wrong_line_says_at_which_character_what_was_expected_and_an_example(text, position, said):
    with pytest.raises(ShorthandError) as caught:
        read(text)
    error = caught.value
    assert error.position == position
    assert said in error.message
    assert error.as_dict()["character"] == position + 1
    assert error.as_dict()["example"] == EXAMPLE
    read(EXAMPLE)


def test_a_word_near_an_effort_suggests_it():
    with pytest.raises(ShorthandError) as caught:
        read("30 tecnique")
    assert caught.value.suggestion == "technique"


@pytest.mark.parametrize(
    ("line", "wrong", "suggestion"),
    [("8 x (20 all outt / 10 rest)", "outt", "out"), ("20 mountian climbers", "mountian", "mountain")],
)
def test_of_two_words_the_wrong_one_is_named_and_mended(line, wrong, suggestion):
    with pytest.raises(ShorthandError) as caught:
        read(line)
    assert (caught.value.position, caught.value.suggestion) == (line.index(wrong), suggestion)
    assert read(line.replace(wrong, suggestion))


@given(st.text(alphabet=st.sampled_from("0123456789x×()/,;: \nrest powflthen"), max_size=40))
@example("(" * 400 + "1 flow" + ")" * 400)
@example("9" * 5000 + " flow")
@example("8 x 9 x 9 x 9 x 20/10/5 all out")
@example("٣ flow")
def test_the_reader_answers_any_text_with_a_tree_or_a_plain_error(text):
    try:
        tree = read(text)
    except ShorthandError as error:
        said, place = error.message, error.position
    else:
        said, place = write(tree), 0
        check_size(tree)
        assert read(said) == tree
    assert said
    assert 0 <= place <= len(text)


def test_every_effort_can_be_read_by_its_word_and_all_its_other_spellings():
    for tempo in TEMPOS.values():
        for spelling in (tempo.word, tempo.id, *tempo.aliases):
            assert read(f"30 {spelling}") == Interval(30, tempo.id)


def test_times_are_shown_as_minutes_and_seconds():
    assert [clock(s) for s in (0, 9, 60, 75.4, 3600)] == ["0:00", "0:09", "1:00", "1:15", "60:00"]


@pytest.mark.parametrize(
    ("reader", "text"),
    [(read, "3:00 power [1-2 | 3-$]"), (read_parts, "Bag: 3:00 power\nPads: 3:00 power [draw 1-2 | 3-$]")],
)
def test_a_fault_inside_a_combination_names_its_character_in_the_whole_text(reader, text):
    with pytest.raises(ShorthandError) as refused:
        reader(text)
    assert refused.value.position == text.index("$")
    assert f"at character {text.index('$') + 1}," in refused.value.message


def test_what_an_interval_says_itself_is_not_overwritten_by_its_group():
    tree = read("(30 power pads [2] switch at half, 30 speed) bag [1-2] switch every 0:10")
    first, second = tree.items
    assert (first.modality, write_combination(first.drill.whole), first.switch) == ("pads", "2", "half")
    assert (second.modality, write_combination(second.drill.whole), second.switch) == ("bag", "1-2", 10)


def test_up_to_five_a_bare_number_could_be_minutes_and_from_six_on_it_is_seconds():
    with pytest.raises(ShorthandError, match="5 seconds or 5 minutes"):
        read("5 power")
    assert write(read("6 power")) == "6 power"
    assert write(read("5s power")) == "5s power"


@pytest.mark.parametrize(("line", "found"), [
    ("20 power ]]", "“]” at character 10"), ("20 power §§", "“§” at character 10"),
    ("8 x (20 power", "the end of the line"),
])  # fmt: skip
def test_what_cannot_be_read_is_told_by_its_one_character_and_place(line, found):
    with pytest.raises(ShorthandError, match=f"Found {found}, expected"):
        read(line)


@pytest.mark.parametrize(("line", "at"), [("30 power to 999 beats", 9), ("2:00 flow, 30 power to 12 beats", 20)])
def test_music_that_cannot_be_is_told_at_its_place(line, at):
    with pytest.raises(ShorthandError, match="30 to 240 beats") as told:
        read(line)
    assert told.value.position == at
