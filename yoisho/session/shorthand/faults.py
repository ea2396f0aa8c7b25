"""What is said of a line that cannot be read: where, what would be right there, and the nearest known word."""

import re
from collections.abc import Iterator
from contextlib import contextmanager
from difflib import get_close_matches

from lark import Token, UnexpectedInput
from lark.exceptions import UnexpectedCharacters, UnexpectedEOF, UnexpectedToken

from yoisho.plain import sentence
from yoisho.session.interval import SessionError
from yoisho.session.modality import modality_spellings
from yoisho.session.shorthand.grammar import EXPECTED, KEYWORDS
from yoisho.session.shorthand.series import place
from yoisho.strikes.combination import CombinationError
from yoisho.strikes.line import LineError, position_of
from yoisho.strikes.tempo import TEMPOS, tempo_spellings

EXAMPLE = "8 x (20 all out / 10 rest)"


class ShorthandError(LineError, SessionError):
    """A line of shorthand that cannot be read."""

    example = EXAMPLE


def at(position: int, error: ValueError) -> ShorthandError:
    return ShorthandError(sentence(error), position)


class UnknownWordError(ShorthandError):
    """A word that the reading stopped at; what is said of it depends on the words beside it."""

    def __init__(self, word: Token):
        super().__init__(f"“{word}” is not known.", position_of(word))
        self.word = word


@contextmanager
def placed(position: int) -> Iterator[None]:
    """What makes no sense inside is said at this character; a fault that knows its own place keeps it."""
    try:
        yield
    except LineError:
        raise
    except (SessionError, CombinationError) as error:
        raise at(position, error) from error


def _words() -> list[str]:
    return [*tempo_spellings(), *modality_spellings(), *KEYWORDS]


def how_many(strikes: Token) -> ShorthandError:
    """What is said of a technique that no number stands before."""
    said = f"“{strikes}”, how many or for how long? Such as 20 {strikes}, or 3:00 bag {strikes}."
    return ShorthandError(said, position_of(strikes), ("a number", "a time"))


def unknown(token: Token) -> ShorthandError:
    nearest = get_close_matches(token.lower(), [w for w in _words() if w != token.lower()], n=1, cutoff=0.6)
    efforts = ", ".join(tempo.word for tempo in TEMPOS.values())
    known = f"Efforts are {efforts}; modalities are bag, pads, shadow, skip ..."
    hint = f"Did you mean {nearest[0]}?" if nearest else known
    suggestion = nearest[0] if nearest else None
    said = "is not an effort" if not nearest or nearest[0] in tempo_spellings() else "is not a word of the shorthand"
    return ShorthandError(f"“{token}” {said}. {hint}", position_of(token), ("an effort",), suggestion)


def _of_two_words(text: str, token: Token) -> ShorthandError | None:
    """What is said where two words are nearly one that is known, such as "all outt": at the one that is wrong."""
    start = position_of(token)
    pair = re.match(r"(\w+)(\s+)(\w+)", text[start:].lower())
    nearest = pair and get_close_matches(f"{pair[1]} {pair[3]}", [w for w in _words() if " " in w], n=1, cutoff=0.8)
    if not pair or not nearest:
        return None
    known = nearest[0].split()
    wrong = 1 if known[0] == pair[1] else 0
    said = f"“{pair[1]} {pair[3]}” is not a word of the shorthand. Did you mean {nearest[0]}?"
    return ShorthandError(said, start + pair.start(3) * wrong, ("an effort",), known[wrong])


def _lone_combination(text: str, position: int) -> ShorthandError | None:
    """What is said of numbers with hyphens that no time stands before, where the reading stopped at them."""
    for found in re.finditer(r"(?<![\w:|-])(?P<line>\d+b?(?:-\d+b?)+)(?![^\[]*\])", text):
        if found.start("line") <= position <= found.end("line") + 1:
            line = found["line"]
            message = f"{line} of what? A combination has a time before it: 3:00 [{line}]. A ladder says its reps: "
            return ShorthandError(message + "9-7-5 reps power.", found.start("line"), ("a time",))
    return None


def over_weeks(text: str, count: int) -> ShorthandError:
    """What is said of a ladder over weeks where one session is read."""
    start, ladder = place(text)
    said = f"{ladder} is a ladder over {count} weeks: {count} sessions of one series. "
    return ShorthandError(said + "Make the series, or keep one of them.", start, ("one number",))


def unknown_in(text: str, word: Token) -> ShorthandError:
    """What is said of a word that a line holds and nobody knows."""
    return _of_two_words(text, word) or unknown(word)


def explain(text: str, error: UnexpectedInput) -> ShorthandError:
    position = len(text.rstrip()) if isinstance(error, UnexpectedEOF) else error.pos_in_stream
    names: set[str] = set()
    if isinstance(error, UnexpectedToken):
        names = set(error.accepts or error.expected)
        if error.token.type == "$END":
            position = len(text.rstrip())
        elif error.token.type == "WORD":
            return _lone_combination(text, position or 0) or unknown_in(text, error.token)
    elif isinstance(error, UnexpectedCharacters):
        names = set(error.allowed or ())
    last = (getattr(error, "token_history", None) or [None])[-1]
    if last is not None and last.type == "WORD":
        return _lone_combination(text, position or 0) or unknown_in(text, last)
    lone = _lone_combination(text, position or 0)
    if lone:
        return lone
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
