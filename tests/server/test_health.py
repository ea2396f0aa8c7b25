"""What watches over the server learns whether it lives and whether it can work."""

from unittest.mock import patch

import pytest
from django.db import DatabaseError, OperationalError, connection


@pytest.fixture(autouse=True)
def just_started(monkeypatch):
    monkeypatch.setattr("server.health._Known.current", False)


def test_it_says_that_it_lives_and_that_it_is_ready(nobody):
    assert nobody.get("/healthz").content == b"alive"
    assert (nobody.get("/readyz").status_code, nobody.get("/readyz").content) == (200, b"ready")


def test_without_its_database_it_lives_and_is_not_ready(nobody):
    with patch("server.health.MigrationExecutor", side_effect=DatabaseError):
        assert nobody.get("/healthz").status_code == 200
        answer = nobody.get("/readyz")
    assert answer.status_code == 503
    assert b"does not answer" in answer.content


def test_a_database_of_an_older_version_is_not_ready(nobody):
    with patch("server.health.MigrationExecutor.migration_plan", return_value=["one to come"]):
        answer = nobody.get("/readyz")
    assert answer.status_code == 503
    assert b"make serve" in answer.content


def test_one_that_was_ready_is_asked_little_and_says_when_its_database_is_gone(nobody, django_assert_num_queries):
    assert nobody.get("/readyz").status_code == 200
    with django_assert_num_queries(1):
        assert nobody.get("/readyz").status_code == 200
    with patch.object(connection, "cursor", side_effect=OperationalError("gone")):
        assert nobody.get("/readyz").status_code == 503
    assert nobody.get("/readyz").status_code == 200
