"""The algebra of a session: `Interval`, `Sequence` and `Repeat`. Trees are never changed in place.

What changes from repetition to repetition (the steps of a ladder, the combinations of a drill) follows the innermost
repeat around the interval.
"""

from dataclasses import dataclass, replace
from typing import Annotated, Any

from yoisho.plain import Expected, Length, Within, unsaid
from yoisho.session.interval import Interval, SessionError

MOST_REPEATS = 200
MOST_ITEMS = 500
DEEPEST = 12
LONGEST_SESSION_S = 4 * 3600
MOST_INTERVALS = 5000


@dataclass(frozen=True)
class Sequence:
    """Two things or more, in order."""

    items: Annotated[tuple["Node", ...], Length(2, MOST_ITEMS)]

    def __post_init__(self) -> None:
        if len(self.items) < 2:
            raise SessionError("a sequence holds at least two things; use the one thing by itself", "items")


@dataclass(frozen=True)
class Repeat:
    """The body `count` times, with `between` (a rest or a recovery) between repetitions, never after the last."""

    count: Annotated[int, Within(1, MOST_REPEATS)]
    body: "Node"
    between: Annotated[Interval | None, Expected("expected one interval of rest or recover")] = None

    def __post_init__(self) -> None:
        if isinstance(self.count, bool) or not isinstance(self.count, int) or not 1 <= self.count <= MOST_REPEATS:
            raise SessionError(f"a repeat runs from 1 to {MOST_REPEATS} times, not {self.count}", "count")
        if self.between is not None and self.between.kind == "work":
            raise SessionError(
                "only rest or recover can stand between repetitions; put work inside the brackets", "between"
            )
        if self.between is not None and not _time_and_modality_only(self.between):
            raise SessionError("what stands between repetitions has a time and a modality, and no more", "between")


def _time_and_modality_only(pause: Interval) -> bool:
    return pause.seconds is not None and pause == Interval(pause.seconds, pause.tempo, modality=pause.modality)


Node = Interval | Sequence | Repeat


def sequence(items: list[Node]) -> Node:
    """The items in order: the item itself where there is only one."""
    return items[0] if len(items) == 1 else Sequence(tuple(items))


def saying(node: Node, said: dict[str, Any]) -> Node:
    """The node with something said, by field, of all work inside that does not say it itself."""
    match node:
        case Interval():
            if node.kind != "work":
                return node
            return replace(node, **{name: value for name, value in said.items() if unsaid(getattr(node, name))})
        case Sequence():
            return Sequence(tuple(saying(item, said) for item in node.items))
        case Repeat():
            return replace(node, body=saying(node.body, said))


def duration_s(node: Node) -> int:
    """Seconds the node takes, computed without unrolling it; reps are estimated."""
    return _over(node, 1)


def _over(node: Node, turns: int) -> int:
    """Seconds of the node over the repetitions of the repeat around it."""
    match node:
        case Interval():
            varies = len(node.reps) > 1 or (node.reps and node.drill)
            length = (
                sum(node.length_s(turn, turns) for turn in range(1, turns + 1)) if varies else turns * node.length_s()
            )
            return length * (2 if node.pairs else 1)
        case Sequence():
            return sum(_over(item, turns) for item in node.items)
        case Repeat():
            pause = node.between.length_s() if node.between else 0
            return turns * (_over(node.body, node.count) + (node.count - 1) * pause)


def interval_count(node: Node) -> int:
    """Flat intervals the node unrolls to, computed without unrolling it."""
    match node:
        case Interval():
            return 2 if node.pairs else 1
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
