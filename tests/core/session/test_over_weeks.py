"""A ladder over weeks is a series of sessions, alike but for its steps."""

import pytest

from yoisho.session.document import Session
from yoisho.session.interval import SessionError
from yoisho.session.over_weeks import sessions_over
from yoisho.session.shorthand import ShorthandError, read, read_parts, weeks

THURSDAY = Session(
    "Thursday", read_parts("Warm-up: 10:00 flow\nMain (threshold): 6 x 30 power rest 1:00\nCore: 1:00 plank")
)


def test_every_week_has_the_session_with_its_own_step():
    made = sessions_over(THURSDAY, 1, "6 x 30 power rest 90/75/60")
    assert [each.title for each in made] == [f"Thursday, week {number} of 3" for number in (1, 2, 3)]
    assert [each.parts[1].tree for each in made] == [
        read(f"6 x 30 power rest {rest}") for rest in ("1:30", "1:15", "1:00")
    ]
    for each in made:
        assert (each.parts[0], each.parts[2]) == (THURSDAY.parts[0], THURSDAY.parts[2])
        assert (each.parts[1].name, each.parts[1].purpose) == ("Main", "threshold"), "the part stays what it is"


def test_behind_the_last_part_the_lines_are_added():
    made = sessions_over(THURSDAY, 3, "4/5/6 rounds of 1:00 speed rest 1:00")
    assert [each.parts[3].tree.count for each in made] == [4, 5, 6]


def test_a_title_at_its_longest_still_says_the_week():
    long = Session("T" * 120, THURSDAY.parts)
    third = sessions_over(long, 1, "6 x 30 power rest 90/75/60")[2].title
    assert third.endswith("T, week 3 of 3")
    assert len(third) == 120, "and is no longer than a title may be"


@pytest.mark.parametrize(("part", "text", "words"), [
    (1, "6 x 30 power rest 1:30", "one session"), (4, "6 x 30 power rest 90/75/60", "no part 5"),
])  # fmt: skip
def test_what_is_no_series_says_why(part, text, words):
    with pytest.raises(SessionError, match=words):
        sessions_over(THURSDAY, part, text)


def test_a_step_that_cannot_be_read_is_refused():
    with pytest.raises(ShorthandError):
        sessions_over(THURSDAY, 1, "6 x 30 pwoer rest 90/75/60")


def test_two_weeks_are_a_series_already():
    assert weeks("6 x 30 power rest 90/75") == ("6 x 30 power rest 90", "6 x 30 power rest 75")
