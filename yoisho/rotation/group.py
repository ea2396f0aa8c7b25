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
MOST_PEOPLE, MOST_WAVES, MOST_PLACES = 60, 40, 120


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
    pins: tuple[tuple[str, int, str], ...] = ()
    """Who is where in which wave, whatever else is: "bag 3", "pads 1 hit", "floor", or a kind alone, such as "bag"."""
    bag_names: tuple[str, ...] = ()
    """What the places at bags are called, where not "bag 1", "bag 2": one for each."""
    spots: tuple[str, ...] = ()
    """What the floor spots are, where they differ, such as "squats": one for each; several may be the same."""

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
        for name, count in (("bag_names", self.bags), ("spots", self.floor)):
            if getattr(self, name) and len(getattr(self, name)) != count:
                raise ClassError(f"{count} are there, and {len(getattr(self, name))} are named", name)
        self._check_pins()

    def _check_pins(self) -> None:
        taken: dict[tuple[int, str], str] = {}
        pinned: dict[tuple[str, int], str] = {}
        for who, wave, station in self.pins:
            self._known(who, "pins")
            _whole(wave, 1, self.waves, f"'{who}' is put in waves,", "pins")
            kinds = self.kinds_at(station)
            if not kinds:
                raise ClassError(f"there is no '{station}' here to put '{who}' at", "pins")
            if not self.here(who, wave):
                raise ClassError(f"'{who}' is not there in wave {wave}", "pins")
            if not set(kinds) - self.shut[who]:
                raise ClassError(f"'{who}' must not be at '{station}': a limit says so", "pins")
            if pinned.setdefault((who, wave), station) != station:
                raise ClassError(f"'{who}' is put at two places in wave {wave}", "pins")
            if station in (*self.at_bags, *(f"pads {n} {role}" for n in self.pads for role in ("hit", "hold"))):
                other = taken.setdefault((wave, station), who)
                if other != who:
                    raise ClassError(f"'{who}' and '{other}' are both put at {station} in wave {wave}", "pins")

    @property
    def pads(self) -> range:
        return range(1, self.pad_pairs + 1)

    @cached_property
    def at_bags(self) -> tuple[str, ...]:
        """Every place at a bag, by its name."""
        return self.bag_names or tuple(f"bag {number}" for number in range(1, self.bags + 1))

    @cached_property
    def on_floor(self) -> tuple[str, ...]:
        """Every floor spot, by its name; all are called alike where nothing is said of them."""
        return self.spots or ("floor",) * self.floor

    def kinds_at(self, station: str) -> tuple[Kind, ...]:
        """What somebody can be at, at a station or at a kind of one; nothing where there is no such station."""
        if station == "wait":
            return ("wait",)
        if station in self.at_bags or (station == "bag" and self.bags):
            return ("bag",)
        if station in self.on_floor or (station == "floor" and self.floor):
            return ("floor",)
        name, _, rest = station.partition(" ")
        number, _, role = rest.partition(" ")
        if name != "pads" or (rest and (not number.isdigit() or int(number) not in self.pads)) or not self.pad_pairs:
            return ()
        if role not in ("", "hit", "hold"):
            return ()
        return (role,) if role else ("hit", "hold")  # type: ignore[return-value]

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
