"""The algebra of a session: `Interval`, `Sequence` and `Repeat`. Trees are never changed in place."""

from dataclasses import dataclass

from yoisho.session.tempo import TEMPOS, Kind

LONGEST_INTERVAL_S = 7200
MOST_REPEATS = 200
DEEPEST = 12
LONGEST_SESSION_S = 4 * 3600
MOST_INTERVALS = 5000


class SessionError(ValueError):
    """A session that makes no sense: what is wrong, and how to mend it."""


@dataclass(frozen=True)
class Interval:
    """One stretch at one tempo, dosed in whole seconds."""

    seconds: int
    tempo: str

    def __post_init__(self) -> None:
        if self.tempo not in TEMPOS:
            raise SessionError(f"'{self.tempo}' is not an effort; the efforts are {', '.join(TEMPOS)}")
        if isinstance(self.seconds, bool) or not isinstance(self.seconds, int):
            raise SessionError("an interval's length is a whole number of seconds")
        if not 1 <= self.seconds <= LONGEST_INTERVAL_S:
            raise SessionError(f"an interval lasts from 1 second to 2 hours, not {self.seconds} s")

    @property
    def kind(self) -> Kind:
        return TEMPOS[self.tempo].kind


@dataclass(frozen=True)
class Sequence:
    """Two things or more, in order."""

    items: tuple["Node", ...]

    def __post_init__(self) -> None:
        if len(self.items) < 2:
            raise SessionError("a sequence holds at least two things; use the one thing by itself")


@dataclass(frozen=True)
class Repeat:
    """The body `count` times, with `between` (a rest or a recovery) between repetitions, never after the last."""

    count: int
    body: "Node"
    between: Interval | None = None

    def __post_init__(self) -> None:
        if isinstance(self.count, bool) or not isinstance(self.count, int) or not 1 <= self.count <= MOST_REPEATS:
            raise SessionError(f"a repeat runs from 1 to {MOST_REPEATS} times, not {self.count}")
        if self.between is not None and self.between.kind == "work":
            raise SessionError("only rest or recover can stand between repetitions; put work inside the brackets")


Node = Interval | Sequence | Repeat


def sequence(items: list[Node]) -> Node:
    """The items in order: the item itself where there is only one."""
    return items[0] if len(items) == 1 else Sequence(tuple(items))


def duration_s(node: Node) -> int:
    """Seconds the node takes, computed without unrolling it."""
    match node:
        case Interval():
            return node.seconds
        case Sequence():
            return sum(duration_s(item) for item in node.items)
        case Repeat():
            pause = node.between.seconds if node.between else 0
            return node.count * duration_s(node.body) + (node.count - 1) * pause


def interval_count(node: Node) -> int:
    """Flat intervals the node unrolls to, computed without unrolling it."""
    match node:
        case Interval():
            return 1
        case Sequence():
            return sum(interval_count(item) for item in node.items)
        case Repeat():
            return node.count * interval_count(node.body) + (node.count - 1 if node.between else 0)


def depth(node: Node) -> int:
    match node:
        case Interval():
            return 1
        case Sequence():
            return 1 + max(depth(item) for item in node.items)
        case Repeat():
            return 1 + depth(node.body)


def check_size(node: Node) -> None:
    """Raise `SessionError` if the node is longer, larger or deeper than a session can be."""
    if depth(node) > DEEPEST:
        raise SessionError(f"brackets go at most {DEEPEST} deep; split the session into parts")
    if duration_s(node) > LONGEST_SESSION_S:
        raise SessionError("a session lasts at most 4 hours; use fewer repetitions or shorter work")
    if interval_count(node) > MOST_INTERVALS:
        raise SessionError(f"a session holds at most {MOST_INTERVALS} intervals; use fewer repetitions")
