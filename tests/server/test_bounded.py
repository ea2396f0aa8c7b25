"""More than can be worked out soon is sent away with a time to come again; nobody waits for ever, nothing is held."""

from contextlib import suppress
from socket import socketpair
from threading import Event, Thread
from time import sleep

import pytest
from django.db import connection

from server.bench import worked_out
from server.bounded import AT_ONCE, CALLER, WAITING, Bound, BusyError, GoneError, computes
from tests.server.conftest import Coach, document
from yoisho.engine import demand
from yoisho.engine.person import person
from yoisho.judgement.circumstances import Circumstances
from yoisho.session.document import Part, Session
from yoisho.session.shorthand import read


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
    while not bound.turns:
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


def test_who_waits_longest_is_next_however_long_it_takes(monkeypatch):
    monkeypatch.setattr("server.bounded.LOOKS_S", 0.02)
    bound, done = Bound(at_once=1, waiting=9), []
    bound.free = 0
    threads = []
    for number in range(9):
        threads.append(Thread(target=bound(done.append), args=(number,)))
        threads[-1].start()
        while len(bound.turns) <= number:
            sleep(0.005)
    sleep(0.1)
    bound._leave()
    for thread in threads:
        thread.join(20)
    assert done == [*range(9)]


def test_a_best_guess_goes_before_what_takes_longer_however_late_it_is_asked_for(monkeypatch):
    monkeypatch.setattr(computes, "free", 0)
    done: list[str] = []
    session = Session("Thursday", (Part("Main", read("5 x (23 power / 37 rest)")),))
    whose = (session, person(), "lactic-capacity", Circumstances(), "overhands")
    asked = {
        "nudges": (computes.turns, lambda: worked_out.nudged(*whose[:-1], None)),
        "ranges": (computes.turns, lambda: worked_out.with_ranges(*whose)),
        "best guess": (computes.short_turns, lambda: worked_out.best_guess(*whose)),
    }
    threads = []
    for what, (turns, work) in asked.items():
        waiting = len(turns)
        threads.append(Thread(target=lambda what=what, work=work: (work(), done.append(what))))
        threads[-1].start()
        while len(turns) == waiting:
            sleep(0.005)
    computes._leave()
    for thread in threads:
        thread.join(60)
    assert done == ["best guess", "nudges", "ranges"]


@pytest.fixture
def two():
    """Two who wait for a place that is not free, in this order: their ends of the line, their threads, what is done."""
    bound, done = Bound(at_once=1, waiting=2), []
    ends = {"gone": socketpair(), "there": socketpair()}

    def ask(name: str) -> None:
        CALLER.connection = ends[name][0]
        with suppress(BusyError):
            bound(lambda: done.append(name))()

    bound.free = 0
    threads = {name: Thread(target=ask, args=(name,)) for name in ends}
    for number, thread in enumerate(threads.values(), 1):
        thread.start()
        while len(bound.turns) < number:
            sleep(0.005)
    yield bound, ends, threads, done
    for pair in ends.values():
        for end in pair:
            end.close()


def test_who_has_gone_while_waiting_is_not_worked_for_and_who_is_there_is(two):
    bound, ends, threads, done = two
    ends["gone"][1].close()
    threads["gone"].join(20)
    assert not threads["gone"].is_alive(), "it left the queue before its turn"
    assert threads["there"].is_alive()
    bound._leave()
    threads["there"].join(20)
    assert done == ["there"]


def test_who_has_gone_just_before_their_turn_gives_it_to_the_next(two):
    bound, ends, threads, done = two
    ends["gone"][1].close()
    bound._leave()
    for thread in threads.values():
        thread.join(20)
    assert (done, bound.free) == (["there"], 1)


def test_a_place_is_free_again_after_a_fault():
    bound = Bound(at_once=1, waiting=0)
    for _ in range(3):
        with pytest.raises(ZeroDivisionError):
            bound(lambda: 1 / 0)()


@pytest.fixture
def searching(monkeypatch, request):
    """Somebody whose nudges are being tried, from the third simulation on: their end of the line, their thread, and the
    names of what is done, in order."""
    begun, done, here, there = Event(), [], *socketpair()
    simulate, count = demand.simulate, iter(range(10_000))

    def slow(*all_, **named):
        if next(count) == 2:
            begun.set()
        sleep(0.01)
        return simulate(*all_, **named)

    monkeypatch.setattr(demand, "simulate", slow)
    session = Session(request.node.name, (Part("Main", read("5 x (19 power / 38 rest)")),))
    whose = (session, person(), "lactic-capacity", Circumstances())

    def search() -> None:
        CALLER.connection = here
        try:
            worked_out.nudged(*whose, None)
            done.append("nudges")
        except GoneError:
            done.append("gone")

    thread = Thread(target=search)
    thread.start()
    assert begun.wait(20)
    yield there, thread, done
    thread.join(60)
    for end in (here, there):
        end.close()


def test_a_best_guess_does_not_wait_until_a_search_is_through(searching):
    _, thread, done = searching
    other = Session("Sunday", (Part("Main", read("5 x (19 power / 41 rest)")),))
    worked_out.best_guess(other, person(), "lactic-capacity", Circumstances(), "overhands")
    done.append("best guess")
    thread.join(60)
    assert done == ["best guess", "nudges"]


def test_a_search_ends_where_whoever_asked_has_gone(searching):
    there, thread, done = searching
    there.close()
    thread.join(60)
    assert (done, computes.free) == (["gone"], AT_ONCE)


@pytest.fixture
def full(monkeypatch):
    """As much is asked as can be worked out and waited for."""
    monkeypatch.setattr(computes, "free", 0)
    monkeypatch.setattr(computes, "waiting", 0)


@pytest.mark.parametrize("path", ["evaluate", "claim", "propose", "scale", "nudges", "make-it-so"])
def test_what_computes_is_bounded_and_says_when_to_come_again(coach: Coach, full, path):
    body = {"document": document(title="A night too many"), "target": "lactic-capacity", "minutes": 37, "kcal": 300}
    answer = coach.post(path, {**body, "to": [coach.person().pk]})
    assert answer.status_code == 429, answer.content
    assert answer["Retry-After"] == "1"
    assert "Ask again in a moment" in answer.json()["detail"]


def test_an_edit_that_is_let_go_by_the_next_is_no_sign_of_too_much_work(coach: Coach, full, monkeypatch, caplog):
    body = {"document": document("4 x (24 power / 39 rest)"), "target": "lactic-capacity"}
    monkeypatch.setattr("server.parsing._Last.at", 0.0)
    coach.post("evaluate", body)
    assert "more is asked than can be worked out" in caplog.text
    caplog.clear()
    monkeypatch.setattr("server.parsing._Last.at", 0.0)
    monkeypatch.setattr(computes, "waiting", 1)
    here, there = socketpair()
    there.close()
    coach.client.post("/api/evaluate", body, content_type="application/json", **{"gunicorn.socket": here})
    here.close()
    assert "more is asked" not in caplog.text
    assert not computes.turns


def simulated(monkeypatch) -> list[float]:
    """The seconds of every session that is simulated from here on."""
    seen, simulate = [], demand.simulate
    monkeypatch.setattr(
        demand, "simulate", lambda *all_, **named: seen.append(all_[0].sum()) or simulate(*all_, **named)
    )
    return seen


def test_what_was_asked_lately_is_not_worked_out_again_and_waits_for_nobody(coach: Coach, request, monkeypatch):
    body = {"document": document("7 x (21 power / 39 rest)"), "target": "lactic-capacity"}
    seen = simulated(monkeypatch)
    first = coach.post("evaluate", body)
    once = len(seen)
    assert once > 0
    request.getfixturevalue("full")
    again = coach.post("evaluate", body)
    assert (again.status_code, again.content, len(seen)) == (200, first.content, once)


def test_however_many_edit_at_once_nobodys_guess_is_simulated_again_for_its_ranges(coach: Coach, monkeypatch):
    """All whose ranges wait, as many guesses again that go before them, and the one that is worked out."""
    asked = [
        {"document": document(f"3 x ({20 + number} power / 37 rest)"), "target": "lactic-capacity"}
        for number in range(2 * WAITING + 1)
    ]
    seen = simulated(monkeypatch)
    for body in asked:
        coach.post("evaluate", {**body, "ranges": False})
    guessed = len(seen)
    assert guessed >= len(asked)
    assert coach.post("evaluate", asked[0]).json()["reading"]["bands"]
    assert len(seen) == guessed + 1


def test_another_person_or_another_fact_about_them_is_another_question(coach: Coach):
    person = coach.person()
    body = {"document": document("7 x (22 power / 39 rest)"), "target": "lactic-capacity", "person_id": person.pk}
    first = coach.post("evaluate", body).json()
    person.knocks.create(on="2026-01-02")
    second = coach.post("evaluate", body).json()
    rules = [{each["rule"] for each in found["reading"]["cautions"]} for found in (first, second)]
    assert rules[1] - rules[0] == {"concussion"}
    elder = coach.person("Ada Quay", birth_year=1950)
    third = coach.post("evaluate", {**body, "person_id": elder.pk}).json()
    assert third["reading"]["hr_max_bpm"] < first["reading"]["hr_max_bpm"]


def test_a_fault_is_not_kept(coach: Coach):
    body = {"document": document("3 x (20 rest)"), "target": "lactic-capacity", "kcal": 300}
    assert [coach.post("claim", body).status_code for _ in range(2)] == [422, 422]
