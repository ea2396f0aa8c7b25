"""Sprints, and how long hard work can be held: the figures that the parameters were searched against. All from memory.

Gaitanos GC et al. (1993) J Appl Physiol 75:712-719: 10 x 6 s, 30 s rest; the last sprint 73 % of the first.
Bogdanis GC et al. (1996) J Appl Physiol 80:876-884: two 30 s sprints 4 min apart; the second 18 % less work.
Bogdanis GC et al. (1995) J Physiol 482:467-480: sprint store 85.5 ± 3.5 % six minutes after a 30 s sprint.
Medbø JI et al. (1988) J Appl Physiol 64:50-60: the accumulated oxygen deficit levels off at two minutes and more.
"""

import pytest

from tests.published.profiles import REST, exhausting_demand, run


def test_the_tenth_short_sprint_against_the_first():
    work = run([(6, 9), (30, REST)] * 10).energy_delivered[::2, 0]
    assert work[-1] / work[0] == pytest.approx(0.73, abs=0.05)


def test_short_sprints_fade_one_after_the_other():
    work = run([(6, 9), (30, REST)] * 10).energy_delivered[::2, 0]
    assert list(work) == sorted(work, reverse=True)


def test_the_first_short_sprint_lives_on_the_sprint_store_and_a_good_part_of_glycolysis():
    first = run([(6, 9)])
    spent = first.energy_aerobic + first.energy_alactic + first.energy_lactic
    assert float(first.energy_lactic[0, 0] / spent[0, 0]) == pytest.approx(0.44, abs=0.08)


def test_the_second_of_two_long_sprints_does_a_fifth_less_work():
    first, _, second = run([(30, 9), (240, REST), (30, 9)]).energy_delivered[:, 0]
    assert second / first == pytest.approx(0.82, abs=0.05)


def test_six_minutes_fill_most_of_the_sprint_store():
    assert run([(30, 9), (360, REST)]).sprint_left[-1, 0] == pytest.approx(0.855, abs=0.08)


def test_the_sprint_store_fills_fast_at_first_and_slowly_after():
    course = run([(30, 9), (360, REST)])
    at_30_s, at_90_s, at_360_s = (course.sprint_left[30 + s, 0] for s in (30, 90, 360))
    assert (at_90_s - at_30_s) / 60 > 3 * (at_360_s - at_90_s) / 270


def test_the_oxygen_deficit_of_three_exhausting_minutes():
    done = run([(180, exhausting_demand(180))])
    deficit = float((done.energy_alactic + done.energy_lactic).sum())
    assert deficit == pytest.approx(69, abs=10)


def test_the_longer_it_must_be_held_the_lower_the_demand():
    held = [exhausting_demand(seconds) for seconds in (45, 60, 90, 120, 180, 240, 480)]
    assert held == sorted(held, reverse=True)
    assert held[-1] > 0.9


def test_work_that_lasts_twelve_minutes_is_a_little_under_vo2max():
    assert exhausting_demand(720) == pytest.approx(0.93, abs=0.05)


def test_a_step_to_moderate_work_is_most_of_the_way_in_half_a_minute():
    """Phase II time constants of 25-40 s in the untrained and less in the trained: a band, from memory."""
    course = run([(300, 0.7)])
    assert 0.55 <= (course.uptake_frac[25, 0] - 0.105) / (0.7 - 0.105) + 0.04 <= 1.0
    assert course.uptake_frac[-1, 0] == pytest.approx(0.7, abs=0.04)
