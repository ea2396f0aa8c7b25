"""PostgreSQL as Django's own backend has it, but for shared connections that are dead.

After the database was started again every connection in the pool is. The pool's own check tries one after the other, a
second and then two apart, until whoever wants one has waited too long. Here the first that is found dead tells of all:
they are made anew at once. One that lives and is asked nothing says nothing: where something comes, it is looked at.
"""

import select
from typing import Any

from django.db.backends.postgresql import base
from psycopg import Connection, OperationalError
from psycopg_pool import ConnectionPool


def silent(connection: Connection) -> bool:
    """Whether nothing has come over a connection, which would be its end."""
    come = select.poll()
    come.register(connection.fileno(), select.POLLIN)
    return not come.poll(0)


class DatabaseWrapper(base.DatabaseWrapper):
    def get_new_connection(self, conn_params: dict[str, Any]) -> Any:
        connection = super().get_new_connection(conn_params)
        if self.pool is None or silent(connection):
            return connection
        try:
            ConnectionPool.check_connection(connection)
        except OperationalError:
            self.pool.putconn(connection)
            self.pool.drain()
            return super().get_new_connection(conn_params)
        return connection
