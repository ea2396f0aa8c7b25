"""Searching one family: a few settings spread over its knobs, then from the best of them to its neighbours."""

from collections.abc import Callable, Iterator
from math import gcd, prod

from yoisho.protocols.families import Family, Knobs

Place = tuple[int, ...]
"""Which value of each knob."""
Try = Callable[[Knobs, float], float]
"""How good a setting is, beside how good the best so far is; minus infinity where it is not possible. Of one that is no
better, that need not be found out."""
NOT_POSSIBLE = float("-inf")


class Search:
    """The tried settings of a family, each tried once."""

    def __init__(self, family: Family, score: Try):
        self.family = family
        self.score = score
        self.tried: dict[Place, float] = {}

    def knobs(self, place: Place) -> dict[str, object]:
        return {name: values[at] for (name, values), at in zip(self.family.knobs.items(), place, strict=True)}

    def try_at(self, place: Place) -> float:
        if place not in self.tried:
            self.tried[place] = self.score(self.knobs(place), self.best_score)
        return self.tried[place]

    @property
    def best(self) -> Place | None:
        """None where nothing tried is possible."""
        place = max(self.tried, key=lambda each: self.tried[each], default=None)
        return place if place is not None and self.tried[place] > NOT_POSSIBLE else None

    @property
    def best_score(self) -> float:
        return max(self.tried.values(), default=NOT_POSSIBLE)

    def spread(self, count: int) -> None:
        """Try so many settings, spread evenly over all there are."""
        sizes = [len(values) for values in self.family.knobs.values()]
        whole = prod(sizes)
        stride = max(1, round(whole * _GOLDEN))
        while gcd(stride, whole) != 1:
            stride += 1
        for number in range(min(count, whole)):
            self.try_at(_place((number * stride) % whole, sizes))

    def climb(self, most: int) -> None:
        """From the best setting to better neighbours, one knob at a time, until there is none or `most` are tried."""
        while (at := self.best) is not None and len(self.tried) < most:
            before = self.best_score
            for neighbour in self._neighbours(at):
                self.try_at(neighbour)
            if self.best_score <= before:
                return

    def _neighbours(self, place: Place) -> Iterator[Place]:
        for index, values in enumerate(self.family.knobs.values()):
            for step in (1, -1):
                if 0 <= place[index] + step < len(values):
                    yield (*place[:index], place[index] + step, *place[index + 1 :])


_GOLDEN = 0.381966
"""Strides of this share of the whole leave no corner out for long."""


def _place(number: int, sizes: list[int]) -> Place:
    place = []
    for size in sizes:
        number, at = divmod(number, size)
        place.append(at)
    return tuple(place)
