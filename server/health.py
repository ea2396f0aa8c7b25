"""Whether it lives, and whether it can work: for whatever watches over it."""

from django.db import DatabaseError, connection
from django.db.migrations.executor import MigrationExecutor
from django.http import HttpRequest, HttpResponse


def _said(words: str, status: int = 200) -> HttpResponse:
    return HttpResponse(words, status=status, content_type="text/plain")


def alive(request: HttpRequest) -> HttpResponse:
    return _said("alive")


def ready(request: HttpRequest) -> HttpResponse:
    """The database answers, and is of this version."""
    try:
        executor = MigrationExecutor(connection)
        waiting = executor.migration_plan(executor.loader.graph.leaf_nodes())
    except DatabaseError:
        return _said("the database does not answer", 503)
    if waiting:
        return HttpResponse(
            "the database is of an older version: run make serve", status=503, content_type="text/plain"
        )
    return _said("ready")
