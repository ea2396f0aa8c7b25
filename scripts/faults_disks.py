"""Full disks: for speech, for files that are made, and for what PostgreSQL keeps. A run goes on, what cannot be kept is
said, nothing that was acknowledged is gone, and all of it works again once there is room."""

import asyncio
import json
import os
import shutil
import subprocess
import tempfile
import time
from collections.abc import Iterator
from contextlib import contextmanager, suppress
from pathlib import Path
from typing import Any

from hall import Hall
from load import Door, document
from writers import Writers

ROOM = {"speech": 40, "tracks": 4, "database": 24}
"""Of each small disk [MB]."""
BACK_WITHIN_S = 10.0
MADE_WITHIN_S = 60.0
TABLES = ("training_session", "training_version", "runs_run", "runs_journal", "runs_result", "logbook_logentry")


class Disk:
    """A small one, of memory."""

    def __init__(self, place: Path, size_mb: int):
        self.place = place
        place.mkdir()
        subprocess.run(["mount", "-t", "tmpfs", "-o", f"size={size_mb}m", "yoisho", str(place)], check=True)

    @contextmanager
    def full(self) -> Iterator[None]:
        filler = self.place / "filler"
        with filler.open("wb", buffering=0) as file, suppress(OSError):
            while True:
                file.write(bytes(4096))
        try:
            yield
        finally:
            filler.unlink()

    def gone(self) -> None:
        subprocess.run(["umount", "--lazy", str(self.place)], check=False)


async def _asked(door: Door, method: str, path: str, body: object = None) -> tuple[int, dict[str, Any]]:
    status, told, _ = await door.ask(method, path, body)
    return status, dict(json.loads(told or b"{}"))


async def speech(door: Door, disk: Disk) -> list[str]:
    """A run has its bells, and says why it has no words."""
    wrong = []
    body = {"document": document("Said"), "target": "lactic-capacity"}
    with disk.full():
        _, saved = await _asked(door, "POST", "/api/sessions", body)
        status, plan = await _asked(door, "GET", f"/api/sessions/{saved['id']}/run")
        print(f"  speech: a run was asked for with the disk full: {status}, “{plan.get('silent')}”")
        if status != 200 or not plan["cues"] or "cannot be kept" not in str(plan["silent"]):
            wrong.append("a run without room for speech does not come with its bells and the reason")
    status, plan = await _asked(door, "GET", f"/api/sessions/{saved['id']}/run")
    print(f"  speech: with room again: {status}, {len(plan.get('speech', {}))} phrases")
    if status != 200 or plan["silent"] or not plan["speech"]:
        wrong.append("with room again a run has no speech")
    return wrong


async def track(door: Door, disk: Disk) -> list[str]:
    """A cue track that cannot be kept says so, and is made when it is asked for again."""
    wrong = []
    _, saved = await _asked(door, "POST", "/api/sessions", {"document": document("Heard"), "target": "lactic-capacity"})

    async def made() -> dict[str, Any]:
        _, asked = await _asked(door, "POST", "/api/tracks", {"session_id": saved["id"]})
        until = time.monotonic() + MADE_WITHIN_S
        while asked["state"] in ("waiting", "making") and time.monotonic() < until:
            await asyncio.sleep(0.2)
            _, asked = await _asked(door, "GET", f"/api/tracks/{asked['id']}")
        return asked

    with disk.full():
        told = await made()
        print(f"  files: a cue track with the disk full: {told['state']}, “{told['said']}”")
        if told["state"] != "failed" or "No space" not in told["said"]:
            wrong.append("a cue track without room does not say so")
    told = await made()
    print(f"  files: with room again: {told['state']}")
    if told["state"] != "done":
        wrong.append("with room again no cue track is made")
    left = [path.name for path in disk.place.rglob("*.part*")]
    if left:
        wrong.append(f"half of a track lies about: {left}")
    return wrong


async def tables(door: Door, disk: Disk) -> list[str]:
    """Edits, journals and logs wait while PostgreSQL has no room, and go on by themselves."""
    writers = Writers()
    tasks = [asyncio.create_task(each(door.beside())) for each in (writers.edit, writers.run, writers.log)]
    await asyncio.sleep(2)
    with disk.full():
        # What is left of pages that were half full is written full first.
        until = time.monotonic() + MADE_WITHIN_S
        while not writers.answered["503"] and time.monotonic() < until:
            await asyncio.sleep(0.2)
        await asyncio.sleep(3)
        status, _ = await _asked(door, "GET", "/api/sessions?limit=5")
        print(
            f"  tables: with the disk full the library is read: {status}; answers so far {json.dumps(writers.answered)}"
        )
    began = time.monotonic()
    while any(writers.last.get(who, 0) < began for who in ("edit", "run", "log")):
        if time.monotonic() - began > MADE_WITHIN_S:
            break
        await asyncio.sleep(0.05)
    took = time.monotonic() - began
    writers.over = True
    ended = await asyncio.gather(*tasks, return_exceptions=True)
    gone = await writers.compare(door)
    print(f"  tables: with room again all three write after {took:.1f} s; "
          f"{sum(writers.acknowledged.values())} writes acknowledged, {len(gone)} lost")  # fmt: skip
    wrong = [*gone, *writers.wrong, *(f"a writer stopped: {each!r}" for each in ended if each)]
    if status != 200:
        wrong.append("nothing can be read while there is no room to write")
    if not writers.answered["503"]:
        wrong.append("the disk never was full: nothing was tried")
    if took > BACK_WITHIN_S:
        wrong.append(f"back only after {took:.1f} s")
    return wrong


def main() -> int:
    place = Path(tempfile.mkdtemp(prefix="yoisho-disks-"))
    place.chmod(0o755)
    disks: dict[str, Disk] = {}
    hall = Hall(os.environ["HALL"])
    try:
        try:
            for name, size_mb in ROOM.items():
                disks[name] = Disk(place / name, size_mb)
        except (OSError, subprocess.CalledProcessError):
            print("Full disks were NOT tried: only root may make a small disk of memory here")
            return 0
        hall.start(FRESH="1", YOISHO_SPEECH=str(disks["speech"].place), YOISHO_TRACKS=str(disks["tracks"].place))
        shutil.chown(disks["database"].place, "postgres", "postgres")
        hall.cluster.psql("yoisho", f"create tablespace small location '{disks['database'].place}'")
        for table in TABLES:
            hall.cluster.psql("yoisho", f"alter table {table} set tablespace small")

        async def trial() -> list[str]:
            door = await Door(hall.port).enter()
            return [
                *await speech(door, disks["speech"]),
                *await track(door, disks["tracks"]),
                *await tables(door, disks["database"]),
            ]

        wrong = asyncio.run(trial())
    finally:
        hall.stop()
        subprocess.run(["python3", "scripts/database.py", "destroy", hall.name], check=False)
        for disk in disks.values():
            disk.gone()
        shutil.rmtree(place, ignore_errors=True)
    for words in wrong:
        print(f"  WRONG  {words}")
    print(f"Full disks: {'all held' if not wrong else f'{len(wrong)} found'}")
    return int(bool(wrong))


if __name__ == "__main__":
    raise SystemExit(main())
