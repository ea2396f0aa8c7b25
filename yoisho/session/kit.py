"""Kit: what is on the hands, and what else is worn, held up or carried. One entry here is all a new piece needs.

Seconds to change are our own settings, with a helper: no source.
"""

from dataclasses import dataclass


@dataclass(frozen=True)
class Kit:
    id: str
    word: str
    """As written in the shorthand and shown on screen."""
    on: str = ""
    """As it is called when it is put on or taken up; empty where its modality goes with it, and nothing is called."""
    off: str = ""
    """As it is called when it comes off; empty where it is just put down."""
    on_s: int = 0
    off_s: int = 0
    aliases: tuple[str, ...] = ()


@dataclass(frozen=True)
class Gloves(Kit):
    """What is on the hands: one of them at a time."""

    bare: bool = False
    """The hand has no padding."""
    brought: bool = True
    """Somebody has to bring it."""


def _ounces(ounces: int) -> Gloves:
    word = f"{ounces} oz gloves"
    return Gloves(f"{ounces}-oz", word, f"{ounces} ounce gloves on", on_s=40, off_s=20,
                  aliases=(f"{ounces} oz", f"{ounces} ounces", f"{ounces} ounce gloves"))  # fmt: skip


GLOVES: dict[str, Gloves] = {
    gloves.id: gloves
    for gloves in (
        Gloves("none", "bare hands", "gloves off", bare=True, brought=False,
               aliases=("no gloves", "gloves off", "without gloves", "bare-handed")),
        Gloves("wraps", "wraps", "wraps only", on_s=120, bare=True, aliases=("hand wraps", "wraps only")),
        Gloves("bag-gloves", "bag gloves", "bag gloves on", on_s=30, off_s=15),
        *map(_ounces, (10, 12, 14, 16, 18)),
    )
}  # fmt: skip
ITEMS: dict[str, Kit] = {
    item.id: item
    for item in (
        Kit("straps", "straps", "straps on", "straps off", on_s=30, off_s=15),
        Kit("pads", "pads"),
        Kit("ball", "ball", "take the ball", on_s=5, aliases=("medicine ball", "heavy ball")),
        Kit("rope", "rope"),
    )
}
SAID = ("straps", "ball")
"""Items a line may say; the others go without saying on their modality."""


def kit_spellings() -> dict[str, tuple[str, str]]:
    """Every spelling the shorthand reads, in lower case with single spaces: the field it says, and the id."""
    gloves = {word: ("gloves", each.id) for each in GLOVES.values() for word in (each.word, each.id, *each.aliases)}
    items = {word: ("kit", id) for id in SAID for word in (ITEMS[id].word, id, *ITEMS[id].aliases)}
    return {word.lower(): said for word, said in (gloves | items).items()}


def words(gloves: str | None, kit: tuple[str, ...]) -> list[str]:
    """What is said of hands and items, in words; empty where nothing is."""
    return [*([GLOVES[gloves].word] if gloves else []), *(ITEMS[item].word for item in kit)]
