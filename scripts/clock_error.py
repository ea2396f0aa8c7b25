"""How far the sounds of a run are from their moments, in a real browser.

As a script: `clock_error.py ADDRESS MINUTES` runs a session of the demo club for so long and prints the errors, beside
those of a control: another page that plays a bare row of clicks, planned once. What the control is off by is the audio
device's own. Then the same with every processor taken by others too; and two short runs, on a page that is busy for a
second and a half again and again, and over a pause and a jump.
"""

import os
import subprocess
import sys
from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from dataclasses import dataclass
from statistics import median
from typing import Any

PROBE = """
window.sounded = [];
window.readings = [];
const start = AudioBufferSourceNode.prototype.start;
const stop = AudioBufferSourceNode.prototype.stop;
AudioBufferSourceNode.prototype.start = function (at) {
  this.sounded = {at, cut: null, made: performance.timeOrigin + performance.now()};
  window.sounded.push(this.sounded);
  window.context = this.context;
  return start.call(this, at);
};
AudioBufferSourceNode.prototype.stop = function (...more) {
  if (this.sounded) this.sounded.cut = this.context.currentTime;
  return stop.call(this, ...more);
};
// Both clocks, read together again and again: the audio clock moves in steps, so the freshest reading counts.
setInterval(() => {
  if (!window.context) return;
  const before = performance.now();
  const audio = window.context.currentTime;
  const gap = performance.now() - before;
  if (gap < 0.5) window.readings.push([performance.timeOrigin + before, audio]);
}, 25);
"""
"""Put it into the page before it loads."""

READ = "() => ({sounded: window.sounded, readings: window.readings})"
ZERO = """(session) => {
  const {run} = Object.keys(localStorage).filter((key) => key.startsWith("yoisho.runs."))
    .map((key) => JSON.parse(localStorage.getItem(key)).value)
    .find(({plan, logged}) => plan.session_id === session && !logged);
  return run.anchorMs - 1000 * run.anchor_s;
}"""
"""Session time zero on the page's clock [ms], while the run goes on."""
AFTER_MS = 2000
"""No reading of the audio clock is early: the freshest of so long after a moment says where it was."""
FEWEST = 12
WORST_S = 0.020
APART_S = 0.5
"""No two sounds of the plan that begin further apart can be taken for each other."""


def offset_at(readings: Sequence[Sequence[float]], moment_ms: float) -> float:
    """Audio time less the page's time [s], at a moment."""
    near: list[Sequence[float]] = [(wall, audio) for wall, audio in readings if 0 <= wall - moment_ms <= AFTER_MS]
    if len(near) < FEWEST:
        near = sorted(readings, key=lambda reading: abs(reading[0] - moment_ms))[:FEWEST]
    return max(audio - wall / 1000 for wall, audio in near)


@dataclass(frozen=True)
class Error:
    """Of one sound that was heard."""

    due_s: float
    late_s: float
    """Against the wall: how much later it sounded than it was due."""
    fell_behind_s: float
    """By so much the audio device itself fell behind between planning and sounding: nobody can know it ahead."""

    @property
    def own_s(self) -> float:
        """Against the audio clock as it was when the sound was planned."""
        return self.late_s - self.fell_behind_s


def errors(told: dict[str, Any], zero_ms: float, due_s: list[float]) -> list[Error]:
    """Each sound that was heard against the nearest moment it was due at.

    `zero_ms` is session time zero on the page's clock, `due_s` the moments of the plan.
    """
    found = []
    readings = told["readings"]
    for sounded in told["sounded"]:
        if sounded["cut"] is not None and sounded["cut"] <= sounded["at"]:
            continue
        rough_ms = 1000 * (sounded["at"] - offset_at(readings, sounded["made"]))
        then = offset_at(readings, rough_ms)
        moment_s = sounded["at"] - then - zero_ms / 1000
        due = min(due_s, key=lambda due: abs(moment_s - due))
        if abs(moment_s - due) < APART_S:
            found.append(Error(due, moment_s - due, offset_at(readings, sounded["made"]) - then))
    return found


BUSY = """() => setInterval(() => {
    const until = performance.now() + 1500;
    while (performance.now() < until);
}, 3000)"""


CONTROL = """async (seconds) => {
  const context = new AudioContext();
  // Not before the device has come to run evenly.
  while (context.currentTime < 3) await new Promise((later) => setTimeout(later, 100));
  const click = context.createBuffer(1, 240, context.sampleRate);
  click.getChannelData(0).fill(0.01);
  for (let second = 1; second <= seconds; second++) {
    const source = context.createBufferSource();
    source.buffer = click;
    source.connect(context.destination);
    source.start(context.currentTime + second);
  }
}"""


def _control(context: Any, address: str, seconds: float) -> Any:
    """A page that plays one click a second, all planned at once."""
    page = context.new_page()
    page.add_init_script(PROBE)
    page.goto(f"{address}healthz")
    page.mouse.click(5, 5)
    page.evaluate(CONTROL, round(seconds))
    return page


def _strayed_s(told: dict[str, Any]) -> list[float]:
    """By how much each click of the control sounded off its moment: the device's own stall."""
    readings = told["readings"]
    found = []
    for click in told["sounded"]:
        planned = offset_at(readings, click["made"])
        wall_ms = 1000 * (click["at"] - planned)
        if wall_ms <= readings[-1][0]:
            found.append(abs(planned - offset_at(readings, wall_ms)))
    return found


@contextmanager
def _crowded() -> Iterator[None]:
    """Every processor is wanted by somebody else as well."""
    others = [subprocess.Popen([sys.executable, "-c", "while True: pass"]) for _ in range(os.cpu_count() or 2)]
    try:
        yield
    finally:
        for each in others:
            each.kill()


def _begin(page: Any, address: str, line: str) -> tuple[int, list[float]]:
    """Starts a run of a new session; gives its id and the moments its sounds are due at [s]."""
    page.goto(f"{address}library")
    page.get_by_role("link", name="New session").click()
    page.get_by_role("button", name="Add a part").click()
    page.get_by_label("Pattern").fill(line)
    page.wait_for_timeout(1500)
    page.get_by_role("button", name="Run", exact=True).click()
    page.get_by_test_id("clock").wait_for()
    session = int(page.url.rsplit("/", 1)[1])
    plan = page.evaluate("(id) => fetch(`/api/sessions/${id}/run`).then((answer) => answer.json())", session)
    page.wait_for_timeout(2000)
    page.keyboard.press("Space")
    return session, [sound["at_s"] for sound in (*plan["cues"], *plan["calls"])]


def _tell(what: str, found: list[Error]) -> None:
    own = 1000 * max(abs(error.own_s) for error in found)
    print(f"{what}: {len(found)} sounds, worst against the audio clock {own:.1f} ms")


def _on_a_busy_page(page: Any, address: str) -> None:
    session, due = _begin(page, address, "4 x (6 flow, 4 rest)")
    page.evaluate(BUSY)
    page.wait_for_timeout(32_000)
    _tell("On a page that is busy again and again", errors(page.evaluate(READ), page.evaluate(ZERO, session), due))


def _over_a_pause_and_a_jump(page: Any, address: str) -> None:
    session, due = _begin(page, address, "6 x (6 flow, 4 rest)")
    page.wait_for_timeout(4000)
    page.keyboard.press("Space")
    page.wait_for_timeout(3000)
    page.keyboard.press("Space")
    page.keyboard.press("n")
    page.evaluate("window.sounded.length = 0")
    page.wait_for_timeout(14_000)
    _tell("After a pause and a jump", errors(page.evaluate(READ), page.evaluate(ZERO, session), due))


def _over_minutes(context: Any, page: Any, address: str, minutes: float, what: str) -> None:
    control = _control(context, address, 60 * minutes + 30)
    page.bring_to_front()
    page.evaluate("() => { if (window.sounded) { window.sounded.length = 0; window.readings.length = 0; } }")
    session, due = _begin(page, address, f"{max(1, round(2 * minutes))} x (20 flow, 10 rest)")
    zero_ms = page.evaluate(ZERO, session)
    page.locator("main[data-phase=done]").wait_for(timeout=(60_000 * minutes) + 60_000)
    page.wait_for_timeout(2000)
    found = errors(page.evaluate(READ), zero_ms, due)
    strayed = _strayed_s(control.evaluate(READ))
    control.close()
    late = [1000 * error.late_s for error in found]
    tenth = max(1, len(late) // 10)
    drift = median(late[-tenth:]) - median(late[:tenth])
    own = 1000 * max(abs(error.own_s) for error in found)
    p99 = sorted(map(abs, late))[round(0.99 * (len(late) - 1))]
    print(f"{what}, {minutes:g} min, {len(late)} sounds. Against the audio clock: worst {own:.1f} ms")
    print(f"  Against the wall: worst {max(map(abs, late)):.1f} ms, p99 {p99:.1f} ms, drift {drift:+.1f} ms")
    print(f"  The control beside it, {len(strayed)} clicks planned once: worst {1000 * max(strayed):.1f} ms")
    beyond = [error for error in found if abs(error.own_s) > WORST_S]
    told = ", ".join(f"{1000 * e.own_s:+.0f} ms at {e.due_s:.0f} s" for e in beyond) or "none"
    print(f"  More than {1000 * WORST_S:.0f} ms off the audio clock: {told}", flush=True)


def main(address: str, minutes: float) -> None:
    from playwright.sync_api import sync_playwright

    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=os.environ["CHROMIUM"], args=["--no-sandbox"])
        context = browser.new_context(service_workers="block")
        page = context.new_page()
        page.add_init_script(PROBE)
        page.goto(address)
        page.get_by_role("button", name="Enter as the demo coach").click()
        page.get_by_role("link", name="Library", exact=True).wait_for()
        _over_minutes(context, page, address, minutes, "Undisturbed")
        with _crowded():
            _over_minutes(context, page, address, min(minutes, 2), "Every processor wanted by others too")
        _on_a_busy_page(page, address)
        _over_a_pause_and_a_jump(page, address)
        browser.close()


if __name__ == "__main__":
    main(sys.argv[1], float(sys.argv[2]))
