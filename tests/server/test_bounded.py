"""More than can be worked out soon is sent away with a time to come again; nobody waits for ever, nothing is held."""

from threading import BoundedSemaphore, Event, Thread
from time import sleep

import pytest
from django.db import connection

from server.bounded import Bound, BusyError, computes
from tests.server.conftest import Coach, document


def test_so_many_at_once_the_next_wait_their_turn_and_one_more_is_sent_away():
    bound, begun, go_on, done = Bound(at_once=1, waiting=1), Event(), Event(), []

    @bound
    def work(name: str) -> None:
        begun.set()
        assert go_on.wait(20)
        done.append(name)

    first, second = (Thread(target=work, args=(name,)) for name in ("first", "second"))
    first.start()
    assert begun.wait(20)
    second.start()
    while bound.inside.acquire(blocking=False):
        bound.inside.release()
        sleep(0.01)
    with pytest.raises(BusyError):
        work("third")
    assert done == []
    go_on.set()
    for thread in (first, second):
        thread.join(20)
    assert done == ["first", "second"]
    work("fourth")
    assert done[-1] == "fourth", "a place is free again"


@pytest.mark.django_db(transaction=True)
def test_whoever_waits_holds_no_connection_of_the_database():
    connection.ensure_connection()
    held = []
    Bound()(lambda: held.append(connection.connection))()
    assert held == [None]


def test_a_place_is_free_again_after_a_fault():
    bound = Bound(at_once=1, waiting=0)
    for _ in range(3):
        with pytest.raises(ZeroDivisionError):
            bound(lambda: 1 / 0)()


@pytest.mark.parametrize("path", ["evaluate", "claim", "propose", "scale", "nudges", "make-it-so"])
def test_what_computes_is_bounded_and_says_when_to_come_again(coach: Coach, monkeypatch, path):
    monkeypatch.setattr(computes, "inside", BoundedSemaphore(1))
    assert computes.inside.acquire(blocking=False)
    answer = coach.post(path, {"document": document(), "target": "lactic-capacity", "minutes": 30, "kcal": 300})
    assert answer.status_code == 429, answer.content
    assert answer["Retry-After"] == "1"
    assert "Ask again in a moment" in answer.json()["detail"]
