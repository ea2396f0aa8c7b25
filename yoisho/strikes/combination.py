"""A combination: actions in order, in one group or in several that follow on `then`. Never changed in place."""

from dataclasses import dataclass
from functools import cached_property
from typing import Annotated, ClassVar

from yoisho.plain import ImpossibleError, Length, OneOf
from yoisho.strikes.techniques import OTHER_SIDE, TECHNIQUES, Height, Side, Technique

MOST_ACTIONS = 200


class CombinationError(ImpossibleError):
    """A combination that makes no sense: what is wrong, and how to mend it."""


@dataclass(frozen=True)
class Action:
    """One technique; `side` and `level` are None only where the technique has none."""

    technique: Annotated[str, OneOf(TECHNIQUES)]
    side: Side | None = None
    height: Height | None = None

    def __post_init__(self) -> None:
        known = TECHNIQUES.get(self.technique)
        if known is None:
            raise CombinationError(
                f"'{self.technique}' is not a technique; there are {', '.join(TECHNIQUES)}", "technique"
            )
        for what, value, possible in (("side", self.side, known.sides), ("height", self.height, known.heights)):
            if value is None and possible:
                raise CombinationError(f"{known.word}: it needs a {what}: {', '.join(possible)}", what)
            if value is not None and value not in possible:
                can = f"it has {', '.join(possible)}" if possible else "it has none"
                raise CombinationError(f"{known.word}: it has no {what} {value}; {can}", what)

    @property
    def known(self) -> Technique:
        return TECHNIQUES[self.technique]


def action(technique: str, side: Side | None = None, height: Height | None = None) -> Action:
    """An action with what is not said filled in by the technique's first side and level."""
    known = TECHNIQUES.get(technique)
    if known is not None:
        side = side or (known.sides[0] if known.sides else None)
        height = height or (known.heights[0] if known.heights else None)
    return Action(technique, side, height)


@dataclass(frozen=True)
class Combination:
    PLAIN: ClassVar[str] = "groups"
    groups: Annotated[tuple[Annotated[tuple[Action, ...], Length(1, MOST_ACTIONS)], ...], Length(1, MOST_ACTIONS)]
    """Groups that follow each other on `then`; most combinations have one."""

    def __post_init__(self) -> None:
        if not self.groups or not all(self.groups):
            raise CombinationError("a combination holds at least one technique")
        if len(self.actions) > MOST_ACTIONS:
            raise CombinationError(f"a combination holds at most {MOST_ACTIONS} techniques; split it")

    @cached_property
    def actions(self) -> tuple[Action, ...]:
        return tuple(one for group in self.groups for one in group)

    @cached_property
    def strikes(self) -> int:
        return sum(one.known.strikes for one in self.actions)

    @cached_property
    def leg_share(self) -> float:
        """Kicks and knees among the strikes, 0 to 1."""
        legs = sum(one.known.kind in ("kick", "knee") for one in self.actions)
        return legs / self.strikes if self.strikes else 0.0


def mirrored(combination: Combination) -> Combination:
    """The same from the other side: lead and rear change, left and right change; a jab becomes a cross.

    What has no other side stays as it is.
    """

    def mirror(one: Action) -> Action:
        if one.side is None:
            return one
        other, side = TECHNIQUES[one.known.mirror or one.technique], OTHER_SIDE[one.side]
        return Action(other.id, side, one.height) if side in other.sides else one

    return Combination(tuple(tuple(mirror(one) for one in group) for group in combination.groups))
