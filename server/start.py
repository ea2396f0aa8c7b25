"""How a process starts."""

import gc
from collections.abc import Iterator
from contextlib import contextmanager


@contextmanager
def loading() -> Iterator[None]:
    """What is loaded within stays: the collector neither looks through it while it grows, which takes a quarter of a
    start, nor again in the middle of an answer."""
    gc.disable()
    yield
    gc.freeze()
    gc.enable()
