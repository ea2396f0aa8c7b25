"""Volume: strikes by limb and level, of an interval, a part, a session or a week."""

from collections.abc import Iterable
from dataclasses import dataclass, field, replace
from functools import cache, lru_cache
from typing import TypeVar

from yoisho.session.timeline import TimelineInterval
from yoisho.strikes.combination import Combination, mirrored
from yoisho.strikes.counts import Counts, Limb, Stance, counts
from yoisho.strikes.techniques import Height

Key = TypeVar("Key", Limb, Height)
HANDS: tuple[Limb, ...] = ("left hand", "right hand")


@dataclass(frozen=True)
class Volume:
    """Strikes of one person; fractions where they are expected and not counted."""

    limbs: dict[Limb, float] = field(default_factory=dict)
    heights: dict[Height, float] = field(default_factory=dict)
    """Only of those whose level a combination says."""
    strikes: float = 0.0
    counted: float = 0.0
    """Those of rep rounds, exact; the others are estimates."""
    open: float = 0.0
    """Those no combination places: shared evenly over two hands."""
    defences: float = 0.0
    steps: float = 0.0

    @property
    def left_share(self) -> float | None:
        """Share of the left side, hands and legs, 0 to 1; None where nothing is struck."""
        left = sum(n for limb, n in self.limbs.items() if limb.startswith("left"))
        return left / self.strikes if self.strikes else None

    def on(self, *limbs: Limb) -> float:
        """Strikes with any of these limbs."""
        return sum(self.limbs.get(limb, 0.0) for limb in limbs)

    def times(self, factor: float) -> "Volume":
        """The same shared out alike, so many times as much."""
        return Volume(
            {limb: factor * n for limb, n in self.limbs.items()},
            {height: factor * n for height, n in self.heights.items()},
            factor * self.strikes, factor * self.counted, factor * self.open, factor * self.defences,
            factor * self.steps,
        )  # fmt: skip

    def scaled_to(self, counted: int) -> "Volume":
        """The same shared out alike, as many as were counted; over two hands where none were expected."""
        if not self.strikes:
            return Volume(by_hand(counted), {}, counted, counted, counted)
        return replace(self.times(counted / self.strikes), counted=counted)


def _sum(one: dict[Key, float], other: dict[Key, float]) -> dict[Key, float]:
    return {key: one.get(key, 0) + other.get(key, 0) for key in {**one, **other}}


def by_hand(strikes: float) -> dict[Limb, float]:
    """Strikes that no combination places: shared evenly over two hands. Own setting."""
    return dict.fromkeys(HANDS, strikes / 2)


@cache
def _counts(combination: Combination, stance: Stance) -> Counts:
    return counts(combination, stance)


@cache
def _mirrored(combination: Combination) -> Combination:
    return mirrored(combination)


def _stance(interval: TimelineInterval, stance: Stance) -> Stance:
    lead = interval.source.lead
    return stance if lead is None else ("orthodox" if lead == "left" else "southpaw")


def _of_combination(interval: TimelineInterval, found: Combination, stance: Stance) -> Volume:
    held = _counts(found, stance)
    limbs: dict[Limb, float] = dict(held.limbs)
    if interval.source.switch is not None:
        limbs = {limb: n / 2 for limb, n in _sum(limbs, dict(_counts(_mirrored(found), stance).limbs)).items()}
    passes = interval.strikes / held.strikes if held.strikes else _passes(interval)
    counted = interval.strikes if interval.reps is not None else 0.0
    of_one = Volume(limbs, dict(held.heights), held.strikes, 0.0, 0.0, held.defences, held.steps)
    whole = of_one.times(passes)
    return Volume(whole.limbs, whole.heights, whole.strikes, counted, 0.0, whole.defences, whole.steps)


def _passes(interval: TimelineInterval) -> float:
    if interval.reps is not None:
        return interval.reps
    return interval.seconds / interval.source.rep_s(*interval.turn)


def interval_volume(interval: TimelineInterval, stance: Stance = "orthodox") -> Volume:
    """Of one interval, for a person of that stance, before any fade."""
    found = interval.combination
    if found is not None:
        return _of_combination(interval, found, _stance(interval, stance))
    strikes = interval.strikes
    if not strikes:
        return Volume()
    counted = strikes if interval.reps is not None else 0.0
    return Volume(by_hand(strikes), {}, strikes, counted, strikes)


def interval_volumes(intervals: Iterable[TimelineInterval], stance: Stance = "orthodox") -> list[Volume]:
    """Of each of several intervals, before any fade."""
    known: dict[tuple[int, int, int, bool], Volume] = {}
    found = []
    for one in intervals:
        # Repetitions of one interval of the tree are alike, where they are as long and strike the same.
        key = id(one.source), id(one.combination), one.seconds, one.partner
        if key not in known:
            known[key] = _lately(replace(one, start_s=0, part=0, path=()), stance)
        found.append(known[key])
    return found


@lru_cache(4096)
def _lately(interval: TimelineInterval, stance: Stance) -> Volume:
    """A search changes one interval of many."""
    return interval_volume(interval, stance)


def total(volumes: Iterable[Volume]) -> Volume:
    """Of several together: a part, a session, a week."""
    limbs: dict[Limb, float] = {}
    heights: dict[Height, float] = {}
    strikes = counted = open_ = defences = steps = 0.0
    for each in volumes:
        for limb, number in each.limbs.items():
            limbs[limb] = limbs.get(limb, 0) + number
        for height, number in each.heights.items():
            heights[height] = heights.get(height, 0) + number
        strikes += each.strikes
        counted += each.counted
        open_ += each.open
        defences += each.defences
        steps += each.steps
    return Volume(limbs, heights, strikes, counted, open_, defences, steps)


def volume(intervals: Iterable[TimelineInterval], stance: Stance = "orthodox") -> Volume:
    """Of several intervals as planned, before any fade."""
    return total(interval_volumes(intervals, stance))
