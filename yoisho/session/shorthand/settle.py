"""Giving bare numbers their meaning, once their neighbours are known: `20/10 all out`, `20 push-ups`, `then 1:00`."""

from dataclasses import dataclass, field, replace
from typing import Any

from yoisho.session.clock import clock
from yoisho.session.interval import Interval
from yoisho.session.shorthand.faults import ShorthandError, placed
from yoisho.session.tree import Node, Repeat, saying

HARDLY_SECONDS = 5
"""A bare number up to this could be seconds or minutes."""
_ROUND_S = 60
"""A time from which rounds of it are a round's work, with no effort said."""
OPEN_S = 300
"""What open-ended work is taken to last where nothing is said. Own setting."""
UNSAID = "freestyle"
"""The effort of rounds that say none."""


@dataclass
class Dose:
    position: int
    seconds: int | None = None
    reps: tuple[int, ...] = ()
    bare: bool = False
    """A number alone: seconds, but reps of what is counted in reps, such as 20 push-ups."""
    of_strikes: bool = False
    """What is struck stands right behind it: 40 jabs are counted."""
    strikes: bool = False
    """Said as strikes: a whole number of passes has to hold them."""
    open_ended: bool = False
    """Until the coach says so; the seconds are for the estimates."""

    @property
    def unsure(self) -> bool:
        """Whether nobody can tell seconds from minutes."""
        return self.bare and self.seconds is not None and self.seconds <= HARDLY_SECONDS


@dataclass
class Item:
    """What stands between two separators, before bare numbers are given their meaning."""

    node: Node | None
    dose: Dose | None = None
    position: int = 0
    counts: list[int] = field(default_factory=list)
    bracketed: bool = False
    between: Interval | None = None
    is_between: bool = False
    """Said to stand between the rounds before it."""
    time: Dose | None = None
    """Its length as it was typed, where it is a time that a slip of seconds for minutes could change."""

    @property
    def alone(self) -> bool:
        return not self.counts and not self.bracketed and not self.between

    @property
    def alone_in_steps(self) -> int:
        """The steps of a ladder that nothing repeats; 0 where it is none."""
        steps = len(self.node.reps) if isinstance(self.node, Interval) else 0
        return steps if steps > 1 and not self.counts and not self.bracketed else 0

    @property
    def plain_rest(self) -> bool:
        """Whether it is a rest of some seconds and nothing else, however often."""
        found = self.node
        return isinstance(found, Interval) and found.kind == "rest" and found == Interval(found.seconds, "rest")

    def say(self, said: dict[str, Any]) -> None:
        """What is said of it behind a comma."""
        if self.node is None:
            assert self.dose is not None
            raise of_what(self.dose)
        with placed(self.position):
            self.node = saying(self.node, said)

    @property
    def pause(self) -> Interval | None:
        """The rest or recovery that it is, and nothing else."""
        found = self.node
        return found if isinstance(found, Interval) and found.kind != "work" and self.alone else None


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
    if dose.open_ended:
        return ShorthandError("Open-ended what? Say an effort behind it, such as open technique.", dose.position)
    said = f"{clock(dose.seconds)} of what? Say an effort behind it, such as {clock(dose.seconds)} power."
    if dose.unsure:
        said += f" Bare numbers are seconds; for minutes write {dose.seconds}:00."
    return ShorthandError(said, dose.position, ("an effort",))


def seconds_or_minutes(dose: Dose) -> ShorthandError:
    s = "" if dose.seconds == 1 else "s"
    said = f"{dose.seconds} second{s} or {dose.seconds} minute{s}? Write {dose.seconds}s or {dose.seconds}:00."
    return ShorthandError(said, dose.position, (f"{dose.seconds}s", f"{dose.seconds}:00"))


def _where(rest: Interval, position: int) -> ShorthandError:
    length = clock(rest.length_s())
    said = f"Rest between the rounds, or once after the last? Between: rest {length} behind the rounds, with no comma. "
    return ShorthandError(said + f"Once after: then {length}.", position, (f"rest {length}", f"then {length}"))


def _whose(rounds: Item, item: Item) -> ShorthandError:
    many = rounds.counts[-1]
    said = f"Is this done in each of the {many} rounds, or once after them? In each: {many} x (... / ...). Once after: "
    return ShorthandError(said + "put a comma before it.", item.position, ("a comma", "an opening bracket"))


def _ask(items: list[Item], joins: list[str]) -> None:
    """Refuses what could mean two things: a small number with no other beside it that says seconds, and a last rest
    behind a comma that could stand between the rounds."""
    times = [item.time for item in items if item.time is not None]
    if not any(time.bare and not time.unsure for time in times):
        for time in times:
            if time.unsure:
                raise seconds_or_minutes(time)
    if len(items) > 1 and joins[-1] == "," and items[-2].counts and not items[-2].between:
        rest = items[-1].pause
        if rest is not None and items[-1].plain_rest and not items[-1].is_between:
            raise _where(rest, items[-1].position)
    for before, item, join in zip(items, items[1:], joins[1:], strict=False):
        repeated = before.node is not None and before.counts and not before.bracketed and not before.between
        if join == "/" and repeated and item.node is not None and not item.pause:
            raise _whose(before, item)


def settle(items: list[Item], joins: list[str], unsaid: str | None = None) -> list[Node]:
    """Give bare numbers their meaning: `20/10 all out`, `20 all out / 10` and `then 1:00`."""
    _ask(items, joins)
    for before, item, join in zip(items, items[1:], joins[1:], strict=False):
        if join != "/" or before.node is not None or not item.alone:
            continue
        work = item.node
        if isinstance(work, Interval) and work.kind == "work" and work.seconds is not None and not work.open_ended:
            assert before.dose is not None
            before.node = replace(work, seconds=before.dose.seconds)
            item.node, item.dose = None, Dose(item.position, work.seconds)
    for item, join in zip(items, joins, strict=True):
        if item.node is None:
            assert item.dose is not None
            with placed(item.position):
                if item.counts and (item.dose.seconds or 0) >= _ROUND_S:
                    item.node = Interval(item.dose.seconds, unsaid or UNSAID)
                elif join in ("/", "then") and not item.counts:
                    item.node = Interval(item.dose.seconds, "rest")
                elif unsaid is not None:
                    item.node = Interval(item.dose.seconds, unsaid)
                else:
                    raise of_what(item.dose)
    nodes: list[Node] = []
    previous: Item | None = None
    for item, join in zip(items, joins, strict=True):
        assert item.node is not None
        free = previous is not None and previous.counts and not previous.between
        beside = item.is_between or (join == "/" and previous is not None and not previous.bracketed)
        if item.pause and free and beside and previous:
            repeat = nodes[-1]
            assert isinstance(repeat, Repeat)
            nodes[-1] = Repeat(repeat.count, repeat.body, item.pause)
            previous.between = item.pause
            continue
        if item.is_between:
            raise ShorthandError("Between what? Rounds stand before it, such as 6 x 1:00 power.", item.position)
        nodes.append(_repeated(item))
        if item.between and not item.counts:
            nodes.append(item.between)
        previous = item
    return nodes


def _repeated(item: Item) -> Node:
    node = item.node
    assert node is not None
    for index, count in enumerate(reversed(item.counts)):
        outermost = index == len(item.counts) - 1
        node = Repeat(count, node, item.between if outermost else None)
    return node
