"""What to do next time. The rule is common practice, no source; the order of the knobs is ours."""

import pytest

from yoisho.engine.person import person
from yoisho.review.progression import Go, knobs, next_time, step_of
from yoisho.session import shorthand
from yoisho.session.document import Session

CLEAN = Go(finished=True, rpe=6, expected_rpe=7, fade=0.05)
HARD = Go(finished=True, rpe=9, expected_rpe=7)
SHORT = Go(finished=False, rpe=7, expected_rpe=7)
AS_EXPECTED = Go(finished=True, rpe=8, expected_rpe=7)


def proposed(line, target, *goes):
    session = Session("Rounds", shorthand.read_parts(line))
    found = next_time(person(), session, target, goes)
    return found, [shorthand.write(part.tree) for part in found.session.parts]


@pytest.mark.parametrize(
    ("goes", "step"),
    [
        ([CLEAN, CLEAN], "on"),
        ([HARD, CLEAN, CLEAN], "on"),
        ([CLEAN], "hold"),
        ([CLEAN, AS_EXPECTED], "hold"),
        ([CLEAN, CLEAN, AS_EXPECTED], "hold"),
        ([CLEAN, SHORT], "hold"),
        ([CLEAN, HARD], "hold"),
        ([SHORT, HARD], "back"),
        ([HARD, SHORT], "back"),
        ([SHORT, CLEAN, SHORT], "hold"),
    ],
)
def test_two_clean_goes_turn_a_knob_and_twice_too_hard_goes_back(goes, step):
    assert step_of(goes, "threshold")[0] == step


def test_a_fade_within_the_purposes_bound_is_clean_and_one_beyond_it_is_not():
    """Lactic capacity is meant to fade; threshold rounds are not."""
    faded = Go(finished=True, rpe=7, expected_rpe=7, fade=0.18)
    assert step_of([faded, faded], "lactic-capacity")[0] == "on"
    step, reason = step_of([faded, faded], "threshold")
    assert step == "hold"
    assert "18 %" in reason
    assert "5 %" in reason


def test_where_nobody_counted_the_reason_says_so():
    one = Go(finished=True, rpe=6, expected_rpe=7)
    step, reason = step_of([one, one], "threshold")
    assert step == "on"
    assert "nobody counted the fade" in reason


def test_pain_comes_before_everything_and_names_the_limb():
    sore = Go(finished=True, rpe=6, expected_rpe=7, pain=("left wrist",))
    found, lines = proposed("6 x (30 power, 30 rest)", "sprint-capacity", CLEAN, sore)
    assert (found.step, found.spare) == ("hold", ("left wrist",))
    assert "left wrist" in found.reason
    assert lines == ["6 × (30 power, 30 rest)"]


def test_rest_is_what_is_turned_first():
    found, lines = proposed("3 x (3:00 combination, 60 rest)", "aerobic-power", CLEAN, CLEAN)
    assert found.name == "0:15 shorter rest"
    assert lines == ["3 × (3:00 combination, 45 rest)"]


def test_a_sprint_keeps_its_rest():
    found, lines = proposed("10 x (10 speed, 50 rest)", "sprint-power", CLEAN, CLEAN)
    assert lines == ["11 × (10 speed, 50 rest)"]
    assert "rest" not in knobs("sprint-power")
    assert dict((change.name, (change.before, change.after)) for change in found.changes)["efforts"] == ("10", "11")


def test_what_was_too_hard_twice_becomes_easier_and_says_what_that_does():
    found, lines = proposed("3 x (3:00 combination, 60 rest)", "aerobic-power", SHORT, HARD)
    assert found.step == "back"
    assert lines == ["3 × (3:00 combination, 1:15 rest)"]
    effort = next(change for change in found.changes if change.name == "expected effort")
    assert int(effort.after) <= int(effort.before)


def test_one_knob_by_one_notch_and_no_more():
    _, lines = proposed("Warm-up: 8:00 flow\nMain set: 3 x (3:00 combination, 60 rest)", "aerobic-power", CLEAN, CLEAN)
    assert lines[0] == "8:00 flow"
    assert lines[1] == "3 × (3:00 combination, 45 rest)"


def test_where_nothing_can_be_turned_it_is_held_with_the_reason():
    """A warm-up is not progressed."""
    found, lines = proposed("Warm-up: 8:00 flow", "aerobic-base", CLEAN, CLEAN)
    assert (found.step, found.name) == ("hold", "")
    assert "choose another session" in found.reason
    assert lines == ["8:00 flow"]


def test_what_was_never_done_has_no_next_time():
    with pytest.raises(ValueError, match="nothing was done"):
        step_of([], "threshold")
