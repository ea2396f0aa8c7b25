"""What the server writes down: one line of JSON for each request, and none of it says who anybody is.

A path may hold the code of an invitation or the number of an athlete: its pattern is written in its place.
"""

import logging
import time
from collections.abc import Callable

from django.http import HttpRequest, HttpResponseBase

log = logging.getLogger("yoisho.requests")


def pattern_of(request: HttpRequest) -> str:
    match = request.resolver_match
    return f"/{match.route}" if match else "unknown"


class Lines:
    """A line for each request: what was asked, what came of it, and how long it took."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponseBase]):
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponseBase:
        begun = time.perf_counter()
        answer = self.get_response(request)
        took_ms = round((time.perf_counter() - begun) * 1000, 1)
        told = {"method": request.method, "path": pattern_of(request), "status": answer.status_code, "took_ms": took_ms}
        log.info("request", extra=told)
        return answer


class PatternsAlone(logging.Filter):
    """Django names the path of what was refused or failed: its pattern says enough."""

    def filter(self, record: logging.LogRecord) -> bool:
        request = getattr(record, "request", None)
        if isinstance(request, HttpRequest):
            record.msg, record.args = "%s %s", (request.method, pattern_of(request))
            del record.request  # type: ignore[attr-defined]
        return True
