"""Nothing of a club can be read, changed or used by another."""

import uuid

import pytest

from tests.server.conftest import document, run_of


def test_lists_hold_only_the_clubs_own(coach, stranger):
    coach.person()
    coach.session()
    assert len(coach.listed("people")) == len(coach.listed("sessions")) == 1
    for room in ("people", "sessions", "log"):
        assert stranger.listed(room) == []


@pytest.mark.parametrize("room", ["sessions/{id}", "sessions/{id}/run"])
def test_a_session_of_another_club_is_not_there(coach, stranger, room):
    saved = coach.session()
    assert coach.get(room.format(**saved)).status_code == 200
    assert stranger.get(room.format(**saved)).status_code == 404


def test_a_session_of_another_club_cannot_be_changed_or_deleted(coach, stranger):
    saved = coach.session()
    body = {"document": document("20:00 flow"), "target": "aerobic-base"}
    assert stranger.put(f"sessions/{saved['id']}", body).status_code == 404
    assert stranger.client.delete(f"/api/sessions/{saved['id']}").status_code == 404
    assert coach.get(f"sessions/{saved['id']}").json()["document"] == saved["document"]


def test_a_person_of_another_club_cannot_be_used(coach, stranger):
    person = coach.person()
    body = {"document": document("20:00 flow"), "target": "aerobic-base", "person_id": person.pk}
    assert stranger.post("evaluate", body).status_code == 404
    assert stranger.post("sessions", body).status_code == 404
    assert (
        stranger.post("propose", {"target": "aerobic-base", "minutes": 30, "person_id": person.pk}).status_code == 404
    )


def test_a_run_that_names_another_clubs_session_or_person_touches_neither(coach, stranger):
    saved, person = coach.session(), coach.person()
    entry = {
        "run": run_of(saved, person_id=person.pk),
        "started_at": "2026-05-14T18:20:00Z",
        "done_s": 240,
        "done_efforts": 8,
        "rpe": 9,
    }
    assert stranger.put(f"runs/{uuid.uuid4()}/log", entry).json()["session_id"] is None
    assert coach.listed("log") == []
    assert stranger.put(f"runs/{uuid.uuid4()}/log", {**entry, "person_id": person.pk}).status_code == 404


@pytest.mark.parametrize(
    "path", ["people", "sessions", "log", "vocabulary", "sessions/1", "sessions/1/run", "log/1", "method"]
)
def test_without_signing_in_nothing_is_read(nobody, path):
    assert nobody.get(f"/api/{path}").status_code == 401
