"""Limits of a person: what they must not do, as whoever treats or coaches them set it, until a date or until lifted.

One entry in `LIMITS` is all a new kind needs: what it asks for, and what in a session breaks it. The cautions speak of
them in one rule, so that everything that asks the cautions (verdict, Propose, Scale, nudges, the floor) keeps to them.
An illness is never asked for: what somebody's physician allows is what is entered.
"""

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from datetime import date
from typing import Literal, TypeAlias, get_args

from yoisho.engine.readout import Reading
from yoisho.session.clock import clock
from yoisho.session.modality import MODALITIES
from yoisho.session.timeline import TimelineInterval
from yoisho.strikes.bags import BAGS
from yoisho.strikes.counts import Limb
from yoisho.strikes.tempo import TEMPOS

LIMBS: tuple[Limb, ...] = get_args(Limb)
Period = Literal["session", "week"]
FULL_FORCE = 0.8
"""Force of a strike, of a person's full one, past which it is power. Own setting: bout pace is not, power is."""
LEAST_STRIKES = 0.5
"""Expected strikes under which a limb does not strike."""
MOST_STRIKES = (1, 20_000)
MOST_HEART_BPM = (60, 220)


class LimitError(ValueError):
    """A limit that says too little or what cannot be: what is wrong, and how to mend it."""

    def __init__(self, message: str, field: str):
        super().__init__(message)
        self.field = field


@dataclass(frozen=True)
class Breach:
    """Where a session goes against a limit."""

    text: str
    cure: str
    at_s: float | None = None


Finds: TypeAlias = "Callable[[Limit, Reading, dict[Limb, float]], Breach | None]"


@dataclass(frozen=True)
class LimitKind:
    id: str
    word: str
    """Said of somebody, with {limb}, {most} and {period} where it asks for them."""
    changes: str
    """What it does, for whoever enters it."""
    breach: Finds
    limb: bool = False
    """It is about one limb."""
    most: tuple[int, int] | None = None
    """Bounds of the number it asks for."""
    period: bool = False
    """It holds for a session or for a week."""


@dataclass(frozen=True)
class Limit:
    """Raises `LimitError` where it is no kind, or says too little or too much for its kind."""

    kind: str
    limb: Limb | None = None
    most: int | None = None
    period: Period | None = None
    until: date | None = None
    """The last day it holds; None until it is lifted."""
    set_by: str = ""
    """Whoever set it, in words."""

    def __post_init__(self) -> None:
        known = LIMITS.get(self.kind)
        if known is None:
            raise LimitError(f"no limit is called '{self.kind}'; there are {', '.join(LIMITS)}", "kind")
        if known.limb != (self.limb is not None) or (self.limb is not None and self.limb not in LIMBS):
            said = f"say which limb: {', '.join(LIMBS)}" if known.limb else "this is not about a limb: leave it out"
            raise LimitError(said, "limb")
        if known.most is None and self.most is not None:
            raise LimitError("this has no number: leave it out", "most")
        if known.most is not None and not known.most[0] <= (self.most or 0) <= known.most[1]:
            raise LimitError(f"give a number from {known.most[0]} to {known.most[1]}", "most")
        if known.period != (self.period is not None) or self.period not in (None, *get_args(Period)):
            raise LimitError(
                "say whether it is for a session or a week" if known.period else "leave this out", "period"
            )

    @property
    def known(self) -> LimitKind:
        return LIMITS[self.kind]

    @property
    def words(self) -> str:
        """What must not be, in words, such as "no strikes with the right hand"."""
        return self.known.word.format(limb=self.limb, most=self.most, period=self.period)

    def holds_on(self, day: date) -> bool:
        return self.until is None or day <= self.until

    def breach(self, reading: Reading, week: dict[Limb, float]) -> Breach | None:
        """Where a session goes against it; `week` are the strikes of the last seven days before it."""
        return self.known.breach(self, reading, week)


def _struck(reading: Reading) -> Iterator[TimelineInterval]:
    return (one for one in reading.timeline.intervals if one.kind == "work" and not one.partner and one.source.struck)


def _no_kicks(limit: Limit, reading: Reading, week: dict[Limb, float]) -> Breach | None:
    for interval in _struck(reading):
        found = interval.combination
        if found is not None and any(one.known.kind in ("kick", "knee") for one in found.actions):
            return Breach(f"kicks or knees at {clock(interval.start_s)}", "Hands only, or footwork in their place.",
                          float(interval.start_s))  # fmt: skip
    return None


def _no_limb(limit: Limit, reading: Reading, week: dict[Limb, float]) -> Breach | None:
    assert limit.limb is not None
    for interval, volume in zip(reading.timeline.intervals, reading.volumes, strict=True):
        if volume.on(limit.limb) >= LEAST_STRIKES:
            open_ = interval.combination is None
            return Breach(
                f"{'nothing says with what is struck' if open_ else f'the {limit.limb} strikes'} "
                f"at {clock(interval.start_s)}",
                "Write combinations that leave it out." if open_ else "Leave it out of the combination.",
                float(interval.start_s),
            )
    return None


def _no_power(limit: Limit, reading: Reading, week: dict[Limb, float]) -> Breach | None:
    for interval in _struck(reading):
        if (interval.source.force or 0.0) > FULL_FORCE:
            return Breach(f"{TEMPOS[interval.tempo].word} at {clock(interval.start_s)}",
                          "Flow, technique or speed at half power.", float(interval.start_s))  # fmt: skip
    return None


def _most_strikes(limit: Limit, reading: Reading, week: dict[Limb, float]) -> Breach | None:
    assert limit.limb is not None
    assert limit.most is not None
    strikes = reading.volume.on(limit.limb)
    if limit.period == "week":
        strikes += week.get(limit.limb, 0.0) if strikes >= LEAST_STRIKES else 0.0
    if strikes <= limit.most:
        return None
    when = "in seven days" if limit.period == "week" else "here"
    return Breach(f"about {strikes:.0f} with the {limit.limb} {when}", "Fewer rounds, or the other side.")


def _heart(limit: Limit, reading: Reading, week: dict[Limb, float]) -> Breach | None:
    assert limit.most is not None
    highest = reading.figures["heart_rate_peak_bpm"].value
    if not reading.heart_holds or highest <= limit.most:
        return None
    return Breach(f"it should rise to about {highest:.0f}", "An easier effort, or more rest.")


HARD_ON_JOINTS = frozenset(("skip", "run", "burpees", "lunges", "high-knees", "jumping-jacks", "mountain-climbers"))
"""Modalities that land or jump. Common practice, no source."""


def _joints(limit: Limit, reading: Reading, week: dict[Limb, float]) -> Breach | None:
    for interval in reading.timeline.intervals:
        if interval.kind != "rest" and interval.source.modality in HARD_ON_JOINTS:
            word = MODALITIES[str(interval.source.modality)].word
            return Breach(f"{word} at {clock(interval.start_s)}", "Footwork, marching knees or the cycle instead.",
                          float(interval.start_s))  # fmt: skip
    return None


def _no_holding(limit: Limit, reading: Reading, week: dict[Limb, float]) -> Breach | None:
    for interval in reading.timeline.intervals:
        held = interval.source.modality in BAGS and BAGS[str(interval.source.modality)].held
        if held and (interval.partner or interval.source.pairs):
            return Breach(f"partners hold for each other at {clock(interval.start_s)}",
                          "A bag, or somebody else who holds.", float(interval.start_s))  # fmt: skip
    return None


def _breaks(limit: Limit, reading: Reading, week: dict[Limb, float]) -> Breach | None:
    for interval in reading.timeline.intervals:
        if interval.kind == "work" and not interval.partner and interval.timed and interval.source.kind == "work":
            return Breach(f"the clock sets the work at {clock(interval.start_s)}",
                          "Dose it by reps, or leave it open until done.", float(interval.start_s))  # fmt: skip
    return None


def _silent(limit: Limit, reading: Reading, week: dict[Limb, float]) -> Breach | None:
    """The engine keeps to it by itself: no figure of the heart is told."""
    return None


LIMITS: dict[str, LimitKind] = {
    kind.id: kind
    for kind in (
        LimitKind("no-kicks", "no kicks or knees", "Sessions with kicks or knees are stopped.", _no_kicks),
        LimitKind("no-limb", "no strikes with the {limb}", "Whatever strikes with it is stopped, open bag work too.",
                  _no_limb, limb=True),
        LimitKind("no-power", "no power", "Power and all out are stopped; flow, technique and speed are not.",
                  _no_power),
        LimitKind("most-strikes", "at most {most} strikes with the {limb} a {period}",
                  "Expected strikes past it are stopped.", _most_strikes, limb=True, most=MOST_STRIKES, period=True),
        LimitKind("heart-rate", "heart rate at most {most}", "Sessions that should raise it further are stopped.",
                  _heart, most=MOST_HEART_BPM),
        LimitKind("joints", "easy on the joints", "Jumping and running are stopped.", _joints),
        LimitKind("no-holding", "no holding of pads", "Pad work in pairs is stopped.", _no_holding),
        LimitKind("breaks", "breaks whenever wanted", "Work that the clock sets is stopped: reps, or open until done.",
                  _breaks),
        LimitKind("heart-untrusted", "heart rate not to be trusted", "No figure of the heart is told: effort leads.",
                  _silent),
    )
}  # fmt: skip
