"""What strikes cost, and what the trade knows of how far they carry. Figures from memory."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from yoisho.engine.person import Person, person
from yoisho.engine.readout import Reading, read
from yoisho.engine.strike_cost import BLOWS
from yoisho.judgement.fade import fade_onset
from yoisho.session.shorthand import read as line
from yoisho.session.timeline import unroll


def elite(**more) -> Person:
    return person(vo2max_ml_kg_min=57, level="fighter", mass_kg=72, age_years=25, **more)


def reading(text: str, who: Person | None = None, **more) -> Reading:
    return read(who or elite(), unroll(line(text)), ranges=False, **more)


def asked(text: str, who: Person | None = None) -> float:
    """Demand of its first interval [mL/kg/min]."""
    return reading(text, who).intervals[0]["demand_ml_kg_min"].value


@pytest.mark.parametrize(("per_min", "measured"), [(60, 24.7), (120, 30.4), (180, 38.3)])
def test_arseneau_2011_punches_on_a_bag(per_min, measured):
    """J Strength Cond Res 25:348-353, trained boxers. Taken to be at 30 % of a full punch's energy."""
    assert asked(f"3:00 technique bag at {per_min} a minute 30 % power") == pytest.approx(measured, rel=0.08)


def test_a_punch_of_an_olympic_boxer():
    """Walilko et al. 2005: 2.9 kg at 9.14 m/s are 121 J; at an efficiency of .22 and 20.9 J/mL, over 72 kg."""
    assert BLOWS["punch"].cost_ml_kg == pytest.approx(121.1 / 0.22 / 20.9 / 72, rel=0.01)


def test_crisafulli_a_bout_of_muay_thai_is_about_nine_met():
    """Crisafulli et al. 2009: 9.4 MET in simulated bouts; rounds and rests together, wide by a third."""
    done = reading("3 x (3:00 fight pace bag) rest 1:00")
    oxygen = float(done.measured.run.energy_aerobic.sum())
    assert 9.4 / 1.35 <= oxygen / (11 * 3.5) <= 9.4 * 1.35


def test_rounds_of_fight_pace_leave_the_lactate_that_bouts_leave():
    """Hanon et al. 2015 and Smith: 13.6 mmol/L after three rounds; ± 2.4 is one SD."""
    assert reading("3 x (3:00 fight pace bag) rest 1:00").figures["lactate_peak_mmol"].value == pytest.approx(
        13.6, abs=4.8
    )


def test_ten_kicks_in_twenty_seconds_finish_a_fighter():
    """Ten kicks in turn, 20/10: in seven or eight sets (common practice, no source); twice as far either way."""
    kicks = read(elite(), unroll(line("16 x (20 power bag [rk-m, lk-m] at 30 a minute / 10 rest)")))
    fades = kicks.measured.intervals["fade"][::2, 0] > 0.05
    assert fades.any()
    assert 4 <= np.argmax(fades) + 1 <= 14
    assert fade_onset(kicks).probability < 1, "what a kick costs is not known so well"


def test_flow_can_be_kept_up_a_whole_round_and_more():
    done = reading("30:00 flow bag")
    assert done.exhausted_at_s is None
    assert done.figures["lactate_peak_mmol"].value < 3.5


def test_threshold_rounds_sit_at_80_to_90_percent_of_maximum_and_technique_survives():
    done = reading("3 x (1:00 speed bag, 1:00 power bag, 1:00 carry) rest 1:30")
    assert 0.80 <= done.figures["heart_rate_peak_bpm"].value / elite().hr_max_bpm.value <= 0.92
    assert done.figures["fade_last"].value < 0.05


def test_thirty_hard_thirty_light_is_lactic_and_fades_in_the_second_set():
    done = reading("2 x (8 x (30 power bag / 30 flow bag)) rest 2:00")
    fades = [each.value for each in done.work_bout_fade]
    assert done.figures["lactic_deep_min"].value >= 2
    assert max(fades[:8]) < 0.10 < max(fades[8:])


@given(st.integers(20, 200), st.integers(5, 100), st.integers(20, 100))
def test_more_strikes_of_equal_force_never_cost_less(per_min, more, power):
    one, two = (asked(f"1:00 technique bag at {rate} a minute {power} % power") for rate in (per_min, per_min + more))
    assert two > one


@given(st.integers(20, 200), st.integers(5, 60), st.integers(5, 40))
def test_harder_strikes_never_cost_less(per_min, power, more):
    one, two = (asked(f"1:00 technique bag at {per_min} a minute {each} % power") for each in (power, power + more))
    assert two > one


@given(st.floats(25, 60), st.floats(4, 25), st.integers(80, 200))
def test_a_weaker_person_never_outlasts_a_stronger_one_at_a_line_that_fixes_its_strikes(V, more, per_min):
    text = f"20:00 technique bag at {per_min} a minute 60 % power"
    weak, strong = (
        reading(text, person(vo2max_ml_kg_min=each, level="fighter", training="trained")).exhausted_at_s or 1e9
        for each in (V, V + more)
    )
    assert weak <= strong


def test_a_word_asks_the_same_share_of_anybody_and_the_weaker_throws_fewer():
    strong, weak = elite(), person(vo2max_ml_kg_min=32, level="fighter", mass_kg=72, age_years=25)
    shares = [asked("3:00 combination bag", who) / who.vo2max_ml_kg_min.value for who in (strong, weak)]
    assert shares[0] == pytest.approx(shares[1], rel=0.05)
    thrown = [reading("3:00 technique bag", who).figures["strikes"].value for who in (strong, weak)]
    assert thrown[1] < thrown[0]


def test_eight_sets_all_out_are_not_outlasted_by_the_unfit():
    """At the same relative effort endurance is flat or falls a little with unfitness."""
    unfit, fit = (
        reading("8 x (20 all out bag / 10 rest)", person(vo2max_ml_kg_min=V, level="fighter"))
        .figures["fade_last"]
        .value
        for V in (15, 95)
    )
    assert unfit >= fit - 0.02


def test_kicks_in_fives_come_no_faster_than_legs_can_kick():
    done = reading("20 all out bag [5x rear round kick]")
    assert done.figures["strikes"].value / 20 <= BLOWS["kick"].top_per_s
