"""What no request may hold, looked at before any schema sees it."""

import json
from collections.abc import Callable, Iterable
from typing import Any

from django.http import HttpRequest, HttpResponse, JsonResponse

NUL = "\x00"
SAID = "There is a NUL character in this text, which cannot be kept. Take it out, or type it anew."


def _nul_in(value: Any, where: list[str | int]) -> list[str | int] | None:
    """Where a NUL character stands; no database text can hold one."""
    inside: Iterable[tuple[str | int, Any]] = ()
    match value:
        case str():
            return where if NUL in value else None
        case list():
            inside = enumerate(value)
        case dict():
            if any(NUL in name for name in value):
                return where
            inside = value.items()
    return next((found for key, each in inside if (found := _nul_in(each, [*where, key]))), None)


class NoNul:
    """Refuses a body with a NUL character in it, with its place, as any other fault of a field is."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]):
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        if request.content_type == "application/json" and b"\\u0000" in request.body:
            try:
                where = _nul_in(json.loads(request.body), ["body"])
            except (ValueError, RecursionError):
                where = None
            if where:
                return JsonResponse({"detail": [{"type": "nul", "loc": where, "msg": SAID}]}, status=422)
        return self.get_response(request)
