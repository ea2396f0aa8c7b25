"""What the screens show is worked out here, whole: no two of them can contradict each other."""

import json

import pytest

from tests.core.people import club_boxer
from yoisho.answers.evaluation import evaluate
from yoisho.answers.floor import floor_plan, heart_targets, on_floor
from yoisho.answers.log import logged
from yoisho.answers.shared import vectors
from yoisho.engine import readout
from yoisho.engine.person import person
from yoisho.judgement.circumstances import Circumstances
from yoisho.runs.calls import Settings
from yoisho.runs.plan import Plan
from yoisho.runs.record import Record, Stretch
from yoisho.session.document import Session
from yoisho.session.shorthand import read_parts

LINES = "Warm-up: 10:00 flow; then 1:00\nMain: 8 x (30 all out bag [1-2]) rest 0:30\nCool-down: 3:00 recover"
SESSION = Session("Thursday", read_parts(LINES))
PLAN = Plan(SESSION)


def evaluated(session=SESSION, who=None, **more):
    return evaluate(session, who or club_boxer(), "lactic-capacity", Circumstances(), "overhands", **more)


def test_the_parts_add_up_to_the_whole():
    whole = evaluated()
    assert sum(part.total_s for part in whole.parts) == whole.total_s == whole.work_s + whole.rest_s
    assert sum(part.work_s for part in whole.parts) == whole.work_s
    assert sum(part.volume.strikes for part in whole.parts) == pytest.approx(whole.volume.strikes)
    assert sum(one.strikes for one in whole.timeline) == pytest.approx(whole.volume.strikes, abs=1)
    assert whole.parts[1].start_s == whole.parts[0].total_s


def test_what_was_guessed_is_not_simulated_again_for_its_ranges(monkeypatch):
    """The Bench asks for the best guess first, and for the ranges of the same session right after."""
    session = Session("Never asked before", read_parts("Main: 7 x (31 power bag [1-2]) rest 0:29"))
    runs = []
    measured = readout.measure
    monkeypatch.setattr(readout, "measure", lambda *asked, **more: runs.append(more) or measured(*asked, **more))
    sooner, whole = evaluated(session, ranges=False), evaluated(session)
    assert ["like" in more for more in runs] == [False, True]
    assert whole.timeline == sooner.timeline
    assert whole.parts == sooner.parts
    assert whole.reading.traces == sooner.reading.traces
    assert whole.reading.bands is not None


def test_ranges_are_there_where_they_are_asked_for_and_hold_the_best_guess():
    sooner, whole = evaluated(ranges=False).reading, evaluated().reading
    assert sooner.bands is None
    assert {name: figure.value for name, figure in sooner.figures.items()} == {
        name: figure.value for name, figure in whole.figures.items()
    }
    assert all(low <= high for low, high in zip(whole.bands.lactic_left.low, whole.bands.lactic_left.high, strict=True))


def test_of_a_heart_that_says_nothing_nothing_is_said():
    medicated = person(heart_rate_lowering_medication=True)
    reading = evaluated(who=medicated).reading
    assert reading.traces.heart_rate_bpm is None
    assert reading.bands.heart_rate_bpm is None
    assert reading.heart_targets == []
    assert not {name for name in reading.figures if name.startswith(("heart_rate", "hr_"))}
    assert heart_targets(club_boxer(), PLAN.timeline, "threshold")


def test_rest_alone_is_drawn_and_not_judged():
    resting = evaluated(Session("Rest", read_parts("Rest: 2:00 rest")))
    assert resting.reading is None
    assert resting.total_s == 120


def test_the_floor_is_told_every_call_whatever_is_muted_and_how_cold_it_is():
    muted = floor_plan(PLAN, club_boxer(), Settings(frozenset({"next", "swap"})))
    assert "next" in {call.kind for call in muted.calls}
    assert muted.cold is None
    assert (muted.warmth.from_s, muted.warmth.needed_s) == (660, 300)
    cold = floor_plan(Plan(Session("Cold", SESSION.parts[1:])), club_boxer(), Settings())
    assert "Hard work starts at 0:00" in cold.cold
    assert len(muted.efforts) == 8


def test_the_bench_and_the_floor_count_the_same_efforts():
    bench = [(effort.start_s, effort.end_s) for effort in evaluated().reading.efforts]
    assert bench == [(effort.start_s, effort.end_s) for effort in floor_plan(PLAN, club_boxer(), Settings()).efforts]


def test_each_of_a_pair_has_their_own_seconds_and_devices():
    pairs = Plan(Session("Pairs", read_parts("Main: 6 x (30 power pairs)")))
    first, second = (on_floor(pairs, club_boxer(), "aerobic-power", place, 2, seed=place) for place in range(2))
    assert first.work_s == second.work_s == 180
    assert first.simulated != second.simulated


def test_a_run_is_logged_by_what_was_played():
    whole = logged(club_boxer(), PLAN, Record((Stretch(0, PLAN.timeline.total_s),)), 0)
    skipped = logged(club_boxer(), PLAN, Record((Stretch(0, 660), Stretch(1110, 1290))), 0)
    assert (whole.planned_efforts, whole.lactic) == (8, True)
    assert (skipped.planned_efforts, skipped.lactic) == (8, False)
    assert skipped.done.efforts_done == 0
    assert whole.volume.strikes > skipped.volume.strikes + 200


def test_a_run_written_down_by_hand_has_no_rounds_and_counts_from_its_start():
    by_hand = logged(club_boxer(), PLAN, None, 660)
    assert by_hand.done is None
    assert not by_hand.lactic
    assert by_hand.volume.strikes == pytest.approx(600, rel=0.05)


def test_the_vectors_are_plain_and_hold_both_answers():
    told = json.loads(json.dumps(vectors()))
    assert {case["done"] for case in told["coverage"]} == {True, False}
    assert {case["place"] for case in told["turns"]} >= {0, 1, 2, 5}
