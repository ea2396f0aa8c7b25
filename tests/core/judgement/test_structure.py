"""The shape of a session as a coach sees it: efforts, rests and rounds."""

import numpy as np
import pytest

from tests.core.people import club_boxer
from yoisho.engine.person import person
from yoisho.engine.readout import read
from yoisho.judgement.structure import ROUND_BREAK_S, fade_last_round, pauses, rounds_of, rules_for, structure
from yoisho.session.rules import RULE_SETS
from yoisho.session.shorthand import read as line
from yoisho.session.timeline import unroll


def reading(text, who=None):
    return read(who or club_boxer(), unroll(line(text)), ranges=False)


@pytest.mark.parametrize(
    ("text", "count", "seconds"),
    [
        ("3 x (3:00 technique) rest 1:00", 3, 180),
        ("10:00 flow; then 1:00, 3 x (3:00 technique) rest 1:00", 3, 180),
        ("10:00 flow; then 1:00, 5:00 technique", 1, 600),
        ("5:00 flow; then 1:00, 6 x (3:00 technique) rest 1:00; then 2:00, 3:00 flow", 7, 180),
        ("2 x (2 x (30 technique, 30 speed, 30 power) rest 0:15) rest 1:00", 2, 195),
        ("20:00 flow", 1, 1200),
    ],
)
def test_rounds_are_what_stands_between_long_pauses_and_comes_again(text, count, seconds):
    rounds = rounds_of(unroll(line(text)))
    assert (len(rounds), rounds[0].seconds) == (count, seconds)


def test_a_session_of_rest_has_no_rounds():
    assert rounds_of(unroll(line("5:00 rest"))) == []


def test_pauses_are_counted_from_effort_to_effort():
    found = reading("10:00 flow, 3 x (30 power) rest 1:30")
    assert pauses(found, found.work_bouts) == [90, 90]


def test_nobodys_rules_are_the_nearest_ones():
    assert rules_for(reading("5 x (3:00 combination) rest 2:00")).id == "muay-thai-pro"
    assert rules_for(reading("3 x (5:00 combination) rest 1:00")).id == "mma-pro"


def test_a_known_persons_rules_are_their_own():
    who = person(vo2max_ml_kg_min=55, rule_set="taekwondo")
    assert rules_for(reading("5 x (3:00 combination) rest 2:00", who)).id == "taekwondo"


def of(found):
    return structure(found, None, found.work_bouts)


def test_a_round_that_opens_fast_settles_and_finishes_hard_has_a_positive_order():
    fight = of(reading("3 x (1:00 speed, 1:00 technique, 1:00 power) rest 1:00"))
    learning = of(reading("3 x (1:00 technique, 1:00 speed, 1:00 power) rest 1:00"))
    assert fight["round_order"] == pytest.approx(1.20 - 0.70)
    assert learning["round_order"] == pytest.approx(0.70 - 1.25)


def test_more_than_a_bout_is_told_as_a_share_of_the_rules():
    found = of(reading("6 x (3:00 combination) rest 1:00", person(rule_set="boxing-amateur")))
    assert found["rounds_ratio"] == 2
    assert found["round_ratio"] == found["round_rest_ratio"] == 1


@pytest.mark.parametrize("rules", RULE_SETS.values(), ids=lambda rules: rules.id)
def test_a_rule_set_can_be_fought_and_is_written_plainly(rules):
    assert 1 <= rules.rounds <= 12
    assert 60 <= rules.round_s <= 300
    assert rules.text.startswith(f"{rules.rounds} × {rules.round_s // 60}:")


def test_one_round_alone_has_no_rest_to_hold_against_the_rules():
    found = reading("20:00 flow")
    assert structure(found, None, found.work_bouts)["round_rest_ratio"] == 0


def test_of_nothing_but_rest_every_figure_of_rounds_is_nothing():
    found = of(reading("1:00 flow"))
    rested = read(club_boxer(), unroll(line("20:00 flow"), line("5:00 rest")), ranges=False)
    assert structure(rested, None, rested.work_bouts)["rounds_ratio"] == found["rounds_ratio"] > 0
    assert fade_last_round(unroll(line("5:00 rest")), [], np.full((1, 3), 0.5)).tolist() == [0, 0, 0]


def test_a_pause_of_half_a_minute_parts_rounds_and_a_shorter_one_does_not():
    assert ROUND_BREAK_S == 30
    parted = [len(rounds_of(unroll(line(f"3 x (1:00 technique) rest 0:{rest}")))) for rest in (29, 30)]
    assert parted == [1, 3]
