"""Many at once against a server on loopback: `load.py PORT`."""

import asyncio
import json
import os
import sys
import time
from dataclasses import dataclass, field
from pathlib import Path
from uuid import uuid4

import numpy as np

sys.path.insert(0, str(Path(__file__).resolve().parent.parent))

from yoisho.session.document import VERSION

FOLLOWERS = int(os.environ.get("FOLLOWERS", "500"))
COACHES = [int(each) for each in os.environ.get("COACHES", "40 100").split()]
SECONDS_LONG = int(os.environ.get("SECONDS_LONG", "20"))
JOINING_PER_S = 40
SAID_EVERY_S = 2.0
"""As a device says where its clock stands."""


def document(
    title: str, rounds: int = 8, work_s: int = 20, tempo: str = "all-out", rest_s: int = 10
) -> dict[str, object]:
    """A session of one part: rounds of work with a rest between."""
    work = {"type": "interval", "seconds": work_s, "tempo": tempo}
    rest = {"type": "interval", "seconds": rest_s, "tempo": "rest"}
    tree = {"type": "repeat", "count": rounds, "body": work, "between": rest}
    return {"format": "yoisho-session", "version": VERSION, "title": title, "parts": [{"name": "Main", "tree": tree}]}


@dataclass
class Door:
    """One connection that is kept, signed in."""

    port: int
    cookies: str = ""
    token: str = ""
    reader: asyncio.StreamReader | None = None
    writer: asyncio.StreamWriter | None = None

    async def send(self, method: str, path: str, body: object = None, more: dict[str, str] | None = None) -> None:
        if self.writer is None or self.writer.is_closing():
            self.reader, self.writer = await asyncio.open_connection("127.0.0.1", self.port)
        data = b"" if body is None else json.dumps(body).encode()
        head = (
            f"{method} {path} HTTP/1.1\r\nHost: 127.0.0.1\r\nCookie: {self.cookies}\r\nX-CSRFToken: {self.token}\r\n"
            f"Content-Type: application/json\r\nContent-Length: {len(data)}\r\n"
            + "".join(f"{name}: {value}\r\n" for name, value in (more or {}).items())
            + "\r\n"
        )
        self.writer.write(head.encode() + data)
        await self.writer.drain()

    async def head(self) -> tuple[int, dict[str, str]]:
        assert self.reader is not None
        status = int((await self.reader.readline()).split()[1])
        headers: dict[str, str] = {}
        while line := (await self.reader.readline()).decode().strip():
            name, value = line.split(": ", 1)
            headers[name.lower()] = f"{headers.get(name.lower(), '')}\n{value}".strip()
        return status, headers

    async def ask(
        self, method: str, path: str, body: object = None, more: dict[str, str] | None = None
    ) -> tuple[int, bytes, dict[str, str]]:
        await self.send(method, path, body, more)
        try:
            status, headers = await self.head()
        except IndexError:
            # The server has let a connection go that had nothing to do for a while.
            self.hang_up()
            await self.send(method, path, body, more)
            status, headers = await self.head()
        assert self.reader is not None
        assert self.writer is not None
        told = await self.reader.readexactly(int(headers.get("content-length", 0)))
        if headers.get("connection") == "close":
            self.writer.close()
        return status, told, headers

    async def enter(self) -> "Door":
        for method, path in (("GET", "/api/me"), ("POST", "/api/demo")):
            status, _, headers = await self.ask(method, path)
            assert status == 200, status
            kept = dict(each.split("=", 1) for each in self.cookies.split("; ") if each)
            kept |= dict(each.split(";")[0].split("=", 1) for each in headers.get("set-cookie", "").split("\n") if each)
            self.cookies = "; ".join(f"{name}={value}" for name, value in kept.items())
            self.token = kept.get("csrftoken", "")
        return self

    def hang_up(self) -> None:
        """Lets the connection go, and a question on it that is not answered yet; the next has one of its own."""
        if self.writer is not None:
            self.writer.close()
        self.writer = None

    def beside(self) -> "Door":
        """Another connection of the same coach."""
        return Door(self.port, self.cookies, self.token)


@dataclass
class Asked:
    """How long answers took [s], how many questions were sent away, and how many the next edit let go."""

    took: list[float] = field(default_factory=list)
    refused: int = 0
    let_go: int = 0


def tell(what: str, asked: Asked) -> None:
    median, p95, most = 1000 * np.percentile(asked.took, [50, 95, 100])
    unanswered = ((asked.refused, "sent away"), (asked.let_go, "let go"))
    told = "".join(f", {count} {word}" for count, word in unanswered if count)
    print(
        f"{what:62s} median {median:6.0f}  p95 {p95:6.0f}  most {most:6.0f} ms  ({len(asked.took)}{told})", flush=True
    )


async def followers(door: Door) -> None:
    _, told, _ = await door.ask("GET", "/api/sessions")
    session_id = json.loads(told)["items"][0]["id"]
    session = json.loads((await door.ask("GET", f"/api/sessions/{session_id}"))[1])
    run, delays, said = uuid4(), [], {}
    body = {"session_id": session["id"], "revision": session["revision"], "document": session["document"]}
    assert (await door.ask("PUT", f"/api/runs/{run}", body))[0] == 200

    async def say(at: float) -> None:
        state = {"anchor_s": at, "anchor_ms": 1000.0, "sent_ms": 3000.0, "started": True, "ended": False}
        said[at] = time.monotonic()
        assert (await door.ask("POST", f"/api/runs/{run}/live", {"state": state}))[0] == 204

    await say(0.0)

    async def follow() -> None:
        own = door.beside()
        await own.send("GET", f"/api/live/{run}/events")
        status, _ = await own.head()
        assert status == 200, status
        assert own.reader is not None
        while line := await own.reader.readline():
            if line.startswith(b"data: "):
                at = json.loads(line[6:])["state"]["anchor_s"]
                if at:
                    delays.append(time.monotonic() - said[at])

    screens = []
    for _ in range(FOLLOWERS):
        screens.append(asyncio.create_task(follow()))
        await asyncio.sleep(1 / JOINING_PER_S)
    await asyncio.sleep(3)
    asked: list[float] = []
    until, turn, other = time.monotonic() + SECONDS_LONG, 0, door.beside()
    while time.monotonic() < until:
        turn += 1
        if turn % int(SAID_EVERY_S / 0.05) == 0:
            await say(float(turn))
        began = time.monotonic()
        status, _, _ = await other.ask("GET", "/api/sessions" if turn % 2 else "/api/me")
        assert status == 200, status
        asked.append(time.monotonic() - began)
        await asyncio.sleep(0.05)
    broken = [each for each in screens if each.done()]
    for each in screens:
        each.cancel()
    print(f"{FOLLOWERS} screens follow one run, {len(broken)} of them lost")
    tell("  from what is said to each screen", Asked(delays))
    tell("  the library and who one is, meanwhile", Asked(asked))


async def coaches(door: Door, count: int) -> None:
    """Each edits once a second, as on the Bench: the best guess is asked for, then the ranges, which the next edit lets
    go where they have not come by then."""
    guesses, ranges = Asked(), Asked()
    until = time.monotonic() + SECONDS_LONG

    async def ask(own: Door, edited: dict[str, object], asked: Asked) -> None:
        began = time.monotonic()
        body = {"document": edited, "target": "lactic-capacity", "ranges": asked is ranges}
        status, told, _ = await own.ask("POST", "/api/evaluate", body)
        if status == 429:
            asked.refused += 1
            return
        assert status == 200, told[:300]
        asked.took.append(time.monotonic() - began)

    async def edits(number: int) -> None:
        own, edit = door.beside(), 0
        await asyncio.sleep(number / count)
        while time.monotonic() < until:
            edit += 1
            edited = document("Load", 3 + edit % 4, 120 + number + edit, "power", 60)
            next_edit = time.monotonic() + 1
            await ask(own, edited, guesses)
            try:
                await asyncio.wait_for(ask(own, edited, ranges), max(0.0, next_edit - time.monotonic()))
            except TimeoutError:
                own.hang_up()
                ranges.let_go += 1
            await asyncio.sleep(max(0.0, next_edit - time.monotonic()))

    await asyncio.gather(*(edits(number) for number in range(count)))
    print(f"{count} coaches edit once a second, for {SECONDS_LONG} s")
    tell("  the best guess", guesses)
    tell("  its ranges", ranges)


async def opened(port: int) -> Door:
    """Signed in, once the server answers."""
    for _ in range(150):
        try:
            return await Door(port).enter()
        except OSError:
            await asyncio.sleep(0.2)
    raise SystemExit("the server does not answer")


async def main(port: int) -> None:
    door = await opened(port)
    await followers(door)
    for count in COACHES:
        await coaches(door, count)


if __name__ == "__main__":
    asyncio.run(main(int(sys.argv[1])))
