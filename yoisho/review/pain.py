"""Pain flags: where something hurt, in a coach's words, and what is said to it. Nothing here is a diagnosis.

One entry in `PLACES` is all a new place needs.
"""

from dataclasses import dataclass

GENERAL = "Leave out what hurts, and have it looked at if it is still there next time."


@dataclass(frozen=True)
class Place:
    id: str
    word: str
    sides: bool
    """Whether there is a left and a right one."""
    said: str = GENERAL


PLACES: dict[str, Place] = {
    place.id: place
    for place in (
        Place("head", "head", False, "After a blow to the head: no more today, never alone, and no training until a "
              "physician has cleared it."),
        Place("neck", "neck", False, "Stop for today. Numbness or weakness in an arm or a leg: get help at once."),
        Place("chest", "chest", False, "Pain or pressure in the chest with effort: stop, and call for help. A "
              "physician before any more training."),
        Place("shoulder", "shoulder", True),
        Place("elbow", "elbow", True),
        Place("wrist", "wrist", True, "No power with that hand until it is free of pain; check the wraps."),
        Place("hand", "hand", True, "No power with that hand until it is free of pain; check the wraps."),
        Place("back", "back", False),
        Place("hip", "hip", True),
        Place("knee", "knee", True),
        Place("shin", "shin", True, "No kicks with that leg until it is free of pain."),
        Place("foot", "foot or ankle", True),
    )
}  # fmt: skip
"""Common practice, no source; it never replaces a physician."""


def told(where: str, side: str | None) -> str:
    """A flag in words, such as "left wrist". Raises `KeyError` for a place that is not in the table."""
    place = PLACES[where]
    return f"{side} {place.word}" if side and place.sides else place.word
