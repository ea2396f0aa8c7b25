"""Work that computes, a few pieces at a time: the rest waits in a short queue, and past it is told to come again."""

import os
import threading
from collections.abc import Callable
from functools import wraps
from typing import ParamSpec, TypeVar

from django.db import connection

P = ParamSpec("P")
R = TypeVar("R")
AT_ONCE = max(1, (os.cpu_count() or 2) // 2)
"""Pieces of work that a process does at a time; there are two processes, and as many processors as they need."""
WAITING = 48
"""Those that wait besides. At a few hundredths of a second each, the last of them waits for about two seconds."""
AGAIN_S = 1
"""After which whoever was sent away may come again."""


class BusyError(Exception):
    """More is asked at once than can be worked out soon."""


class Bound:
    """So many at once, and so many that wait, in the order they came in."""

    def __init__(self, at_once: int = AT_ONCE, waiting: int = WAITING):
        self.working = threading.BoundedSemaphore(at_once)
        self.inside = threading.BoundedSemaphore(at_once + waiting)

    def __call__(self, view: Callable[P, R]) -> Callable[P, R]:
        @wraps(view)
        def within(*args: P.args, **kwargs: P.kwargs) -> R:
            if not self.inside.acquire(blocking=False):
                raise BusyError
            try:
                if not connection.in_atomic_block:
                    # Nothing of the database is held meanwhile.
                    connection.close()
                with self.working:
                    return view(*args, **kwargs)
            finally:
                self.inside.release()

        return within


computes = Bound()
"""Of a view that works something out for longer than a hundredth of a second."""
