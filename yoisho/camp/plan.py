"""The plan of a camp: what stands on which day, and its sums."""

from collections import Counter
from collections.abc import Iterable
from dataclasses import dataclass, field
from datetime import date
from typing import Literal

from yoisho.camp.camp import Week, days
from yoisho.strikes.counts import Limb

Size = Literal["whole", "two thirds", "half"]
SIZES: dict[Size, float] = {"whole": 1.0, "two thirds": 2 / 3, "half": 0.5}
"""How much of a session's rounds is done: less in weeks that are eased or tapered."""


@dataclass(frozen=True)
class Barred:
    """Why a session may not be planned for somebody, and the last day that holds; None until it is lifted."""

    rule: str
    text: str
    until: date | None = None

    def on(self, day: date) -> bool:
        return self.until is None or day <= self.until


@dataclass(frozen=True)
class Cost:
    """What a session should cost somebody, by the engine's best guess."""

    load: int
    """Expected rating x minutes."""
    rpe: float
    total_s: int
    limbs: dict[Limb, int]
    """Strikes."""
    landed: dict[Limb, int]
    """Those that meet a bag or a pad."""
    lactic: bool
    """It counts as a lactic day."""
    hard: bool
    barred: tuple[Barred, ...] = ()


@dataclass(frozen=True)
class Placed:
    """A session on a day."""

    on: date
    purpose: str
    cost: Cost
    step: int | None = None
    """How far its knobs are turned, from 0; None for a session of its own, outside the ladder."""
    size: Size = "whole"
    order: int = 0
    """Among those of the day."""
    id: str = ""
    missed: bool = False
    """It was not done: it takes its place and costs nothing."""


@dataclass(frozen=True)
class Plan:
    """What stands on the days, in their order."""

    placed: tuple[Placed, ...]
    _by_day: dict[date, tuple[Placed, ...]] = field(init=False, repr=False, compare=False)

    def __post_init__(self) -> None:
        found: dict[date, list[Placed]] = {}
        for each in sorted(self.placed, key=lambda one: (one.on, one.order)):
            found.setdefault(each.on, []).append(each)
        object.__setattr__(self, "_by_day", {on: tuple(held) for on, held in found.items()})
        object.__setattr__(self, "placed", tuple(each for held in found.values() for each in held))

    def on(self, day: date) -> tuple[Placed, ...]:
        return self._by_day.get(day, ())

    def within(self, first: date, last: date) -> tuple[Placed, ...]:
        return tuple(each for day in days(first, last) for each in self.on(day))

    def of(self, week: Week) -> tuple[Placed, ...]:
        return self.within(week.first, week.last)


def load(placed: Iterable[Placed]) -> int:
    return sum(each.cost.load for each in placed if not each.missed)


def limbs(placed: Iterable[Placed], *, landed: bool = False) -> dict[Limb, int]:
    """Strikes of each limb."""
    found = Counter[Limb]()
    for each in placed:
        if not each.missed:
            found.update(each.cost.landed if landed else each.cost.limbs)
    return dict(found)
