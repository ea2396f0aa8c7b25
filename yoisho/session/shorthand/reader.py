"""Reading a line of shorthand: text to tree.

A rest behind a repeat stands between repetitions only; a rest inside the brackets belongs to every repetition; `then`
comes after the last. Bare numbers are seconds.
"""

import re
from collections.abc import Callable
from dataclasses import dataclass, field, replace
from difflib import get_close_matches
from functools import cache
from typing import Any

from lark import Lark, Token, Transformer, UnexpectedInput, v_args
from lark.exceptions import UnexpectedCharacters, UnexpectedEOF, UnexpectedToken

from yoisho.session.clock import clock
from yoisho.session.interval import Beat, HeartBand, Interval, RepeatingCue, SessionError
from yoisho.session.means import MEANS, means_spellings
from yoisho.session.shorthand.grammar import EXPECTED, KEYWORDS, parser, squeezed
from yoisho.session.tempo import TEMPOS, tempo_spellings
from yoisho.session.tree import MOST_REPEATS, Node, Repeat, Sequence, check_size, sequence
from yoisho.strikes import notation
from yoisho.strikes.combination import CombinationError
from yoisho.strikes.drill import Drill, one
from yoisho.strikes.line import LineError
from yoisho.strikes.schools import DEFAULT_SCHOOL

EXAMPLE = "8 x (20 all out / 10 rest)"
LONGEST_TEXT = 20_000
Change = Callable[[Interval], Interval]


class ShorthandError(LineError, SessionError):
    """A line of shorthand that cannot be read."""

    example = EXAMPLE


@dataclass
class _Dose:
    position: int
    seconds: int | None = None
    reps: tuple[int, ...] = ()
    bare: bool = False
    """A number alone: seconds, but reps of what is counted in reps, such as 20 push-ups."""
    strikes: bool = False
    """Said as strikes: a whole number of passes has to hold them."""


@dataclass
class _Item:
    """What stands between two separators, before bare numbers are given their meaning."""

    node: Node | None
    dose: _Dose | None = None
    position: int = 0
    counts: list[int] = field(default_factory=list)
    bracketed: bool = False
    between: Interval | None = None

    @property
    def alone(self) -> bool:
        return not self.counts and not self.bracketed and not self.between


def _at(position: int, error: ValueError) -> ShorthandError:
    text = str(error)
    return ShorthandError(text[0].upper() + text[1:] + ".", position)


@cache
def _tempos() -> dict[str, str]:
    return {squeezed(known): tempo for known, tempo in tempo_spellings().items()} | {"r": "rest"}


@cache
def _means() -> dict[str, str]:
    return {squeezed(known): means for known, means in means_spellings().items()}


def _words() -> list[str]:
    return [*tempo_spellings(), *means_spellings(), *KEYWORDS]


def _unknown(token: Token) -> ShorthandError:
    nearest = get_close_matches(token.lower(), _words(), n=1, cutoff=0.6)
    efforts = ", ".join(tempo.word for tempo in TEMPOS.values())
    hint = f"Did you mean {nearest[0]}?" if nearest else f"Efforts are {efforts}; means are bag, pads, shadow, skip ..."
    suggestion = nearest[0] if nearest else None
    said = "is not an effort" if not nearest or nearest[0] in tempo_spellings() else "is not a word of the shorthand"
    return ShorthandError(f"“{token}” {said}. {hint}", token.start_pos or 0, ("an effort",), suggestion)


def _bound(token: Token, most: int, what: str) -> int:
    if len(token) > 6 or int(token) > most:
        raise ShorthandError(f"{token[:12]} is too long a number for {what}.", token.start_pos or 0)
    return int(token)


class _Reader(Transformer[Token, Node]):
    """Makes nodes as the parser goes; the meaning of bare numbers is settled where the neighbours are known."""

    def __init__(self, school_id: str):
        super().__init__()
        self.school_id = school_id

    @v_args(inline=True)
    def dose(self, number: Token, unit: Token | None = None) -> _Dose:
        position = number.start_pos or 0
        if unit is not None and unit.type == "REPS":
            steps = re.split(r"\s*-\s*", number)
            if any(len(step) > 5 for step in steps):
                raise ShorthandError(f"{number[:12]} is too long a number for reps.", position)
            return _Dose(position, reps=tuple(int(step) for step in steps), strikes=unit.lower() == "strikes")
        if number.type == "CLOCK":
            minutes, seconds = number.split(":")
            if int(seconds) > 59:
                raise ShorthandError(f"{number} is not a time: seconds go from 00 to 59.", position, ("m:ss",))
            return _Dose(position, 60 * _bound(Token("NUMBER", minutes, position), 10**6, "a time") + int(seconds))
        minute = 60 if unit is not None and unit.lower().startswith("m") else 1
        return _Dose(position, _bound(number, 10**6, "a time") * minute, bare=unit is None)

    def _modifier(self, token: Token) -> tuple[str, Any]:
        position = token.start_pos or 0
        try:
            match token.type:
                case "EFFORT" | "PAUSE" | "PAUSE_FOR":
                    return "tempo", _tempos()[squeezed(re.sub(r"\s+for\s*$", "", token))]
                case "MEANS":
                    return "means", _means()[squeezed(re.sub(r"^(on|with)\s+(the\s+|a\s+)?", "", token.lower()))]
                case "DRILL":
                    return "drill", self._drill(token[1:-1], position + 1)
                case "COMBINATION":
                    return "drill", one(self._within(notation.read, str(token), position))
                case "LEAD":
                    left = token.lower().startswith(("left", "orthodox"))
                    return "lead", "left" if left else "right"
                case "PAIRS":
                    return "pairs", True
                case _:
                    low, high = (int(number) for number in re.findall(r"\d+", token)[:2])
                    return "band", HeartBand(low, high)
        except CombinationError as error:
            if isinstance(error, LineError):
                raise
            raise _at(position, error) from error
        except ShorthandError:
            raise
        except SessionError as error:
            raise _at(position, error) from error

    def _within(self, read: Callable[[str, str], Any], text: str, position: int) -> Any:
        try:
            return read(text, self.school_id)
        except notation.NotationError as error:
            place = position + error.position
            raise ShorthandError(error.message, place, error.expected, error.suggestion) from error

    def _drill(self, text: str, position: int) -> Drill:
        found: Drill = self._within(notation.read_drill, text, position)
        return found

    @v_args(inline=True)
    def switch(self, word: Token, how: Token, every: _Dose | None = None) -> tuple[str, Any]:
        if how.type == "EVERY":
            return "switch", self._seconds(every, word)
        return "switch", "half" if how.type == "HALF" else "call"

    @v_args(inline=True)
    def cue(self, word: Token, text: Token, _every: Token, dose: _Dose) -> tuple[str, Any]:
        try:
            return "cues", RepeatingCue(text.strip('"').strip(), self._seconds(dose, word))
        except ShorthandError:
            raise
        except SessionError as error:
            raise _at(word.start_pos or 0, error) from error

    def _seconds(self, dose: _Dose | None, token: Token) -> int:
        if dose is None or dose.seconds is None:
            raise ShorthandError("Every so many seconds, not reps: give a time such as 0:15.", token.start_pos or 0)
        return dose.seconds

    @v_args(inline=True)
    def beat(self, number: Token, rate: Token | None = None) -> tuple[str, Any]:
        per_min = int(re.findall(r"\d+", number)[0][:6])
        strikes = {"h": 0.5, "s": 1, "d": 2}[rate[0].lower()] if rate else 1
        try:
            return "beat", Beat(per_min, strikes)
        except SessionError as error:
            raise _at(number.start_pos or 0, error) from error

    @v_args(inline=True)
    def unknown(self, word: Token) -> None:
        raise _unknown(word)

    def _said(self, modifiers: list[object]) -> dict[str, Any]:
        """What the words behind a dose or a bracket say, by field; a cue may come more than once."""
        said: dict[str, Any] = {}
        for modifier in modifiers:
            name: str
            value: Any
            name, value = self._modifier(modifier) if isinstance(modifier, Token) else modifier  # type: ignore[misc]
            if name == "cues":
                said["cues"] = (*said.get("cues", ()), value)
            elif name in said:
                place = (modifier.start_pos or 0) if isinstance(modifier, Token) else 0
                raise ShorthandError(f"Two words for the same thing: the {_CALLED[name]} is said twice.", place)
            else:
                said[name] = value
        return said

    def _interval(self, dose: _Dose, said: dict[str, Any]) -> Interval:
        if "tempo" not in said:
            said["tempo"] = MEANS[said["means"]].tempo if "means" in said else "freestyle"
        counted = dose.bare and "means" in said and MEANS[said["means"]].rep_s is not None
        try:
            if counted:
                made = Interval(None, reps=(dose.seconds or 0,), **said)
            else:
                made = Interval(dose.seconds, reps=dose.reps, **said)
            return _in_passes(made, dose.position) if dose.strikes else made
        except ShorthandError:
            raise
        except SessionError as error:
            raise _at(dose.position, error) from error

    def interval(self, children: list[Any]) -> _Item:
        dose, *modifiers = children
        said = self._said(modifiers)
        if not said and dose.seconds is not None:
            return _Item(None, dose=dose, position=dose.position)
        if not {"tempo", "means", "drill", "beat"} & said.keys():
            raise _of_what(dose)
        return _Item(self._interval(dose, said), position=dose.position)

    @v_args(inline=True)
    def pause_first(self, pause: Token, dose: _Dose, means: Token | None = None) -> _Item:
        return _Item(self.between(pause, dose, means), position=pause.start_pos or 0)

    def _pause(self, pause: Token, dose: _Dose, means: Token | None = None) -> Interval:
        return self._interval(dose, self._said([pause] if means is None else [pause, means]))

    between = v_args(inline=True)(_pause)

    def group(self, children: list[Any]) -> _Item:
        node, *modifiers = children
        said = self._said(modifiers)
        for name in said:
            if name not in _OF_GROUPS:
                raise ShorthandError(
                    f"The {_CALLED[name]} is said for each interval, inside the brackets.",
                    next((m.start_pos or 0 for m in modifiers if isinstance(m, Token)), 0),
                )
        try:
            return _Item(_within_group(node, said) if said else node, bracketed=True)
        except SessionError as error:
            raise _at(next((m.start_pos or 0 for m in modifiers if isinstance(m, Token)), 0), error) from error

    @v_args(inline=True)
    def times(self, number: Token, _times: Token) -> Token:
        return number

    def item(self, children: list[object]) -> _Item:
        item = next(child for child in children if isinstance(child, _Item))
        for count in (child for child in children if isinstance(child, Token)):
            if len(count) > 4 or not 1 <= int(count) <= MOST_REPEATS:
                raise ShorthandError(f"A repeat runs from 1 to 200 times, not {count}.", count.start_pos or 0)
            item.counts.append(int(count))
        item.between = next((child for child in children if isinstance(child, Interval)), None)
        return item

    def join(self, tokens: list[Token]) -> str:
        return "then" if tokens[-1].type == "THEN" else ("/" if tokens[-1].startswith("/") else ",")

    def sequence(self, children: list[object]) -> Node:
        items: list[_Item] = []
        joins = [""]
        for child in children:
            if isinstance(child, _Item):
                items.append(child)
            elif isinstance(child, str) and not isinstance(child, Token):
                joins.append(child)
        try:
            return sequence(_settle(items, joins))
        except ShorthandError:
            raise
        except SessionError as error:
            raise _at(items[0].position, error) from error

    def start(self, children: list[Node]) -> Node:
        return children[0]


_CALLED = {"tempo": "effort", "means": "means", "drill": "combination", "lead": "lead side", "pairs": "word pairs",
           "band": "heart-rate target", "switch": "side switch", "beat": "beat", "cues": "cue"}  # fmt: skip
_OF_GROUPS = ("means", "drill", "lead", "pairs", "band", "switch")
"""What may be said once behind a bracket, for all the work inside that does not say it itself."""


def _within_group(node: Node, said: dict[str, Any]) -> Node:
    match node:
        case Interval():
            if node.kind != "work":
                return node
            return replace(node, **{name: value for name, value in said.items() if not getattr(node, name)})
        case Sequence():
            return Sequence(tuple(_within_group(item, said) for item in node.items))
        case Repeat():
            return replace(node, body=_within_group(node.body, said))


def _in_passes(interval: Interval, position: int) -> Interval:
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


def _of_what(dose: _Dose) -> ShorthandError:
    if dose.seconds is None:
        said = f"{'-'.join(str(step) for step in dose.reps)} reps"
        hint = f"{said} power or {said} push-ups"
        return ShorthandError(f"{said} of what? Say it behind, such as {hint}.", dose.position, ("an effort",))
    said = f"{clock(dose.seconds)} of what? Say an effort behind it, such as {dose.seconds} power."
    return ShorthandError(said, dose.position, ("an effort",))


def _settle(items: list[_Item], joins: list[str]) -> list[Node]:
    """Give bare numbers their meaning: `20/10 all out`, `20 all out / 10` and `then 1:00`."""
    for before, item, join in zip(items, items[1:], joins[1:], strict=False):
        if join != "/" or before.node is not None or not item.alone:
            continue
        work = item.node
        if isinstance(work, Interval) and work.kind == "work" and work.seconds is not None:
            assert before.dose is not None
            before.node = replace(work, seconds=before.dose.seconds)
            item.node, item.dose = None, _Dose(item.position, work.seconds)
    for item, join in zip(items, joins, strict=True):
        if item.node is None:
            assert item.dose is not None
            if join not in ("/", "then") or item.counts:
                raise _of_what(item.dose)
            try:
                item.node = Interval(item.dose.seconds, "rest")
            except SessionError as error:
                raise _at(item.position, error) from error
    nodes: list[Node] = []
    previous: _Item | None = None
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


def _repeated(item: _Item) -> Node:
    node = item.node
    assert node is not None
    if isinstance(node, Interval) and len(node.reps) > 1 and not item.counts and not item.bracketed and item.between:
        return Repeat(len(node.reps), node, _taken(item))
    for index, count in enumerate(reversed(item.counts)):
        outermost = index == len(item.counts) - 1
        node = Repeat(count, node, item.between if outermost else None)
    return node


def _taken(item: _Item) -> Interval | None:
    between, item.between = item.between, None
    return between


def _explain(text: str, error: UnexpectedInput) -> ShorthandError:
    position = len(text.rstrip()) if isinstance(error, UnexpectedEOF) else error.pos_in_stream
    names: set[str] = set()
    if isinstance(error, UnexpectedToken):
        names = set(error.accepts or error.expected)
        if error.token.type == "$END":
            position = len(text.rstrip())
        elif error.token.type == "WORD":
            return _unknown(error.token)
    elif isinstance(error, UnexpectedCharacters):
        names = set(error.allowed or ())
    last = (getattr(error, "token_history", None) or [None])[-1]
    if last is not None and last.type == "WORD":
        return _unknown(last)
    expected = tuple(words for name, words in EXPECTED.items() if name in names)
    place = position or 0
    found = text[place : place + 1].strip()
    if found == "[" and "DRILL" in names:
        return ShorthandError("This combination is not closed: put ] behind it.", place, ("]",))
    if found == "@" and "BAND" in names:
        return ShorthandError("A heart-rate target reads @80-90%HR.", place, ("@80-90%HR",))
    where = f"“{found}” at character {place + 1}" if found else "the end of the line"
    wanted = f"{', '.join(expected[:-1])} or {expected[-1]}" if len(expected) > 1 else "".join(expected)
    return ShorthandError(f"Found {where}, expected {wanted or 'a pattern'}.", place, expected)


@cache
def parser_in(school_id: str) -> Lark:
    """The parser that makes nodes, for a numbering school."""
    return parser(_Reader(school_id))


def read(text: str, school_id: str = DEFAULT_SCHOOL) -> Node:
    """The tree that a line of shorthand means; the school says which punches its numbers are.

    Raises `ShorthandError` with the character at fault, what was expected there, and an example.
    """
    if not text.strip():
        raise ShorthandError("Nothing to read yet: type a pattern.", 0, ("a number",))
    if len(text) > LONGEST_TEXT:
        raise ShorthandError(f"A pattern has at most {LONGEST_TEXT} characters.", LONGEST_TEXT)
    try:
        node: Node = parser_in(school_id).parse(text)  # type: ignore[assignment]
        check_size(node)
    except UnexpectedInput as error:
        raise _explain(text, error) from error
    except RecursionError:
        raise ShorthandError("Brackets go at most 12 deep; split the session into parts.", 0) from None
    except ShorthandError:
        raise
    except SessionError as error:
        raise _at(0, error) from error
    return node
