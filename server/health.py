"""Whether it lives, and whether it can work: for whatever watches over it."""

from django.db import DatabaseError, connection
from django.db.migrations.executor import MigrationExecutor
from django.http import HttpRequest, HttpResponse


def _said(words: str, status: int = 200) -> HttpResponse:
    return HttpResponse(words, status=status, content_type="text/plain")


def alive(request: HttpRequest) -> HttpResponse:
    return _said("alive")


class _Known:
    """Once the database is of this version it stays so for as long as this process lives: nothing takes it back."""

    current = False


def ready(request: HttpRequest) -> HttpResponse:
    """The database answers, and is of this version."""
    try:
        if _Known.current:
            with connection.cursor() as cursor:
                cursor.execute("select 1")
        else:
            executor = MigrationExecutor(connection)
            _Known.current = not executor.migration_plan(executor.loader.graph.leaf_nodes())
    except DatabaseError:
        return _said("the database does not answer", 503)
    if not _Known.current:
        return _said("the database is of an older version: run make serve", 503)
    return _said("ready")
