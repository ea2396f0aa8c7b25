"""Weeks of training, summed from days: load, monotony and strain, strikes by limb, minutes for each store; and what of
it a coach should see first.

What is said of the weeks are our own settings, but for the sums of `yoisho.review.load`.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from datetime import date, timedelta
from itertools import pairwise
from math import inf, isfinite
from statistics import fmean, linear_regression

from yoisho.engine.person import Level
from yoisho.judgement.cautions import LEAST_FOR_BALANCE, STRIKES_A_HAND, STRIKES_A_LEG
from yoisho.review.load import DAYS, LONG_DAYS, MONOTONOUS, SHORT_DAYS, ewma, week_load
from yoisho.strikes.counts import Limb

STEEP = 0.10
"""Rise of the week's load from which it is more than a build: a share of the mean week. Common practice, no source."""
LEVEL = 0.02
"""Rise or fall up to which the load holds."""
FALLS = 0.25
"""A week that is so much lighter than the two before it is lighter on purpose."""
LONGEST_WITHOUT_A_LIGHT_WEEK = 4
ONE_SIDED = 1.8
"""Strikes of one side for one of the other, from which a week is one-sided."""
LACTIC_APART = timedelta(days=2)
FEWEST_WEEKS = 3


@dataclass
class Day:
    """What was done in one day."""

    sessions: int = 0
    planned: float = 0.0
    """Load as it was expected [rating x min]."""
    load: float = 0.0
    limbs: dict[Limb, float] = field(default_factory=dict)
    minutes: dict[str, float] = field(default_factory=dict)
    lactic: bool = False


@dataclass(frozen=True)
class Week:
    monday: date
    sessions: int
    planned: float
    load: float
    monotony: float | None
    """None of a week that is not over, and where all days are alike."""
    strain: float | None
    limbs: dict[Limb, float]
    minutes: dict[str, float]
    short_mean: float
    """Moving mean of seven days at its end, a day's load."""
    long_mean: float
    """Moving mean of 28 days."""
    over: bool
    """All its days are past."""


def _summed(days: Sequence[Day], of: str) -> dict[str, float]:
    found: dict[str, float] = {}
    for day in days:
        for name, value in getattr(day, of).items():
            found[name] = found.get(name, 0.0) + value
    return found


def weeks_of(days: Mapping[date, Day], count: int, today: date) -> list[Week]:
    """The last `count` weeks, this one last. Days before them, where given, start the moving means."""
    monday = today - timedelta(days=today.weekday())
    first = monday - timedelta(weeks=count - 1)
    begin = min([first, *days])
    every = [begin + timedelta(days=n) for n in range((monday - begin).days + DAYS)]
    loads = [days[on].load if on in days else 0.0 for on in every]
    short, long = ewma(loads, SHORT_DAYS), ewma(loads, LONG_DAYS)
    at = {on: place for place, on in enumerate(every)}
    found = []
    for number in range(count):
        begins = first + timedelta(weeks=number)
        own = [days.get(begins + timedelta(days=n), Day()) for n in range(DAYS)]
        over = begins + timedelta(days=DAYS) <= today
        load = week_load([day.load for day in own])
        last = at[min(begins + timedelta(days=DAYS - 1), max(today, begins))]
        found.append(
            Week(
                begins,
                sum(day.sessions for day in own),
                sum(day.planned for day in own),
                load.load,
                load.monotony if over else None,
                load.strain if over else None,
                _summed(own, "limbs"),  # type: ignore[arg-type]
                _summed(own, "minutes"),
                short[last],
                long[last],
                over,
            )
        )
    return found


@dataclass(frozen=True)
class Point:
    """One thing that was looked at."""

    seal: str
    fine: bool
    text: str
    cure: str = ""


@dataclass(frozen=True)
class Block:
    """The weeks in a sentence, and what was looked at."""

    title: str
    sentence: str
    points: tuple[Point, ...]

    @property
    def tally(self) -> int:
        return sum(point.fine for point in self.points)


def _named(week: Week) -> str:
    return f"the week of {week.monday.day} {week.monday:%b}"


def _rise(weeks: Sequence[Week]) -> float:
    """Change of the load from week to week, as a share of the mean week."""
    loads = [week.load for week in weeks]
    return linear_regression(range(len(loads)), loads).slope / fmean(loads)


def _lighter(weeks: Sequence[Week]) -> list[bool]:
    """Which weeks were lighter than the two before them."""
    return [False, False] + [
        week.load <= (1 - FALLS) * fmean((one.load, two.load))
        for one, two, week in zip(weeks, weeks[1:], weeks[2:], strict=False)
    ]


def _unloaded(weeks: Sequence[Week]) -> Point:
    row = longest = 0
    for light in _lighter(weeks):
        row = 0 if light else row + 1
        longest = max(longest, row)
    if longest > LONGEST_WITHOUT_A_LIGHT_WEEK:
        return Point("Unload", False, f"{longest} weeks without a lighter one.", "Make the next one a quarter lighter.")
    return Point("Unload", True, "A lighter week in every four or so.")


def _sameness(week: Week) -> float:
    """Monotony; without bound where every day of a week that is over had the same load."""
    if week.monotony is None:
        return inf if week.over and week.load > 0 else 0.0
    return week.monotony


def _alike(weeks: Sequence[Week]) -> Point:
    worst = max(weeks, key=_sameness)
    monotony = _sameness(worst)
    if monotony >= MONOTONOUS:
        told = f"Monotony {monotony:.1f} in {_named(worst)}: its days were much alike."
        text = told if isfinite(monotony) else f"Every day of {_named(worst)} had the same load."
        return Point("Same", False, text, "Make two of them easy.")
    return Point("Same", True, "Hard and easy days in every week.")


def _sides(weeks: Sequence[Week]) -> Point:
    worst: tuple[float, str] = (0.0, "")
    for week in weeks:
        for name in ("hand", "leg"):
            left, right = (week.limbs.get(f"{side} {name}", 0.0) for side in ("left", "right"))  # type: ignore[call-overload]
            least, most = sorted((left, right))
            if left + right >= LEAST_FOR_BALANCE and most > ONE_SIDED * max(least, 1.0):
                said = f"Right {name} {right:.0f}, left {left:.0f} in {_named(week)}."
                worst = max(worst, (most / max(least, 1.0), said))
    if worst[1]:
        return Point("Side", False, worst[1], "Change the lead, or give the other side a part of its own.")
    return Point("Side", True, "Both sides strike about as much.")


def _ceilings(weeks: Sequence[Week], level: Level) -> Point:
    for week in reversed(weeks):
        for limb, strikes in week.limbs.items():
            most = ceiling(limb, level)
            if strikes > most:
                text = f"{strikes:.0f} strikes with the {limb} in {_named(week)}; {most} is the ceiling at this level."
                return Point("Volume", False, text, "Shadow, footwork or defence instead of the bag.")
    return Point("Volume", True, "Under the ceiling of every limb in every week.")


def _lactic(days: Mapping[date, Day], first: date) -> Point:
    on = sorted(day for day, what in days.items() if what.lactic and day >= first)
    close = [(a, b) for a, b in pairwise(on) if b - a < LACTIC_APART]
    if close:
        a, b = close[-1]
        text = f"Lactic days {a.day} {a:%b} and {b.day} {b:%b} are closer than 48 hours."
        return Point("48 h", False, text, "Two days between them.")
    return Point("48 h", True, "48 hours between lactic days, in all weeks.")


def ceiling(limb: Limb, level: Level) -> int:
    """Most strikes of a limb in a week, at a level."""
    return (STRIKES_A_LEG if limb.endswith("leg") else STRIKES_A_HAND)[level][1]


def _course(rise: float) -> tuple[str, str]:
    """What the load does from week to week: in a title, and as a sentence begins."""
    if rise < -LEVEL:
        return "Easing off", f"Load falls by {-100 * rise:.0f} % a week"
    if rise <= LEVEL:
        return "Holding", "Load stays about as it is"
    return "A steep climb" if rise > STEEP else "A steady build", f"Load climbs by {100 * rise:.0f} % a week"


def block_of(weeks: Sequence[Week], days: Mapping[date, Day], level: Level) -> Block:
    """What is to be said of somebody's weeks."""
    done = [week for week in weeks if week.over and week.load > 0]
    if len(done) < FEWEST_WEEKS:
        return Block("Too little to say", f"{FEWEST_WEEKS} whole weeks with a logged session are the least.", ())
    begun = weeks[weeks.index(done[0]) :]
    whole = [week for week in begun if week.over]
    # Lighter weeks are a part of the build and not its slope.
    kept = [week for week, light in zip(whole, _lighter(whole), strict=True) if not light and week.load > 0]
    rise = _rise(kept) if len(kept) > 1 else 0.0
    points = (_sides(begun), _alike(whole), _unloaded(whole), _ceilings(begun, level), _lactic(days, weeks[0].monday))
    title, how = _course(rise)
    light = sum(_lighter(whole))
    lighter = f"{light} lighter week{'' if light == 1 else 's'} in {len(whole)}" if light else "no lighter week"
    return Block(title, f"{how}, with {lighter}.", points)
