"""PostgreSQL as Django's own backend has it, but for shared connections that are dead.

After the database was started again every connection in the pool is. The pool's own check tries one after the other, a
second and then two apart, until whoever wants one has waited too long. Here the first that is found dead tells of all:
they are made anew at once.
"""

from typing import Any

from django.db.backends.postgresql import base
from psycopg import OperationalError
from psycopg_pool import ConnectionPool


class DatabaseWrapper(base.DatabaseWrapper):
    def get_new_connection(self, conn_params: dict[str, Any]) -> Any:
        connection = super().get_new_connection(conn_params)
        if self.pool is None:
            return connection
        try:
            ConnectionPool.check_connection(connection)
        except OperationalError:
            self.pool.putconn(connection)
            self.pool.drain()
            return super().get_new_connection(conn_params)
        return connection
