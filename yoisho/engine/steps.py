"""Between two sessions that a search reads: whoever had it done may put something else first, or end it."""

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from contextvars import ContextVar

_BETWEEN: ContextVar[Callable[[], None] | None] = ContextVar("between", default=None)


@contextmanager
def looks_up(between: Callable[[], None]) -> Iterator[None]:
    """Within it `between` is called before every session that this thread reads; what it raises ends the search."""
    token = _BETWEEN.set(between)
    try:
        yield
    finally:
        _BETWEEN.reset(token)


def look_up() -> None:
    """Called before every session is read."""
    if between := _BETWEEN.get():
        between()
