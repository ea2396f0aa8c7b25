"""Effort words. One entry here is all a new tempo needs: shorthand, engine, drawing and floor read this table.

The demands, strike rates, paces and RPE are our own settings: no study gives a cost per strike. They were chosen so
that continuous punching falls between the figures of Kravitz et al. 2003 (68-73 % of VO2max) and Arseneau et al. 2011
(40-62 %), both from memory; the gap between the two is the uncertainty shown.
"""

from dataclasses import dataclass
from typing import TYPE_CHECKING, Literal, TypeAlias

Kind = Literal["work", "recover", "rest"]
Hatch = Literal["slant", "dots"]
Footwork = Literal["planted", "stepping", "hard"]


@dataclass(frozen=True)
class Tempo:
    """All that follows from how hard work is: nothing about a tempo stands anywhere else."""

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
    pace: float | None = None
    """Times the techniques' own seconds; None where nothing is struck at it."""
    reset_s: float = 0.0
    """Between one pass of a combination and the next."""
    rung: int | None = None
    """Its place on the ladder from light to hard that a nudge climbs; None beside it."""
    skilled: bool = False
    """Technique can be worked on at it."""
    hatch: Hatch | None = None
    """How its ink is drawn, where not plain."""
    share: float = 0.0
    """How hard, from rest (0) to all that the muscle in play can take up (1) [-]."""
    share_s: float = 0.0
    """Added over the interval's seconds: a word means as hard as fits its length [s]."""
    burst: tuple[float, float, float] | None = None
    """Seconds and share of a burst, and seconds from one to the next; None where the work is even."""
    force: float | None = None
    """Of a strike, against the person's full force [-]; None where nothing is struck."""
    footwork: Footwork = "planted"
    top_rate: bool = False
    """All that can be thrown."""
    avoidable: bool = False
    """A coach may ask for proposals without it, such as for a sore hand."""
    shows: bool = False
    """A combination is shown and nobody works: it is called strike by strike, and costs what rest does."""


TEMPOS: dict[str, Tempo] = {
    tempo.id: tempo
    for tempo in (
        Tempo("rest", "rest", "rest", 0.10, 0, 0, "stand or sit, breathe", ("off", "pause")),
        Tempo("show", "show", "rest", 0.10, 0, 0, "a combination is shown slowly; nobody works",
              ("demonstrate", "demonstration", "demo"), shows=True),
        Tempo("recover", "recover", "recover", 0.40, 15, 2, "light shadow, footwork", ("recovery", "active"),
              pace=1.6, reset_s=3.0, hatch="slant", share=0.30, force=0.40),
        Tempo("flow", "flow", "work", 0.58, 60, 3, "continuous, at or under half power", ("light", "easy"),
              pace=1.2, reset_s=0.4, rung=1, share=0.50, force=0.72,
              footwork="stepping"),
        Tempo("technique", "technique", "work", 0.70, 45, 4, "clean, time between", ("tech", "skill"),
              pace=1.6, reset_s=2.0, rung=2, skilled=True, hatch="dots", share=0.60, force=0.65, footwork="stepping"),
        Tempo("freestyle", "freestyle", "work", 0.80, 50, 5, "the athlete decides", ("free", "work", "on"),
              pace=1.2, reset_s=1.0, rung=3, skilled=True, hatch="dots", share=0.78, force=0.75, footwork="stepping"),
        Tempo("combination", "combination", "work", 0.90, 60, 6, "bursts and resets", ("combo", "combos"),
              pace=1.0, reset_s=1.5, rung=4, skilled=True, share=0.94, burst=(5, 1.30, 15), force=0.80,
              footwork="stepping"),
        Tempo("hold", "hold", "work", 0.95, 0, 7, "heavy carry, bear hug or plank", share=0.70, avoidable=True),
        Tempo("power", "power", "work", 1.20, 40, 8, "as hard as possible, fewer", ("hard",),
              pace=1.4, reset_s=1.5, rung=5, share=0.68, share_s=15, force=1.0, footwork="stepping", avoidable=True),
        Tempo("fight", "fight pace", "work", 1.10, 70, 8, "as in the ring: bursts, and moving between", ("fight",),
              pace=1.0, reset_s=1.0, share=1.08, burst=(4, 2.0, 15), force=0.80, footwork="hard", avoidable=True),
        Tempo("speed", "speed", "work", 1.25, 180, 8, "fast and light, as many as possible", ("fast",),
              pace=0.8, reset_s=0.3, share=0.68, share_s=9, force=0.52, footwork="stepping", avoidable=True),
        Tempo("all-out", "all out", "work", 1.70, 120, 10, "nothing held back", ("allout", "sprint", "flat out"),
              pace=0.85, reset_s=0.2, rung=6, share=1.0, force=0.88, footwork="hard", top_rate=True, avoidable=True),
    )
}  # fmt: skip

LADDER = tuple(sorted((t.id for t in TEMPOS.values() if t.rung), key=lambda tempo: TEMPOS[tempo].rung or 0))
"""From light to hard."""


def tempo_spellings() -> dict[str, str]:
    """Every spelling the shorthand reads, in lower case with single spaces, and the tempo it names."""
    return {spelling: tempo.id for tempo in TEMPOS.values() for spelling in (tempo.word, tempo.id, *tempo.aliases)}


if TYPE_CHECKING:
    TempoId: TypeAlias = str
else:
    TempoId = Literal[tuple(TEMPOS)]
