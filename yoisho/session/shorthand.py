"""The session shorthand: text to tree and back.

`read` takes what a coach types; `write` gives the canonical form, which `read` turns into the same tree again.
A rest behind a repeat stands between repetitions only; a rest inside the brackets belongs to every repetition;
`then` comes after the last. Bare numbers are seconds.
"""

import re
from dataclasses import dataclass, field
from difflib import get_close_matches
from functools import cache

from lark import Lark, Token, Transformer, UnexpectedInput, v_args
from lark.exceptions import UnexpectedCharacters, UnexpectedEOF, UnexpectedToken, VisitError

from yoisho.session.clock import clock
from yoisho.session.tempo import TEMPOS, tempo_spellings
from yoisho.session.tree import Interval, Node, Repeat, Sequence, SessionError, check_size, sequence

EXAMPLE = "8 x (20 all out / 10 rest)"
LONGEST_TEXT = 20_000

_GRAMMAR = r"""
start: sequence
sequence: SEP* item (join item)* SEP*
join: SEP+ THEN? | THEN
item: times* body between?
times: NUMBER TIMES
?body: dose effort?        -> interval
     | PAUSE dose          -> pause_first
     | "(" sequence ")"    -> group
between: PAUSE dose
dose: CLOCK | NUMBER UNIT?
?effort: EFFORT | PAUSE | WORD

CLOCK.5: /\d+:\d\d(?!\d)/
NUMBER: /\d+/
UNIT.4: /(seconds|second|secs|sec|s|minutes|minute|mins|min|m)(?![a-z])/i
TIMES.4: /(x|×|\*|times(?![a-z]))/i
SEP.3: /[,;\/\n]/
THEN.4: /then(?![a-z])/i
PAUSE.4: /(__PAUSE__|r(?=\s*\d))(?![a-z])/i
EFFORT.3: /(__EFFORT__)(?![a-z])/i
WORD: /[^\W\d_][\w-]*/
%ignore /[ \t\r\f]+/
"""

_EXPECTED = {
    "NUMBER": "a number",
    "CLOCK": "a time such as 0:30",
    "LPAR": "an opening bracket",
    "RPAR": "a closing bracket",
    "EFFORT": "an effort such as power",
    "PAUSE": "rest or recover",
    "TIMES": "x",
    "SEP": "a comma",
    "THEN": "then",
    "UNIT": "s or min",
}


class ShorthandError(SessionError):
    """A line that cannot be read: at which character, what was expected there, and an example."""

    def __init__(self, message: str, position: int, expected: tuple[str, ...] = (), suggestion: str | None = None):
        super().__init__(message)
        self.message = message
        self.position = position
        """Index of the character at fault, from 0."""
        self.expected = expected
        self.suggestion = suggestion
        """The nearest word that would have been read, if one is near."""
        self.example = EXAMPLE

    def as_dict(self) -> dict[str, object]:
        return {
            "message": self.message,
            "character": self.position + 1,
            "expected": list(self.expected),
            "suggestion": self.suggestion,
            "example": self.example,
        }


@dataclass
class _Item:
    """What stands between two separators, before bare numbers are given their meaning."""

    node: Node | None
    bare_s: int = 0
    position: int = 0
    counts: list[int] = field(default_factory=list)
    bracketed: bool = False
    between: Interval | None = None
    splice: bool = False


def _spelling_pattern(kinds: tuple[str, ...]) -> str:
    words = [word for word, tempo in tempo_spellings().items() if TEMPOS[tempo].kind in kinds]
    return "|".join(re.escape(word).replace(r"\ ", r"[\s-]*") for word in sorted(words, key=len, reverse=True))


@cache
def _parser() -> Lark:
    grammar = _GRAMMAR.replace("__PAUSE__", _spelling_pattern(("rest", "recover"))).replace(
        "__EFFORT__", _spelling_pattern(("work",))
    )
    return Lark(grammar, parser="lalr", propagate_positions=True, maybe_placeholders=False)


def _tempo_of(token: Token) -> str:
    word = " ".join(token.lower().split())
    if token.type == "PAUSE" and word == "r":
        return "rest"
    spellings = tempo_spellings()
    if word in spellings:
        return spellings[word]
    squeezed = {re.sub(r"[\s-]", "", known): tempo for known, tempo in spellings.items()}
    plain = re.sub(r"[\s-]", "", word)
    if plain in squeezed:
        return squeezed[plain]
    position = token.start_pos or 0
    nearest = get_close_matches(word, spellings, n=1, cutoff=0.6)
    suggestion = TEMPOS[spellings[nearest[0]]].word if nearest else None
    hint = f"Did you mean {suggestion}?" if suggestion else "Efforts are " + _effort_words() + "."
    raise ShorthandError(f"“{token}” is not an effort. {hint}", position, ("an effort",), suggestion)


def _effort_words() -> str:
    return ", ".join(tempo.word for tempo in TEMPOS.values())


def _at(position: int, error: SessionError) -> ShorthandError:
    text = str(error)
    return ShorthandError(text[0].upper() + text[1:] + ".", position)


class _Reader(Transformer[Token, Node]):
    """Turns lark's parse into nodes; the meaning of bare numbers is settled where the neighbours are known."""

    @v_args(inline=True)
    def dose(self, number: Token, unit: Token | None = None) -> Token:
        position = number.start_pos or 0
        if number.type == "CLOCK":
            minutes, seconds = (int(piece) for piece in number.split(":"))
            if seconds > 59:
                raise ShorthandError(f"{number} is not a time: seconds go from 00 to 59.", position, ("m:ss",))
            total = 60 * minutes + seconds
        else:
            if len(number) > 6:
                raise ShorthandError(f"{number[:12]} is too long a number for a time.", position)
            total = int(number) * (60 if unit is not None and unit.lower().startswith("m") else 1)
        return Token("DOSE", str(total), start_pos=position)

    def _interval(self, dose: Token, tempo: str) -> Interval:
        try:
            return Interval(int(dose), tempo)
        except SessionError as error:
            raise _at(dose.start_pos or 0, error) from error

    def interval(self, children: list[Token]) -> _Item:
        dose = children[0]
        position = dose.start_pos or 0
        if len(children) == 1:
            return _Item(None, bare_s=int(dose), position=position)
        return _Item(self._interval(dose, _tempo_of(children[1])), position=position)

    @v_args(inline=True)
    def pause_first(self, pause: Token, dose: Token) -> _Item:
        return _Item(self._interval(dose, _tempo_of(pause)), position=pause.start_pos or 0)

    @v_args(inline=True)
    def between(self, pause: Token, dose: Token) -> Interval:
        return self._interval(dose, _tempo_of(pause))

    def group(self, children: list[Node]) -> _Item:
        return _Item(children[0], bracketed=True)

    @v_args(inline=True)
    def times(self, number: Token, _times: Token) -> Token:
        return number

    def item(self, children: list[object]) -> _Item:
        item = next(child for child in children if isinstance(child, _Item))
        for count in (child for child in children if isinstance(child, Token)):
            if len(count) > 4 or not 1 <= int(count) <= 200:
                raise ShorthandError(f"A repeat runs from 1 to 200 times, not {count}.", count.start_pos or 0)
            item.counts.append(int(count))
        item.between = next((child for child in children if isinstance(child, Interval)), None)
        return item

    def join(self, tokens: list[Token]) -> str:
        return "then" if tokens[-1].type == "THEN" else ("/" if tokens[-1] == "/" else ",")

    def sequence(self, children: list[object]) -> Node:
        items: list[_Item] = []
        joins = [""]
        for child in children:
            if isinstance(child, _Item):
                items.append(child)
            elif isinstance(child, str) and not isinstance(child, Token):
                joins.append(child)
        return sequence([node for node in _settle(items, joins)])

    def start(self, children: list[Node]) -> Node:
        return children[0]


def _settle(items: list[_Item], joins: list[str]) -> list[Node]:
    """Give bare numbers their meaning: `20/10 all out`, `20 all out / 10` and `then 1:00`."""
    for before, item, join in zip(items, items[1:], joins[1:], strict=False):
        if join != "/":
            continue
        unbracketed = not item.counts and not item.bracketed and not item.between
        if before.node is None and isinstance(item.node, Interval) and item.node.kind == "work" and unbracketed:
            work = item.node
            before.node = Interval(before.bare_s, work.tempo)
            item.node, item.bare_s = None, work.seconds
    for item, join in zip(items, joins, strict=True):
        if item.node is None:
            if join not in ("/", "then") or item.counts:
                raise ShorthandError(
                    f"{clock(item.bare_s)} of what? Say an effort behind it, such as {item.bare_s} power.",
                    item.position,
                    ("an effort",),
                )
            try:
                item.node = Interval(item.bare_s, "rest")
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
        node = item.node
        for index, count in enumerate(reversed(item.counts)):
            outermost = index == len(item.counts) - 1
            node = Repeat(count, node, item.between if outermost else None)
        nodes.append(node)
        if item.between and not item.counts:
            nodes.append(item.between)
        previous = item
    return nodes


def _explain(text: str, error: UnexpectedInput) -> ShorthandError:
    position = len(text.rstrip()) if isinstance(error, UnexpectedEOF) else error.pos_in_stream
    names: set[str] = set()
    if isinstance(error, UnexpectedToken):
        names = set(error.accepts or error.expected)
        if error.token.type == "$END":
            position = len(text.rstrip())
        elif error.token.type == "WORD":
            try:
                _tempo_of(error.token)
            except ShorthandError as known:
                return known
    elif isinstance(error, UnexpectedCharacters):
        names = set(error.allowed or ())
    expected = tuple(words for name, words in _EXPECTED.items() if name in names)
    place = position or 0
    found = text[place : place + 1].strip()
    where = f"“{found}” at character {place + 1}" if found else "the end of the line"
    wanted = f"{', '.join(expected[:-1])} or {expected[-1]}" if len(expected) > 1 else "".join(expected)
    return ShorthandError(f"Found {where}, expected {wanted or 'a pattern'}.", place, expected)


def read(text: str) -> Node:
    """The tree that a line of shorthand means.

    Raises `ShorthandError` with the character at fault, what was expected there, and an example.
    """
    if not text.strip():
        raise ShorthandError("Nothing to read yet: type a pattern.", 0, ("a number",))
    if len(text) > LONGEST_TEXT:
        raise ShorthandError(f"A pattern has at most {LONGEST_TEXT} characters.", LONGEST_TEXT)
    try:
        node: Node = _Reader().transform(_parser().parse(text))
        check_size(node)
    except UnexpectedInput as error:
        raise _explain(text, error) from error
    except VisitError as error:
        if isinstance(error.orig_exc, ShorthandError):
            raise error.orig_exc from None
        raise
    except RecursionError:
        raise ShorthandError("Brackets go at most 12 deep; split the session into parts.", 0) from None
    except ShorthandError:
        raise
    except SessionError as error:
        raise _at(0, error) from error
    return node


def _write_dose(seconds: int) -> str:
    return str(seconds) if seconds < 60 else clock(seconds)


def _write_item(node: Node) -> str:
    match node:
        case Interval():
            return f"{_write_dose(node.seconds)} {TEMPOS[node.tempo].word}"
        case Sequence():
            return f"({', '.join(_write_item(item) for item in node.items)})"
        case Repeat():
            body = _write_item(node.body)
            inner = body if isinstance(node.body, Sequence) else f"({body})"
            pause = f" {TEMPOS[node.between.tempo].word} {clock(node.between.seconds)}" if node.between else ""
            return f"{node.count} × {inner}{pause}"


def write(node: Node) -> str:
    """The canonical form: `read(write(tree)) == tree`."""
    if not isinstance(node, Sequence):
        return _write_item(node)
    text = _write_item(node.items[0])
    for item in node.items[1:]:
        after = isinstance(item, Interval) and item.tempo == "rest"
        text += f"; then {clock(item.seconds)}" if after and isinstance(item, Interval) else f", {_write_item(item)}"
    return text
