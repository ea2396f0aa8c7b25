"""A camp: what a coach asks of the weeks to a bout, and the calendar that follows from it."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field
from datetime import date, timedelta
from functools import cached_property
from typing import Literal, get_args

from yoisho.judgement.cautions import LATEST_LACTIC_DAYS
from yoisho.judgement.targets import TARGETS
from yoisho.plain import ImpossibleError
from yoisho.session.rules import RULE_SETS

Weekday = Literal["mon", "tue", "wed", "thu", "fri", "sat", "sun"]
WEEKDAYS: tuple[Weekday, ...] = get_args(Weekday)
LONGEST_WEEKS = 26
MOST_FIXED = 200
MINUTES = (15, 180)
MOST_A_WEEK = (1, 14)
EASE_EVERY = (0, 3, 4)
CUTOFF_DAYS = (LATEST_LACTIC_DAYS, 21)
CLIMB = (0.0, 1.0)
HIGHEST_WEIGHT = 10.0
TAPER_DAYS = 14
DAY = timedelta(days=1)

SPARRING, TEST, TRAVEL = "sparring", "test", "travel"
BESIDES = {SPARRING: "sparring", TEST: "test day", TRAVEL: "travel"}
"""What can be fixed on a day besides the purposes."""

MAY_GIVE = (
    "lactic-cutoff", "hard-days", "available", "most-a-week", "one-a-day", "fixed", "trains", "ease", "taper", "climb",
    "one-knob", "rehearsal",
)  # fmt: skip
"""Hard rules that a coach may give way on. The others are about somebody's health: no plan is made against them. Of the
last lactic day no more is given than its very latest."""

Phase = Literal["build", "press", "ease", "sharpen", "fresh"]


class CampError(ImpossibleError):
    """A camp that cannot be asked for: what is wrong, how to mend it, and the field."""


@dataclass(frozen=True)
class Fixed:
    """Something that stands on a day whatever else is planned: on a date, or every so many weeks on a weekday."""

    purpose: str
    """Of the purposes, or sparring, a test day or travel."""
    on: date | None = None
    weekday: Weekday | None = None
    every_weeks: int = 1

    def __post_init__(self) -> None:
        if self.purpose not in TARGETS and self.purpose not in BESIDES:
            known = ", ".join((*TARGETS, *BESIDES))
            raise CampError(f"nothing is called '{self.purpose}'; there are {known}", "fixed")
        if (self.on is None) == (self.weekday is None):
            raise CampError("what is fixed has a date, or a weekday", "fixed")
        if self.weekday is not None and self.weekday not in WEEKDAYS:
            raise CampError(f"no weekday is called '{self.weekday}'; there are {', '.join(WEEKDAYS)}", "fixed")
        if not 1 <= self.every_weeks <= LONGEST_WEEKS:
            raise CampError(f"every 1 to {LONGEST_WEEKS} weeks, not every {self.every_weeks}", "fixed")


@dataclass(frozen=True)
class Week:
    """A week of the calendar, as far as the camp reaches into it."""

    number: int
    """From 1."""
    first: date
    last: date
    phase: Phase
    whole: bool
    """All seven days are the camp's, none of them eased or tapered: what other weeks are measured by."""

    @property
    def days(self) -> tuple[date, ...]:
        return tuple(days(self.first, self.last))


def days(first: date, last: date) -> Iterator[date]:
    """Every day from the first to the last, both with it."""
    for number in range((last - first).days + 1):
        yield first + number * DAY


@dataclass(frozen=True)
class Camp:
    """Raises `CampError` for what cannot be."""

    start: date
    bout_on: date | None = None
    """None for a block of so many `weeks`."""
    weeks: int | None = None
    rule_set: str | None = None
    days: tuple[Weekday, ...] = ("mon", "tue", "thu", "sat")
    """On which there may be training."""
    minutes: Mapping[Weekday, int] = field(default_factory=dict)
    """That a day has; `DEFAULT_MINUTES` where it is not said."""
    most_a_week: int = 4
    """Sessions."""
    weights: Mapping[str, float] = field(default_factory=dict)
    """Of the purposes that matter; empty for those of the rule set."""
    fixed: tuple[Fixed, ...] = ()
    ease_every: int = 4
    """Every third or fourth week is an easy one; 0 for none."""
    lactic_cutoff_days: int = 9
    """The last hard lactic day stands so long before the bout, at the latest."""
    most_climb: float = 0.15
    """Share by which a week's load may climb over the whole week before it. Own setting."""
    softened: tuple[str, ...] = ()
    """Hard rules that the coach has given way on, of `MAY_GIVE`: they are told where they are broken, and not kept."""
    first_weekday: int = 0
    """Monday is 0."""

    def __post_init__(self) -> None:
        if (self.bout_on is None) == (self.weeks is None):
            raise CampError("give the day of the bout, or a number of weeks where there is none", "bout_on")
        if self.weeks is not None and not 1 <= self.weeks <= LONGEST_WEEKS:
            raise CampError(f"a block has 1 to {LONGEST_WEEKS} weeks, not {self.weeks}", "weeks")
        if self.bout_on is not None and not 1 <= (self.bout_on - self.start).days <= 7 * LONGEST_WEEKS:
            raise CampError(f"the bout comes after the first day, and within {LONGEST_WEEKS} weeks of it", "bout_on")
        if self.rule_set is not None and self.rule_set not in RULE_SETS:
            raise CampError(f"no rule set is called '{self.rule_set}'; there are {', '.join(RULE_SETS)}", "rule_set")
        if not self.days:
            raise CampError("choose at least one weekday to train on", "days")
        for each in (*self.days, *self.minutes):
            if each not in WEEKDAYS:
                raise CampError(f"no weekday is called '{each}'; there are {', '.join(WEEKDAYS)}", "days")
        if any(not MINUTES[0] <= each <= MINUTES[1] for each in self.minutes.values()):
            raise CampError(f"a day has {MINUTES[0]} to {MINUTES[1]} minutes", "minutes")
        if not MOST_A_WEEK[0] <= self.most_a_week <= MOST_A_WEEK[1]:
            raise CampError(f"from {MOST_A_WEEK[0]} to {MOST_A_WEEK[1]} sessions a week", "most_a_week")
        for purpose in self.weights:
            if purpose not in TARGETS:
                raise CampError(f"no purpose is called '{purpose}'; there are {', '.join(TARGETS)}", "weights")
        if any(not 0 <= each <= HIGHEST_WEIGHT for each in self.weights.values()):
            raise CampError(f"a purpose weighs from 0 to {HIGHEST_WEIGHT:g}", "weights")
        if self.weights and not any(self.weights.values()):
            raise CampError("at least one purpose has to weigh something", "weights")
        if len(self.fixed) > MOST_FIXED:
            raise CampError(f"at most {MOST_FIXED} things can be fixed", "fixed")
        if self.ease_every not in EASE_EVERY:
            raise CampError("an ease week comes every third or fourth week, or 0 for never", "ease_every")
        if not CUTOFF_DAYS[0] <= self.lactic_cutoff_days <= CUTOFF_DAYS[1]:
            raise CampError(
                f"the last lactic day is {CUTOFF_DAYS[0]} to {CUTOFF_DAYS[1]} days before the bout: "
                f"{CUTOFF_DAYS[0]} is the very latest", "lactic_cutoff_days",
            )  # fmt: skip
        for rule in self.softened:
            if rule not in MAY_GIVE:
                raise CampError(f"'{rule}' is not given way on; there are {', '.join(MAY_GIVE)}", "softened")
        if not CLIMB[0] <= self.most_climb <= CLIMB[1]:
            raise CampError("the load climbs by 0 to 1 of the week before", "most_climb")
        for one in self.fixed:
            if one.on is not None and not self.start <= one.on <= self.last:
                raise CampError(f"{one.on:%Y-%m-%d} is not within the camp", "fixed")

    @property
    def last(self) -> date:
        """Its last day of training."""
        if self.bout_on is not None:
            return self.bout_on - DAY
        assert self.weeks is not None
        return self.start + timedelta(weeks=self.weeks) - DAY

    @property
    def taper_from(self) -> date | None:
        """From when on the load comes down: the week that begins nearest to two weeks before. None without a bout."""
        if self.bout_on is None:
            return None
        two_weeks = self.bout_on - TAPER_DAYS * DAY
        into = (two_weeks.weekday() - self.first_weekday) % 7
        return max(self.start, two_weeks - into * DAY if into <= 3 else two_weeks + (7 - into) * DAY)

    @property
    def lactic_until(self) -> date | None:
        """The last day that lactic work may stand on; None without a bout."""
        return self.bout_on - self.cutoff_days * DAY if self.bout_on else None

    @property
    def cutoff_days(self) -> int:
        """As chosen; the very latest where the coach has given way on it."""
        return LATEST_LACTIC_DAYS if "lactic-cutoff" in self.softened else self.lactic_cutoff_days

    @property
    def rehearsal_from(self) -> date | None:
        """The first day of the last third, in which the bout's rounds are rehearsed; None without a bout."""
        if self.bout_on is None:
            return None
        return self.start + timedelta(days=2 * (self.bout_on - self.start).days // 3)

    @cached_property
    def calendar(self) -> tuple[Week, ...]:
        """Weeks of the calendar; the first and the last may be parts of one."""
        found: list[Week] = []
        first = self.start
        while first <= self.last:
            ends = first + (6 - (first.weekday() - self.first_weekday) % 7) * DAY
            last = min(ends, self.last)
            found.append(self._week(len(found) + 1, first, last))
            first = ends + DAY
        return tuple(found)

    def _week(self, number: int, first: date, last: date) -> Week:
        tapers = self.taper_from is not None and first >= self.taper_from
        eases = bool(self.ease_every) and number % self.ease_every == 0 and not tapers
        seven = (last - first).days == 6
        phase: Phase
        if eases:
            phase = "ease"
        elif self.bout_on is not None and first >= self.bout_on - 7 * DAY:
            phase = "fresh"
        else:
            gone = (first - self.start).days / ((self.bout_on or self.last) - self.start).days
            phase = "build" if gone < 1 / 3 else "press" if gone < 2 / 3 else "sharpen"
        return Week(number, first, last, phase, seven and not eases and not tapers)

    def week_of(self, day: date) -> Week:
        """Raises `KeyError` for a day outside the camp."""
        for week in self.calendar:
            if week.first <= day <= week.last:
                return week
        raise KeyError(day)

    def before(self, week: Week) -> Week | None:
        """The whole week last before it; None where there is none."""
        return next((each for each in reversed(self.calendar[: week.number - 1]) if each.whole), None)

    @cached_property
    def fixtures(self) -> tuple[tuple[date, str], ...]:
        """What is fixed, day by day: those of a weekday on each of its days.

        Sparring that comes back from week to week ends with the last hard lactic day: a knock costs more from then on.
        Common practice, no source.
        """
        found: set[tuple[date, str]] = set()
        for each in self.fixed:
            if each.on is not None:
                found.add((each.on, each.purpose))
                continue
            assert each.weekday is not None
            ahead = (WEEKDAYS.index(each.weekday) - self.start.weekday()) % 7
            dates = list(days(self.start + ahead * DAY, self.last))[:: 7 * each.every_weeks]
            until = self.lactic_until if each.purpose == SPARRING else None
            found.update((on, each.purpose) for on in dates if until is None or on <= until)
        return tuple(sorted(found))

    def minutes_on(self, day: date) -> int:
        """That the day has; 0 where there is no training on it. What is fixed has its time whatever the weekday."""
        weekday = WEEKDAYS[day.weekday()]
        stands = {purpose for on, purpose in self.fixtures if on == day}
        if TRAVEL in stands or (weekday not in self.days and not stands):
            return 0
        return self.minutes.get(weekday, DEFAULT_MINUTES)


DEFAULT_MINUTES = 75
"""Of a day. Own setting."""
