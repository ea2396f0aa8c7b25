"""What watches over the server learns whether it lives and whether it can work."""

from unittest.mock import patch

from django.db import DatabaseError


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
