"""Whatever is sent: what cannot be kept is refused with its place, and every error of the API is in its own shape."""

import json
from datetime import timedelta
from uuid import uuid4

import pytest
from django.db import OperationalError
from django.test import Client
from django.utils import timezone

from server.logbook.models import LogEntry
from tests.server.conftest import Coach
from tests.server.test_floor_and_log import run_of

pytestmark = pytest.mark.django_db


def sent(coach: Coach, path: str, body: str, method: str = "post"):
    return getattr(coach.client, method)(f"/api/{path}", body, content_type="application/json")


@pytest.mark.parametrize(
    ("text", "kind"),
    [
        (r'"\u0000"', "nul"), (r'"a\u0000b"', "nul"), (r'"\ud800"', "text"), (r'"x\udfffx"', "text"),
        ("NaN", "number"), ("Infinity", "number"), ("-Infinity", "number"), ("1e999", "number"), ("1" * 400, None),
    ],
    ids=["NUL", "NUL inside", "half a character", "the other half", "NaN", "Infinity", "-Infinity", "1e999", "long"],
)  # fmt: skip
@pytest.mark.parametrize("path", ["read", "groups", "people", "classes/line", "classes/solve", "evaluate"])
def test_what_cannot_be_kept_is_a_422_with_its_place_at_every_edge(coach, path, text, kind):
    for body, where in (
        (f'{{"text": {text}, "name": {text}, "deep": [{{"er": {text}}}]}}', ["body", "text"]),
        (f"[{text}]", ["body", 0]),
    ):
        answer = sent(coach, path, body)
        assert answer.status_code == 422, answer.content
        (fault, *_) = answer.json()["detail"]
        if kind:
            assert (fault["type"], fault["loc"]) == (kind, where)
            assert fault["msg"]


def test_what_only_looks_like_it_is_kept(coach):
    answer = sent(coach, "groups", json.dumps({"name": "NaN and Infinity, 1e999 🥊"}))
    assert answer.status_code == 201, answer.content
    assert answer.json()["name"] == "NaN and Infinity, 1e999 🥊"


MOMENTS = (
    "0001-01-01T00:00:00+14:00", "0001-01-01T00:00:00Z", "9999-12-31T23:59:59-14:00", "9999-12-31T23:59:59Z",
    "1899-12-31T23:59:59Z", "2201-01-01T00:00:00Z",
)  # fmt: skip


@pytest.mark.parametrize("moment", MOMENTS)
def test_a_year_that_no_clock_of_the_hall_can_show_is_refused_and_the_log_book_stays_open(coach, moment):
    saved = coach.session()
    body = {"run": run_of(saved), "started_at": moment, "done_s": 230, "done_efforts": 8, "rpe": 9}
    answer = coach.put(f"runs/{uuid4()}/log", body)
    assert answer.status_code == 422
    assert answer.json()["detail"][0]["loc"][-1] == "started_at"
    assert not LogEntry.objects.exists()
    assert coach.get("log").status_code == 200


def test_days_of_all_kinds_keep_to_the_calendar(coach):
    person, saved = coach.person(), coach.session()
    plan = {"session_id": saved["id"], "at": "18:00", "people": [person.pk], "group_id": None}
    for day in ("0001-01-01", "9999-12-31", "1899-12-31"):
        assert coach.post("planned", {**plan, "on": day}).status_code == 422
        assert coach.get(f"today?on={day}").status_code == 422
        line = {"asked": {"people": [{"uid": "a", "name": "a"}], "on": day}}
        assert coach.post("classes/solve", line).status_code == 422
    assert coach.post("planned", {**plan, "on": (timezone.localdate() + timedelta(1)).isoformat()}).status_code == 201


def shape(answer, status: int) -> str:
    assert answer.status_code == status
    assert answer.headers["Content-Type"].startswith("application/json")
    told = answer.json()["detail"]
    assert isinstance(told, str)
    return told


def test_every_error_of_the_api_is_json_whoever_has_answered(coach, monkeypatch):
    assert "no such address" in shape(coach.get("nothing/at/all"), 404)
    wrong = coach.client.delete("/api/sessions")
    assert "method" in shape(wrong, 405)
    assert wrong.headers["Allow"]
    assert "too large" in shape(sent(coach, "read", json.dumps({"text": "x" * 1_100_000})), 413)
    monkeypatch.setattr("server.roster.api._group_out", lambda group: 1 / 0)
    coach.client.raise_request_exception = False
    assert "in the log" in shape(sent(coach, "groups", '{"name": "Dock"}'), 500)
    assert shape(Client().get("/api/sessions"), 401)


def test_while_the_database_is_away_requests_are_told_to_wait_and_the_log_says_so_once_a_second(
    coach, monkeypatch, caplog
):
    def away(*args: object, **more: object):
        raise OperationalError("the server closed the connection unexpectedly")

    monkeypatch.setattr("server.parsing._Last.at", 0.0)
    monkeypatch.setattr("server.roster.api._group_out", away)
    coach.client.raise_request_exception = False
    for _ in range(5):
        answer = sent(coach, "groups", json.dumps({"name": uuid4().hex}))
        assert "Nothing is lost" in shape(answer, 503)
        assert answer.headers["Retry-After"] == "2"
    said = [record for record in caplog.records if "does not answer" in record.getMessage()]
    assert len(said) == 1
    # Also where it is noticed before any view, such as when it is looked up who asks.
    monkeypatch.setattr("server.accounts.zone.ClubZone.__call__", away)
    answer = coach.get("groups")
    assert "Nothing is lost" in shape(answer, 503)
