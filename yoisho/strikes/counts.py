"""What a combination holds: strikes by limb and level, defence, and the time of a pass."""

from collections import Counter
from dataclasses import dataclass
from typing import Literal

from yoisho.strikes.combination import Action, Combination
from yoisho.strikes.techniques import Level

Stance = Literal["orthodox", "southpaw"]
Limb = Literal["left hand", "right hand", "left leg", "right leg"]

PACE: dict[str, float] = {
    "recover": 1.6, "flow": 1.2, "technique": 1.6, "combination": 1.0, "freestyle": 1.2, "power": 1.4, "speed": 0.8,
    "all-out": 0.85,
}  # fmt: skip
"""Times the techniques' own seconds. Own setting."""
RESET_S: dict[str, float] = {
    "recover": 3.0, "flow": 0.4, "technique": 2.0, "combination": 1.5, "freestyle": 1.0, "power": 1.5, "speed": 0.3,
    "all-out": 0.2,
}  # fmt: skip
"""Between one pass and the next. Own setting."""


@dataclass(frozen=True)
class Counts:
    limbs: dict[Limb, int]
    levels: dict[Level, int]
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
    limbs, levels = Counter[Limb](), Counter[Level]()
    for one in combination.actions:
        limb = limb_of(one, stance)
        if limb and one.level:
            limbs[limb] += 1
            levels[one.level] += 1
    kinds = Counter(one.known.kind for one in combination.actions)
    return Counts(dict(limbs), dict(levels), combination.strikes, kinds["defence"], kinds["step"])


def pass_s(combination: Combination, tempo: str = "combination") -> float:
    """Seconds of one pass with its reset, at a tempo of work. Raises `KeyError` for a tempo without strikes."""
    return PACE[tempo] * sum(one.known.seconds for one in combination.actions) + RESET_S[tempo]
