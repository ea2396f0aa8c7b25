"""Bags and what is held up to be struck. One entry here is all a new one needs: means, book and cautions read it.

What suits which bag is common practice, no source.
"""

from collections.abc import Callable
from dataclasses import dataclass

from yoisho.strikes.combination import Action, Combination


@dataclass(frozen=True)
class Bag:
    id: str
    word: str
    suits: str
    """What it is for, in a few words."""
    against: tuple[tuple[Callable[[Action], bool], str], ...] = ()
    """What should not be done on it, and why."""
    aliases: tuple[str, ...] = ()
    lands: bool = True
    """Whether a strike meets anything: wrists, knuckles and shins are loaded by what lands."""
    items: tuple[str, ...] = ()
    """Ids of the kit that has to be brought for it."""
    held: bool = False
    """Held up by somebody, who does not strike meanwhile."""


def _uppercut_to_the_head(one: Action) -> bool:
    return one.technique == "uppercut" and one.height == "head"


def _leg_or_knee(one: Action) -> bool:
    return one.known.kind in ("kick", "knee")


_WRIST = (_uppercut_to_the_head, "no uppercut to the head on a straight bag: it bends the wrist")
_NO_LEGS = (_leg_or_knee, "no kicks or knees on it: it hangs high and gives way")

BAGS: dict[str, Bag] = {
    bag.id: bag
    for bag in (
        Bag("bag", "bag", "power, volume, kicks", (_WRIST,), ("heavy bag", "straight bag", "long bag", "bag work")),
        Bag("stationary-bag", "stationary bag", "single power shots, kicks", (_WRIST,),
            ("standing bag", "free-standing bag")),
        Bag("reflex-bag", "reflex bag", "tempo, jabs, slips", (_NO_LEGS,), ("reflex ball", "reflex")),
        Bag("uppercut-bag", "uppercut bag", "uppercuts, hooks to the body", (_NO_LEGS,), ("angle bag",)),
        Bag("pads", "pads", "everything, with a holder, whose shoulders need a limit too", (),
            ("mitts", "focus pads", "pad work"), items=("pads",), held=True),
        Bag("shadow", "shadow", "defence, footwork, form", (), ("shadow boxing", "shadowboxing", "shadow box"),
            lands=False),
        Bag("partner", "partner", "distance and defence, at low power", (), ("partner drill",)),
    )
}  # fmt: skip


def against(combination: Combination, bag_id: str) -> tuple[str, ...]:
    """Why a combination does not belong on a bag; empty where it may be done. Raises `KeyError` for no bag."""
    return tuple(why for wrong, why in BAGS[bag_id].against if any(wrong(one) for one in combination.actions))


def lands_on(modality: str | None) -> bool:
    """Whether a strike meets anything on a modality; nothing said counts as the bag."""
    bag = BAGS.get(modality or "bag")
    return bag is not None and bag.lands


def suitable(combination: Combination) -> tuple[str, ...]:
    """Ids of the bags nothing speaks against."""
    return tuple(bag_id for bag_id in BAGS if not against(combination, bag_id))
