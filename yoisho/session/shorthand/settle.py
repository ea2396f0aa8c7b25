"""Giving bare numbers their meaning, once their neighbours are known: `20/10 all out`, `20 push-ups`, `then 1:00`."""

from dataclasses import dataclass, field, replace
from typing import Any

from yoisho.session.clock import clock
from yoisho.session.interval import Interval
from yoisho.session.shorthand.faults import ShorthandError, placed
from yoisho.session.tree import Node, Repeat, Sequence

_HARDLY_SECONDS = 5
"""A bare number up to this was hardly meant as seconds."""


@dataclass
class Dose:
    position: int
    seconds: int | None = None
    reps: tuple[int, ...] = ()
    bare: bool = False
    """A number alone: seconds, but reps of what is counted in reps, such as 20 push-ups."""
    strikes: bool = False
    """Said as strikes: a whole number of passes has to hold them."""


@dataclass
class Item:
    """What stands between two separators, before bare numbers are given their meaning."""

    node: Node | None
    dose: Dose | None = None
    position: int = 0
    counts: list[int] = field(default_factory=list)
    bracketed: bool = False
    between: Interval | None = None

    @property
    def alone(self) -> bool:
        return not self.counts and not self.bracketed and not self.between


def within_group(node: Node, said: dict[str, Any]) -> Node:
    match node:
        case Interval():
            if node.kind != "work":
                return node
            return replace(node, **{name: value for name, value in said.items() if not getattr(node, name)})
        case Sequence():
            return Sequence(tuple(within_group(item, said) for item in node.items))
        case Repeat():
            return replace(node, body=within_group(node.body, said))


def in_passes(interval: Interval, position: int) -> Interval:
    """Strikes as passes: 200 strikes of a combination of two are 100 reps."""
    if not interval.struck:
        raise ShorthandError("There are no strikes in it: say reps.", position)
    if interval.drill is None:
        return interval
    each = {found.strikes for found in interval.drill.combinations}
    count = next(iter(each))
    if len(each) > 1 or interval.drill.order != "turns" or not count or any(reps % count for reps in interval.reps):
        raise ShorthandError("Strikes must fill whole passes of the combination: say how many reps of it.", position)
    return replace(interval, reps=tuple(reps // count for reps in interval.reps))


def of_what(dose: Dose) -> ShorthandError:
    if dose.seconds is None:
        said = f"{'-'.join(str(step) for step in dose.reps)} reps"
        hint = f"{said} power or {said} push-ups"
        return ShorthandError(f"{said} of what? Say it behind, such as {hint}.", dose.position, ("an effort",))
    said = f"{clock(dose.seconds)} of what? Say an effort behind it, such as {clock(dose.seconds)} power."
    if dose.bare and dose.seconds <= _HARDLY_SECONDS:
        said += f" Bare numbers are seconds; for minutes write {dose.seconds}:00."
    return ShorthandError(said, dose.position, ("an effort",))


def settle(items: list[Item], joins: list[str]) -> list[Node]:
    """Give bare numbers their meaning: `20/10 all out`, `20 all out / 10` and `then 1:00`."""
    for before, item, join in zip(items, items[1:], joins[1:], strict=False):
        if join != "/" or before.node is not None or not item.alone:
            continue
        work = item.node
        if isinstance(work, Interval) and work.kind == "work" and work.seconds is not None:
            assert before.dose is not None
            before.node = replace(work, seconds=before.dose.seconds)
            item.node, item.dose = None, Dose(item.position, work.seconds)
    for item, join in zip(items, joins, strict=True):
        if item.node is None:
            assert item.dose is not None
            if join not in ("/", "then") or item.counts:
                raise of_what(item.dose)
            with placed(item.position):
                item.node = Interval(item.dose.seconds, "rest")
    nodes: list[Node] = []
    previous: Item | None = None
    for item, join in zip(items, joins, strict=True):
        assert item.node is not None
        pause = isinstance(item.node, Interval) and item.node.kind != "work" and not item.counts and not item.bracketed
        if join == "/" and pause and previous and previous.counts and not previous.bracketed and not previous.between:
            assert isinstance(item.node, Interval)
            repeat = nodes[-1]
            assert isinstance(repeat, Repeat)
            nodes[-1] = Repeat(repeat.count, repeat.body, item.node)
            previous.between = item.node
            continue
        nodes.append(_repeated(item))
        if item.between and not item.counts:
            nodes.append(item.between)
        previous = item
    return nodes


def _repeated(item: Item) -> Node:
    node = item.node
    assert node is not None
    if isinstance(node, Interval) and len(node.reps) > 1 and not item.counts and not item.bracketed and item.between:
        return Repeat(len(node.reps), node, _taken(item))
    for index, count in enumerate(reversed(item.counts)):
        outermost = index == len(item.counts) - 1
        node = Repeat(count, node, item.between if outermost else None)
    return node


def _taken(item: Item) -> Interval | None:
    between, item.between = item.between, None
    return between
