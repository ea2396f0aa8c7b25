"""A timeline: flat intervals with start times. Drawing, simulation, cues and volume all read it."""

from dataclasses import dataclass
from functools import cached_property

from yoisho.session.interval import Interval, SessionError
from yoisho.session.purposes import FRAMES
from yoisho.session.tree import LONGEST_SESSION_S, Node, Repeat, Sequence, check_size
from yoisho.strikes.combination import Combination
from yoisho.strikes.tempo import TEMPOS, Kind

Round = tuple[int, int]


@dataclass(frozen=True)
class TimelineInterval:
    start_s: int
    seconds: int
    """Of reps an estimate."""
    tempo: str
    rounds: tuple[Round, ...]
    """For every repeat around it, outermost first: which repetition (from 1), of how many."""
    path: tuple[int | str, ...]
    """Where the interval stands in the tree: indices of sequences, "body" and "between" of repeats."""
    source: Interval
    """The interval of the tree it comes from."""
    part: int = 0
    partner: bool = False
    """A rest while the partner does the same."""

    @property
    def kind(self) -> Kind:
        return TEMPOS[self.tempo].kind

    @property
    def end_s(self) -> int:
        return self.start_s + self.seconds

    @property
    def demand_frac(self) -> float:
        """Energy demand [x VO2max]."""
        return TEMPOS[self.tempo].demand_frac if self.partner else self.source.demand_frac

    @property
    def timed(self) -> bool:
        """Whether the clock ends it, the partner's turn too."""
        return self.source.timed

    @property
    def turn(self) -> Round:
        """Which repetition of the innermost repeat around it."""
        return self.rounds[-1] if self.rounds else (1, 1)

    @cached_property
    def combination(self) -> Combination | None:
        """What is struck in this repetition; None where it is left open, and where it is only shown."""
        return None if self.partner or self.source.shows else self.source.combination(*self.turn)

    @property
    def shown(self) -> Combination | None:
        """What is shown in it, strike by strike, while nobody works."""
        return self.source.combination(*self.turn) if self.source.shows else None

    @property
    def reps(self) -> int | None:
        """Reps of this repetition; None where it is dosed by time."""
        return None if self.partner else self.source.reps_at(self.turn[0])

    @property
    def pulse_per_min(self) -> float:
        """Beats a minute to strike to: as the coach fixes them, else the effort's own rate; 0 for none."""
        if self.partner or self.kind == "rest" or not self.source.struck:
            return 0.0
        beat = self.source.beat
        fixed = beat.per_min * beat.strikes if beat else self.source.per_min
        return float(fixed if fixed is not None else TEMPOS[self.tempo].strikes_per_min)

    @property
    def strikes_per_min_fixed(self) -> float | None:
        """Strikes a minute that the coach fixes, by a beat or by number; None where the effort says them."""
        source = self.source
        if source.per_min is not None:
            return float(source.per_min)
        if source.beat is None or self.reps is not None:
            return None
        each = self.combination.strikes if self.combination else 1
        return source.beat.per_min * source.beat.strikes * min(each, 1)

    @cached_property
    def strikes(self) -> float:
        """Strikes expected before any fade; where reps are struck, their exact number."""
        source = self.source
        if self.partner or not source.struck:
            return 0.0
        each = self.combination.strikes if self.combination else 1
        if self.reps is not None:
            return float(self.reps * each)
        if self.strikes_per_min_fixed is not None:
            return self.seconds / 60 * self.strikes_per_min_fixed
        if self.combination:
            return self.seconds / source.rep_s(*self.turn) * each
        return self.seconds / 60 * TEMPOS[self.tempo].strikes_per_min


@dataclass(frozen=True)
class Timeline:
    intervals: tuple[TimelineInterval, ...]
    purposes: tuple[str | None, ...] = ()
    """What each part is for; empty where nothing is known of parts."""

    def main(self, purpose: str | None = None) -> tuple[bool, ...]:
        """For every interval, whether it stands in a main part: one that states the purpose, where any does; else one
        that is neither warm-up nor cool-down, where any is."""
        known = self._mains.get(purpose)
        if known is None:
            known = self._mains[purpose] = self._found_main(purpose)
        return known

    @cached_property
    def _mains(self) -> dict[str | None, tuple[bool, ...]]:
        return {}

    def _found_main(self, purpose: str | None) -> tuple[bool, ...]:
        stated = {part for part, said in enumerate(self.purposes) if said is not None and said == purpose}
        framed = {part for part, said in enumerate(self.purposes) if said in FRAMES}
        for inside in (
            tuple(one.part in stated for one in self.intervals),
            tuple(one.part not in framed for one in self.intervals),
        ):
            if any(one.kind == "work" for one, is_in in zip(self.intervals, inside, strict=True) if is_in):
                return inside
        return (True,) * len(self.intervals)

    @property
    def total_s(self) -> int:
        return self.intervals[-1].end_s if self.intervals else 0

    @property
    def work_s(self) -> int:
        return sum(i.seconds for i in self.intervals if i.kind == "work")

    @property
    def rest_s(self) -> int:
        """Passive rest and active recovery together."""
        return self.total_s - self.work_s

    @property
    def strikes(self) -> float:
        """Strikes expected at the tempos' own rates, before any fade."""
        return sum(i.strikes for i in self.intervals)


def unroll(*parts: Node, purposes: tuple[str | None, ...] = (), sharing: int = 2) -> Timeline:
    """The timeline of parts done one after the other; of none an empty one. `purposes` are what the parts are for.

    `sharing` is how many take turns in work that is done in pairs, two or more: each of them does all of it, so that
    the clock is as many times as long. Raises `SessionError` if it is too long or too large.
    """
    for part in parts:
        check_size(part)
    if len(parts) > 1:
        check_size(Sequence(parts))
    flat: list[TimelineInterval] = []

    def add(node: Interval, part: int, rounds: tuple[Round, ...], path: tuple[int | str, ...]) -> None:
        start = flat[-1].end_s if flat else 0
        seconds = node.length_s(*(rounds[-1] if rounds else (1, 1)))
        flat.append(TimelineInterval(start, seconds, node.tempo, rounds, path, node, part))
        for other in range(1, sharing) if node.pairs else ():
            at = start + other * seconds
            flat.append(TimelineInterval(at, seconds, "rest", rounds, path, node, part, partner=True))

    def walk(node: Node, part: int, rounds: tuple[Round, ...], path: tuple[int | str, ...]) -> None:
        match node:
            case Interval():
                add(node, part, rounds, path)
            case Sequence():
                for index, item in enumerate(node.items):
                    walk(item, part, rounds, (*path, index))
            case Repeat():
                for turn in range(1, node.count + 1):
                    walk(node.body, part, (*rounds, (turn, node.count)), (*path, "body"))
                    if node.between and turn < node.count:
                        walk(node.between, part, (*rounds, (turn, node.count)), (*path, "between"))

    for index, part in enumerate(parts):
        walk(part, index, (), ())
    if flat and flat[-1].end_s > LONGEST_SESSION_S:
        raise SessionError(f"with {sharing} at one bag this lasts longer than 4 hours; share two bags, or shorten it")
    return Timeline(tuple(flat), purposes)
