"""How the API says what is wrong: always `detail`, a list of faults with place, message and kind."""

from typing import Any

from ninja import Schema
from ninja.errors import HttpError


class Fault(Schema):
    type: str
    loc: list[str | int]
    msg: str
    ctx: dict[str, Any] | None = None


class Faults(Schema):
    detail: list[Fault]


class Message(Schema):
    detail: str


class FieldError(Exception):
    """An impossible value that a schema cannot see: answered as 422 with the field."""

    def __init__(self, loc: list[str | int], msg: str, kind: str, ctx: dict[str, Any] | None = None):
        super().__init__(msg)
        self.fault = {"type": kind, "loc": loc, "msg": msg, "ctx": ctx}
        self.field = str(loc[-1])


def not_found(what: str) -> HttpError:
    return HttpError(404, f"No such {what} in your club. It may have been deleted; go back and reload the list.")
