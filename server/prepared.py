"""Questions that come with every request, whose SQL is written once: to write it takes Django longer than to ask it."""

from collections.abc import Callable
from functools import cached_property
from typing import Any

from django.db import connection
from django.db.models import QuerySet


class Prepared:
    """A question of one row at most. `asked` gives it, each value that changes in a filter of its own."""

    def __init__(self, asked: Callable[[], QuerySet[Any, Any]]):
        self.asked = asked

    @cached_property
    def sql(self) -> str:
        return str(self.asked().query.sql_with_params()[0])

    def row(self, *values: Any) -> tuple[Any, ...] | None:
        """The row for these values, in the order of the filters; None where there is none."""
        with connection.cursor() as cursor:
            cursor.execute(self.sql, values)
            found: tuple[Any, ...] | None = cursor.fetchone()
        return found
