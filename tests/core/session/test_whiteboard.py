"""What coaches write on a board: read as meant, or asked about; never guessed in silence."""

from pathlib import Path

import pytest

from yoisho.session.shorthand import ShorthandError, read, read_parts, weeks, write_parts

BOARD = [
    line for line in Path(__file__).with_name("whiteboard.txt").read_text().splitlines() if line[:1] not in ("", "#")
]
READ = [line.split(" => ") for line in BOARD if " => " in line]
ASKED = [line.split(" !! ") for line in BOARD if " !! " in line]


def test_of_two_hundred_lines_of_a_board_at_least_nineteen_in_twenty_are_read():
    assert len(READ) + len(ASKED) == len(BOARD) >= 200
    assert len(READ) >= 0.95 * len(BOARD)


@pytest.mark.parametrize(("line", "canonical"), READ)
def test_a_line_of_a_board_is_shown_back_in_one_form(line, canonical):
    shown = write_parts(read_parts(line)).removeprefix("Main set: ")
    assert shown == canonical
    assert read_parts(shown) == read_parts(line)


@pytest.mark.parametrize(("line", "cure"), ASKED)
def test_what_could_mean_two_things_is_asked_with_its_cure(line, cure):
    with pytest.raises(ShorthandError) as asked:
        read(line)
    assert cure in asked.value.message


@pytest.mark.parametrize(
    ("line", "position", "cure"),
    [
        ("3 hard 1 easy", 0, "3s or 3:00"),
        ("3 x 3:00 bag rest 1", 18, "1 second or 1 minute"),
        ("10 x 1:00, rest 0:30", 11, "Once after: then 0:30"),
        ("6 x (20 all out), 1:00 rest", 18, "rest 1:00 behind the rounds"),
        ("8 x 30 power / 30 flow", 15, "8 x (... / ...)"),
        ("15 fast kicks", 0, "15s speed [kick]"),
        ("fast 15 easy 45", 8, "begins with a comma"),
        ("1:00 rest between rounds", 0, "Between what?"),
    ],
)
def test_what_a_coach_may_mean_in_two_ways_is_never_chosen_for_them(line, position, cure):
    with pytest.raises(ShorthandError) as asked:
        read(line)
    assert (asked.value.position, cure in asked.value.message) == (position, True), asked.value.message


@pytest.mark.parametrize("line", ["30 tecnique", "20 pwer", "45 fats", "3 min bgs", "40 skp"])
def test_the_word_suggested_is_never_the_word_refused_and_reads_in_its_place(line):
    with pytest.raises(ShorthandError) as refused:
        read(line)
    suggestion = refused.value.suggestion
    assert suggestion is not None
    assert suggestion not in line
    read(line[: refused.value.position] + suggestion)


def test_a_small_number_beside_a_larger_one_is_seconds_as_that_is():
    assert write_parts(read_parts("6 x (5 all out, 55 rest)")) == "Main set: 6 × (5s all out, 55 rest)"
    assert write_parts(read_parts("20 power / 5")) == "Main set: 20 power; then 0:05"


WEEKS = {
    "6 x 30 all out rest 90/75/60": ("6 x 30 all out rest 90", "6 x 30 all out rest 75", "6 x 30 all out rest 60"),
    "5/6/7 x 40 power rest 1:20": ("5 x 40 power rest 1:20", "6 x 40 power rest 1:20", "7 x 40 power rest 1:20"),
    "5 x 20/25/30 all out rest 2:00":
        ("5 x 20 all out rest 2:00", "5 x 25 all out rest 2:00", "5 x 30 all out rest 2:00"),
    "4/5/6 x 1:00 power r80/70/60; then 2:00 flow":
        ("4 x 1:00 power r80; then 2:00 flow", "5 x 1:00 power r70; then 2:00 flow",
         "6 x 1:00 power r60; then 2:00 flow"),
}  # fmt: skip


@pytest.mark.parametrize(("line", "lines"), WEEKS.items())
def test_a_ladder_over_weeks_is_one_session_a_week_and_is_not_read_as_one(line, lines):
    assert weeks(line) == lines
    for each in lines:
        read(each)
    with pytest.raises(ShorthandError, match=f"{len(lines)} sessions of one series"):
        read(line)


@pytest.mark.parametrize(
    "line",
    ["8 x 20/10 all out", "30 power rest 30 / 15 all out", "5 x 3:00 bag / 1:00", "6/7/8 x 30 power rest 60/50",
     "4 x (20 all out / 10 rest)", "5 x 30 power rest 60/60/60"],
)  # fmt: skip
def test_work_and_rest_are_no_ladder_over_weeks_nor_are_ladders_of_other_lengths(line):
    assert weeks(line) == (line,)
