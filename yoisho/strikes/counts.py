"""What a combination holds: strikes by limb and level, defence, and the time of a pass."""

from collections import Counter
from dataclasses import dataclass
from typing import Literal

from yoisho.strikes.combination import Action, Combination
from yoisho.strikes.techniques import Height
from yoisho.strikes.tempo import TEMPOS

Stance = Literal["orthodox", "southpaw"]
Limb = Literal["left hand", "right hand", "left leg", "right leg"]


@dataclass(frozen=True)
class Counts:
    limbs: dict[Limb, int]
    heights: dict[Height, int]
    strikes: int
    defences: int
    steps: int


def limb_of(one: Action, stance: Stance) -> Limb | None:
    """The limb that strikes; None for defence and steps. The lead side is the left for orthodox, right for southpaw."""
    if not one.known.strikes:
        return None
    left_leads = stance == "orthodox"
    left = one.side == "left" or ((one.side == "lead") == left_leads and one.side != "right")
    if one.known.kind in ("kick", "knee"):
        return "left leg" if left else "right leg"
    return "left hand" if left else "right hand"


def counts(combination: Combination, stance: Stance = "orthodox") -> Counts:
    """Of one pass, for a person of that stance."""
    limbs, heights = Counter[Limb](), Counter[Height]()
    for one in combination.actions:
        limb = limb_of(one, stance)
        if limb and one.height:
            limbs[limb] += 1
            heights[one.height] += 1
    kinds = Counter(one.known.kind for one in combination.actions)
    return Counts(dict(limbs), dict(heights), combination.strikes, kinds["defence"], kinds["step"])


def pass_s(combination: Combination, tempo: str = "combination", reset_s: float | None = None) -> float:
    """Seconds of one pass with its reset, at a tempo of work. Raises `KeyError` for a tempo without strikes.

    `reset_s` is the reset in the place of the tempo's own [s].
    """
    known = TEMPOS[tempo]
    if known.pace is None:
        raise KeyError(tempo)
    return known.pace * sum(one.known.seconds for one in combination.actions) + (
        known.reset_s if reset_s is None else reset_s
    )
