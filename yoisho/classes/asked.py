"""What is asked of a class: who comes, what there is, how long, what for, and in which school."""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from math import ceil
from typing import Literal

from yoisho.engine.person import Person
from yoisho.rotation.group import ClassError, Not
from yoisho.session.modality import MODALITIES
from yoisho.session.tree import Node
from yoisho.strikes.combination import Combination

SchoolId = Literal["waves", "halves", "pairs", "circuit", "beat"]
LONGEST_MIN = 180
FLOOR_DOES: Mapping[str, tuple[str | None, str | None, str]] = {
    "shadow": ("shadow", "flow", "easy shadow"),
    "as hard": ("shadow", None, "shadow, as hard as on the bag"),
    "skip": ("skip", "flow", "skipping"),
    "footwork": ("footwork", "flow", "footwork"),
    "core": ("core", "technique", "core"),
    "rest": ("breathing", "rest", "rest"),
}
"""What those do who are off the bag: on what, how hard (None for the effort that is asked of all), and in words."""
STATIONS = ("skip", "squats", "plank", "push-ups", "lunges", "sit-ups", "high-knees", "core", "carry", "burpees",
            "mountain-climbers", "jumping-jacks", "footwork", "shadow")  # fmt: skip
"""What can stand off the bag in a circuit, in the order in which they are taken."""


@dataclass(frozen=True)
class Spoken:
    """What is to be minded of somebody, under its seal."""

    seal: str
    text: str


@dataclass(frozen=True)
class Comer:
    """Somebody who comes, and what holds for them."""

    name: str
    person: Person
    barred: tuple[Not, ...] = ()
    easy: bool = False
    """Must not go hard."""
    spoken: tuple[Spoken, ...] = ()


@dataclass(frozen=True)
class Asked:
    """Raises `ClassError` for what cannot be."""

    people: tuple[Comer, ...]
    pattern: Node
    """One round of the work."""
    minutes: int
    target: str | None = None
    """None for what it turns out to train best."""
    school: SchoolId = "waves"
    bags: int = 0
    pad_pairs: int = 0
    floor: int | None = None
    """Spots; None for as many as anybody needs."""
    stations: tuple[str, ...] = ()
    """Off the bag, in a circuit; empty for those of `STATIONS`."""
    warm_up_min: int = 5
    cool_down_min: int = 3
    waves: int | None = None
    """None for as many as fit."""
    rounds: int | None = None
    """Of the pattern in a wave; None for the school's own length."""
    change_s: int | None = None
    floor_does: str = "shadow"
    coach_holds: bool = False
    """The coach holds for one person at a time, at a place of their own."""
    combination: Combination | None = None
    beats: int = 120
    together: tuple[tuple[str, str], ...] = ()
    from_wave: Mapping[str, int] = field(default_factory=dict)
    absent_after: Mapping[str, int] = field(default_factory=dict)
    pins: tuple[tuple[str, int, str], ...] = ()

    def __post_init__(self) -> None:
        for name, value, low, high, words in (
            ("minutes", self.minutes, 5, LONGEST_MIN, "a class lasts {low} to {high} minutes, not {value}"),
            ("warm_up_min", self.warm_up_min, 0, 60, "a warm-up lasts {low} to {high} minutes, not {value}"),
            ("cool_down_min", self.cool_down_min, 0, 60, "a cool-down lasts {low} to {high} minutes, not {value}"),
            ("change_s", self.change_s or 0, 0, 300, "a change lasts {low} to {high} seconds, not {value}"),
            ("rounds", self._rounds, 1, 60, "a wave has {low} to {high} rounds, not {value}"),
        ):
            if isinstance(value, bool) or not isinstance(value, int) or not low <= value <= high:
                raise ClassError(words.format(low=low, high=high, value=value), name)
        if self.floor_does not in FLOOR_DOES:
            raise ClassError(f"off the bag there is {', '.join(FLOOR_DOES)}, not '{self.floor_does}'", "floor_does")
        for station in self.stations:
            if station not in MODALITIES:
                raise ClassError(f"nothing is called '{station}'; there is {', '.join(STATIONS)}", "stations")

    @property
    def _rounds(self) -> int:
        return 1 if self.rounds is None else self.rounds

    @property
    def main_s(self) -> int:
        """Seconds for the waves and their changes."""
        return 60 * (self.minutes - self.warm_up_min - self.cool_down_min)

    @property
    def here(self) -> tuple[Comer, ...]:
        """Those who come at all."""
        return tuple(each for each in self.people if self.absent_after.get(each.name) != 0)

    def without_what_is_put(self) -> "Asked":
        """The same with nobody put anywhere, such as for other numbers of people or waves."""
        return replace(self, pins=())


def stations_for(asked: Asked, count: int) -> tuple[str, ...]:
    """So many places off the bag: each station as often as it takes, one after the other."""
    known = asked.stations or STATIONS[: max(2, min(6, count))]
    return (known * ceil(count / len(known)))[:count]
