"""A class as it is asked for: who comes, what there is to work at, for how many waves, and what holds for whom."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import cached_property
from typing import Literal

from yoisho.plain import ImpossibleError

Kind = Literal["bag", "hit", "hold", "floor", "wait", "away"]
WORKS: tuple[Kind, ...] = ("bag", "hit", "hold", "floor")
"""What somebody can be at; on pads one hits and the other holds."""
Not = Literal["pads", "bag", "floor", "hold"]
SHUTS: Mapping[Not, tuple[Kind, ...]] = {
    "pads": ("hit", "hold"),
    "bag": ("bag",),
    "floor": ("floor",),
    "hold": ("hold",),
}
MOST_PEOPLE, MOST_WAVES, MOST_PLACES = 60, 40, 60


class ClassError(ImpossibleError):
    """A class that cannot be: what is wrong, how to mend it, and the field."""


def _whole(value: int, low: int, high: int, words: str, field_: str) -> None:
    if isinstance(value, bool) or not isinstance(value, int) or not low <= value <= high:
        raise ClassError(f"{words} {low} to {high}, not {value}", field_)


@dataclass(frozen=True)
class Group:
    """Raises `ClassError` for what cannot be."""

    people: tuple[str, ...]
    waves: int
    bags: int = 0
    pad_pairs: int = 0
    floor: int = 0
    limits: tuple[tuple[str, Not], ...] = ()
    """Who does not do what."""
    together: tuple[tuple[str, str], ...] = ()
    """Who holds only for each other."""
    from_wave: Mapping[str, int] = field(default_factory=dict)
    """The wave that somebody late comes to, from 1."""
    absent_after: Mapping[str, int] = field(default_factory=dict)
    """The last wave of somebody who leaves early; 0 for who does not come at all."""

    def __post_init__(self) -> None:
        _whole(len(self.people), 1, MOST_PEOPLE, "a class has people,", "people")
        _whole(self.waves, 1, MOST_WAVES, "a class has waves,", "waves")
        for name in ("bags", "pad_pairs", "floor"):
            _whole(getattr(self, name), 0, MOST_PLACES, f"there are {name.replace('_', ' ')},", name)
        if len(set(self.people)) < len(self.people):
            twice = next(who for who in self.people if self.people.count(who) > 1)
            raise ClassError(f"'{twice}' stands twice among the people; give each a name of their own", "people")
        for who, what in self.limits:
            self._known(who, "limits")
            if what not in SHUTS:
                raise ClassError(f"nobody is kept from '{what}'; there are {', '.join(SHUTS)}", "limits")
        seen: set[str] = set()
        for pair in self.together:
            if len(pair) != 2 or pair[0] == pair[1]:
                raise ClassError("two different people stay together", "together")
            for who in pair:
                self._known(who, "together")
                if who in seen:
                    raise ClassError(f"'{who}' stays together with two others; each has one partner", "together")
                seen.add(who)
        for name in ("from_wave", "absent_after"):
            for who, wave in getattr(self, name).items():
                self._known(who, name)
                _whole(wave, int(name == "from_wave"), self.waves, f"'{who}' in waves,", name)

    def _known(self, who: str, field_: str) -> None:
        if who not in self.people:
            raise ClassError(f"nobody here is called '{who}'", field_)

    def here(self, who: str, wave: int) -> bool:
        """Whether somebody is there in a wave, from 1."""
        return self.from_wave.get(who, 1) <= wave <= self.absent_after.get(who, self.waves)

    @cached_property
    def shut(self) -> Mapping[str, frozenset[Kind]]:
        """What each person does not do."""
        found: dict[str, set[Kind]] = {who: set() for who in self.people}
        for who, what in self.limits:
            found[who].update(SHUTS[what])
        return {who: frozenset(kinds) for who, kinds in found.items()}

    @cached_property
    def partner(self) -> Mapping[str, str]:
        return {one: other for pair in self.together for one, other in (pair, pair[::-1])}

    @cached_property
    def alike(self) -> tuple[str, ...]:
        """Those whom nothing keeps from a full share: all through, without limits, with no partner of their own."""
        return tuple(
            who for who in self.people
            if not self.shut[who] and who not in self.partner
            and all(self.here(who, wave) for wave in range(1, self.waves + 1))
        )  # fmt: skip

    def present(self, wave: int) -> tuple[str, ...]:
        return tuple(who for who in self.people if self.here(who, wave))

    def places(self, present: int) -> int:
        """How many can be at work of so many present: on pads two at a time."""
        pads = min(self.pad_pairs, present // 2)
        return min(present, self.bags + self.floor + 2 * pads)
