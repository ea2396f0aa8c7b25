"""A drill: what an interval is filled with. One combination, or several in an order that its repetitions follow."""

from dataclasses import dataclass
from functools import cache
from random import Random
from typing import Annotated, Literal

from yoisho.plain import Length
from yoisho.strikes.combination import MOST_ACTIONS, Combination, CombinationError
from yoisho.strikes.generate import adding_rounds, joined, pyramid, pyramid_with_finish

Order = Literal["turns", "adding", "pyramid", "draw"]
MOST_COMBINATIONS = 40
DRAW_SEED = 20


@dataclass(frozen=True)
class Drill:
    """Combinations and the order of them.

    *turns*: the first in the first repetition, the second in the second, and from the start again. *draw*: the same
    in an order drawn by lot, none twice before each came once. *adding*: every repetition adds the next to those
    before. *pyramid*: 1; 1, 2; 1, 2, 3; ... in every repetition, each step ended by the second combination if there
    is one. Outside a repeat all of them are done one after the other.
    """

    combinations: Annotated[tuple[Combination, ...], Length(1, MOST_COMBINATIONS)]
    order: Order = "turns"
    recall: bool = False
    """The last repetition recalls all that was drilled."""

    def __post_init__(self) -> None:
        if self.order not in ("turns", "adding", "pyramid", "draw"):
            raise CombinationError(f"'{self.order}' is not an order; there are turns, adding, pyramid, draw", "order")
        if not self.combinations:
            raise CombinationError("a drill holds at least one combination", "combinations")
        if len(self.combinations) > MOST_COMBINATIONS:
            raise CombinationError(f"a drill holds at most {MOST_COMBINATIONS} combinations; split it", "combinations")
        if sum(len(each.actions) for each in self.combinations) > MOST_ACTIONS:
            raise CombinationError(f"a drill holds at most {MOST_ACTIONS} techniques; split it")
        if self.order == "pyramid" and len(self.combinations) > 2:
            raise CombinationError("a pyramid has one sequence, and one finish at most")
        if self.order == "pyramid":
            _climbed(self.combinations)
        if self.recall and self.order in ("pyramid", "adding"):
            raise CombinationError("only turns and draws end with a recall; adding rounds recall all by themselves")

    @property
    def whole(self) -> Combination:
        """All of it, one combination after the other."""
        return _climbed(self.combinations) if self.order == "pyramid" else joined(self.combinations)

    def at(self, turn: int, of: int) -> Combination:
        """What is done in a repetition, counted from 1."""
        return _at(self, turn, of)


def _climbed(combinations: tuple[Combination, ...]) -> Combination:
    steps = pyramid(combinations[0]) if len(combinations) == 1 else pyramid_with_finish(*combinations)
    return joined(steps)


@cache
def _drawn(drill: Drill, go: int) -> tuple[Combination, ...]:
    """The combinations in the order of the lot, for the first, second, ... time through them."""
    return tuple(Random(DRAW_SEED + go).sample(drill.combinations, len(drill.combinations)))


@cache
def _at(drill: Drill, turn: int, of: int) -> Combination:
    several = len(drill.combinations)
    if drill.order == "pyramid" or of == 1 or (drill.recall and turn == of):
        return drill.whole
    go, place = divmod(turn - 1, several)
    if drill.order == "adding":
        return adding_rounds(drill.combinations)[min(turn, several) - 1]
    return (drill.combinations if drill.order == "turns" else _drawn(drill, go))[place]


def one(combination: Combination) -> Drill:
    """The drill of a single combination."""
    return Drill((combination,))
