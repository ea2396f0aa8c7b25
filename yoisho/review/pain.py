"""Pain flags: where something hurt, in a coach's words, and what is said to it. Nothing here is a diagnosis.

One entry in `PLACES` is all a new place needs.
"""

from dataclasses import dataclass
from typing import Literal, get_args

from yoisho.judgement.circumstances import Niggle
from yoisho.strikes.counts import Limb

GENERAL = "Leave out what hurts, and have it looked at if it is still there next time."


@dataclass(frozen=True)
class Place:
    id: str
    word: str
    sides: bool
    """Whether there is a left and a right one."""
    said: str = GENERAL
    loaded_by: Literal["hand", "leg"] | None = None
    """Which strikes load it; on both sides where there is no left and right."""


PLACES: dict[str, Place] = {
    place.id: place
    for place in (
        Place("head", "head", False, "After a blow to the head: no more today, never alone, and no training until a "
              "physician has cleared it."),
        Place("neck", "neck", False, "Stop for today. Numbness or weakness in an arm or a leg: get help at once."),
        Place("chest", "chest", False, "Pain or pressure in the chest with effort: stop, and call for help. A "
              "physician before any more training."),
        Place("shoulder", "shoulder", True, loaded_by="hand"),
        Place("elbow", "elbow", True, loaded_by="hand"),
        Place("wrist", "wrist", True, "No power with that hand until it is free of pain; check the wraps.",
              "hand"),
        Place("hand", "hand", True, "No power with that hand until it is free of pain; check the wraps.",
              "hand"),
        Place("back", "back", False),
        Place("hip", "hip", True, loaded_by="leg"),
        Place("knee", "knee", True, loaded_by="leg"),
        Place("shin", "shin", True, "No kicks with that leg until it is free of pain.", "leg"),
        Place("foot", "foot or ankle", True, loaded_by="leg"),
    )
}  # fmt: skip
"""Common practice, no source; it never replaces a physician."""


def told(where: str, side: str | None) -> str:
    """A flag in words, such as "left wrist". Raises `KeyError` for a place that is not in the table."""
    place = PLACES[where]
    return f"{side} {place.word}" if side and place.sides else place.word


def niggle(where: str, side: str | None, days_ago: int) -> Niggle:
    """A flag of the log as the cautions know it. Raises `KeyError` for a place that is not in the table."""
    place = PLACES[where]
    sides = (side,) if side and place.sides else ("left", "right")
    limbs = tuple(limb for limb in get_args(Limb) if limb in [f"{one} {place.loaded_by}" for one in sides])
    return Niggle(told(where, side), limbs, days_ago)
