"""A series in the club's library: its sessions are kept together, and the next one due is told."""

import uuid

from django.utils import timezone

from tests.server.conftest import document, fault, run_of

LADDER = "6 x 30 power rest 90/75/60"


def make(coach, text=LADDER, part=1):
    body = {
        "document": document("10:00 flow", "6 x 30 power rest 1:30"),
        "target": "threshold",
        "part": part,
        "text": text,
    }
    return coach.post("series", body)


def rows(coach):
    return sorted(coach.listed("sessions"), key=lambda row: row["series"]["week"])


def test_the_reader_tells_how_many_weeks_a_ladder_has(coach):
    assert fault(coach.post("read", {"text": LADDER}))["ctx"]["weeks"] == 3
    assert fault(coach.post("read", {"text": "6 x 30 pwer"}))["ctx"]["weeks"] == 1


def test_a_series_is_kept_together_and_the_next_one_due_is_the_first_that_nobody_has_run(coach):
    answer = make(coach)
    assert answer.status_code == 201
    first = answer.json()[0]
    assert len({row["series"]["id"] for row in rows(coach)}) == 1
    assert [row["text"][1] for row in rows(coach)] == [
        f"6 × (30 power) rest {rest}" for rest in ("1:30", "1:15", "1:00")
    ]
    assert [row["series"]["due"] for row in rows(coach)] == [True, False, False]
    entry = {"run": run_of(first), "started_at": timezone.now().isoformat(), "done_s": 900, "done_efforts": 6, "rpe": 7}
    assert coach.put(f"runs/{uuid.uuid4()}/log", entry).status_code == 200
    assert [row["series"]["due"] for row in rows(coach)] == [False, True, False]


def test_what_is_no_series_is_refused_and_nothing_is_made(coach):
    assert "one session" in fault(make(coach, "6 x 30 power rest 1:30"))["msg"]
    assert fault(make(coach, "6 x 30 pwer rest 90/75/60"))["ctx"]["suggestion"] == "power"
    assert coach.listed("sessions") == []


def test_a_session_of_its_own_stands_in_no_series(coach):
    coach.session("3:00 power")
    assert [row["series"] for row in coach.listed("sessions")] == [None]


def test_a_run_that_was_begun_and_left_takes_nothing_from_one_that_was_logged(coach):
    first = make(coach).json()[0]
    entry = {"run": run_of(first), "started_at": timezone.now().isoformat(), "done_s": 900, "done_efforts": 6, "rpe": 7}
    assert coach.put(f"runs/{uuid.uuid4()}", run_of(first)).status_code == 200
    assert coach.put(f"runs/{uuid.uuid4()}/log", entry).status_code == 200
    assert [row["series"]["due"] for row in rows(coach)] == [False, True, False]
