"""Between two simulations of a search: whoever had it done may put something else first, or end it."""

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from contextvars import ContextVar

_BETWEEN: ContextVar[Callable[[], None] | None] = ContextVar("between", default=None)


@contextmanager
def looks_up(between: Callable[[], None]) -> Iterator[None]:
    """Within it `between` is called before every simulation of this thread; what it raises ends the search."""
    token = _BETWEEN.set(between)
    try:
        yield
    finally:
        _BETWEEN.reset(token)


def look_up() -> None:
    """Called before every simulation."""
    if between := _BETWEEN.get():
        between()
