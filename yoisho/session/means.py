"""Means: what an interval is done on or with. One entry here is all a new one needs.

Seconds a repetition and the tempos assumed are our own settings, no source.
"""

from dataclasses import dataclass
from typing import Literal

from yoisho.strikes.bags import BAGS

HeartWork = Literal["punching", "shadow", "carrying", "none"]


@dataclass(frozen=True)
class Means:
    id: str
    word: str
    """As written in the shorthand and shown on screen."""
    tempo: str
    """Assumed where no effort is said."""
    strikes: bool = False
    """Whether it is struck, so that strikes are counted on it."""
    rep_s: float | None = None
    """Seconds a repetition takes; None where it is not counted in repetitions."""
    demand_frac: float | None = None
    """Energy demand at its own tempo, where that differs from the tempo's [x VO2max]."""
    heart: HeartWork = "none"
    """Whose heart-rate offset holds for it."""
    aliases: tuple[str, ...] = ()


_OFF_THE_BAG = (
    Means("skip", "skip", "flow", aliases=("skipping", "rope", "skipping rope")),
    Means("run", "run", "flow", aliases=("running", "jog")),
    Means("cycle", "cycle", "flow", aliases=("bike", "cycling")),
    Means("row", "row", "flow", aliases=("rowing",)),
    Means("cardio", "cardio", "flow"),
    Means("core", "core", "technique"),
    Means("carry", "carry", "hold", heart="carrying", aliases=("ball carry", "bear hug", "bear-hug carry")),
    Means("plank", "plank", "hold", demand_frac=0.55, heart="carrying"),
    Means("push-ups", "push-ups", "technique", rep_s=1.5, aliases=("push-up", "pushups", "press-ups", "press-up")),
    Means("sit-ups", "sit-ups", "flow", rep_s=2.0, aliases=("sit-up", "situps")),
    Means("v-ups", "V-ups", "technique", rep_s=2.5, aliases=("v-up",)),
    Means("burpees", "burpees", "combination", rep_s=3.5, aliases=("burpee",)),
    Means("squats", "squats", "technique", rep_s=1.8, aliases=("squat",)),
    Means("lunges", "lunges", "technique", rep_s=2.0, aliases=("lunge",)),
    Means("high-knees", "high knees", "combination", rep_s=0.45),
    Means("marching-knees", "marching knees", "flow", rep_s=0.6),
    Means("jumping-jacks", "jumping jacks", "flow", rep_s=0.9, aliases=("star jumps",)),
    Means("mountain-climbers", "mountain climbers", "combination", rep_s=0.6),
    Means("footwork", "footwork", "flow", heart="shadow"),
    Means("joint-work", "joint work", "recover", aliases=("mobility", "joints")),
    Means("stretching", "stretching", "recover", aliases=("stretch",)),
    Means("breathing", "breathing", "rest", aliases=("breathe",)),
)
_SHADOWED = ("shadow", "pads", "partner")

MEANS: dict[str, Means] = {
    **{
        bag.id: Means(bag.id, bag.word, "freestyle", strikes=True, aliases=bag.aliases,
                      heart="shadow" if bag.id in _SHADOWED else "punching")
        for bag in BAGS.values()
    },
    **{means.id: means for means in _OFF_THE_BAG},
}  # fmt: skip


def means_spellings() -> dict[str, str]:
    """Every spelling the shorthand reads, in lower case with single spaces, and the means it names."""
    return {word.lower(): m.id for m in MEANS.values() for word in (m.word, m.id, *m.aliases)}
