"""The same run on another screen: heard at once, joined late, only inside the club."""

import json
from datetime import timedelta
from itertools import islice
from threading import Thread
from time import monotonic, sleep
from uuid import uuid4

import pytest
from django.db import connection
from django.http import HttpRequest
from django.utils import timezone

from server.accounts.models import User
from server.runs.live import HUB, follow
from server.runs.models import LiveState
from tests.server.conftest import Coach, fault, run_of

RUN = uuid4()


def state(**more: object) -> dict:
    return {"anchor_s": 12.0, "anchor_ms": 1000.0, "sent_ms": 3000.0, "started": True, "ended": False, **more}


def say(coach, saved: dict, run=RUN, **more: object):
    assert coach.put(f"runs/{run}", run_of(saved)).status_code == 200
    return coach.post(f"runs/{run}/live", {"state": state(**more)})


def asking(coach: Coach) -> HttpRequest:
    """What a screen of theirs asks with."""
    request = HttpRequest()
    request.user, request.session = coach.user, coach.client.session
    return request


def read(events: list[bytes]) -> list[dict]:
    return [json.loads(event.removeprefix(b"data: ")) for event in events if event.startswith(b"data: ")]


def read_on(stream):
    return (json.loads(event.removeprefix(b"data: ")) for event in stream if event.startswith(b"data: "))


def until(said) -> None:
    last = monotonic() + 20
    while not said():
        assert monotonic() < last
        sleep(0.05)


@pytest.mark.django_db(transaction=True)
def test_a_screen_that_joins_late_hears_where_the_clock_stands_and_then_every_change():
    coach = Coach("Capstan Hall")
    saved = coach.session()
    say(coach, saved)
    heard: list[bytes] = []
    stream = follow(asking(coach), RUN, still_here_s=0.2)
    heard.append(next(stream))
    later = Thread(target=lambda: say(coach, saved, anchor_ms=None, anchor_s=30.0))
    later.start()
    heard += [event for event in islice(stream, 12) if event.startswith(b"data: ")][:1]
    later.join()
    first, second = read(heard)
    assert first["state"]["anchor_s"] == 12.0
    assert second["state"]["anchor_ms"] is None
    assert 0 <= second["age_ms"] < 2000


@pytest.mark.django_db(transaction=True)
def test_a_run_that_has_ended_is_told_and_the_stream_closes():
    coach = Coach("Capstan Hall")
    say(coach, coach.session(), ended=True)
    assert len(read(list(follow(asking(coach), RUN)))) == 1
    assert coach.get("live").json() == []


@pytest.mark.django_db(transaction=True)
def test_a_clock_that_was_left_running_is_no_longer_offered_and_one_that_is_held_is():
    coach = Coach("Capstan Hall")
    held, left = uuid4(), uuid4()
    say(coach, coach.session(), run=held, anchor_ms=None)
    say(coach, coach.session(), run=left)
    assert {row["run_id"] for row in coach.get("live").json()} == {str(held), str(left)}
    LiveState.objects.update(said_at=timezone.now() - timedelta(minutes=5))
    assert [row["run_id"] for row in coach.get("live").json()] == [str(held)]


PEOPLE = [{"letter": "A", "name": "Runa", "place": 0, "bpm": 171, "word": "in band", "strikes": 63,
           "low_bpm": 150, "high_bpm": 175}]  # fmt: skip


@pytest.mark.django_db(transaction=True)
def test_hearts_pulse_and_swaps_are_told_while_it_runs_and_no_heart_is_kept_after_the_end():
    coach = Coach("Capstan Hall")
    saved = coach.session()
    say(coach, saved, people=PEOPLE, pulse=2, shift=1)
    (told,) = read([next(follow(asking(coach), RUN))])
    assert told["state"]["people"] == PEOPLE
    assert (told["state"]["pulse"], told["state"]["shift"]) == (2, 1)
    say(coach, saved, people=PEOPLE, ended=True)
    (over,) = read(list(follow(asking(coach), RUN)))
    assert over["state"]["people"] == []


@pytest.mark.django_db(transaction=True)
@pytest.mark.parametrize("wrong", [{"people": [{**PEOPLE[0], "bpm": 999}]}, {"people": PEOPLE * 7}, {"pulse": 9}])
def test_people_that_cannot_be_are_refused(wrong):
    coach = Coach("Capstan Hall")
    assert fault(say(coach, coach.session(), **wrong))["loc"][:2] == ["body", "body"]


def in_use() -> int:
    """Connections to the database, without those that lie ready in the pool."""
    with connection.cursor() as cursor:
        cursor.execute("SELECT count(*) FROM pg_stat_activity WHERE datname = current_database()")
        ready = connection.pool.get_stats()["pool_available"] if connection.pool else 0
        return cursor.fetchone()[0] - ready


@pytest.mark.django_db(transaction=True)
def test_all_who_follow_are_told_and_wait_without_the_database():
    coach = Coach("Capstan Hall")
    saved = coach.session()
    say(coach, saved)
    before = in_use()
    streams = [follow(asking(coach), RUN, still_here_s=10) for _ in range(40)]
    heard: list[list[dict]] = [[] for _ in streams]

    def listen(at: int) -> None:
        for event in read_on(streams[at]):
            heard[at].append(event)

    threads = [Thread(target=listen, args=(at,)) for at in range(len(streams))]
    for thread in threads:
        thread.start()
    until(lambda: all(len(each) == 1 for each in heard))
    until(lambda: in_use() <= before + 2)  # one that listens, and one that reads for all
    say(coach, saved, anchor_s=30.0)
    until(lambda: all(each[-1]["state"]["anchor_s"] == 30.0 for each in heard))
    say(coach, saved, ended=True)
    for thread in threads:
        thread.join(10)
        assert not thread.is_alive()
    until(lambda: not HUB.listening)


@pytest.mark.django_db(transaction=True)
@pytest.mark.parametrize("leaves", ["signed out", "of the club no more"])
def test_whoever_leaves_hears_no_more(leaves):
    coach, other = Coach("Capstan Hall"), Coach("Quay Hall")
    say(coach, coach.session())
    stream = follow(asking(coach), RUN, still_here_s=1)
    assert read([next(stream)])
    if leaves == "signed out":
        assert coach.post("sign-out").status_code == 200
    else:
        User.objects.filter(pk=coach.user.pk).update(club=other.club)
    assert set(islice(stream, 60)) <= {b": still here\n\n"}
    assert list(stream) == [], "it has ended"


@pytest.mark.django_db(transaction=True)
def test_while_nothing_happens_the_stream_says_that_it_is_there():
    coach = Coach("Capstan Hall")
    say(coach, coach.session())
    stream = follow(asking(coach), RUN, still_here_s=0.05)
    assert list(islice(stream, 2))[1] == b": still here\n\n"
    stream.close()


def test_runs_on_the_floor_are_the_clubs_own(coach, stranger):
    saved = coach.session()
    say(coach, saved)
    assert [run["title"] for run in coach.get("live").json()] == ["Thursday"]
    assert stranger.get("live").json() == []
    assert stranger.get(f"live/{RUN}/events").status_code == 404
    assert stranger.post(f"runs/{RUN}/live", {"state": state()}).status_code == 404
    assert stranger.get(f"runs/{RUN}/plan").status_code == 404
    assert fault(say(coach, saved, anchor_s="soon"))["loc"][-1] == "anchor_s"
