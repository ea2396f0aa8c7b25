"""What no request may hold, looked at before any schema sees it; and errors of the API in its own shape, whoever made
them."""

import json
import logging
import re
import sys
import time
from collections.abc import Callable, Iterable
from math import isfinite
from typing import Any

from django.core.exceptions import RequestDataTooBig
from django.db import InterfaceError, OperationalError
from django.http import HttpRequest, HttpResponse, JsonResponse
from django.http.response import HttpResponseBase

logger = logging.getLogger(__name__)
NUL = "\x00"
SUSPECT = re.compile(rb"\\u0000|\\u[dD][89a-fA-F]|NaN|Infinity|[eE]\+?\d{2,}|\d{300}")
"""Where none of these stands, there is nothing to look for."""
SAID = {
    "nul": "There is a NUL character in this text, which cannot be kept. Take it out, or type it anew.",
    "text": "There is half a character in this text, which cannot be kept. Take it out, or type it anew.",
    "number": "A number is wanted here, not one without end.",
}
AWAY_S = 2
"""After so long a client tries again while the database is away."""
AWAY = "The database does not answer just now. Nothing is lost: try again in a moment."
API = ("/api/", "/_allauth/")


def _fault(value: Any) -> str | None:
    """What makes a value one that cannot be kept; None where it can."""
    if isinstance(value, str):
        if NUL in value:
            return "nul"
        return "text" if any("\ud800" <= letter <= "\udfff" for letter in value) else None
    return "number" if isinstance(value, float) and not isfinite(value) else None


def _found(value: Any, where: list[str | int]) -> tuple[str, list[str | int]] | None:
    """The first fault in a value, and where it stands."""
    inside: Iterable[tuple[str | int, Any]] = ()
    match value:
        case list():
            inside = enumerate(value)
        case dict():
            wrong = next((fault for name in value if (fault := _fault(name))), None)
            if wrong:
                return wrong, where
            inside = value.items()
        case _:
            fault = _fault(value)
            return (fault, where) if fault else None
    return next((found for key, each in inside if (found := _found(each, [*where, key]))), None)


def _refused(kind: str, where: list[str | int]) -> HttpResponse:
    return JsonResponse({"detail": [{"type": kind, "loc": where, "msg": SAID[kind], "ctx": None}]}, status=422)


class Keepable:
    """Refuses what no database can keep (NUL, half a character, numbers without end), with its place."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]):
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        if "%00" in request.META.get("QUERY_STRING", "") or NUL in request.path:
            return _refused("nul", ["query"])
        try:
            suspect = request.content_type == "application/json" and SUSPECT.search(request.body)
        except RequestDataTooBig:
            return _as_json(HttpResponse(status=413))
        if suspect:
            try:
                found = _found(json.loads(request.body), ["body"])
            except (ValueError, RecursionError):
                found = None
            if found:
                return _refused(*found)
        return self.get_response(request)


WORDS = {
    400: "This request could not be read.",
    403: "This is not allowed from here. Reload the page, and try again.",
    404: "There is no such address in the API.",
    405: "This address does not take that method.",
    413: "This is too large. Send less at once.",
    500: "Something went wrong here. It is in the log; nothing you entered was taken.",
    503: AWAY,
}


def _as_json(response: HttpResponse) -> HttpResponse:
    words = WORDS.get(response.status_code, "This could not be done.")
    told = JsonResponse({"detail": words}, status=response.status_code)
    for name in ("Allow", "Retry-After"):
        if name in response.headers:
            told.headers[name] = response.headers[name]
    return told


class ApiErrors:
    """Every error of the API is JSON, also where something before or behind it has answered."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponseBase]):
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponseBase:
        response = self.get_response(request)
        if response.status_code < 400 or not request.path.startswith(API) or not isinstance(response, HttpResponse):
            return response
        if response.headers.get("Content-Type", "").startswith("application/json"):
            return response
        return _as_json(response)

    def process_exception(self, request: HttpRequest, error: Exception) -> HttpResponse | None:
        return away(request) if isinstance(error, OperationalError | InterfaceError) else None


class _Last:
    """When it was last logged that somebody has to come again."""

    at = 0.0


def waits(request: HttpRequest, why: str) -> None:
    """One line of the log a second says that requests have to come again."""
    if time.monotonic() - _Last.at >= 1:
        _Last.at = time.monotonic()
        logger.error("%s: %s %s waits", why, request.method, request.path)


def away(request: HttpRequest) -> HttpResponse:
    """While the database does not answer: try again soon."""
    waits(request, "the database does not answer")
    response = HttpResponse(AWAY, status=503, content_type="text/plain")
    response.headers["Retry-After"] = str(AWAY_S)
    return response


def failed(request: HttpRequest) -> HttpResponse:
    """What stands where nothing else has answered: away, or broken."""
    if isinstance(sys.exc_info()[1], OperationalError | InterfaceError):
        return away(request)
    return HttpResponse(WORDS[500], status=500, content_type="text/plain")


def quiet(record: logging.LogRecord) -> bool:
    """Whether something is to be logged: not each request that has to come again, told once a second."""
    error = record.exc_info[1] if record.exc_info else None
    return getattr(record, "status_code", 0) != 429 and not isinstance(error, OperationalError | InterfaceError)
