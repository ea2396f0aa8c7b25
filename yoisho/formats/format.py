"""What a format is."""

from collections.abc import Callable
from dataclasses import dataclass

from yoisho.plain import PlainError
from yoisho.session.document import Session


class FormatError(ValueError):
    """Bytes that are not of the format: what is wrong, how to mend it, and where, where that is known."""

    def __init__(self, message: str, path: str | None = None):
        super().__init__(message)
        self.message = message
        self.path = path

    @classmethod
    def of(cls, error: PlainError) -> "FormatError":
        return cls(error.message, error.path)


@dataclass(frozen=True)
class Format:
    """How a session goes out as a file, and comes in; either may be None where there is no such way."""

    id: str
    name: str
    """As people call it."""
    media_type: str
    extension: str
    """Of the file's name, without the dot."""
    write: Callable[[Session], bytes] | None
    read: Callable[[bytes], Session] | None
    """Raises `FormatError`."""
