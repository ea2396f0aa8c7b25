"""Work that computes, a few pieces at a time: the rest waits in a short queue, and past it is told to come again."""

import os
import socket
import threading
from collections.abc import Callable
from functools import wraps
from typing import ParamSpec, TypeVar

from django.db import connection
from django.http import HttpRequest, HttpResponse

P = ParamSpec("P")
R = TypeVar("R")
AT_ONCE = max(1, (os.cpu_count() or 2) // 2)
"""Pieces of work that a process does at a time; there are two processes, and as many processors as they need."""
WAITING = 48
"""Those that wait besides. At a few hundredths of a second each, the last of them waits for about two seconds."""
AGAIN_S = 1
"""After which whoever was sent away may come again."""


LOOKS_S = 0.25
"""How often whoever waits is looked after: an edit that follows lets the question before it go."""


class BusyError(Exception):
    """More is asked at once than can be worked out soon; or nobody waits for the answer any more."""


class _Caller(threading.local):
    """Whom the work of this thread is for."""

    connection: socket.socket | None = None

    @property
    def gone(self) -> bool:
        if self.connection is None:
            return False
        try:
            return not self.connection.recv(1, socket.MSG_PEEK | socket.MSG_DONTWAIT)
        except BlockingIOError:
            return False
        except OSError:
            return True


CALLER = _Caller()


def knows_its_caller(get_response: Callable[[HttpRequest], HttpResponse]) -> Callable[[HttpRequest], HttpResponse]:
    """Middleware: what waits in the queue can see whether anybody still waits for it, where gunicorn serves."""

    def within(request: HttpRequest) -> HttpResponse:
        CALLER.connection = request.META.get("gunicorn.socket")
        try:
            return get_response(request)
        finally:
            CALLER.connection = None

    return within


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
                while not self.working.acquire(timeout=LOOKS_S):
                    if CALLER.gone:
                        raise BusyError
                try:
                    return view(*args, **kwargs)
                finally:
                    self.working.release()
            finally:
                self.inside.release()

        return within


computes = Bound()
"""Of a view that works something out for longer than a hundredth of a second."""
