"""Two servers and two workers on one database, behind a proxy that gives each request to the other one in turn."""

import asyncio
import json
import os
import signal
import subprocess
import sys
import tempfile
import time
from collections.abc import Awaitable, Callable
from pathlib import Path
from typing import Any
from uuid import uuid4

from hall import ROOT, memory_mb
from load import Door, document
from ports import any_free
from writers import Writers

SERVERS = ("one", "two")
UP_WITHIN_S = 60.0
MADE_WITHIN_S = 60.0
WRITTEN_FOR_S = 6.0
PROXY = """
global
  maxconn 2000
defaults
  mode http
  timeout connect 2s
  timeout client 1h
  timeout server 1h
  option redispatch
  retries 3
  retry-on conn-failure empty-response
frontend hall
  bind 127.0.0.1:{front}
  default_backend servers
backend servers
  balance roundrobin
  option httpchk GET /readyz
  http-check send hdr Host 127.0.0.1
  http-response set-header X-Served-By %s
  default-server check inter 2s fastinter 300ms fall 2 rise 1 on-marked-down shutdown-sessions
{servers}
"""


class Scaled:
    def __init__(self, folder: Path):
        self.log = (ROOT / ".state" / "scale.log").open("w")
        self.ports = {name: any_free() for name in SERVERS}
        self.front = any_free()
        self.processes: dict[str, subprocess.Popen[bytes]] = {}
        for name, port in self.ports.items():
            told = subprocess.run(
                [sys.executable, "scripts/supervised.py", "scale", str(port), "web"], cwd=ROOT, capture_output=True,
                text=True, check=True,
            ).stdout  # fmt: skip
            self._run(f"server {name}", told.split())
            self._run(f"worker {name}", [sys.executable, "manage.py", "procrastinate", "worker", "--concurrency", "2"])
        lines = "\n".join(f"  server {name} 127.0.0.1:{port}" for name, port in self.ports.items())
        settings = folder / "haproxy.cfg"
        settings.write_text(PROXY.format(front=self.front, servers=lines))
        self._run("proxy", ["haproxy", "-db", "-f", str(settings)])

    def _run(self, name: str, command: list[str]) -> None:
        self.processes[name] = subprocess.Popen(
            command, cwd=ROOT, stdout=self.log, stderr=self.log, start_new_session=True
        )

    def end(self, name: str, how: signal.Signals) -> None:
        process = self.processes[name]
        os.killpg(process.pid, how)
        process.wait(20)

    def stop(self) -> None:
        for name, process in self.processes.items():
            if process.poll() is None:
                self.end(name, signal.SIGKILL)

    def memory_mb(self, name: str) -> float:
        """What the processes of one hold for themselves, and their share of what they hold together [MB]."""
        total = 0.0
        for stat in Path("/proc").glob("[0-9]*/stat"):
            try:
                if int(stat.read_text().rsplit(")", 1)[1].split()[2]) == self.processes[name].pid:
                    total += memory_mb(int(stat.parent.name))
            except (OSError, IndexError):
                continue
        return total


class Trial:
    """Everything that has to work whichever server answers."""

    def __init__(self, scaled: Scaled):
        self.scaled = scaled
        self.wrong: list[str] = []
        self.served: set[str] = set()
        self.door = Door(scaled.front)

    async def asked(self, method: str, path: str, body: object = None, expected: int = 200) -> dict[str, Any]:
        status, told, headers = await self.door.ask(method, path, body)
        self.served.add(headers.get("x-served-by", ""))
        if status != expected:
            raise AssertionError(f"{method} {path}: {status}, {told[:120]!r}")
        return dict(json.loads(told or b"{}"))

    async def sign_in(self) -> None:
        self.door = await Door(self.scaled.front).enter()
        for _ in range(6):
            assert (await self.asked("GET", "/api/me"))["signed_in"]

    async def edit(self) -> None:
        made = await self.asked("POST", "/api/sessions", {"document": document("0"), "target": "lactic-capacity"}, 201)
        for number in range(1, 9):
            body = {"document": document(str(number)), "target": "lactic-capacity", "revision": made["revision"]}
            made = await self.asked("PUT", f"/api/sessions/{made['id']}", body)
            assert (await self.asked("GET", f"/api/sessions/{made['id']}"))["document"]["title"] == str(number)
        self.session = made

    async def run(self) -> None:
        """A run is told to one server, and a second screen hears of it at each of them."""
        run = uuid4()
        plan = {"session_id": self.session["id"], "revision": self.session["revision"],
                "document": self.session["document"]}  # fmt: skip
        await self.asked("PUT", f"/api/runs/{run}", plan)
        state = {"anchor_s": 0.0, "anchor_ms": 1000.0, "sent_ms": 3000.0, "started": True, "ended": False}
        await self.asked("POST", f"/api/runs/{run}/live", {"state": state}, 204)
        screens, heard = [], {}
        for _ in SERVERS:
            screen = self.door.beside()
            await screen.send("GET", f"/api/live/{run}/events")
            _, headers = await screen.head()
            screens.append((headers.get("x-served-by", ""), screen))

        async def hears(name: str, screen: Door) -> None:
            assert screen.reader is not None
            while line := await screen.reader.readline():
                if line.startswith(b"data: ") and json.loads(line[6:])["state"]["anchor_s"] == 7.0:
                    heard[name] = time.monotonic()
                    return

        listening = [asyncio.create_task(hears(*each)) for each in screens]
        await asyncio.sleep(0.5)
        said = time.monotonic()
        await self.asked("POST", f"/api/runs/{run}/live", {"state": {**state, "anchor_s": 7.0}}, 204)
        await asyncio.wait_for(asyncio.gather(*listening), 10)
        print("    second screens heard of it after "
              + ", ".join(f"{1000 * (at - said):.0f} ms ({name})" for name, at in heard.items()))  # fmt: skip

    async def speech(self) -> None:
        plan = await self.asked("GET", f"/api/sessions/{self.session['id']}/run")
        assert plan["speech"], plan["silent"]
        for phrase in list(plan["speech"].values())[:4] * 2:
            status, sound, headers = await self.door.ask("GET", f"/api/speech/{phrase}")
            self.served.add(headers.get("x-served-by", ""))
            assert status == 200, status
            assert sound[:4] == b"RIFF"

    async def jobs(self) -> None:
        body = {"session_id": self.session["id"], "form": "opus"}
        asked = await self.asked("POST", "/api/tracks", body, 201)
        until = time.monotonic() + MADE_WITHIN_S
        while asked["state"] in ("waiting", "making") and time.monotonic() < until:
            await asyncio.sleep(0.2)
            asked = await self.asked("GET", f"/api/tracks/{asked['id']}")
        assert asked["state"] == "done", asked
        status, sound, _ = await self.door.ask("GET", f"/api/tracks/{asked['id']}/file")
        assert status == 200, status
        assert sound[:4] == b"OggS"
        await self.asked("DELETE", f"/api/tracks/{asked['id']}")

    async def whole(self, servers: int) -> None:
        steps: list[Callable[[], Awaitable[None]]] = [self.sign_in, self.edit, self.run, self.speech, self.jobs]
        for step in steps:
            self.served.clear()
            began = time.monotonic()
            try:
                await step()
            except (AssertionError, TimeoutError, OSError, KeyError) as error:
                self.wrong.append(f"{step.__name__} with {servers} servers: {error!r}")
                print(f"  {step.__name__:8s} WRONG {error!r}")
                return
            served = sorted(self.served - {""})
            print(f"  {step.__name__:8s} works, answered by {' and '.join(served)} ({time.monotonic() - began:.1f} s)")
            if len(served) < servers:
                self.wrong.append(f"{step.__name__}: only {served} answered")

    async def killed(self) -> None:
        """One server and one worker die while three write."""
        writers = Writers()
        tasks = [asyncio.create_task(each(self.door.beside())) for each in (writers.edit, writers.run, writers.log)]
        await asyncio.sleep(WRITTEN_FOR_S / 2)
        before = sum(writers.acknowledged.values())
        for name in ("server one", "worker one"):
            self.scaled.end(name, signal.SIGKILL)
        began = time.monotonic()
        while any(writers.last.get(who, 0) < began for who in ("edit", "run", "log")):
            await asyncio.sleep(0.01)
            if time.monotonic() - began > UP_WITHIN_S:
                self.wrong.append("the other server does not take over")
                break
        took = time.monotonic() - began
        await asyncio.sleep(WRITTEN_FOR_S / 2)
        writers.over = True
        await asyncio.gather(*tasks)
        gone = await writers.compare(self.door)
        self.wrong += [*gone, *writers.wrong]
        print(f"  server one and worker one killed: all three write again after {took:.2f} s; {before} writes "
              f"acknowledged before, {sum(writers.acknowledged.values()) - before} after, {len(gone)} lost; "
              f"answers {json.dumps(writers.answered)}")  # fmt: skip


async def trial(scaled: Scaled) -> int:
    until = time.monotonic() + UP_WITHIN_S
    found = Trial(scaled)
    while True:
        try:
            await found.sign_in()
            if len(found.served - {""}) == len(SERVERS):
                break
        except (OSError, AssertionError, IndexError, ValueError):
            found.door.writer = None
        if time.monotonic() > until:
            raise SystemExit("the two servers do not answer: see .state/scale.log")
        await asyncio.sleep(0.3)
    print("Two servers and two workers, behind haproxy", flush=True)
    await found.whole(2)
    if not found.wrong:
        await found.killed()
        print("With one server and one worker", flush=True)
        await found.whole(1)
    server, worker = (scaled.memory_mb(f"{each} two") for each in ("server", "worker"))
    print(f"  memory: a server {server:.0f} MB, a worker {worker:.0f} MB")
    for words in found.wrong:
        print(f"  WRONG  {words}")
    return int(bool(found.wrong))


def main() -> int:
    with tempfile.TemporaryDirectory() as folder:
        scaled = Scaled(Path(folder))
        try:
            return asyncio.run(trial(scaled))
        finally:
            scaled.stop()


if __name__ == "__main__":
    raise SystemExit(main())
