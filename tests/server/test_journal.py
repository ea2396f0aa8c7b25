"""What happened in a run reaches the club once, whole, however often it is sent."""

from uuid import uuid4

from tests.server.conftest import fault, run_of

RUN = uuid4()


def event(kind: str, at_s: float) -> dict:
    return {"kind": kind, "at_s": at_s, "moment": "2026-11-20T18:30:00Z", "more": {}}


START, PAUSE, UNWELL = event("start", -10), event("pause", 41.5), event("unwell", 252.0)


def send(coach, saved: dict, *events: dict, run=RUN):
    return coach.put(f"runs/{run}/journal", {"run": run_of(saved), "events": list(events)})


def kinds(coach, run=RUN) -> list[str]:
    return [each["kind"] for each in coach.get(f"runs/{run}/journal").json()["events"]]


def test_the_same_journal_sent_twice_is_kept_once_and_a_longer_one_takes_its_place(coach):
    saved = coach.session()
    send(coach, saved, START, PAUSE)
    send(coach, saved, START, PAUSE)
    assert kinds(coach) == ["start", "pause"]
    send(coach, saved, START, PAUSE, UNWELL)
    assert kinds(coach) == ["start", "pause", "unwell"]


def test_an_older_journal_that_comes_late_takes_nothing_away(coach):
    saved = coach.session()
    send(coach, saved, START, PAUSE, UNWELL)
    send(coach, saved, START)
    assert len(kinds(coach)) == 3


def test_somebody_unwell_is_told_in_the_log(coach):
    saved, run = coach.session(), uuid4()
    send(coach, saved, START, UNWELL, run=run)
    body = {"run": run_of(saved), "started_at": "2026-11-20T18:30:00Z", "done_s": 200, "done_efforts": 6, "rpe": 7}
    coach.put(f"runs/{run}/log", body)
    assert coach.listed("log")[0]["unwell_at_s"] == [252.0]


def test_a_journal_is_the_clubs_own_and_holds_only_what_can_happen(coach, stranger):
    saved = coach.session()
    send(coach, saved, START)
    assert stranger.get(f"runs/{RUN}/journal").status_code == 404
    send(stranger, saved, START, PAUSE)
    assert kinds(coach) == ["start"], "the same id in another club is another run"
    assert fault(send(coach, saved, event("shout", 3)))["loc"][-1] == "kind"
    assert fault(send(coach, saved, event("pause", 10**6)))["loc"][-1] == "at_s"
