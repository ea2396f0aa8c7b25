"""An interval: what it can say, how long it takes, and what makes no sense."""

import pytest

from yoisho.session.interval import Beat, HeartBand, Interval, RepeatingCue, SessionError
from yoisho.session.modality import MODALITIES
from yoisho.session.shorthand import read
from yoisho.session.timeline import unroll
from yoisho.strikes.counts import pass_s
from yoisho.strikes.notation import read_drill
from yoisho.strikes.tempo import TEMPOS

ONE_TWO = read_drill("1-2")


def test_a_ladder_may_have_forty_steps():
    assert len(Interval(None, "power", reps=(3,) * 40).reps) == 40


@pytest.mark.parametrize("made", [
    lambda: Interval(1, "power"), lambda: Interval(7200, "flow"), lambda: Interval(None, "speed", reps=(2000,)),
    lambda: Interval(30, "power", drill=ONE_TWO, reset_s=30), lambda: Interval(30, "power", drill=ONE_TWO, reset_s=0),
    lambda: Interval(30, "power", switch=2), lambda: Interval(7200, "flow", switch=3600),
    lambda: Interval(30, "power", cues=(RepeatingCue("go", 5),) * 4), lambda: RepeatingCue("x" * 40, 5),
    lambda: RepeatingCue("go", 2), lambda: RepeatingCue("go", 600), lambda: Beat(30), lambda: Beat(240),
    lambda: HeartBand(30, 31), lambda: HeartBand(99, 100),
])  # fmt: skip
def test_what_is_just_within_the_bounds_is_taken(made):
    made()


@pytest.mark.parametrize(
    ("made", "words"),
    [
        (lambda: Interval(None, "power"), "give one of them"),
        (lambda: Interval(30, "power", reps=(10,)), "give one of them"),
        (lambda: Interval(0, "power"), "1 second to 2 hours"),
        (lambda: Interval(None, "power", reps=(0,)), "reps go from 1 to 2000"),
        (lambda: Interval(None, "power", reps=(1,) * 41), "at most 40 steps"),
        (lambda: Interval(None, "rest", reps=(10,)), "dosed by time"),
        (lambda: Interval(None, "flow", reps=(10,), modality="skip"), "not counted in reps"),
        (lambda: Interval(None, "hold", reps=(10,)), "nothing is struck at hold"),
        (lambda: Interval(None, "technique", reps=(2000,), drill=read_drill("20x rk-m")), "longer than 2 hours"),
        (lambda: Interval(30, "power", modality="trampoline"), "not a modality"),
        (lambda: Interval(30, "power", reset_s=2), "say which"),
        (lambda: Interval(30, "power", drill=ONE_TWO, reset_s=31), "from 0 to 30"),
        (lambda: Interval(30, "power", drill=ONE_TWO, reset_s=2, per_min=60), "no room for a reset"),
        (lambda: Interval(30, "hold", drill=ONE_TWO), "leave the combination out"),
        (lambda: Interval(30, "flow", modality="skip", drill=ONE_TWO), "nothing is struck on skip"),
        (lambda: Interval(30, "power", lead="front"), "left or right"),
        (lambda: Interval(30, "power", switch=1), "every 2 seconds or more"),
        (lambda: Interval(30, "rest", switch="half"), "in a rest no side"),
        (lambda: Interval(30, "rest", pairs=True), "only work is done in pairs"),
        (lambda: Interval(30, "rest", open_ended=True), "give a rest a time"),
        (lambda: Interval(None, "power", reps=(9,), open_ended=True), "and reps no end"),
        (lambda: Interval(300, "technique", open_ended=True, pairs=True), "when it is their turn"),
        (lambda: Interval(300, "technique", open_ended=True, switch=30), "switch sides on call"),
        (lambda: Interval(300, "technique", open_ended=True, cues=(RepeatingCue("chin", 20),)), "no clock to call by"),
        (lambda: Interval(300, "technique", open_ended=True, beat=Beat(90)), "no clock to call by"),
        (lambda: Interval(30, "power", cues=(RepeatingCue("go", 5),) * 5), "at most 4"),
        (lambda: RepeatingCue("", 5), "1 to 40 characters"),
        (lambda: RepeatingCue('say "go"', 5), "no quotes"),
        (lambda: RepeatingCue("go", 1), "2 to 600 seconds"),
        (lambda: Beat(20), "30 to 240 beats"),
        (lambda: Beat(120, 3), "half the beats"),
        (lambda: HeartBand(90, 80), "runs upward"),
        (lambda: HeartBand(20, 80), "within 30 to 100"),
    ],
)
def test_what_makes_no_sense_says_what_would(made, words):
    with pytest.raises(SessionError, match=words):
        made()


def test_a_rep_is_a_pass_a_strike_or_a_movement():
    passes = Interval(None, "combination", reps=(10,), drill=ONE_TWO)
    assert passes.rep_s() == pass_s(ONE_TWO.whole, "combination")
    three = Interval(None, "combination", reps=(10,), drill=read_drill("1 | 2-3 | 3-4-5"))
    assert three.rep_s(1, 3) < three.rep_s(2, 3) < three.rep_s(3, 3) < three.rep_s(), "alone it is all of them"
    strikes = Interval(None, "power", reps=(10,))
    assert strikes.rep_s() == 60 / TEMPOS["power"].strikes_per_min
    movements = Interval(None, "technique", reps=(10,), modality="push-ups")
    assert movements.rep_s() == MODALITIES["push-ups"].rep_s
    assert movements.length_s() == 15


def test_a_single_strike_needs_no_reset_but_no_leg_is_faster_than_it_can_be():
    jab = Interval(60, "speed", drill=read_drill("1"))
    kick = Interval(60, "speed", drill=read_drill("rk-m"))
    assert jab.rep_s() == pytest.approx(60 / TEMPOS["speed"].strikes_per_min)
    assert kick.rep_s() > jab.rep_s()


def test_a_beat_sets_the_strikes_whatever_the_effort():
    on_each, twice, half = (Interval(60, "flow", beat=Beat(120, strikes)).rep_s() for strikes in (1, 2, 0.5))
    assert (on_each, twice, half) == (0.5, 0.25, 1.0)
    (heard,) = unroll(read("1:00 flow to 120 beats double time")).intervals
    assert heard.strikes == 240


def test_passes_are_whole_and_at_least_one():
    assert Interval(1, "technique", drill=read_drill("1-2-3-4-5-6")).passes() == 1
    assert Interval(None, "technique", reps=(25,), drill=ONE_TWO).passes() == 25
    minute = Interval(60, "combination", drill=ONE_TWO)
    assert minute.passes() == int(60 / minute.rep_s())


def test_a_ladder_steps_with_its_repeat_and_begins_anew():
    ladder = Interval(None, "power", reps=(10, 8, 6))
    assert [ladder.reps_at(turn) for turn in range(1, 6)] == [10, 8, 6, 10, 8]
    assert Interval(30, "power").reps_at() is None


def test_a_modality_can_cost_more_or_less_than_its_effort_says():
    assert Interval(60, "hold", modality="plank").demand_frac == MODALITIES["plank"].demand_frac
    assert Interval(60, "power", modality="plank").demand_frac == TEMPOS["power"].demand_frac
    assert Interval(60, "hold", modality="carry").demand_frac == TEMPOS["hold"].demand_frac


def test_a_stated_demand_is_what_is_asked_whatever_the_effort_and_what_it_is_done_on():
    assert read("20 at 170%").demand_frac == 1.7
    assert read("20 plank at 60%").demand_frac == 0.6


def test_in_pairs_the_partner_rests_meanwhile_and_the_clock_doubles():
    work, wait = unroll(read("30 power bag [1-2] in pairs")).intervals
    assert (work.seconds, wait.seconds) == (30, 30)
    assert (wait.tempo, wait.strikes, wait.reps, wait.combination) == ("rest", 0, None, None)
    assert wait.demand_frac == TEMPOS["rest"].demand_frac


def test_a_reset_behind_a_bracket_holds_for_all_that_say_none():
    tree = read("2 x (30 power [1-2], 30 power [3] reset 4) reset 2")
    assert [interval.reset_s for interval in tree.body.items] == [2, 4]


def test_a_reset_takes_the_place_of_the_efforts_own_and_leaves_room_for_so_many_passes():
    own, none, long = (read(f"2:00 combination bag [1-2]{said}") for said in ("", " no reset", " reset 5"))
    assert own.rep_s() - none.rep_s() == pytest.approx(TEMPOS["combination"].reset_s)
    assert long.rep_s() - none.rep_s() == pytest.approx(5)
    assert none.passes() > own.passes() > long.passes()
    assert unroll(long).strikes == pytest.approx(120 / long.rep_s() * 2)


def test_power_is_a_share_of_a_strikes_energy_and_force_its_root():
    assert Interval(60, "flow", power_percent=50).force == pytest.approx(0.5**0.5)
    assert Interval(60, "flow", power_percent=100).force == 1.0
