"""Modalities: what an interval is done on or with. One entry here is all a new one needs.

Seconds a repetition and the tempos assumed are our own settings, no source.
"""

from dataclasses import dataclass

from yoisho.strikes.bags import BAGS


@dataclass(frozen=True)
class Modality:
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
    share: float | None = None
    """How hard it is at its own tempo, where that differs from the tempo's: from rest (0) to its ceiling (1) [-]."""
    ceiling_frac: float = 1.0
    """Share of VO2max that the muscle in play can take up [-]; of what is struck the limbs say it."""
    aliases: tuple[str, ...] = ()
    items: tuple[str, ...] = ()
    """Ids of the kit that it cannot be done without."""


_OFF_THE_BAG = (
    Modality("skip", "skip", "flow", aliases=("skipping", "rope", "skipping rope", "jump rope"), items=("rope",)),
    Modality("run", "run", "flow", aliases=("running", "jog")),
    Modality("cycle", "cycle", "flow", aliases=("bike", "cycling")),
    Modality("row", "row", "flow", aliases=("rowing",)),
    Modality("cardio", "cardio", "flow"),
    Modality("core", "core", "technique", ceiling_frac=0.80),
    Modality(
        "carry",
        "carry",
        "hold",
        ceiling_frac=0.95,
        aliases=("ball carry", "bear hug", "bear-hug carry"),
        items=("ball",),
    ),
    Modality("plank", "plank", "hold", demand_frac=0.55, share=0.35, ceiling_frac=0.80),
    Modality(
        "push-ups",
        "push-ups",
        "technique",
        rep_s=1.5,
        ceiling_frac=0.80,
        aliases=("push-up", "pushups", "press-ups", "press-up"),
    ),
    Modality("sit-ups", "sit-ups", "flow", rep_s=2.0, ceiling_frac=0.80, aliases=("sit-up", "situps")),
    Modality("v-ups", "V-ups", "technique", rep_s=2.5, ceiling_frac=0.80, aliases=("v-up",)),
    Modality("burpees", "burpees", "combination", rep_s=3.5, aliases=("burpee",)),
    Modality("squats", "squats", "technique", rep_s=1.8, aliases=("squat",)),
    Modality("lunges", "lunges", "technique", rep_s=2.0, aliases=("lunge",)),
    Modality("high-knees", "high knees", "combination", rep_s=0.45),
    Modality("marching-knees", "marching knees", "flow", rep_s=0.6),
    Modality("jumping-jacks", "jumping jacks", "flow", rep_s=0.9, aliases=("star jumps",)),
    Modality("mountain-climbers", "mountain climbers", "combination", rep_s=0.6),
    Modality("footwork", "footwork", "flow"),
    Modality("joint-work", "joint work", "recover", aliases=("mobility", "joints")),
    Modality("stretching", "stretching", "recover", aliases=("stretch",)),
    Modality("breathing", "breathing", "rest", aliases=("breathe",)),
)

MODALITIES: dict[str, Modality] = {
    **{
        bag.id: Modality(bag.id, bag.word, "freestyle", strikes=True, aliases=bag.aliases, items=bag.items)
        for bag in BAGS.values()
    },
    **{modality.id: modality for modality in _OFF_THE_BAG},
}  # fmt: skip


def modality_spellings() -> dict[str, str]:
    """Every spelling the shorthand reads, in lower case with single spaces, and the modality it names."""
    return {word.lower(): m.id for m in MODALITIES.values() for word in (m.word, m.id, *m.aliases)}
