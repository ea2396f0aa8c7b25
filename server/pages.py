"""Lists a page at a time: what is not on the page is neither read nor worked out."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from django.db.models import QuerySet
from ninja import Field, Schema
from ninja.pagination import PaginationBase
from pydantic import BaseModel

MOST_A_PAGE = 200
DEEP = 1000
"""Rows passed over from which on a page is looked up by its keys."""


class Told(BaseModel):
    """What is told in great numbers. A ninja `Schema` is read twice more on its way out, field by field."""


@dataclass(frozen=True)
class Listed:
    """A list as a view gives it: what is asked of the database, and how each row is told."""

    rows: QuerySet[Any]
    out: Callable[[Any], Any]


class Pages(PaginationBase):
    class Input(Schema):
        limit: int = Field(100, ge=1, le=MOST_A_PAGE)
        offset: int = Field(0, ge=0, le=1_000_000)

    class Output(Schema):
        items: list[Any]
        count: int
        """Of the whole list."""

    def paginate_queryset(self, queryset: Any, pagination: Any, request: Any = None, **params: Any) -> dict[str, Any]:
        listed: Listed = queryset
        start, end = pagination.offset, pagination.offset + pagination.limit
        rows = listed.rows[start:end]
        if start >= DEEP:
            # What is passed over is counted by its key alone, and not joined and read.
            keys = list(listed.rows.values_list("pk", flat=True)[start:end])
            rows = listed.rows.filter(pk__in=keys)
        return {"items": [listed.out(row) for row in rows], "count": listed.rows.count()}
