"""What a hall runs and what an earlier start left running: known by the place of the clone, never by a name."""

import fcntl
import os
import socket
import subprocess
import sys
import time
from configparser import RawConfigParser
from pathlib import Path

import pytest

ROOT = Path(__file__).resolve().parents[2]
NAME = "atrial"


def script(name: str, *arguments: str) -> subprocess.CompletedProcess[str]:
    return subprocess.run([sys.executable, f"scripts/{name}.py", *arguments], cwd=ROOT, capture_output=True, text=True)


def sleeper(mark: str, stubborn: bool = False) -> subprocess.Popen[bytes]:
    """A process with a hall's mark; a stubborn one does not end when it is asked to."""
    code = "import signal, time\n" + "signal.signal(signal.SIGTERM, lambda *_: None)\n" * stubborn
    code += "print('here', flush=True)\nwhile True: time.sleep(1)"
    started = subprocess.Popen(
        [sys.executable, "-c", code], stdout=subprocess.PIPE, env={**os.environ, "YOISHO_HALL": mark}
    )  # fmt: skip
    assert started.stdout.readline() == b"here\n"
    return started


@pytest.fixture
def pid_file():
    path = ROOT / ".state" / f"{NAME}.supervisor.pid"
    yield path
    path.unlink(missing_ok=True)


def test_database_port_server_and_worker_are_started_in_order_and_again_whenever_they_die():
    told = RawConfigParser()
    told.read_string(script("supervised", NAME, "8123").stdout)
    programs = {name.partition(":")[2]: told[name] for name in told.sections() if name.startswith("program:")}
    assert [name for name, each in sorted(programs.items(), key=lambda one: int(one[1]["priority"]))] == [
        "database", "port", "web", "worker",
    ]  # fmt: skip
    for each in programs.values():
        assert each["autorestart"] == "true"
        assert int(each["startretries"]) > 1000
    assert f"database.py watch {NAME}" in programs["database"]["command"]
    assert "127.0.0.1:8123" in programs["web"]["command"]
    assert "hold 8123" in programs["port"]["command"]
    assert script("supervised", NAME, "no port").returncode


def test_the_port_of_a_hall_is_nobody_elses_while_its_server_is_started_again():
    free = int(script("free_port", "8700").stdout)
    holding = subprocess.Popen([sys.executable, "scripts/ports.py", "hold", str(free)], cwd=ROOT)
    try:
        deadline = time.monotonic() + 5
        while (another := int(script("free_port", str(free)).stdout)) == free and time.monotonic() < deadline:
            time.sleep(0.05)
        assert another > free
        with socket.socket() as server:
            server.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEPORT, 1)
            server.bind(("127.0.0.1", free))
            server.listen()
            socket.create_connection(("127.0.0.1", free), 2).close()
    finally:
        holding.kill()


def test_what_is_left_over_ends_also_what_will_not_and_nothing_of_another_clone(pid_file):
    own = [sleeper(f"{ROOT}/.state/{NAME}"), sleeper(f"{ROOT}/.state/{NAME}", stubborn=True)]
    others = [sleeper(f"{ROOT}/.state/another"), sleeper(f"/elsewhere/.state/{NAME}")]
    try:
        found = script("left_over", NAME)
        assert (found.returncode, found.stdout.strip()) == (0, "")
        for each in own:
            each.wait(timeout=5)
        assert [each.poll() for each in others] == [None, None]
    finally:
        for each in (*own, *others):
            each.kill()


def test_a_hall_that_still_stands_is_taken_over_and_one_that_is_another_programs_is_not(pid_file):
    stands = sleeper(f"{ROOT}/.state/{NAME}")
    other = sleeper("/elsewhere/.state/x")
    try:
        pid_file.write_text(str(stands.pid))
        assert script("left_over", NAME).stdout.strip() == str(stands.pid)
        assert stands.poll() is None
        # The number of a process that is gone may be somebody else's by now.
        pid_file.write_text(str(other.pid))
        assert script("left_over", NAME).stdout.strip() == ""
        assert other.poll() is None
        deadline = time.monotonic() + 5
        while stands.poll() is None and time.monotonic() < deadline:
            time.sleep(0.05)
        assert stands.poll() is not None
    finally:
        stands.kill()
        other.kill()


def test_a_second_start_says_where_the_first_is_and_ends_nothing_of_it():
    stands = sleeper(f"{ROOT}/.state/{NAME}")
    try:
        with (ROOT / ".state" / f"{NAME}.lock").open("w") as lock:
            fcntl.flock(lock, fcntl.LOCK_EX)
            second = subprocess.run(["scripts/demo"], cwd=ROOT, capture_output=True, text=True,
                                    env={**os.environ, "HALL": NAME})  # fmt: skip
        assert second.returncode
        assert "already running" in second.stderr
        assert stands.poll() is None
    finally:
        stands.kill()
        (ROOT / ".state" / f"{NAME}.lock").unlink()


OPENED = """
NAME=atrial; . scripts/hall.sh
starts=0
start_supervisor() { starts=$((starts + 1)); if [ $starts = 1 ]; then bash -c "$ENDS" & else sleep 60 & fi; hall=$!; }
answers() { [ $starts = 2 ]; }
open_hall
kill $hall
echo "started $starts times"
"""


@pytest.mark.parametrize(("ends", "told"), [("kill -9 $$", "started 2 times"), ("exit 3", "the app did not start")])
def test_a_supervisor_that_is_killed_while_the_hall_opens_is_started_again_and_one_that_ends_is_not(ends, told):
    try:
        opened = subprocess.run(["bash", "-c", OPENED], cwd=ROOT, env={**os.environ, "ENDS": ends}, timeout=60,
                                capture_output=True, text=True)  # fmt: skip
        assert told in opened.stdout + opened.stderr
    finally:
        (ROOT / ".state" / f"{NAME}.address").unlink(missing_ok=True)


STAYED = """
NAME=atrial; . scripts/hall.sh
echo http://127.0.0.1:8123/ > .state/$NAME.address
starts=0
start_supervisor() { starts=$((starts + 1)); echo started; sleep $([ $starts = 3 ] && echo 20 || echo 0.2) & hall=$!; }
start_supervisor ""
stay
"""


def test_a_supervisor_that_is_killed_twice_in_a_moment_is_started_again_at_once():
    """The second was not looked at for twelve seconds, until what the first had left was ended."""
    try:
        stayed = subprocess.run(["timeout", "8", "bash", "-c", STAYED], cwd=ROOT, capture_output=True, text=True)
        assert stayed.stdout.splitlines().count("started") == 3
        assert stayed.returncode == 124, "and watches on over the third"
    finally:
        (ROOT / ".state" / f"{NAME}.address").unlink(missing_ok=True)


@pytest.mark.parametrize("start", ["demo", "serve"])
def test_a_hall_that_is_taken_over_is_watched_with_its_own_settings(start):
    """Else its supervisor, started again later, would know neither database nor secret."""
    told = (ROOT / "scripts/hall.sh").read_text()
    taking_over = told[told.index("take_over() {") : told.index("\n}", told.index("take_over() {"))]
    assert 'use_database "$NAME"' in taking_over
    lines = (ROOT / "scripts" / start).read_text().splitlines()
    settled = next(number for number, line in enumerate(lines) if "YOISHO_DEMO" in line)
    assert settled < next(number for number, line in enumerate(lines) if "take_over" in line)
