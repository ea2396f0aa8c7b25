"""What the server writes down says what happened, and of nobody."""

import json
import logging

import pytest

from server.logs import PatternsAlone, pattern_of


@pytest.fixture
def lines(caplog):
    caplog.set_level(logging.INFO, "yoisho.requests")
    return lambda: [vars(record) for record in caplog.records if record.name == "yoisho.requests"]


def test_each_request_is_a_line_with_the_pattern_of_its_path(coach, lines):
    runa = coach.person()
    coach.get(f"people/{runa.pk}")
    (line,) = lines()
    assert (line["method"], line["path"], line["status"]) == ("GET", "/api/people/<person_id>", 200)
    assert 0 < line["took_ms"] < 10_000


def test_no_name_code_or_address_is_written_down(coach, nobody, lines, caplog):
    coach.person("Runa Velde")
    coach.get("people?search=Runa")
    nobody.get("/api/join/hush-hush-hush")
    nobody.get("/nowhere/Runa")
    written = json.dumps([line["path"] for line in lines()])
    assert len(lines()) == 3
    assert "hush" not in written
    assert "Runa" not in written


def test_of_what_is_refused_the_pattern_alone_is_named(nobody, rf):
    request = nobody.get("/api/join/hush-hush-hush").wsgi_request
    record = logging.LogRecord("django.request", logging.WARNING, "", 0, "Not Found: %s", ("/api/join/hush",), None)
    record.request = request
    assert PatternsAlone().filter(record)
    assert record.getMessage() == "GET /api/join/<code>"
    assert pattern_of(rf.get("/x")) == "unknown"
