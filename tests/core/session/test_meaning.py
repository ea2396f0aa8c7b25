"""What a line means in plain words, as it stands under the line on the Bench."""

import pytest
from hypothesis import given

from tests.core.trees import trees
from yoisho.session.clock import clock
from yoisho.session.meaning import meaning
from yoisho.session.shorthand import read
from yoisho.session.tree import duration_s


@pytest.mark.parametrize(
    ("line", "said"),
    [
        ("8 x (20 all out / 10 rest)", "8 times (0:20 all out; 0:10 rest). In all 4:00."),
        ("3 x (3:00 technique) rest 1:00", "3 times (3:00 technique), with 1:00 of rest between. In all 11:00."),
        ("20 push-ups", "20 reps (about 0:30) push-ups. In all about 0:30."),
        ("2:00 power pads [1-2]", "2:00 power pads: jab, cross. In all 2:00."),
        ("2:00 power bag southpaw", "2:00 power on bag, right side in front. In all 2:00."),
        ("2:00 power switch at half", "2:00 power, sides change at half time. In all 2:00."),
        ("2:00 power switch every 0:15", "2:00 power, sides change every 0:15. In all 2:00."),
        ("2:00 power switch on call", "2:00 power, sides change on your call. In all 2:00."),
        ('1:00 plank call "push" every 0:10', "1:00 plank, “push” called every 0:10. In all 1:00."),
        ("2:00 flow to 120 beats double time", "2:00 flow, to 120 beats a minute, two on each. In all 2:00."),
        ("3:00 flow @60-70%HR", "3:00 flow, heart rate at 60 to 70 % of maximum. In all 3:00."),
        ("30 technique half power", "0:30 technique at half power. In all 0:30."),
        ("30 technique at 70% power", "0:30 technique at 70 % power. In all 0:30."),
        ("30 power in pairs", "30"),
        ("3 x (1:00 power [draw 1 | 2 | recall])", "drawn by lot, the last recalls all: jab; cross"),
        ("3 x (1:00 power [adding 1 | 2])", "adding one each time: jab; cross"),
    ],
)
def test_a_line_is_said_in_plain_words(line, said):
    assert said in meaning(read(line))


def test_a_partners_turn_is_said():
    assert "then the partner does the same while you rest" in meaning(read("30 power in pairs"))


def test_a_ladder_is_told_step_by_step():
    assert "9, 7, then 5 reps power" in meaning(read("3 x (9-7-5 reps power)"))
    assert "9, then 7 reps power" in meaning(read("2 x (9-7 reps power)"))


@given(trees)
def test_every_tree_is_told_with_its_length_and_estimates_are_said_to_be(tree):
    said = meaning(tree)
    assert said.endswith(f"{clock(duration_s(tree))}.")
    told = said.split("In all")[0]
    assert ("In all about" in said) == (" reps" in told or "until you end it" in told)
