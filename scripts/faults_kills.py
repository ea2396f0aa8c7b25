"""Random kills of whatever a hall consists of, while three write to it and a browser edits: nothing that was
acknowledged may be gone, and it must come back by itself."""

import asyncio
import json
import os
import shutil
import tempfile
import time
from collections import defaultdict
from collections.abc import Callable
from pathlib import Path
from random import Random

from hall import ROOT, Hall, kill
from load import Door
from playwright.async_api import Error, Page, Response, async_playwright
from shots import DESK, NOWHERE
from writers import Writers

BACK_WITHIN_S = 10.0
GIVEN_UP_S = 60.0
BETWEEN_S = (0.3, 2.5)
SESSION = "Four by four"


class Editor:
    """A coach in a real browser who edits one session, with a profile that outlives the browser."""

    def __init__(self, hall: Hall):
        self.hall = hall
        self.profile = Path(tempfile.mkdtemp(prefix="yoisho-editor-"))
        self.session_id = 0
        self.acknowledged: dict[int, dict[str, object]] = {}
        self.edits = 0
        self.reopened: list[float] = []

    def processes(self) -> list[int]:
        found = []
        for place in Path("/proc").glob("[0-9]*/cmdline"):
            try:
                if str(self.profile).encode() in place.read_bytes():
                    found.append(int(place.parent.name))
            except OSError:
                continue
        return found

    async def _keep(self, answer: Response) -> None:
        if answer.request.method == "PUT" and "/api/sessions/" in answer.url and answer.status == 200:
            try:
                told = await answer.json()
            except Error:
                return
            self.session_id = told["id"]
            self.acknowledged[told["revision"]] = told["document"]

    async def _opened(self, page: Page) -> None:
        await page.goto(self.hall.address)
        enter = page.get_by_role("button", name="Enter as the demo coach")
        bar = page.get_by_role("link", name="Library", exact=True)
        await enter.or_(bar).first.wait_for()
        if await enter.is_visible():
            await enter.click()
        await bar.click()
        await page.get_by_role("link", name=SESSION, exact=True).click()
        await page.get_by_role("region", name="Verdict").wait_for()

    async def edit(self, over: Callable[[], bool]) -> None:
        """Open, edit and save until the browser dies or all is over; then again."""
        async with async_playwright() as playwright:
            while not over():
                began = time.monotonic()
                try:
                    context = await playwright.chromium.launch_persistent_context(
                        str(self.profile), executable_path=os.environ["CHROMIUM"], viewport=DESK,
                        args=["--no-sandbox", NOWHERE],
                    )  # fmt: skip
                    page = context.pages[0]
                    page.on("response", self._keep)
                    await self._opened(page)
                    self.reopened.append(time.monotonic() - began)
                    await page.locator("[data-row='2']").click()
                    while not over():
                        merge = page.get_by_role("button", name="Merge", exact=False)
                        if await merge.count():
                            await merge.first.click()
                        before, asked = len(self.acknowledged), time.monotonic()
                        await page.locator("fieldset [role=spinbutton]").first.press("+")
                        self.edits += 1
                        while len(self.acknowledged) == before and time.monotonic() - asked < GIVEN_UP_S and not over():
                            await asyncio.sleep(0.1)
                    await context.close()
                except Error:
                    await asyncio.sleep(0.3)

    async def compare(self, door: Door, writers: Writers) -> list[str]:
        if not self.acknowledged:
            return ["the browser's edits were never acknowledged"]
        told = await writers.insist(door, "read", "GET", f"/api/sessions/{self.session_id}", None)
        revision = max(self.acknowledged)
        # A save whose answer was lost with the browser is newer than what was acknowledged.
        if told["revision"] < revision:
            return [f"the browser's session: revision {told['revision']}, and {revision} was acknowledged"]
        if told["revision"] == revision and told["document"] != self.acknowledged[revision]:
            return ["the browser's session is another than was acknowledged"]
        return []


async def trial(hall: Hall, kills: int, seed: int) -> int:
    random = Random(seed)
    door = await Door(hall.port).enter()
    writers = Writers()
    editor = Editor(hall)
    tasks = [asyncio.create_task(each(door.beside())) for each in (writers.edit, writers.run, writers.log)]
    browsing = asyncio.create_task(editor.edit(lambda: writers.over))
    targets: dict[str, Callable[[], list[int]]] = {
        "a web worker": lambda: _one(random, hall.web_workers()),
        "all web workers": hall.web_workers,
        "the web server whole": hall.web,
        "the worker of jobs": hall.jobs_workers,
        "a backend": lambda: _one(random, hall.backends()),
        "the postmaster": hall.postmaster,
        "the supervisor": hall.supervisor,
        "the script": hall.scripts,
        "the browser": editor.processes,
    }
    took: dict[str, list[float]] = defaultdict(list)
    late: list[str] = []
    while not editor.acknowledged:
        await asyncio.sleep(0.1)
    for number in range(kills):
        await asyncio.sleep(random.uniform(*BETWEEN_S))
        name = random.choice(list(targets))
        began = time.monotonic()
        while not kill(targets[name]()) and time.monotonic() - began < GIVEN_UP_S:
            await asyncio.sleep(0.1)
        began = time.monotonic()
        if name == "the script":
            assert hall.script
            hall.script.wait()
            await asyncio.to_thread(hall.start)
        while time.monotonic() - began < GIVEN_UP_S:
            if any(each.done() for each in tasks):
                break
            if all(writers.last.get(who, 0) >= began for who in ("edit", "run", "log")):
                break
            await asyncio.sleep(0.02)
        else:
            late.append(f"kill {number + 1}, {name}: no answer to all writers within {GIVEN_UP_S:.0f} s")
        took[name].append(time.monotonic() - began)
        print(f"  kill {number + 1}: {name}, {took[name][-1]:.1f} s", file=hall.log, flush=True)
        if late or any(each.done() for each in tasks):
            break
        if (number + 1) % 20 == 0:
            print(f"{number + 1} of {kills} kills, {sum(writers.acknowledged.values())} acknowledged", flush=True)
    await asyncio.sleep(3)
    writers.over = True
    _, unended = await asyncio.wait([*tasks, browsing], timeout=GIVEN_UP_S)
    for each in unended:
        # Whoever insists on an answer of a hall that is gone would do so for ever.
        each.cancel()
    ended = await asyncio.gather(*tasks, browsing, return_exceptions=True)
    late += [f"a writer stopped: {each!r}" for each in ended if isinstance(each, BaseException)]
    if hall.ready():
        gone = await writers.compare(door) + await editor.compare(door, writers)
    else:
        gone = ["the hall does not answer any more: what it has kept could not be looked at"]
    for name, seconds in took.items():
        print(f"  {name:24s} {len(seconds):3d} kills, answers again after {sorted(seconds)[len(seconds) // 2]:4.1f} s, "
              f"most {max(seconds):4.1f} s")  # fmt: skip
    print(f"  the browser edited {editor.edits} times, {len(editor.acknowledged)} saves acknowledged; it was opened "
          f"{len(editor.reopened)} times")  # fmt: skip
    print(f"  acknowledged: {json.dumps(writers.acknowledged)}; answers: {json.dumps(writers.answered)}")
    slow = [f"{name}: {most:.1f} s" for name, each in took.items() if (most := max(each)) > BACK_WITHIN_S]
    shutil.rmtree(editor.profile, ignore_errors=True)
    for words in (*gone, *writers.wrong, *late, *(f"back only after {each}" for each in slow)):
        print(f"  WRONG  {words}")
    wrong = bool(gone or writers.wrong or late or slow)
    if wrong:
        # The database goes with the trial: what it had to say stays.
        kept = shutil.copyfile(hall.cluster.log, hall.cluster.state / "server.log")
        print(f"  {kept.relative_to(ROOT)} has what the database said")
    lost = len(gone)
    print(
        f"{sum(map(len, took.values()))} kills, {sum(writers.acknowledged.values())} writes acknowledged, {lost} lost"
    )
    return int(wrong)


def _one(random: Random, pids: list[int]) -> list[int]:
    return [random.choice(pids)] if pids else []


def main() -> int:
    hall = Hall(os.environ["HALL"])
    took = hall.start(FRESH="1")
    print(f"The hall stands after {took:.1f} s; {os.environ['KILLS']} kills follow, at random", flush=True)
    try:
        return asyncio.run(trial(hall, int(os.environ["KILLS"]), int(os.environ["SEED"])))
    finally:
        hall.stop()


if __name__ == "__main__":
    raise SystemExit(main())
