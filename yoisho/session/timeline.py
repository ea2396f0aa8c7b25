"""A timeline: flat intervals with start times. Drawing, simulation, cues and volume all read it."""

from dataclasses import dataclass

from yoisho.session.tempo import TEMPOS
from yoisho.session.tree import Interval, Node, Repeat, Sequence, check_size

Round = tuple[int, int]


@dataclass(frozen=True)
class TimelineInterval:
    start_s: int
    seconds: int
    tempo: str
    rounds: tuple[Round, ...]
    """For every repeat around it, outermost first: which repetition (from 1), of how many."""
    path: tuple[int | str, ...]
    """Where the interval stands in the tree: indices of sequences, "body" and "between" of repeats."""
    part: int = 0

    @property
    def kind(self) -> str:
        return TEMPOS[self.tempo].kind

    @property
    def end_s(self) -> int:
        return self.start_s + self.seconds


@dataclass(frozen=True)
class Timeline:
    intervals: tuple[TimelineInterval, ...]

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
        return sum(i.seconds / 60 * TEMPOS[i.tempo].strikes_per_min for i in self.intervals)


def unroll(*parts: Node) -> Timeline:
    """The timeline of parts done one after the other. Raises `SessionError` if it is too long or too large."""
    for part in parts:
        check_size(part)
    check_size(Sequence(parts) if len(parts) > 1 else parts[0])
    flat: list[TimelineInterval] = []

    def walk(node: Node, part: int, rounds: tuple[Round, ...], path: tuple[int | str, ...]) -> None:
        match node:
            case Interval():
                start = flat[-1].end_s if flat else 0
                flat.append(TimelineInterval(start, node.seconds, node.tempo, rounds, path, part))
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
    return Timeline(tuple(flat))
