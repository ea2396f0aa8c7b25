"""The clone's own database: started, stopped, killed and brought back, by the script that people use."""

import json
import os
import signal
import socket
import subprocess
import sys
import threading
import time
from contextlib import suppress
from pathlib import Path

import psycopg
import pytest

ROOT = Path(__file__).resolve().parents[2]
NAME = f"script_test_{os.environ.get('PYTEST_XDIST_WORKER', 'alone')}"
"""Workers that test at the same time have a cluster each."""


def database(verb: str) -> subprocess.CompletedProcess[str]:
    return subprocess.run(
        [sys.executable, str(ROOT / "scripts/database.py"), verb, NAME], capture_output=True, text=True, timeout=120
    )


@pytest.fixture
def address():
    database("destroy")
    started = database("start")
    assert started.returncode == 0, started.stderr
    yield started.stdout.strip()
    assert database("destroy").returncode == 0


def note(address: str, query: str) -> list[tuple]:
    with psycopg.connect(address, connect_timeout=5) as connection:
        cursor = connection.execute(query)
        return cursor.fetchall() if cursor.description else []


def postmaster(address: str) -> int:
    (found,) = note(address, "select current_setting('data_directory')")
    return int((Path(found[0]) / "postmaster.pid").read_text().split()[0])


def test_starting_twice_gives_the_same_database(address):
    assert database("start").stdout.strip() == address
    assert "running" in database("status").stdout


def test_it_listens_on_loopback_only(address):
    assert note(address, "show listen_addresses") == [("127.0.0.1",)]
    assert "@127.0.0.1:" in address


def test_what_was_written_is_there_after_stop_and_start(address):
    note(address, "create table kept (word text)")
    note(address, "insert into kept values ('bell')")
    assert database("stop").returncode == 0
    assert database("status").stdout.strip() == "stopped"
    assert note(database("start").stdout.strip(), "select word from kept") == [("bell",)]


def test_it_comes_back_after_being_killed(address):
    note(address, "create table kept (word text)")
    os.kill(postmaster(address), signal.SIGKILL)
    again = database("start")
    assert again.returncode == 0, again.stderr
    assert note(again.stdout.strip(), "select count(*) from kept") == [(0,)]


def answers_within(address: str, seconds: float) -> bool:
    deadline = time.monotonic() + seconds
    while time.monotonic() < deadline:
        try:
            return note(address, "select 1") == [(1,)]
        except psycopg.OperationalError:
            time.sleep(0.1)
    return False


def test_watched_over_it_comes_back_by_itself_where_it_was_and_stops_when_told(address):
    note(address, "create table kept (word text)")
    watching = subprocess.Popen(
        [sys.executable, str(ROOT / "scripts/database.py"), "watch", NAME], stderr=subprocess.PIPE, text=True
    )
    try:
        for _ in range(3):
            os.kill(postmaster(address), signal.SIGKILL)
            time.sleep(0.2)
            assert answers_within(address, 60), "at the same address, with what was in it"
            assert note(address, "select count(*) from kept") == [(0,)]
        watching.terminate()
        assert watching.wait(timeout=30) == 0
        assert database("status").stdout.strip() == "stopped"
        assert watching.stderr.read().count("is not running") >= 3
    finally:
        watching.kill()


def test_whoever_dials_and_says_nothing_does_not_hold_up_its_recovery_for_a_minute(address):
    port = psycopg.conninfo.conninfo_to_dict(address)["port"]
    silent: list[socket.socket] = []
    over = threading.Event()

    def dial():
        while not over.is_set():
            with suppress(OSError):
                silent.append(socket.create_connection(("127.0.0.1", port), 0.2))

    dialling = threading.Thread(target=dial)
    with suppress(psycopg.OperationalError), psycopg.connect(address) as connection:
        dialling.start()
        os.kill(connection.info.backend_pid, signal.SIGKILL)
        time.sleep(0.2)
    over.set()
    dialling.join()
    try:
        assert answers_within(address, 30)
    finally:
        for each in silent:
            each.close()


@pytest.fixture
def recovering(address):
    """It has just lost a backend, and has so much to do again that it does not answer for a while."""
    note(address, "create table much as select generate_series(1, 2000000) as each")
    with suppress(psycopg.OperationalError), psycopg.connect(address) as connection:
        os.kill(connection.info.backend_pid, signal.SIGKILL)
    for _ in range(200):
        try:
            psycopg.connect(address, connect_timeout=5).close()
        except psycopg.OperationalError:
            return address
    pytest.fail("it answers: it had too little to do again")


def test_a_start_in_the_middle_of_its_recovery_waits_for_it_and_stops_nothing(recovering):
    again = database("start")
    assert again.stdout.strip() == recovering, again.stderr
    assert note(recovering, "select count(*) from much") == [(2000000,)]
    (log,) = note(recovering, "select setting from pg_settings where name = 'data_directory'")
    assert "shutdown request" not in (Path(log[0]).parent / "server.log").read_text()


def test_it_stops_also_in_the_middle_of_its_recovery_and_what_was_written_is_there(recovering):
    stopped = database("stop")
    assert stopped.returncode == 0, stopped.stderr
    assert database("status").stdout.strip() == "stopped"
    assert note(database("start").stdout.strip(), "select count(*) from much") == [(2000000,)]


def test_the_password_is_kept_from_others(address):
    settings = ROOT / ".state" / f"database-{NAME}" / "settings.json"
    assert json.loads(settings.read_text())["password"] in address
    assert settings.stat().st_mode & 0o077 == 0


def test_a_wrong_word_is_told_the_right_ones():
    done = subprocess.run([sys.executable, str(ROOT / "scripts/database.py"), "begin"], capture_output=True, text=True)
    assert done.returncode == 2
    assert "start|stop|restart|status|destroy" in done.stderr


def archive(verb: str, given: bytes = b"") -> subprocess.CompletedProcess[bytes]:
    command = [sys.executable, str(ROOT / "scripts/database.py"), verb, NAME]
    return subprocess.run(command, input=given, capture_output=True, timeout=120)


DIGESTS = "select md5(string_agg(t::text, ',' order by id)) from people t"


def test_what_is_restored_is_what_was_backed_up_to_the_last_row(address):
    note(address, "create table people (id serial primary key, name text, at timestamptz default now())")
    note(address, "insert into people (name) select 'somebody ' || n from generate_series(1, 500) n")
    before = note(address, DIGESTS)
    kept = archive("dump")
    assert kept.returncode == 0, kept.stderr
    note(address, "delete from people where id > 100")
    note(address, "update people set name = 'nobody'")
    assert note(address, DIGESTS) != before
    assert archive("load", kept.stdout).returncode == 0
    assert note(address, DIGESTS) == before
    (added,) = note(address, "insert into people (name) values ('new') returning id")
    assert added == (501,), "numbers go on where they were"


def test_a_damaged_back_up_changes_nothing(address):
    note(address, "create table people (id serial primary key, name text)")
    note(address, "insert into people (name) values ('Runa')")
    kept = archive("dump").stdout
    note(address, "insert into people (name) values ('Ife')")
    for damaged in (kept[: len(kept) // 2], b"no archive at all"):
        assert archive("load", damaged).returncode != 0
        assert note(address, "select name from people order by id") == [("Runa",), ("Ife",)]
