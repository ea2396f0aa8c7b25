"""Those who write to a hall on trial, and what each was told is kept: edits of sessions, journals of runs, logs."""

import asyncio
import json
import time
from collections import Counter
from dataclasses import dataclass, field
from datetime import UTC, datetime
from typing import Any
from uuid import uuid4

from load import Door, document

LONGEST_ANSWER_S = 20.0
AGAIN_S = 0.1
EDITS = 25
"""Of one session, then another is begun; so with the events of a journal."""


class Broken(Exception):  # noqa: N818
    """A promise that was not kept, in words."""


@dataclass
class Writers:
    answered: Counter[str] = field(default_factory=Counter)
    """How often a request ended in each way."""
    acknowledged: Counter[str] = field(default_factory=Counter)
    last: dict[str, float] = field(default_factory=dict)
    """When each was last acknowledged something that it asked for at or after that moment."""
    sessions: dict[int, str] = field(default_factory=dict)
    """Of each session the title that was acknowledged last: it counts the edits."""
    series: list[str] = field(default_factory=list)
    journals: dict[str, int] = field(default_factory=dict)
    logs: dict[str, str] = field(default_factory=dict)
    wrong: list[str] = field(default_factory=list)
    over: bool = False

    async def insist(
        self, door: Door, who: str, method: str, path: str, body: object, **headers: str
    ) -> dict[str, Any]:
        """Ask until it is answered, as a browser's outbox does; the time of the question that was answered is kept."""
        while True:
            asked = time.monotonic()
            try:
                status, told, _ = await asyncio.wait_for(door.ask(method, path, body, headers), LONGEST_ANSWER_S)
            except (OSError, EOFError, IndexError, TimeoutError) as error:
                self.answered[type(error).__name__] += 1
                door.writer = None
                await asyncio.sleep(AGAIN_S)
                continue
            self.answered[str(status)] += 1
            if status in (200, 201, 204):
                self.acknowledged[who] += 1
                self.last[who] = asked
                return dict(json.loads(told or b"{}"))
            if status not in (429, 503):
                self.wrong.append(f"{method} {path}: {status} {told[:200]!r}")
                if status < 500:
                    raise Broken(self.wrong[-1])
            await asyncio.sleep(AGAIN_S)

    async def edit(self, door: Door) -> None:
        while not self.over:
            name = f"edit-{len(self.series)}"
            body = {"document": document(f"{name} 0"), "target": "lactic-capacity"}
            made = await self.insist(
                door, "edit", "POST", "/api/sessions", body, **{"Idempotency-Key": str(uuid4())}
            )  # fmt: skip
            self.series.append(name)
            for number in range(1, EDITS):
                self.sessions[made["id"]] = made["document"]["title"]
                if self.over:
                    return
                body = {**body, "document": document(f"{name} {number}"), "revision": made["revision"]}
                made = await self.insist(door, "edit", "PUT", f"/api/sessions/{made['id']}", body)
            self.sessions[made["id"]] = made["document"]["title"]

    async def run(self, door: Door) -> None:
        while not self.over:
            run, events = str(uuid4()), []
            plan = {"document": document("run"), "revision": 1}
            for number in range(EDITS):
                if self.over:
                    return
                moment = datetime.now(UTC).isoformat()
                events.append({"kind": "go-on" if number % 2 else "pause", "at_s": number, "moment": moment})
                body = {"run": plan, "events": events}
                await self.insist(door, "run", "PUT", f"/api/runs/{run}/journal", body)
                self.journals[run] = len(events)

    async def log(self, door: Door) -> None:
        while not self.over:
            run, note = str(uuid4()), f"note {len(self.logs)}"
            plan = {"document": document("log"), "revision": 1}
            body = {"run": plan, "started_at": datetime.now(UTC).isoformat(), "done_s": 230, "done_efforts": 8,
                    "rpe": 9, "note": note}  # fmt: skip
            await self.insist(door, "log", "PUT", f"/api/runs/{run}/log", body)
            self.logs[run] = note

    async def compare(self, door: Door) -> list[str]:
        """What was acknowledged and is not there, or is there twice."""
        gone = []

        async def every(path: str) -> list[dict[str, Any]]:
            rows: list[dict[str, Any]] = []
            while True:
                page = await self.insist(door, "read", "GET", f"{path}?limit=200&offset={len(rows)}", None)
                rows += page["items"]
                if len(rows) >= page["count"] or not page["items"]:
                    return rows

        rows = await every("/api/sessions")
        there = {row["id"]: row["title"] for row in rows}
        for session, title in self.sessions.items():
            if there.get(session) != title:
                gone.append(f"session {session}: {title} was acknowledged, and there is {there.get(session)}")
        begun = Counter(row["title"].split(" ")[0] for row in rows if row["title"].startswith("edit-"))
        gone += [f"{name} was made {begun[name]} times" for name in self.series if begun[name] != 1]
        logged = Counter((row["run_id"], row["note"]) for row in await every("/api/log"))
        gone += [f"the log of {run} is there {logged[run, note]} times" for run, note in self.logs.items()
                 if logged[run, note] != 1]  # fmt: skip
        for run, length in self.journals.items():
            kept = await self.insist(door, "read", "GET", f"/api/runs/{run}/journal", None)
            if len(kept["events"]) < length:
                gone.append(f"the journal of {run} has {len(kept['events'])} of {length}")
        return gone
