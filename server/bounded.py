"""Work that computes, a few pieces at a time: the rest waits in a short queue, and past it is told to come again."""

import os
import socket
import threading
from collections import deque
from collections.abc import Callable
from functools import wraps
from typing import ParamSpec, TypeVar

from django.db import connection
from django.http import HttpRequest, HttpResponse

from yoisho.engine.steps import looks_up

P = ParamSpec("P")
R = TypeVar("R")
AT_ONCE = max(1, (os.cpu_count() or 2) // 2)
"""Pieces of work that a process does at a time; there are two processes, and as many processors as they need."""
WAITING = 64
"""Those that wait besides, of what is short and of the rest: a hundred coaches who edit at once, as two processes share
them out."""
AGAIN_S = 1
"""After which whoever was sent away may come again."""


LOOKS_S = 0.25
"""How often whoever waits is looked after: an edit that follows lets the question before it go."""


class BusyError(Exception):
    """More is asked at once than can be worked out soon."""


class GoneError(BusyError):
    """Nobody waits for the answer any more."""


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
    """So many at once, and so many that wait, in the order they came in; what is short before the rest.

    Of the rest, whoever searches for long looks up between two steps: for whom nobody waits any more it is over, and
    what is short goes first.
    """

    def __init__(self, at_once: int = AT_ONCE, waiting: int = WAITING):
        self.free, self.waiting = at_once, waiting
        self.short_turns, self.turns = deque[threading.Event](), deque[threading.Event]()
        self.lock = threading.Lock()

    def _enter(self, turns: deque[threading.Event]) -> None:
        """Waits for a place. Raises `BusyError` where too many wait, `GoneError` where nobody waits for the answer."""
        with self.lock:
            if self.free:
                self.free -= 1
                return
            if len(turns) >= self.waiting:
                raise BusyError
            turn = threading.Event()
            turns.append(turn)
        while not turn.wait(LOOKS_S):
            if CALLER.gone:
                with self.lock:
                    if turn in turns:
                        turns.remove(turn)
                        raise GoneError
        if CALLER.gone:
            self._leave()
            raise GoneError

    def _leave(self) -> None:
        """The place goes to what is short, and to whoever has waited longest."""
        with self.lock:
            if turns := self.short_turns or self.turns:
                turns.popleft().set()
            else:
                self.free += 1

    def _look_up(self) -> None:
        """Between two steps: raises `GoneError` where nobody waits for the answer."""
        if CALLER.gone:
            raise GoneError
        with self.lock:
            if not self.short_turns:
                return
            turn = threading.Event()
            self.turns.appendleft(turn)
            self.short_turns.popleft().set()
        turn.wait()

    def __call__(self, work: Callable[P, R]) -> Callable[P, R]:
        """Work that waits its turn."""

        @wraps(work)
        def looking_up(*args: P.args, **kwargs: P.kwargs) -> R:
            with looks_up(self._look_up):
                return work(*args, **kwargs)

        return self._bounded(looking_up, self.turns)

    def short(self, work: Callable[P, R]) -> Callable[P, R]:
        """Work so short that it goes before the rest, and whose answer is looked at while somebody types."""
        return self._bounded(work, self.short_turns)

    def _bounded(self, work: Callable[P, R], turns: deque[threading.Event]) -> Callable[P, R]:
        @wraps(work)
        def within(*args: P.args, **kwargs: P.kwargs) -> R:
            if not connection.in_atomic_block:
                # Nothing of the database is held meanwhile.
                connection.close()
            self._enter(turns)
            try:
                return work(*args, **kwargs)
            finally:
                self._leave()

        return within


computes = Bound()
"""Of work that takes longer than a hundredth of a second."""
