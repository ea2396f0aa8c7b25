"""Connections to the database that are shared, after it was started again."""

from time import sleep

import pytest
from django.db import connection

SEVERAL = 6
OTHERS = """FROM pg_stat_activity
    WHERE datname = current_database() AND backend_type = 'client backend' AND pid <> %s"""


@pytest.mark.django_db(transaction=True)
def test_the_first_connection_that_is_found_dead_tells_of_all_and_a_living_one_is_given():
    assert connection.pool is not None
    others = [connection.copy() for _ in range(SEVERAL)]
    for each in others:
        each.ensure_connection()
    with connection.cursor() as cursor:
        cursor.execute("SELECT pg_backend_pid()")
        own = cursor.fetchone()[0]
        for each in others:
            each.close()
        # As after a new start of the database: all but this one, which has to say it.
        cursor.execute(f"SELECT count(pg_terminate_backend(pid)) {OTHERS}", [own])
        assert cursor.fetchone()[0] >= SEVERAL
        for _ in range(200):
            cursor.execute(f"SELECT count(*) {OTHERS}", [own])
            if cursor.fetchone() == (0,):
                break
            sleep(0.05)
        else:
            pytest.fail("they do not end")
    asked = connection.copy()
    with asked.cursor() as cursor:
        cursor.execute("SELECT 1")
        assert cursor.fetchone() == (1,)
    asked.close()
