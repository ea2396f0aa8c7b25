"""What follows from a date: weeks, phases, the last lactic day, the taper, and what comes back from week to week."""

from datetime import date, timedelta

import pytest

from tests.core.camp.made import MONDAY, camp, day
from yoisho.camp.camp import Camp, CampError, Fixed


def test_weeks_are_those_of_the_calendar_and_the_first_may_be_short():
    asked = Camp(start=date(2027, 1, 7), bout_on=date(2027, 2, 6))
    assert [(week.first.day, len(week.days)) for week in asked.calendar] == [(7, 4), (11, 7), (18, 7), (25, 7), (1, 5)]
    assert [week.whole for week in asked.calendar] == [False, True, True, False, False]


def test_a_club_whose_week_begins_on_sunday_has_its_own_weeks():
    asked = Camp(start=MONDAY, weeks=2, first_weekday=6)
    assert [week.first.weekday() for week in asked.calendar] == [0, 6, 6]


def test_every_fourth_week_eases_but_not_in_the_taper():
    assert [week.phase for week in camp(8).calendar] == [
        "build", "build", "build", "ease", "press", "press", "sharpen", "fresh",
    ]  # fmt: skip
    assert [week.number for week in camp(8, ease_every=3).calendar if week.phase == "ease"] == [3, 6]
    assert not any(week.phase == "ease" for week in camp(8, ease_every=0).calendar)


@pytest.mark.parametrize("weekday", range(7))
def test_the_taper_begins_with_a_week_about_two_weeks_before_the_bout(weekday):
    bout = MONDAY + timedelta(70 + weekday)
    asked = Camp(start=MONDAY, bout_on=bout)
    assert asked.taper_from.weekday() == 0
    assert 11 <= (bout - asked.taper_from).days <= 17


def test_the_last_lactic_day_stands_as_long_before_the_bout_as_the_club_says():
    asked = camp(8, lactic_cutoff_days=9)
    assert (asked.bout_on - asked.lactic_until).days == 9
    assert (camp(8, lactic_cutoff_days=9, softened=("lactic-cutoff",)).lactic_until - asked.lactic_until).days == 2


def test_the_last_third_is_for_the_bouts_rounds():
    asked = Camp(start=MONDAY, bout_on=MONDAY + timedelta(60))
    assert asked.rehearsal_from == MONDAY + timedelta(40)
    assert Camp(start=MONDAY, weeks=4).rehearsal_from is None


def test_what_is_fixed_comes_back_on_its_weekday_and_sparring_ends_with_the_last_lactic_day():
    asked = camp(8, fixed=(Fixed("sparring", weekday="sat"), Fixed("test", weekday="mon", every_weeks=4)))
    sparring = [on for on, purpose in asked.fixtures if purpose == "sparring"]
    assert [on for on, purpose in asked.fixtures if purpose == "test"] == [day(1, 0), day(5, 0)]
    assert len(sparring) == 6
    assert max(sparring) <= asked.lactic_until
    assert Camp(start=MONDAY, weeks=8, fixed=(Fixed("sparring", weekday="sat"),)).fixtures[-1][0] == day(8, 5)


def test_a_day_has_its_minutes_and_none_where_nobody_trains_or_somebody_travels():
    asked = camp(4, days=("mon", "tue"), minutes={"mon": 45},
                 fixed=(Fixed("travel", on=day(2, 0)), Fixed("sparring", on=day(2, 5))))  # fmt: skip
    assert [asked.minutes_on(day(1, weekday)) for weekday in range(7)] == [45, 75, 0, 0, 0, 0, 0]
    assert asked.minutes_on(day(2, 0)) == 0
    assert asked.minutes_on(day(2, 5)) == 75


@pytest.mark.parametrize(
    ("said", "field", "words"),
    [
        ({"bout_on": None}, "bout_on", "day of the bout"),
        ({"bout_on": MONDAY}, "bout_on", "after the first day"),
        ({"bout_on": MONDAY + timedelta(200)}, "bout_on", "within 26 weeks"),
        ({"rule_set": "chess"}, "rule_set", "no rule set"),
        ({"days": ()}, "days", "at least one weekday"),
        ({"days": ("monday",)}, "days", "there are mon, tue"),
        ({"minutes": {"mon": 5}}, "minutes", "15 to 180"),
        ({"most_a_week": 0}, "most_a_week", "1 to 14"),
        ({"weights": {"cardio": 1}}, "weights", "no purpose"),
        ({"weights": {"skill": 0}}, "weights", "at least one"),
        ({"weights": {"skill": 11}}, "weights", "0 to 10"),
        ({"ease_every": 2}, "ease_every", "third or fourth"),
        ({"lactic_cutoff_days": 6}, "lactic_cutoff_days", "7 is the very latest"),
        ({"most_climb": 2}, "most_climb", "0 to 1"),
        ({"softened": ("knock",)}, "softened", "not given way on"),
        ({"fixed": (Fixed("sparring", on=MONDAY - timedelta(1)),)}, "fixed", "not within"),
        ({"fixed": (Fixed("sparring", weekday="sat"),) * 201}, "fixed", "at most 200"),
    ],
)
def test_what_cannot_be_is_said_with_its_field(said, field, words):
    with pytest.raises(CampError, match=words) as fault:
        camp(8, **said)
    assert fault.value.field == field


def test_a_camp_has_a_bout_or_a_number_of_weeks_and_not_both():
    with pytest.raises(CampError, match="day of the bout"):
        Camp(start=MONDAY, bout_on=MONDAY + timedelta(30), weeks=4)
    with pytest.raises(CampError, match="1 to 26 weeks"):
        Camp(start=MONDAY, weeks=27)


@pytest.mark.parametrize(
    ("said", "words"),
    [
        ({"purpose": "boxing", "on": MONDAY}, "nothing is called 'boxing'"),
        ({"purpose": "skill"}, "a date, or a weekday"),
        ({"purpose": "skill", "on": MONDAY, "weekday": "mon"}, "a date, or a weekday"),
        ({"purpose": "skill", "weekday": "monday"}, "no weekday"),
        ({"purpose": "skill", "weekday": "mon", "every_weeks": 0}, "every 1 to 26"),
    ],
)
def test_something_fixed_that_cannot_be_is_said(said, words):
    with pytest.raises(CampError, match=words):
        Fixed(**said)
