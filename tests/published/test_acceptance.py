"""Statements of the trade that the engine must bear out, each as a coach would say it."""

import numpy as np
import pytest

from tests.core.people import club_boxer
from tests.published.profiles import REST, bouts_until_exhausted, run
from yoisho.engine.lactate import blood_lactate
from yoisho.engine.measures import LACTIC_DEEP_USED
from yoisho.engine.readout import read
from yoisho.judgement.verdict import judge
from yoisho.session.shorthand import read as line
from yoisho.session.timeline import unroll


def reading(text):
    return read(club_boxer(), unroll(line(text)), ranges=False)


def minutes_far_down(done):
    """With the lactic store far down."""
    return float(np.diff(done.seconds) @ (done.lactic_used[1:, 0] >= LACTIC_DEEP_USED)) / 60


def test_the_research_protocol_fails_in_bout_seven_or_so():
    assert 6 <= bouts_until_exhausted(20, 10, 1.7) <= 8


def test_the_20_10_format_at_130_percent_does_not():
    assert bouts_until_exhausted(20, 10, 1.3) > 8


def test_six_seconds_all_out_every_ninety_stay_sprint_power_to_the_end():
    done = reading("15 x (6 all out, 84 rest)")
    assert judge(done).target == "sprint-power"
    assert done.sprint_at_work_bout[-1].value > 0.7
    assert done.work_bout_fade[-1].value < 0.05


def test_thirty_thirty_at_150_and_40_percent_twice_eight_minutes_is_lactic_capacity_and_fades():
    done = run([*[(30, 1.5), (30, 0.4)] * 8, (120, REST), *[(30, 1.5), (30, 0.4)] * 8])
    assert minutes_far_down(done) >= 4
    hard = [*range(0, 16, 2), *range(17, 33, 2)]
    delivered = done.energy_delivered[hard, 0] / (30 * 1.5 * 57 / 60)
    assert delivered[0] == pytest.approx(1)
    assert delivered[-1] < 0.97
    assert judge(reading("2 x (8 x (30 power, 30 flow)) rest 2:00")).target == "lactic-capacity"


def test_four_by_four_at_92_percent_is_aerobic_power_and_not_lactic():
    done = run([*[(240, 0.92), (180, 0.4)] * 3, (240, 0.92)])
    assert float(np.diff(done.seconds) @ (done.uptake_frac[1:, 0] >= 0.9)) / 60 >= 5
    assert minutes_far_down(done) < 2
    assert judge(reading("4 x (4:00 combination) recover 3:00")).target == "aerobic-power"


def test_twenty_minutes_of_flow_are_base():
    assert judge(reading("20:00 flow")).target == "aerobic-base"


def test_three_composite_rounds_get_harder_as_the_rest_goes_from_90_to_75_to_60():
    rounds = [reading(f"3 x (1:00 speed, 1:00 power, 1:00 hold) rest {rest}") for rest in (90, 75, 60)]
    for figure in ("lactic_used_highest", "lactate_peak_mmol", "fatigue_peak"):
        values = [done.figures[figure].value for done in rounds]
        assert values == sorted(values), figure
        assert values[0] < values[-1], figure


def test_after_exhausting_work_lactate_peaks_three_to_eight_minutes_after_the_bell():
    """Several studies, from memory."""
    hard = 60
    done = run([(hard, 9), (900, REST)])
    course, _ = blood_lactate(done.seconds, done.energy_to_here[3], done.uptake_frac)
    assert 3 * 60 <= done.seconds[np.argmax(course[:, 0])] - hard <= 8 * 60


def test_moving_at_the_right_intensity_clears_lactate_sooner_than_sitting():
    """Menzies et al. 2010 and others: the direction, from memory."""
    hard = [(30, 9.0)] * 2

    def left(recovery):
        done = run([*hard, (1500, recovery)])
        return float(blood_lactate(done.seconds, done.energy_to_here[3], done.uptake_frac)[0][-1, 0])

    assert left(0.4) < left(REST)


def test_striking_rounds_are_mostly_aerobic_though_lactate_is_high():
    """Davis et al. 2014 and Beneke et al. 2004: 75-88 % aerobic, 9-20 alactic, 3-6 lactic; wide by half."""
    done = reading("3 x (2:00 combination) rest 1:00")
    aerobic, alactic, lactic = (done.figures[f"{name}_share"].value for name in ("aerobic", "alactic", "lactic"))
    assert 0.70 <= aerobic <= 0.92
    assert 0.05 <= alactic <= 0.26
    assert 0.01 <= lactic <= 0.10


def test_a_bouts_rounds_leave_the_lactate_that_bouts_leave():
    """Post-bout bands: boxing 8-15 mmol/L; Hanon et al. 2015, 13.6 ± 2.4; from memory."""
    peak = read(club_boxer(), unroll(line("3 x (3:00 fight pace) rest 1:00")))
    figure = peak.figures["lactate_peak_mmol"]
    assert 8 <= figure.value <= 16
    assert figure.low < 13.6 + 2.4
    assert figure.high > 13.6 - 2.4


def test_two_minutes_of_punching_cost_what_was_measured():
    """Kravitz 2003: 68-73 % of VO2max; Arseneau 2011: 40-62 %; the gap is the uncertainty. From memory."""
    uptake = [reading(f"2:00 {tempo}").traces.uptake_frac[-1] for tempo in ("flow", "technique")]
    assert all(0.40 <= share <= 0.75 for share in uptake)
