"""Purposes a part can state. The nine that are judged, and the two that frame them."""

from dataclasses import dataclass


@dataclass(frozen=True)
class Purpose:
    id: str
    word: str
    aliases: tuple[str, ...] = ()


PURPOSES: dict[str, Purpose] = {
    purpose.id: purpose
    for purpose in (
        Purpose("warm-up", "warm-up", ("warm up", "warmup")),
        Purpose("sprint-power", "sprint power"),
        Purpose("sprint-capacity", "sprint capacity"),
        Purpose("lactic-power", "lactic power"),
        Purpose("lactic-capacity", "lactic capacity", ("lactic",)),
        Purpose("threshold", "threshold"),
        Purpose("aerobic-power", "aerobic power"),
        Purpose("aerobic-base", "aerobic base", ("base",)),
        Purpose("skill", "skill", ("technique",)),
        Purpose("fight-rehearsal", "bout rehearsal", ("rehearsal", "bout-rehearsal")),
        Purpose("cool-down", "cool-down", ("cool down", "cooldown")),
    )
}


FRAMES = ("warm-up", "cool-down")
"""Purposes of the parts that stand around the main set."""


FORMER_PURPOSES = {"bout-rehearsal": "fight-rehearsal"}
"""What purposes were called in older documents."""


def purpose_spellings() -> dict[str, str]:
    """Every spelling the shorthand reads, in lower case, and the purpose it names."""
    return {word: p.id for p in PURPOSES.values() for word in (p.word, p.id, *p.aliases)}
