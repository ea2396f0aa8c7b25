"""A hall on trial: the demo under another name, started by its own script, and the processes it consists of."""

import os
import signal
import subprocess
import time
import urllib.request
from pathlib import Path

import left_over
from database import Cluster

ROOT = Path(__file__).resolve().parent.parent
STARTED_WITHIN_S = 120


def _parent(pid: int) -> int:
    return int(Path(f"/proc/{pid}/stat").read_text().rsplit(")", 1)[1].split()[1])


def _command(pid: int) -> str:
    return Path(f"/proc/{pid}/cmdline").read_bytes().replace(b"\0", b" ").decode()


def memory_mb(pid: int) -> float:
    """What a process holds for itself, and its share of what it holds together with others [MB]."""
    rollup = Path(f"/proc/{pid}/smaps_rollup").read_text()
    return int(rollup.split("Pss:")[1].split()[0]) / 1000


class Hall:
    def __init__(self, name: str):
        self.name = name
        self.cluster = Cluster(name)
        self.log = (ROOT / ".state" / f"{name}.log").open("w")
        self.script: subprocess.Popen[bytes] | None = None

    def start(self, **settings: str) -> float:
        """Start it by the script that people use; seconds until it answers."""
        began = time.monotonic()
        if "FRESH" in settings:
            # Where it was may be somebody else's by now.
            (ROOT / ".state" / f"{self.name}.address").unlink(missing_ok=True)
        told = {**os.environ, "HALL": self.name, "WEEKS": "0", **settings}
        self.script = subprocess.Popen(
            [str(ROOT / "scripts/demo")], stdout=self.log, stderr=self.log, env=told, start_new_session=True
        )
        while time.monotonic() - began < STARTED_WITHIN_S:
            if self.script.poll() is not None:
                break
            if self.ready():
                return time.monotonic() - began
            time.sleep(0.1)
        raise SystemExit(f"The hall does not start: see {self.log.name}")

    def stop(self) -> None:
        if self.script and self.script.poll() is None:
            self.script.terminate()
            self.script.wait(60)

    @property
    def address(self) -> str:
        return (ROOT / ".state" / f"{self.name}.address").read_text()

    @property
    def port(self) -> int:
        return int(self.address.rstrip("/").rsplit(":", 1)[1])

    def ready(self) -> bool:
        try:
            with urllib.request.urlopen(f"{self.address}readyz", timeout=2) as answer:
                return bool(answer.status == 200)
        except (OSError, ValueError):
            # It is not there yet, or its address is being written.
            return False

    def supervisor(self) -> list[int]:
        found = left_over.supervisor(self.name)
        return [] if found is None else [found]

    def _marked(self, word: str) -> list[int]:
        found = []
        for pid in left_over.marked(self.name):
            try:
                if word in _command(pid):
                    found.append(pid)
            except OSError:
                continue
        return found

    def web(self) -> list[int]:
        """The processes that answer requests, and the one that leads them."""
        return self._marked("gunicorn")

    def web_workers(self) -> list[int]:
        every = self.web()
        return [pid for pid in every if _parent(pid) in every]

    def jobs_workers(self) -> list[int]:
        return self._marked("procrastinate")

    def backends(self) -> list[int]:
        """Processes of PostgreSQL that serve a connection of the app."""
        return [pid for pid in self.cluster.processes() if "yoisho yoisho 127.0.0.1" in _command(pid)]

    def postmaster(self) -> list[int]:
        try:
            return [int((self.cluster.data / "postmaster.pid").read_text().split()[0])]
        except (OSError, ValueError, IndexError):
            return []

    def scripts(self) -> list[int]:
        """The script that people started, which watches over the supervisor."""
        return [] if self.script is None else [self.script.pid]


def kill(pids: list[int]) -> int:
    """Without a word; how many of them there were."""
    done = 0
    for pid in pids:
        try:
            os.kill(pid, signal.SIGKILL)
            done += 1
        except ProcessLookupError:
            continue
    return done
