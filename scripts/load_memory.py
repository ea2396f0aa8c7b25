"""An hour of a hall: what its web workers hold after ten minutes, and at the end: `load_memory.py PORT SERVER MINUTES`.

A few coaches edit, plan, propose and look through the screens; every question is another one, so that all that is
remembered fills up. `SERVER` is the process that leads the workers.
"""

import asyncio
import json
import sys
import time
from pathlib import Path
from random import Random

from hall import memory_mb
from load import Door, document, opened

COACHES = 4
PAUSE_S = 3.0
FIRST_MIN = 10.0
GETS = (
    "today", "today/mind", "sessions", "people", "log", "trends?weeks=12", "combinations", "protocols", "camps", "me"
)  # fmt: skip
PURPOSES = ("lactic-capacity", "aerobic-power", "sprint-power", "skill", "threshold")


def workers(server: int) -> dict[int, float]:
    """Memory of each process under the server [MB]."""
    children = Path(f"/proc/{server}/task/{server}/children").read_text().split()
    return {pid: memory_mb(pid) for pid in map(int, children)}


async def one_coach(door: Door, number: int, over: float) -> int:
    """How often they edited until it was over."""
    random, turn = Random(number), 0
    ids = [row["id"] for row in json.loads((await door.ask("GET", "/api/people"))[1])["items"]]
    while time.monotonic() <= over:
        turn += 1
        work_s, tempo = random.randrange(10, 300), random.choice(("power", "flow"))
        edited = document("Load", random.randrange(2, 12), work_s, tempo, random.randrange(5, 120))
        body = {"document": edited, "target": random.choice(PURPOSES), "person_id": random.choice([None, *ids])}
        asked: list[tuple[str, str, object]] = [
            ("POST", "/api/evaluate", {**body, "ranges": ranges}) for ranges in (False, True)
        ]
        if turn % 5 == 0:
            asked.append(("GET", f"/api/{random.choice(GETS)}", None))
        if turn % 20 == 0:
            asked.append(("POST", "/api/nudges", body))
        if turn % 60 == 0:
            asked.append(("POST", "/api/propose", {"target": body["target"], "minutes": random.randrange(20, 60)}))
        for method, path, what in asked:
            status, told, _ = await door.ask(method, path, what)
            assert status in (200, 422, 429), (path, status, told[:300])
        await asyncio.sleep(PAUSE_S)
    return turn


async def main(port: int, server: int, minutes: float) -> int:
    door = await opened(port)
    began = time.monotonic()
    over = began + 60 * minutes
    coaches = [asyncio.create_task(one_coach(door.beside(), number, over)) for number in range(COACHES)]
    first: dict[int, float] = {}
    while time.monotonic() < over and not any(each.done() for each in coaches):
        await asyncio.sleep(min(60.0, max(0.0, over - time.monotonic())))
        passed = (time.monotonic() - began) / 60
        held = workers(server)
        if not first and passed >= min(FIRST_MIN, minutes / 6):
            first = held
        print(f"{passed:5.1f} min  " + "  ".join(f"{pid}: {mb:.0f} MB" for pid, mb in held.items()), flush=True)
    turns = sum(await asyncio.gather(*coaches))
    grown = {pid: held[pid] / mb - 1 for pid, mb in first.items() if pid in held}
    print(f"{turns} edits. Since the first ten minutes: " + ", ".join(f"{share:+.0%}" for share in grown.values()))
    return int(not grown or max(grown.values()) > 0.2)


if __name__ == "__main__":
    raise SystemExit(asyncio.run(main(int(sys.argv[1]), int(sys.argv[2]), float(sys.argv[3]))))
