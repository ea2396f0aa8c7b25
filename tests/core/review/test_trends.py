"""Weeks summed from days, and what is said of them. The bounds are our own settings."""

from datetime import date, timedelta

import pytest

from yoisho.review.load import ewma
from yoisho.review.trends import Day, block_of, ceiling, weeks_of

MONDAY = date(2026, 3, 2)
SUNDAY = MONDAY + timedelta(weeks=8, days=-1)
EVEN = {"left hand": 300.0, "right hand": 320.0}
HARD_EASY = (300, 0, 150, 0, 420, 0, 0)


def days_of(*weeks, **more):
    """Loads of each day, week by week, from MONDAY."""
    return {
        MONDAY + timedelta(weeks=number, days=day): Day(1, load, load, dict(EVEN), {"lactic": 2.0}, **more)
        for number, loads in enumerate(weeks)
        for day, load in enumerate(loads)
        if load
    }


def scaled(*factors):
    return [[factor * load for load in HARD_EASY] for factor in factors]


def said(days, count=8, today=SUNDAY + timedelta(days=1)):
    # The week after the eighth has begun, and is empty.
    weeks = weeks_of(days, count + 1, today)
    return block_of(weeks, days, "club")


def point(block, seal):
    return next(each for each in block.points if each.seal == seal)


def test_a_week_is_the_sum_of_its_days():
    (week, *_, last) = weeks_of(days_of(*scaled(*[1] * 8)), 8, SUNDAY)
    assert (week.monday, week.sessions, week.load) == (MONDAY, 3, 870)
    assert week.limbs == {"left hand": 900, "right hand": 960}
    assert week.minutes == {"lactic": 6}
    assert last.monday == MONDAY + timedelta(weeks=7)


def test_a_week_that_is_not_over_has_no_monotony_yet():
    weeks = weeks_of(days_of(*scaled(*[1] * 8)), 8, SUNDAY - timedelta(days=2))
    assert weeks[-1].over is False
    assert weeks[-1].monotony is None
    assert weeks[-2].monotony is not None


def test_the_moving_means_begin_before_the_weeks_that_are_shown():
    days = days_of(*scaled(*[1] * 8))
    shown = weeks_of(days, 2, SUNDAY)
    every = [days[MONDAY + timedelta(days=n)].load if MONDAY + timedelta(days=n) in days else 0.0 for n in range(56)]
    assert shown[-1].long_mean == pytest.approx(ewma(every, 28)[-1])
    assert shown[-1].short_mean == pytest.approx(ewma(every, 7)[-1])


def test_a_load_that_climbs_with_lighter_weeks_is_a_steady_build():
    block = said(days_of(*scaled(1, 1.07, 1.14, 0.7, 1.2, 1.27, 1.34, 0.8)))
    assert block.title == "A steady build"
    assert "2 lighter weeks in 8" in block.sentence
    assert block.tally == 5


def test_a_load_that_climbs_by_a_quarter_a_week_is_steep():
    assert said(days_of(*scaled(1, 1.3, 1.7, 2.2, 2.8, 3.6, 4.6, 6))).title == "A steep climb"


def test_a_load_that_stays_holds_and_one_that_falls_eases_off():
    assert said(days_of(*scaled(*[1] * 8))).title == "Holding"
    assert said(days_of(*scaled(1.4, 1.35, 1.3, 1.25, 1.2, 1.1, 1.05, 1))).title == "Easing off"


def test_eight_weeks_without_a_lighter_one_are_spoken_of():
    found = point(said(days_of(*scaled(*[1] * 8))), "Unload")
    assert not found.fine
    assert "8 weeks without a lighter one" in found.text


def test_days_that_are_all_alike_are_spoken_of_with_their_week():
    same = [[200, 210, 190, 200, 205, 195, 0]]
    found = point(said(days_of(*scaled(1, 1, 1, 1, 1, 1, 1), *same)), "Same")
    assert not found.fine
    assert "20 Apr" in found.text
    assert point(said(days_of(*scaled(*[1] * 8))), "Same").fine


def test_a_week_of_seven_days_that_are_the_same_is_the_most_alike_of_all():
    found = point(said(days_of(*scaled(1, 1, 1, 1, 1, 1), [200] * 7, [200, 210, 190, 200, 205, 195, 0])), "Same")
    assert not found.fine
    assert found.text == "Every day of the week of 13 Apr had the same load."
    idle = point(said(days_of(*scaled(1, 1, 1, 1, 1, 1), [0] * 7, [200, 0, 100, 0, 300, 0, 0])), "Same")
    assert idle.fine, "days without work are no hard days"


def test_a_side_that_does_nearly_all_the_kicking_is_spoken_of():
    days = days_of(*scaled(*[1] * 8))
    days[MONDAY].limbs |= {"left leg": 40.0, "right leg": 120.0}
    found = point(said(days), "Side")
    assert not found.fine
    assert "Right leg 120, left 40 in the week of 2 Mar" in found.text


def test_a_handful_of_kicks_is_no_side():
    days = days_of(*scaled(*[1] * 8))
    days[MONDAY].limbs |= {"right leg": 12.0}
    assert point(said(days), "Side").fine


def test_more_than_a_limb_bears_in_a_week_is_spoken_of():
    days = days_of(*scaled(*[1] * 8))
    days[MONDAY].limbs = {"left hand": 2600.0, "right hand": 2500.0}
    found = point(said(days), "Volume")
    assert not found.fine
    assert str(ceiling("left hand", "club")) in found.text


def test_lactic_days_within_48_hours_are_spoken_of():
    days = days_of(*scaled(*[1] * 8))
    days[MONDAY].lactic = days[MONDAY + timedelta(days=2)].lactic = True
    assert point(said(days), "48 h").fine
    days[MONDAY + timedelta(days=3)] = Day(1, 100, 100, lactic=True)
    assert not point(said(days), "48 h").fine


def test_of_two_weeks_too_little_can_be_said():
    block = said(days_of(*scaled(1, 1)))
    assert (block.title, block.points) == ("Too little to say", ())


def test_two_weeks_that_are_not_lighter_are_enough_for_a_slope():
    """A week that was lighter on purpose is no part of it."""
    block = said(days_of(*scaled(1, 1.5, 0.6)), 3, MONDAY + timedelta(weeks=3))
    assert block.sentence.startswith("Load climbs by 40 % a week"), block.sentence
    assert "1 lighter week in 3" in block.sentence
