"""Courses, where the fit holds single figures only: how sprints fade, how the store fills, what can be held.

From memory: Gaitanos GC et al. (1993) J Appl Physiol 75:712-719; Bogdanis GC et al. (1995) J Physiol 482:467-480.
"""

from tests.published.profiles import REST, exhausting_demand, run


def test_short_sprints_fade_one_after_the_other():
    work = run([(6, 9), (30, REST)] * 10).energy_delivered[::2, 0]
    assert list(work) == sorted(work, reverse=True)


def test_the_sprint_store_fills_fast_at_first_and_slowly_after():
    course = run([(30, 9), (360, REST)])
    at_once, at_30_s, at_360_s = (course.sprint_left[30 + s, 0] for s in (0, 30, 360))
    assert at_30_s - at_once > 3 * (at_360_s - at_30_s) > 0


def test_the_longer_it_must_be_held_the_lower_the_demand():
    held = [exhausting_demand(seconds) for seconds in (45, 60, 90, 120, 180, 240, 480)]
    assert held == sorted(held, reverse=True)
    assert held[-1] > 0.9


def test_steady_moderate_work_is_paid_for_by_uptake_in_the_end():
    assert abs(run([(600, 0.5)]).uptake_frac[-1, 0] - 0.5) < 0.03
