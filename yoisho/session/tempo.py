"""Effort words. One entry here is all a new tempo needs: shorthand, engine, drawing and floor read this table.

The demands, strike rates and RPE are our own settings: no study gives a cost per strike. They were chosen so that
continuous punching falls between the figures of Kravitz et al. 2003 (68-73 % of VO2max) and Arseneau et al. 2011
(40-62 %), both from memory; the gap between the two is the uncertainty shown.
"""

from dataclasses import dataclass
from typing import TYPE_CHECKING, Literal, TypeAlias

Kind = Literal["work", "recover", "rest"]


@dataclass(frozen=True)
class Tempo:
    id: str
    word: str
    """As written in the shorthand and shown on screen."""
    kind: Kind
    demand_frac: float
    """Energy demand [x VO2max]."""
    strikes_per_min: float
    rpe: float
    """Expected rating of perceived exertion on Borg's CR10 [0-10]."""
    meaning: str
    aliases: tuple[str, ...] = ()
    """Other spellings that the shorthand reads."""


TEMPOS: dict[str, Tempo] = {
    tempo.id: tempo
    for tempo in (
        Tempo("rest", "rest", "rest", 0.10, 0, 0, "stand or sit, breathe", ("off", "pause")),
        Tempo("recover", "recover", "recover", 0.40, 15, 2, "light shadow, footwork", ("recovery", "active")),
        Tempo("flow", "flow", "work", 0.58, 60, 3, "continuous, at or under half power", ("light", "easy")),
        Tempo("technique", "technique", "work", 0.70, 45, 4, "clean, time between", ("tech", "skill")),
        Tempo("freestyle", "freestyle", "work", 0.80, 50, 5, "the athlete decides", ("free", "work", "on")),
        Tempo("combination", "combination", "work", 0.90, 60, 6, "bursts and resets", ("combo", "combos")),
        Tempo("hold", "hold", "work", 0.95, 0, 7, "heavy carry, bear hug or plank"),
        Tempo("power", "power", "work", 1.20, 40, 8, "as hard as possible, fewer", ("hard",)),
        Tempo("speed", "speed", "work", 1.25, 180, 8, "fast and light, as many as possible", ("fast",)),
        Tempo("all-out", "all out", "work", 1.70, 120, 10, "nothing held back", ("allout", "sprint", "flat out")),
    )
}


def tempo_spellings() -> dict[str, str]:
    """Every spelling the shorthand reads, in lower case with single spaces, and the tempo it names."""
    return {spelling: tempo.id for tempo in TEMPOS.values() for spelling in (tempo.word, tempo.id, *tempo.aliases)}


if TYPE_CHECKING:
    TempoId: TypeAlias = str
else:
    TempoId = Literal[tuple(TEMPOS)]
