"""The error family of both languages: a line that cannot be read.

ValueError
├── LineError            at which character, what was expected there, the nearest word, an example
│   ├── NotationError    of a combination (also a CombinationError)
│   └── ShorthandError   of a session (also a SessionError)
├── CombinationError     a combination that makes no sense
└── SessionError         a session that makes no sense
"""

import re
from typing import ClassVar, TypeVar

from lark import Token

Moved = TypeVar("Moved", bound="LineError")


class LineError(ValueError):
    """A line that cannot be read, and how to mend it."""

    example: ClassVar[str]
    """A line that can be."""

    def __init__(self, message: str, position: int, expected: tuple[str, ...] = (), suggestion: str | None = None):
        super().__init__(message)
        self.message = message
        self.position = position
        """Index of the character at fault, from 0."""
        self.expected = expected
        self.suggestion = suggestion
        """The nearest word that would have been read, if one is near."""

    def moved(self, by: int, kind: "type[Moved]") -> "Moved":
        """The same fault in a longer text, that the line stands in so many characters from its beginning."""
        place = self.position + by
        message = re.sub(r"at character \d+", f"at character {place + 1}", self.message)
        return kind(message, place, self.expected, self.suggestion)

    def as_dict(self) -> dict[str, object]:
        return {
            "message": self.message,
            "character": self.position + 1,
            "expected": list(self.expected),
            "suggestion": self.suggestion,
            "example": self.example,
        }


def position_of(token: Token) -> int:
    """Index of the first character of a word that was read, from 0; a parser tells it of every word."""
    assert token.start_pos is not None
    return token.start_pos
