"""A demo hall that is made once: its rows are put back for every further test, in a fiftieth of the time."""

import pickle
from collections.abc import Callable
from pathlib import Path

from django.apps import apps
from django.core.management.color import no_style
from django.db import connection

from tests.conftest import Once

KEPT = ("django_migrations", "django_content_type", "auth_permission")
"""Tables whose rows belong to the database and not to a test."""


class DemoRows:
    def __init__(self, name: str, make: Callable[[], object]) -> None:
        self.name = name
        self.make = make
        self.rows: dict[str, bytes] = {}

    def load(self, once: Once) -> None:
        """`once` is the fixture: the rows are made by whichever worker is first."""
        if not self.rows:
            path = once(f"{self.name}.rows", self._made)
            if self.rows:
                return
            self.rows = pickle.loads(path.read_bytes())
        self._put_back()

    def _made(self, path: Path) -> None:
        self.make()
        self._take()
        path.write_bytes(pickle.dumps(self.rows))

    def _take(self) -> None:
        with connection.cursor() as cursor:
            for table in connection.introspection.table_names(cursor):
                with cursor.copy(f'COPY "{table}" TO STDOUT') as out:
                    rows = b"".join(out)
                if rows and table not in KEPT and not table.startswith("procrastinate"):
                    self.rows[table] = rows

    def _put_back(self) -> None:
        with connection.cursor() as cursor:
            cursor.execute("SET session_replication_role = replica")
            for table, rows in self.rows.items():
                with cursor.copy(f'COPY "{table}" FROM STDIN') as into:
                    into.write(rows)
            # The numbers go on behind these rows, also where somebody else counted them.
            counted = apps.get_models(include_auto_created=True)
            cursor.execute("; ".join(connection.ops.sequence_reset_sql(no_style(), counted)))
            cursor.execute("SET session_replication_role = origin")
