"""One stretch of a session: how long, how hard, on what, and what is struck. Never changed in place."""

from dataclasses import dataclass, field
from math import ceil, sqrt
from typing import Annotated, ClassVar, Literal, TypeGuard

from yoisho.plain import ImpossibleError, Length, OneOf, Within
from yoisho.session.kit import GLOVES, SAID
from yoisho.session.modality import MODALITIES
from yoisho.strikes.combination import Combination
from yoisho.strikes.counts import pass_s
from yoisho.strikes.drill import Drill
from yoisho.strikes.tempo import TEMPOS, Kind

LONGEST_INTERVAL_S = 7200
MOST_REPS = 2000
MOST_STEPS = 40
MOST_CUES = 4
LONGEST_CUE = 40
CUE_EVERY_S = (2, 600)
SWITCH_EVERY_S = (2, 3600)
BAND_PERCENT = (30, 100)
BEATS_PER_MIN = (30, 240)
PER_MIN = (1, 480)
POWER_PERCENT = (5, 100)
DEMAND_PERCENT = (20, 400)
RESET_S = (0, 30)
COMMON_BAG = "bag"
PER_BEAT = (0.5, 1, 2)
"""Half, single and double time."""

Lead = Literal["left", "right"]
Switch = Literal["half", "call"] | Annotated[int, Within(*SWITCH_EVERY_S)]


class SessionError(ImpossibleError):
    """A session that makes no sense: what is wrong, and how to mend it."""


def check_kit(gloves: str | None, kit: tuple[str, ...]) -> None:
    """Raise `SessionError` where kit is said that is none, or twice."""
    if gloves is not None and gloves not in GLOVES:
        raise SessionError(f"'{gloves}' are no gloves; there are {', '.join(GLOVES)}", "gloves")
    for item in kit:
        if item not in SAID or kit.count(item) > 1:
            raise SessionError(f"kit is {' or '.join(SAID)}, each said once, not '{item}'", "kit")


def _whole(value: object) -> TypeGuard[int]:
    return isinstance(value, int) and not isinstance(value, bool)


@dataclass(frozen=True)
class RepeatingCue:
    """A word called again and again inside an interval."""

    text: Annotated[str, Length(1, LONGEST_CUE)]
    every_s: Annotated[int, Within(*CUE_EVERY_S)]

    def __post_init__(self) -> None:
        if not isinstance(self.text, str) or not 1 <= len(self.text.strip()) <= LONGEST_CUE:
            raise SessionError(f'a cue is 1 to {LONGEST_CUE} characters, such as "push"', "text")
        if any(mark in self.text for mark in '"\n\r'):
            raise SessionError("a cue holds no quotes and no line breaks", "text")
        least, most = CUE_EVERY_S
        if not _whole(self.every_s) or not least <= self.every_s <= most:
            raise SessionError(f"a cue comes every {least} to {most} seconds, not {self.every_s}", "every_s")


@dataclass(frozen=True)
class Beat:
    """The music's beat, and how many strikes fall on each."""

    per_min: Annotated[int, Within(*BEATS_PER_MIN)]
    strikes: Annotated[float, OneOf(PER_BEAT)] = 1
    """0.5, 1 or 2: half, single or double time."""

    def __post_init__(self) -> None:
        low, high = BEATS_PER_MIN
        if not _whole(self.per_min) or not low <= self.per_min <= high:
            raise SessionError(f"music has {low} to {high} beats a minute, not {self.per_min}", "per_min")
        if self.strikes not in PER_BEAT:
            raise SessionError("strikes fall on half the beats, on each, or twice on each", "strikes")


@dataclass(frozen=True)
class HeartBand:
    """Heart rate to be kept in [% of HRmax]."""

    low: Annotated[int, Within(*BAND_PERCENT)]
    high: Annotated[int, Within(*BAND_PERCENT)]

    def __post_init__(self) -> None:
        least, most = BAND_PERCENT
        if not _whole(self.low) or not _whole(self.high) or not least <= self.low < self.high <= most:
            raise SessionError(
                f"a heart-rate target runs upward within {least} to {most} % of HRmax, not {self.low}-{self.high}"
            )


@dataclass(frozen=True)
class Interval:
    """Dosed by seconds, or by reps. A rep is one pass of the combination; without one, a single strike or movement."""

    OMIT: ClassVar[bool] = True
    seconds: Annotated[int | None, Within(1, LONGEST_INTERVAL_S)]
    tempo: Annotated[str, OneOf(TEMPOS)]
    reps: Annotated[tuple[Annotated[int, Within(1, MOST_REPS)], ...], Length(0, MOST_STEPS)] = ()
    """Where there are several, one for each repetition of the repeat around it: a ladder."""
    modality: Annotated[str | None, OneOf(MODALITIES)] = None
    drill: Drill | None = None
    lead: Lead | None = None
    """The side that stands in front; None is the person's own stance."""
    switch: Switch | None = None
    """The side is switched at half time, on the coach's call, or every so many seconds."""
    cues: Annotated[tuple[RepeatingCue, ...], Length(0, MOST_CUES)] = field(default=())
    beat: Beat | None = None
    band: HeartBand | None = None
    per_min: Annotated[int | None, Within(*PER_MIN)] = None
    """Strikes a minute, where the coach fixes them."""
    power_percent: Annotated[int | None, Within(*POWER_PERCENT)] = None
    """Energy of a strike, where it is not the effort's own [% of a full one]; half power is 50."""
    demand_percent: Annotated[int | None, Within(*DEMAND_PERCENT)] = None
    """Paced demand in the effort's place [% of VO2max]."""
    reset_s: Annotated[int | None, Within(*RESET_S)] = None
    """Between one pass of the combination and the next, where it is not the effort's own; 0 for none [s]."""
    pairs: bool = False
    """Done by one, then by the partner, while the other rests."""
    gloves: Annotated[str | None, OneOf(GLOVES)] = None
    """What is on the hands; None for whatever is on them."""
    kit: Annotated[tuple[Annotated[str, OneOf(SAID)], ...], Length(0, len(SAID))] = ()
    """What else is worn or carried, beside what its means cannot do without."""
    open_ended: bool = False
    """It ends when the coach says so; its seconds are a stated length, for the estimates."""

    def __post_init__(self) -> None:
        if self.tempo not in TEMPOS:
            raise SessionError(f"'{self.tempo}' is not an effort; the efforts are {', '.join(TEMPOS)}", "tempo")
        if self.modality is not None and self.modality not in MODALITIES:
            raise SessionError(f"'{self.modality}' is not a modality; there are {', '.join(MODALITIES)}", "modality")
        if (self.seconds is None) == (not self.reps):
            raise SessionError("an interval is dosed by seconds or by reps: give one of them")
        if self.reps:
            self._check_reps()
        else:
            self._check_seconds()
        self._check_sides()
        self._check_dose()
        if len(self.cues) > MOST_CUES:
            raise SessionError(f"an interval has at most {MOST_CUES} repeating cues", "cues")
        if self.drill is not None and TEMPOS[self.tempo].pace is None and not self.shows:
            raise SessionError(f"nothing is struck at {TEMPOS[self.tempo].word}: leave the combination out")
        if self.drill is not None and not self.struck:
            raise SessionError(f"nothing is struck on {MODALITIES[str(self.modality)].word}: leave the combination out")
        if self.pairs and self.kind != "work":
            raise SessionError("only work is done in pairs; the partner rests meanwhile")
        if self.open_ended:
            self._check_open_ended()
        check_kit(self.gloves, self.kit)

    def _check_seconds(self) -> None:
        if not _whole(self.seconds):
            raise SessionError("an interval's length is a whole number of seconds", "seconds")
        if not 1 <= self.seconds <= LONGEST_INTERVAL_S:
            raise SessionError(f"an interval lasts from 1 second to 2 hours, not {self.seconds} s", "seconds")

    def _check_open_ended(self) -> None:
        if self.kind != "work" or self.seconds is None:
            raise SessionError("only work is open-ended, with a stated length: give a rest a time, and reps no end")
        if self.pairs:
            raise SessionError("open-ended work is not done in pairs: nobody would know when it is their turn", "pairs")
        if self.cues or self.beat is not None or self.switch not in (None, "call"):
            raise SessionError(
                "open-ended work has no clock to call by: leave cues and beat out, and switch sides on call"
            )

    def _check_reps(self) -> None:
        if len(self.reps) > MOST_STEPS:
            raise SessionError(f"a ladder has at most {MOST_STEPS} steps", "reps")
        for count in self.reps:
            if not _whole(count) or not 1 <= count <= MOST_REPS:
                raise SessionError(f"reps go from 1 to {MOST_REPS}, not {count}", "reps")
        if self.kind == "rest":
            raise SessionError("a rest is dosed by time, not by reps")
        if self.modality and not self.struck and MODALITIES[self.modality].rep_s is None:
            raise SessionError(f"{MODALITIES[self.modality].word} is not counted in reps: give a time")
        if self.struck and TEMPOS[self.tempo].pace is None:
            raise SessionError(f"nothing is struck at {TEMPOS[self.tempo].word}: give a time, or say what is repeated")
        if any(self.length_s(turn, 2) > LONGEST_INTERVAL_S for turn in range(1, len(self.reps) + 1)):
            raise SessionError("so many reps take longer than 2 hours: give fewer")

    def _check_dose(self) -> None:
        for what, value, (least, most), unit in (
            ("per_min", self.per_min, PER_MIN, "strikes a minute"),
            ("power_percent", self.power_percent, POWER_PERCENT, "% power"),
            ("demand_percent", self.demand_percent, DEMAND_PERCENT, "% of VO2max"),
            ("reset_s", self.reset_s, RESET_S, "seconds of reset"),
        ):
            if value is not None and not (_whole(value) and least <= value <= most):
                raise SessionError(f"{unit}: from {least:g} to {most:g}, not {value:g}", what)
        if self.reset_s is not None and self.drill is None:
            raise SessionError("a reset stands between passes of a combination: say which", "reset_s")
        if self.reset_s is not None and (self.beat is not None or self.per_min is not None):
            raise SessionError("what is struck a minute leaves no room for a reset: give one of the two", "reset_s")
        struck = self.struck and TEMPOS[self.tempo].pace is not None
        if (self.per_min is not None or self.power_percent is not None) and not struck:
            raise SessionError("nothing is struck here: leave strikes a minute and power out")
        if self.per_min is not None and self.beat is not None:
            raise SessionError("a beat says how many strikes a minute: give one of the two", "per_min")
        if self.per_min is not None and self.reps:
            raise SessionError("reps are not paced: give strikes a minute with a time", "per_min")
        if self.demand_percent is not None and (self.per_min is not None or self.beat is not None):
            raise SessionError("what is struck a minute says how hard it is: leave the % out", "demand_percent")
        if self.demand_percent is not None and self.kind == "rest":
            raise SessionError("a rest asks for nothing: leave the % out", "demand_percent")

    def _check_sides(self) -> None:
        if self.lead not in (None, "left", "right"):
            raise SessionError("the lead side is left or right", "lead")
        least, most = SWITCH_EVERY_S
        every = _whole(self.switch) and least <= self.switch <= most
        if self.switch not in (None, "half", "call") and not every:
            raise SessionError("the side is switched at half, on call, or every 2 seconds or more", "switch")
        if self.switch is not None and self.kind == "rest":
            raise SessionError("in a rest no side is switched")

    @property
    def timed(self) -> bool:
        """Whether the clock ends it; reps and open-ended work end when they are done."""
        return not self.reps and not self.open_ended

    @property
    def kind(self) -> Kind:
        return TEMPOS[self.tempo].kind

    @property
    def shows(self) -> bool:
        """A combination is shown, and nobody works."""
        return TEMPOS[self.tempo].shows

    @property
    def struck(self) -> bool:
        """Whether its modality is one that is struck; nothing said counts as a bag."""
        return self.modality is None or MODALITIES[self.modality].strikes

    @property
    def demand_frac(self) -> float:
        """Energy demand [x VO2max]: the tempo's, save where the modality at its own tempo has another."""
        if self.demand_percent is not None:
            return self.demand_percent / 100
        own = MODALITIES[self.modality] if self.modality else None
        if own and own.demand_frac is not None and own.tempo == self.tempo:
            return own.demand_frac
        return TEMPOS[self.tempo].demand_frac

    @property
    def force(self) -> float | None:
        """Of a strike, against the person's full force [-]: the root of its energy. None where nothing is struck."""
        if self.power_percent is not None:
            return sqrt(self.power_percent / 100)
        return TEMPOS[self.tempo].force

    @property
    def doing(self) -> tuple[str, str]:
        """What is done, and what is said beside it, in words; the second may be empty.

        On its own modality (burpees, plank, reflex bag) the modality is what is done and the effort stands beside it,
        unless it goes without saying; on the common bag, which goes without saying, the effort is what is done.
        """
        effort = TEMPOS[self.tempo].word
        if self.modality in (None, COMMON_BAG):
            return effort, ""
        own = MODALITIES[str(self.modality)]
        return own.word, effort if own.strikes or own.tempo != self.tempo else ""

    def combination(self, turn: int = 1, of: int = 1) -> Combination | None:
        """What is struck in a repetition."""
        return self.drill.at(turn, of) if self.drill else None

    def reps_at(self, turn: int = 1) -> int | None:
        """Reps in a repetition; a ladder begins anew after its last step. None where it is dosed by time."""
        return self.reps[(turn - 1) % len(self.reps)] if self.reps else None

    def rep_s(self, turn: int = 1, of: int = 1) -> float:
        """Seconds a rep takes, an estimate: a pass with its reset, a single strike at the tempo's rate, a movement."""
        if not self.struck:
            return MODALITIES[str(self.modality)].rep_s or 1.0
        found = self.combination(turn, of)
        if found is not None and len(found.actions) > 1:
            return pass_s(found, self.tempo, self.reset_s)
        quickest_s = (TEMPOS[self.tempo].pace or 1.0) * found.actions[0].known.seconds if found else 0.0
        per_min = self.beat.per_min * self.beat.strikes if self.beat else TEMPOS[self.tempo].strikes_per_min
        if self.reset_s is not None:
            return quickest_s + self.reset_s
        return max(quickest_s, 60 / per_min)

    def passes(self) -> int:
        """Whole passes of what is struck in its seconds, at least one; of reps their number."""
        return self.reps_at() or max(1, int(self.length_s() / self.rep_s()))

    def length_s(self, turn: int = 1, of: int = 1) -> int:
        """Seconds of a repetition for one person; of reps an estimate."""
        if self.seconds is not None:
            return self.seconds
        return max(1, ceil((self.reps_at(turn) or 0) * self.rep_s(turn, of)))
