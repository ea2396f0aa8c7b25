"""A session's rounds fitted to a rule set: length and rest are the rules', what is in them keeps its shape."""

from dataclasses import dataclass, replace

from yoisho.session.clock import clock
from yoisho.session.document import Part, Session
from yoisho.session.interval import Interval, SessionError
from yoisho.session.purposes import FRAMES
from yoisho.session.rules import RuleSet
from yoisho.session.tree import Node, Repeat, Sequence, duration_s

SHORTEST_ROUND_S = 45
SHORTEST_REST_S = 20
"""Repeats of shorter work or with shorter rests are drills inside a round, not rounds. Own settings."""
STEP_S = 5

Path = tuple[int | str, ...]


class RoundsError(SessionError):
    """A session whose rounds cannot be shaped by rules."""


@dataclass(frozen=True)
class Place:
    """Where the rounds stand: the part, and the way down its tree."""

    part: int
    path: Path


def _is_rounds(node: Repeat) -> bool:
    rest_s = node.between.seconds if node.between else None
    return (rest_s or 0) >= SHORTEST_REST_S and duration_s(node.body) >= SHORTEST_ROUND_S


def _rounds_in(node: Node, path: Path = ()) -> list[Path]:
    """The outermost rounds of a tree."""
    match node:
        case Repeat():
            return [path] if _is_rounds(node) else _rounds_in(node.body, (*path, "body"))
        case Sequence():
            return [found for i, item in enumerate(node.items) for found in _rounds_in(item, (*path, i))]
        case _:
            return []


def places(session: Session) -> tuple[Place, ...]:
    """Where the rounds of the main parts stand."""
    mains = ((i, part) for i, part in enumerate(session.parts) if part.purpose not in FRAMES)
    return tuple(Place(i, path) for i, part in mains for path in _rounds_in(part.tree))


def at(node: Node, path: Path) -> Node:
    for step in path:
        node = node.body if isinstance(node, Repeat) else node.items[int(step)]  # type: ignore[union-attr]
    return node


def put(node: Node, path: Path, change: Node) -> Node:
    if not path:
        return change
    first, *rest = path
    if isinstance(node, Repeat):
        return replace(node, body=put(node.body, tuple(rest), change))
    assert isinstance(node, Sequence)
    index = int(first)
    inner = put(node.items[index], tuple(rest), change)
    return Sequence((*node.items[:index], inner, *node.items[index + 1 :]))


def _steps(seconds: float) -> int:
    return max(STEP_S, STEP_S * round(seconds / STEP_S))


def fit(node: Node, seconds: int) -> Node:
    """The content of a round in so many seconds: efforts in proportion, repeats as often as they go in.

    Raises `RoundsError` for work that is counted in reps: it has no clock to fit.
    """
    match node:
        case Interval():
            if node.seconds is None:
                raise RoundsError("work counted in reps has no clock to fit to a round; give it seconds first")
            return replace(node, seconds=seconds)
        case Sequence():
            whole = duration_s(node)
            lengths = [_steps(duration_s(item) * seconds / whole) for item in node.items]
            lengths[lengths.index(max(lengths))] += seconds - sum(lengths)
            if min(lengths) < 1:
                raise RoundsError(f"so many different efforts do not go into a round of {clock(seconds)}")
            return Sequence(tuple(fit(item, length) for item, length in zip(node.items, lengths, strict=True)))
        case Repeat():
            pause_s = node.between.length_s() if node.between else 0
            body_s = duration_s(node.body)
            count = (seconds + pause_s) // (body_s + pause_s)
            if count < 1:
                return fit(node.body, seconds)
            left_s = seconds - (count * body_s + (count - 1) * pause_s)
            fitted = replace(node, count=count) if count > 1 else node.body
            return Sequence((fitted, Interval(left_s, "recover"))) if left_s else fitted


def to_rules(session: Session, rules: RuleSet) -> Session:
    """The session with the rules' rounds and rests, as many as fill the time of its own.

    Raises `RoundsError` where there are none to shape, or where they hold reps.
    """
    found = places(session)
    if not found:
        raise RoundsError(
            "there are no rounds here that rules could shape: work of 0:45 or more, several times, with rests between"
        )
    parts: list[Part] = list(session.parts)
    for place in found:
        part = parts[place.part]
        was = at(part.tree, place.path)
        assert isinstance(was, Repeat)
        own_s = duration_s(was) + (was.between.length_s() if was.between else 0)
        count = max(2, round(own_s / (rules.round_s + rules.rest_s)))
        shaped = Repeat(count, fit(was.body, rules.round_s), Interval(rules.rest_s, "rest"))
        parts[place.part] = replace(part, tree=put(part.tree, place.path, shaped))
    return replace(session, parts=tuple(parts))


def keeps_rules(session: Session, found: tuple[Place, ...], rules: RuleSet) -> bool:
    """Whether the rounds that stand there have the rules' length and rest."""
    for place in found:
        node = at(session.parts[place.part].tree, place.path)
        if not isinstance(node, Repeat) or duration_s(node.body) != rules.round_s:
            return False
        if node.between is None or node.between.seconds != rules.rest_s:
            return False
    return True
