"""A log is never lost and is judged by the plan that was run, whatever became of the session."""

import uuid
from concurrent.futures import ThreadPoolExecutor
from datetime import timedelta

import pytest
from django.db import connection
from django.utils import timezone

from server.runs.models import Journal, Run
from server.sessions.models import Session
from tests.server.conftest import Coach, document, fault, run_of

WARM_UP = "10:00 flow; then 1:00"
TWENTY_TENS = "8 x (20 all out) rest 0:10"
THIRTIES = "8 x (30 all out) rest 0:30"


def body_of(saved, **more):
    began = (timezone.now() - timedelta(minutes=30)).isoformat()
    return {"run": run_of(saved), "started_at": began, "done_s": 890, "done_efforts": 8, "rpe": 9, **more}


def log(coach, saved, run_id=None, **more):
    return coach.put(f"runs/{run_id or uuid.uuid4()}/log", body_of(saved, **more))


def played(*stretches, **more):
    return {"played": [{"from_s": start, "to_s": end} for start, end in stretches], **more}


def rules(coach, person):
    asked = {"document": document(WARM_UP, THIRTIES), "target": "lactic-capacity", "person_id": person.pk}
    return {each["rule"] for each in coach.post("evaluate", asked).json()["reading"]["cautions"]}


def test_a_run_is_logged_though_its_session_was_deleted_meanwhile(coach):
    saved = coach.session(TWENTY_TENS)
    coach.client.delete(f"/api/sessions/{saved['id']}")
    assert log(coach, saved).status_code == 200
    (entry,) = coach.listed("log")
    assert (entry["session_id"], entry["text"]) == (None, ["8 × (20 all out) rest 0:10"])


def test_a_run_is_judged_by_the_plan_that_was_run_and_not_by_what_the_session_became(coach):
    saved = coach.session(TWENTY_TENS)
    shorter = {"document": document("2 x (20 all out) rest 0:10"), "target": "lactic-capacity"}
    assert coach.put(f"sessions/{saved['id']}", shorter).status_code == 200
    told = log(coach, saved, record=played((0, 230))).json()
    assert (told["planned_efforts"], told["done_efforts"]) == (8, 8)
    assert len(told["done"]["rounds"]) == 8
    assert told["session_id"] == saved["id"]


def test_the_plan_that_was_told_first_stands_and_is_what_another_screen_follows(coach):
    saved, run = coach.session(TWENTY_TENS), uuid.uuid4()
    assert coach.put(f"runs/{run}", run_of(saved)).json()["revision"] == 1
    coach.put(f"runs/{run}", run_of(saved, document=document("5:00 flow"), revision=2))
    plan = coach.get(f"runs/{run}/plan").json()
    assert (plan["revision"], plan["total_s"]) == (1, 230)
    assert plan["document"] == saved["document"]


def test_a_warm_up_that_was_skipped_makes_the_efforts_after_it_no_less_lactic(coach):
    """Eight all-out efforts were done; whoever counts 453 s from the start of the plan sees none of them."""
    person = coach.person(screened_on=timezone.localdate(), screening_active=True)
    saved = coach.session(WARM_UP, THIRTIES, person_id=person.pk)
    log(coach, saved, person_id=person.pk, done_s=453, record=played((0, 3), (660, 1110)))
    assert "lactic-gap" in rules(coach, person)


def test_efforts_that_were_skipped_are_no_lactic_day_and_no_strikes_of_the_week(coach):
    person = coach.person(screened_on=timezone.localdate(), screening_active=True)
    saved = coach.session(WARM_UP, THIRTIES, "1:00 flow", person_id=person.pk)
    whole = log(coach, saved, person_id=person.pk, record=played((0, 1170))).json()["expected_strikes"]
    run = uuid.uuid4()
    skipped = log(coach, saved, run, person_id=person.pk, done_efforts=0, record=played((0, 660), (1110, 1170))).json()
    assert 11 * 30 < skipped["expected_strikes"] < 11 * 80, "eleven minutes of flow"
    assert whole > skipped["expected_strikes"] + 200
    Run.objects.exclude(run_id=run).delete()
    assert "lactic-gap" not in rules(coach, person)


def test_reps_that_were_counted_reach_the_log(coach):
    saved = coach.session("2 x (50 reps power bag [1-2]) rest 0:30")
    second = saved["id"] and coach.get(f"sessions/{saved['id']}/run").json()["timeline"][2]["start_s"]
    kept = played((0, 40), (second, second + 20), reps=[[0, 50], [second, 18]], counted=[[0, second - 30]])
    told = log(coach, saved, done_efforts=1, record=kept).json()
    assert [(one["reps"], one["reps_asked"]) for one in told["done"]["rounds"]] == [(50, 50), (18, 50)]
    assert told["expected_strikes"] == pytest.approx(136, rel=0.02), "sixty-eight passes of two"


def test_a_person_who_is_gone_is_said_and_the_run_can_be_logged_without(coach):
    person = coach.person()
    saved = coach.session(TWENTY_TENS, person_id=person.pk)
    gone = person.pk
    person.delete()
    assert log(coach, saved, person_id=gone).status_code == 404
    assert log(coach, saved).status_code == 200


def test_a_nul_in_a_note_is_refused_with_its_place_and_takes_nothing_down(coach):
    saved = coach.session()
    wrong = fault(log(coach, saved, note="left side\x00lazy"))
    assert wrong["loc"] == ["body", "note"]
    assert "NUL" in wrong["msg"]
    assert fault(coach.post("sessions", {"document": {**saved["document"], "title": "a\x00b"}}))["loc"][-1] == "title"
    assert log(coach, saved, note="a \\u0000 that was only typed").status_code == 200


def test_an_impossible_plan_is_refused_with_the_path_to_the_fault(coach):
    saved = coach.session()
    wrong = fault(log(coach, saved, run=run_of(saved, document={**saved["document"], "parts": 3})))
    assert wrong["loc"] == ["body", "run", "document", "parts"]
    assert Run.objects.count() == 0


def event(number: int) -> dict:
    return {"kind": "pause", "at_s": number, "moment": "2026-11-20T18:30:00Z"}


@pytest.mark.django_db(transaction=True)
def test_of_eight_journals_that_come_at_once_the_longest_is_kept():
    coach = Coach("Capstan Hall")
    saved, run = coach.session(), uuid.uuid4()

    def send(length: int) -> int:
        try:
            body = {"run": run_of(saved), "events": [event(n) for n in range(length)]}
            return coach.put(f"runs/{run}/journal", body).status_code
        finally:
            connection.close()

    with ThreadPoolExecutor(8) as several:
        assert set(several.map(send, [3, 40, 12, 8, 25, 1, 33, 17])) == {200}
    assert len(Journal.objects.get().events) == 40


KEY = {"HTTP_IDEMPOTENCY_KEY": "5f0c9d62-6c0e-4a53-93f5-0f2d4f6f9d11"}


def post(coach, path, body, **headers):
    return coach.client.post(f"/api/{path}", body, content_type="application/json", **headers)


def test_a_session_whose_answer_was_lost_is_made_once(coach):
    body = {"document": document(TWENTY_TENS), "target": "lactic-capacity"}
    first, second = (post(coach, "sessions", body, **KEY) for _ in range(2))
    assert (first.status_code, second.status_code) == (201, 201)
    assert first.json() == second.json()
    assert Session.objects.count() == 1
    post(coach, "sessions", body)
    assert Session.objects.count() == 2, "without a key each is one of its own"


def test_a_key_is_for_one_thing_and_one_coach(coach, stranger):
    body = {"document": document(TWENTY_TENS), "target": "lactic-capacity"}
    post(coach, "sessions", body, **KEY)
    assert post(coach, "sessions", {**body, "target": "skill"}, **KEY).status_code == 409
    assert post(stranger, "sessions", body, **KEY).status_code == 201
    assert Session.objects.filter(club=stranger.club).count() == 1


def test_a_save_whose_answer_was_lost_is_not_called_saved_elsewhere(coach):
    saved = coach.session(TWENTY_TENS)
    body = {"document": document("5:00 flow"), "target": "lactic-capacity", "revision": 1}
    send = lambda **more: coach.client.put(  # noqa: E731
        f"/api/sessions/{saved['id']}", body, content_type="application/json", **more
    )
    assert send(**KEY).json()["revision"] == 2
    assert send(**KEY).json()["revision"] == 2
    assert send().json()["revision"] == 2, "also after a reload, with another key: what is sent is what stands"
    body["document"] = document("6:00 flow")
    assert send().status_code == 409


def letter(coach, to, **more):
    run = f"/api/runs/{uuid.uuid4()}/log"
    return coach.post("letters", {"to": to, "title": "Bursts", "path": run, "body": {"rpe": 7}, "reason": "x", **more})


def test_what_was_refused_is_sent_to_another_coach_of_the_club_who_takes_it(coach, stranger):
    other = Coach("Annex")
    other.user.club = coach.club
    other.user.save()
    assert [each["id"] for each in coach.get("coaches").json()] == [other.user.pk]
    assert letter(coach, other.user.pk).status_code == 201
    assert coach.listed("letters") == []
    (found,) = other.listed("letters")
    assert (found["sender"], found["title"], found["body"]) == ("Odd Lind", "Bursts", {"rpe": 7})
    assert stranger.client.delete(f"/api/letters/{found['id']}").status_code == 404
    assert other.client.delete(f"/api/letters/{found['id']}").status_code == 204
    assert other.listed("letters") == []


def test_a_letter_goes_to_nobody_outside_the_club_and_nowhere_else(coach, stranger):
    assert letter(coach, stranger.user.pk).status_code == 404
    assert fault(letter(coach, coach.user.pk, path="/api/sign-out"))["loc"][-1] == "path"
