"""Techniques. One entry in the table is all a new one needs: the notation, the counts and the calls read it.

Times are our own settings, for one technique done cleanly inside a combination; no source.
"""

from dataclasses import dataclass
from typing import Literal

Kind = Literal["punch", "elbow", "kick", "knee", "defence", "step"]
Side = Literal["lead", "rear", "left", "right"]
Height = Literal["head", "body", "leg"]

STRIKING: tuple[Kind, ...] = ("punch", "elbow", "kick", "knee")
OTHER_SIDE: dict[Side, Side] = {"lead": "rear", "rear": "lead", "left": "right", "right": "left"}


@dataclass(frozen=True)
class Technique:
    id: str
    word: str
    """As written in the notation and called on the floor."""
    kind: Kind
    sides: tuple[Side, ...]
    """The sides it can be done with; the first where none is said. Empty where sides say nothing."""
    heights: tuple[Height, ...]
    """Where it can land; the first where none is said. Empty where nothing lands."""
    seconds: float
    aliases: tuple[str, ...] = ()
    mirror: str | None = None
    """What it becomes on the other side, where that is another technique."""

    @property
    def strikes(self) -> bool:
        return self.kind in STRIKING


_EITHER: tuple[Side, ...] = ("lead", "rear", "left", "right")
_REAR_FIRST: tuple[Side, ...] = ("rear", "lead", "left", "right")
_UP: tuple[Height, ...] = ("head", "body")
_ANYWHERE: tuple[Height, ...] = ("body", "head", "leg")

TECHNIQUES: dict[str, Technique] = {
    technique.id: technique
    for technique in (
        Technique("jab", "jab", "punch", ("lead",), _UP, 0.30, mirror="cross"),
        Technique("cross", "cross", "punch", ("rear",), _UP, 0.35, ("straight", "right straight"), "jab"),
        Technique("hook", "hook", "punch", _EITHER, _UP, 0.40),
        Technique("check-hook", "check hook", "punch", _EITHER, ("head",), 0.55),
        Technique("uppercut", "uppercut", "punch", _EITHER, _UP, 0.40, ("upper",)),
        Technique("overhand", "overhand", "punch", _REAR_FIRST, ("head",), 0.45),
        Technique("palm", "palm", "punch", _REAR_FIRST, ("head",), 0.40, ("palm strike",)),
        Technique("hammer-fist", "hammer fist", "punch", _REAR_FIRST, ("head",), 0.45, ("hammer",)),
        Technique("elbow", "elbow", "elbow", _REAR_FIRST, _UP, 0.45),
        Technique("push-kick", "push kick", "kick", _EITHER, ("body", "head"), 0.80, ("front kick", "teep")),
        Technique("round-kick", "round kick", "kick", _REAR_FIRST, _ANYWHERE, 0.90, ("kick", "roundhouse")),
        Technique("switch-kick", "switch kick", "kick", ("lead", "rear"), _ANYWHERE, 1.10),
        Technique("knee", "knee", "knee", _REAR_FIRST, ("body", "head"), 0.80),
        Technique("clinch-knee", "clinch knee", "knee", _REAR_FIRST, ("body", "head"), 0.70),
        Technique("slip", "slip", "defence", (), (), 0.35),
        Technique("duck", "duck", "defence", (), (), 0.45),
        Technique("roll", "roll", "defence", (), (), 0.55, ("weave",)),
        Technique("cover", "cover", "defence", (), (), 0.40),
        Technique("block", "block", "defence", (), (), 0.35, ("check",)),
        Technique("lean-back", "lean back", "defence", (), (), 0.45, ("pull",)),
        Technique("catch", "catch", "defence", (), (), 0.35, ("parry",)),
        Technique("step", "step", "step", (), (), 0.45),
        Technique("step-back", "step back", "step", (), (), 0.45, ("back step",)),
        Technique("step-in", "step in", "step", (), (), 0.45),
        Technique("pivot", "pivot", "step", (), (), 0.55),
    )
}


def plurals(word: str) -> tuple[str, ...]:
    """How many of a technique are called: jabs, crosses."""
    return (f"{word}es",) if word.endswith(("s", "sh", "ch")) else (f"{word}s",)


def spellings() -> dict[str, str]:
    """Every spelling the notation reads, in lower case with single spaces, and the technique it names."""
    return {word: t.id for t in TECHNIQUES.values() for word in (t.word, t.id, *t.aliases)}
