"""Work that takes its time, told while it goes on: lines of JSON, the answer as the last."""

import logging
import queue
import threading
from collections.abc import Callable, Iterable, Iterator
from typing import Generic, TypeVar

from django.db import connection
from django.http import StreamingHttpResponse
from pydantic import BaseModel

from server.bounded import AT_ONCE

logger = logging.getLogger(__name__)
Found = TypeVar("Found")
Line = TypeVar("Line", bound=BaseModel)
BEAT_S = 1.0
"""A line at least so often, if an empty one: a connection that is gone is noticed by it."""
STILL_HERE = b"\n"
SOLVING = threading.BoundedSemaphore(AT_ONCE)
"""Those that are worked on in this process; others wait, and their connections are told that they are there."""


class StoppedError(Exception):
    """Nobody waits any more."""


class Told(Generic[Found, Line]):
    """Work in a thread of its own, which asks the database nothing, and what it tells meanwhile."""

    def __init__(self, work: Callable[[Callable[[Line], None]], Found]):
        self.work = work
        self.lines: queue.Queue[Line | None] = queue.Queue()
        self.answer: queue.Queue[Found | Exception] = queue.Queue()
        self.stopped = threading.Event()

    def tell(self, line: Line) -> None:
        if self.stopped.is_set():
            raise StoppedError
        self.lines.put(line)

    def run(self) -> None:
        try:
            with SOLVING:
                if not self.stopped.is_set():
                    self.answer.put(self.work(self.tell))
        except StoppedError:
            pass
        except Exception as error:
            self.answer.put(error)
        finally:
            self.lines.put(None)


def _line(told: BaseModel) -> bytes:
    return told.model_dump_json().encode() + b"\n"


def _lines(told: Told[Found, Line], first: Line, last: Callable[[Found | Exception], Line]) -> Iterator[bytes]:
    if not connection.in_atomic_block:
        # Nothing of the database is held while the work goes on.
        connection.close()
    threading.Thread(target=told.run, daemon=True).start()
    try:
        yield _line(first)
        while True:
            try:
                line = told.lines.get(timeout=BEAT_S)
            except queue.Empty:
                yield STILL_HERE
                continue
            if line is None:
                break
            yield _line(line)
        yield _line(last(told.answer.get()))
    finally:
        told.stopped.set()


def as_it_comes(pieces: Iterable[bytes], content_type: str) -> StreamingHttpResponse:
    """An answer that nobody on the way keeps, or holds back until there is more of it."""
    answer = StreamingHttpResponse(pieces, content_type=content_type)
    answer.headers["Cache-Control"] = "no-store"
    answer.headers["X-Accel-Buffering"] = "no"
    return answer


def events(told: Iterable[bytes]) -> StreamingHttpResponse:
    """Server-sent events."""
    return as_it_comes(told, "text/event-stream")


def streamed(
    work: Callable[[Callable[[Line], None]], Found], first: Line, last: Callable[[Found | Exception], Line]
) -> StreamingHttpResponse:
    """Lines of JSON: the first at once, what the work tells, and what `last` makes of its answer or its error."""
    return as_it_comes(_lines(Told(work), first, last), "application/x-ndjson")
