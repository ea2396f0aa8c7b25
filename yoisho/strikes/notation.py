"""The notation of combinations: text to techniques and back.

`read` takes what a coach types, `write` gives the canonical form in a school, which `read` turns into the same again.
Numbers are punches (`1-2-3b`, b for the body), `rk` and `lk` a right or left round kick with -h, -m or -l for its
height; everything else is trade words, with lead, rear, left or right before and head, body or leg behind. `5x` before
one technique is that technique five times. A drill is combinations with `|` between, and an order before them.
"""

import re
from difflib import get_close_matches
from functools import cache, lru_cache
from itertools import groupby, pairwise

from lark import Lark, Token, Transformer, UnexpectedInput, v_args
from lark.exceptions import UnexpectedToken, VisitError

from yoisho.plain import sentence
from yoisho.strikes.combination import MOST_ACTIONS, Action, Combination, CombinationError, action
from yoisho.strikes.drill import Drill, Order
from yoisho.strikes.line import LineError, position_of
from yoisho.strikes.schools import DEFAULT_SCHOOL, SCHOOLS, School
from yoisho.strikes.techniques import TECHNIQUES, Height, Side, spellings

EXAMPLE = "1-2-3b, slip, 2"
LONGEST_TEXT = 2_000
_EITHER_SIDE = ("left", "right", "lead", "rear")
_SIDES: dict[str, Side] = {"l": "left", "r": "right"}
_LEVELS: dict[str, Height] = {
    "h": "head", "head": "head", "high": "head", "b": "body", "m": "body", "body": "body", "middle": "body",
    "l": "leg", "leg": "leg", "low": "leg",
}  # fmt: skip
_SAME_FROM = 4
"""The same technique so many times running is written with its count."""
_NUMBERED = re.compile(r"\d+b?")
_HEIGHTS: dict[Height, str] = {"head": "h", "body": "m", "leg": "l"}

_GRAMMAR = r"""
start: group (THEN group)*
group: SEP* several (SEP* several)* SEP*
several: TIMES? action
action: NUMBER height?            -> numbered
      | SIDE_KICK height?         -> kick
      | LEVELLED                  -> levelled
      | SIDE? TECHNIQUE height?   -> named
      | WORD                     -> unknown
height: HEIGHT | LEVEL

NUMBER: /\d+/
TIMES.6: /\d+\s*[x×*](?![a-z])/i
SIDE_KICK.5: /[rl]k(?![a-z])/i
LEVELLED.7: /(low|leg|body|middle|high|head)[\s-]+((left|right|lead|rear)\s+)?(round\s+)?kick(?![a-z])/i
HEIGHT.6: /-\s*[hml](?![a-z0-9])/i
SIDE.4: /(lead|rear|left|right)(?![a-z])/i
LEVEL.4: /(to\s+(the\s+)?)?(head|body|leg|high|middle|low|b)(?![a-z])/i
TECHNIQUE.5: /(__TECHNIQUE__)(?![a-z])/i
THEN.5: /then(?![a-z])/i
SEP.2: /[-,+;]/
WORD.1: /[^\W\d_]+/
%ignore /\s+/
"""


class NotationError(LineError, CombinationError):
    """A combination that cannot be read."""

    example = EXAMPLE


@cache
def _parser() -> Lark:
    words = sorted(spellings(), key=len, reverse=True)
    pattern = "|".join(re.escape(word).replace(r"\ ", r"[\s-]+").replace(r"\-", r"[\s-]+") for word in words)
    return Lark(_GRAMMAR.replace("__TECHNIQUE__", pattern), parser="lalr", maybe_placeholders=False)


def _height_of(token: Token) -> Height:
    return _LEVELS[re.sub(r"^(to\s+(the\s+)?|-\s*)", "", token.lower())]


def _at(token: Token, error: CombinationError) -> NotationError:
    return NotationError(sentence(error), position_of(token))


class _Reader(Transformer[Token, Combination]):
    def __init__(self, school: School):
        super().__init__()
        self.school = school

    def height(self, tokens: list[Token]) -> Token:
        return tokens[0]

    def numbered(self, tokens: list[Token]) -> Action:
        number = tokens[0]
        named = self.school.numbers.get(int(number)) if len(number) < 4 else None
        if named is None:
            last = max(self.school.numbers)
            message = f"{number} is no punch in this school: the numbers go from 1 to {last}."
            raise NotationError(message, position_of(number))
        if len(tokens) == 1:
            return named
        return self._action(tokens[0], named.technique, named.side, _height_of(tokens[1]))

    def kick(self, tokens: list[Token]) -> Action:
        height = _height_of(tokens[1]) if len(tokens) > 1 else None
        return self._action(tokens[0], "round-kick", _SIDES[tokens[0][0].lower()], height)

    def levelled(self, tokens: list[Token]) -> Action:
        height, *others = re.split(r"[\s-]+", tokens[0].lower())
        side = others[0] if others[0] in _EITHER_SIDE else None
        return self._action(tokens[0], "round-kick", side, _LEVELS[height])  # type: ignore[arg-type]

    def named(self, tokens: list[Token]) -> Action:
        by_type = {token.type: token for token in tokens}
        word = re.sub(r"[\s-]+", " ", by_type["TECHNIQUE"].lower())
        known = spellings()
        technique = known.get(word) or known[word.replace(" ", "-")]
        side = by_type.get("SIDE")
        height = by_type.get("LEVEL") or by_type.get("HEIGHT")
        return self._action(
            tokens[0], technique, side and side.lower(), _height_of(height) if height else None  # type: ignore[arg-type]
        )  # fmt: skip

    def _action(self, token: Token, technique: str, side: Side | None, height: Height | None) -> Action:
        try:
            return action(technique, side, height)
        except CombinationError as error:
            raise _at(token, error) from error

    @v_args(inline=True)
    def unknown(self, word: Token) -> Action:
        near = get_close_matches(word.lower(), [*spellings(), "lead", "rear", "left", "right", "then"], n=1, cutoff=0.6)
        hint = f"Did you mean {near[0]}?" if near else "Techniques are " + ", ".join(
            technique.word for technique in TECHNIQUES.values()) + "."  # fmt: skip
        suggestion = near[0] if near else None
        raise NotationError(f"“{word}” is not a technique. {hint}", position_of(word), ("a technique",), suggestion)

    def several(self, children: list[object]) -> tuple[Action, ...]:
        *counts, found = children
        assert isinstance(found, Action)
        if not counts:
            return (found,)
        token = counts[0]
        assert isinstance(token, Token)
        digits = token.rstrip("xX×* \t\n")
        if len(digits) > 3 or not 1 <= int(digits) <= MOST_ACTIONS:
            raise NotationError(f"A technique is done 1 to {MOST_ACTIONS} times, not {digits}.", position_of(token))
        return (found,) * int(digits)

    def group(self, children: list[object]) -> tuple[Action, ...]:
        return tuple(action for child in children if isinstance(child, tuple) for action in child)

    def start(self, children: list[object]) -> Combination:
        return Combination(tuple(child for child in children if isinstance(child, tuple)))


def read(text: str, school_id: str = DEFAULT_SCHOOL) -> Combination:
    """The combination that a line means in a numbering school.

    Raises `NotationError` with the character at fault, what was expected there, and an example.
    """
    if not text.strip():
        raise NotationError("Nothing to read yet: type a combination.", 0)
    if len(text) > LONGEST_TEXT:
        raise NotationError(f"A combination has at most {LONGEST_TEXT} characters.", LONGEST_TEXT)
    try:
        found: Combination = _Reader(SCHOOLS[school_id]).transform(_parser().parse(text))
        return found
    except UnexpectedInput as error:
        ended = isinstance(error, UnexpectedToken) and error.token.type == "$END"
        position = len(text.rstrip()) if ended else (error.pos_in_stream or 0)
        found_there = "the end of the line" if ended else f"“{text[position]}” at character {position + 1}"
        raise NotationError(f"Found {found_there}, expected a number or a technique.", position) from error
    except VisitError as error:
        if isinstance(error.orig_exc, NotationError):
            raise error.orig_exc from None
        if isinstance(error.orig_exc, CombinationError):
            raise NotationError(str(error.orig_exc), 0) from error
        raise


def _write_one(one: Action, school: School) -> str:
    number = school.number_of(one)
    if number is not None:
        return str(number)
    known = one.known
    if one.height == "body" and known.kind == "punch":
        number = school.number_of(Action(one.technique, one.side, "head"))
        if number is not None:
            return f"{number}b"
    if one.technique == "round-kick" and one.side in ("left", "right") and one.height:
        return f"{one.side[0]}k-{_HEIGHTS[one.height]}"
    side = f"{one.side} " if one.side and len(known.sides) > 1 else ""
    height = f" {one.height}" if one.height and one.height != known.heights[0] else ""
    return f"{side}{known.word}{height}"


_ORDERS: dict[str, Order] = {"adding": "adding", "pyramid": "pyramid", "draw": "draw"}


@lru_cache(maxsize=2000)
def read_drill(text: str, school_id: str = DEFAULT_SCHOOL) -> Drill:
    """The drill that a line means: `1-2 | 3-2`, `adding 5-2-4 | 1-3-2`, `draw 1-2 | 3-2 | recall`.

    Raises `NotationError` with the character at fault, what was expected there, and an example.
    """
    order: Order = "turns"
    start = 0
    word = re.match(r"\s*(adding|pyramid|draw)(?![a-z])", text, re.IGNORECASE)
    if word:
        order, start = _ORDERS[word[1].lower()], word.end()
    combinations = []
    recall = False
    pieces = text[start:].split("|")
    for index, piece in enumerate(pieces):
        if len(pieces) > 1 and index == len(pieces) - 1 and piece.strip().lower() == "recall":
            recall = True
        else:
            try:
                combinations.append(read(piece, school_id))
            except NotationError as error:
                raise error.moved(start, NotationError) from error
        start += len(piece) + 1
    try:
        return Drill(tuple(combinations), order, recall)
    except CombinationError as error:
        raise NotationError(sentence(error), 0) from error


def write_drill(drill: Drill, school_id: str = DEFAULT_SCHOOL) -> str:
    """The canonical form of a drill in a school."""
    pieces = [write(each, school_id) for each in drill.combinations] + ["recall"] * drill.recall
    order = "" if drill.order == "turns" else f"{drill.order} "
    return order + " | ".join(pieces)


def _write_group(group: tuple[Action, ...], school: School) -> str:
    words = []
    for same in groupby(_write_one(one, school) for one in group):
        word, count = same[0], len(list(same[1]))
        words += [f"{count}x {word}"] if count >= _SAME_FROM else [word] * count
    text = words[0]
    for before, word in pairwise(words):
        text += ("-" if _NUMBERED.fullmatch(before) and _NUMBERED.fullmatch(word) else ", ") + word
    return text


def write(combination: Combination, school_id: str = DEFAULT_SCHOOL) -> str:
    """The canonical form in a school: numbers joined by hyphens, all else by commas."""
    school = SCHOOLS[school_id]
    return " then ".join(_write_group(group, school) for group in combination.groups)


def calls(combination: Combination) -> list[str]:
    """What is called on the floor, spelled out; many of the same running are called with their number."""
    said = []
    for one, same in groupby(combination.actions):
        side = f"{one.side} " if one.side and len(one.known.sides) > 1 else ""
        height = f" to the {one.height}" if one.height and one.height != one.known.heights[0] else ""
        count = len(list(same))
        name = f"{side}{one.known.word}{height}"
        said += [f"{count} times {name}"] if count >= _SAME_FROM else [name] * count
    return said
