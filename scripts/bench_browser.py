"""Measure the bench in a browser, with the server on the same machine: `bench_browser.py ADDRESS`."""

import os
import sys
from itertools import cycle, islice

from playwright.sync_api import Page, sync_playwright
from shots import DESK, NOWHERE, PHONE, browser_of, library, wait_for
from timing import tell

EDITS = 40
LOOKS_MS = 800
"""After so long without an edit the nudges are being tried."""
HOW = {"again": "the same number again", "another": "another number each time", "typed": "typed"}
LONGEST = "Thirties and twenty-tens"
TO_THE_KEY_MS = 150
"""From having a number in hand to the key that moves it: hands are no quicker."""
MANY = "200 x (10 power, 5 rest); 100 x (10 power, 5 rest)"

WATCH = """() => {
  window.shift = 0;
  new PerformanceObserver((list) => {
    for (const entry of list.getEntries()) if (!entry.hadRecentInput) window.shift += entry.value;
  }).observe({ type: "layout-shift", buffered: true });
}"""

EDIT = """() => new Promise((done) => {
  const total = [...document.querySelectorAll("span")].find((span) => /^Total /.test(span.textContent));
  const watch = new MutationObserver(() => {
    watch.disconnect();
    requestAnimationFrame(() => setTimeout(() => done(performance.now() - window.pressed)));
  });
  watch.observe(total, { childList: true, characterData: true, subtree: true });
})"""
PRESSED = """() => {
  for (const what of ["keydown", "beforeinput"])
    addEventListener(what, () => { window.pressed = performance.now(); }, true);
}"""

FRAMES = """(seconds) => new Promise((done) => {
  const score = document.querySelector("main svg[role=img]");
  const box = score.getBoundingClientRect();
  const taken = [];
  const began = performance.now();
  let last = began;
  const step = (now) => {
    taken.push(now - last);
    last = now;
    const x = box.left + 100 + ((now - began) * 0.4) % (box.width - 120);
    const at = { clientX: x, clientY: box.top + 60, bubbles: true, pointerType: "mouse" };
    score.dispatchEvent(new PointerEvent("pointermove", at));
    if (now - began < 1000 * seconds) requestAnimationFrame(step);
    else done(taken.slice(2));
  };
  requestAnimationFrame(step);
})"""


def first_paint(page: Page, address: str) -> list[float]:
    """From asking for the address of a session to its score on the screen, nothing in the browser's cache."""
    taken = []
    for _ in range(5):
        page.goto("about:blank")
        client = page.context.new_cdp_session(page)
        client.send("Network.clearBrowserCache")
        page.goto(address, wait_until="commit")
        page.locator("main svg[role=img]").first.wait_for()
        taken.append(page.evaluate("() => new Promise((done) => requestAnimationFrame(() => done(performance.now())))"))
    return taken


def edits(page: Page, how: str, pause_ms: int) -> list[float]:
    """A key four times a second, as a coach presses it who looks at what it does; or after a longer pause.

    The Bench asks ahead for what is likely: the same number moved `again`, or `another` that is in hand. Nothing tells
    what will be `typed`. It is pauses and work that grow: with more rounds the session would become another, several
    times as long.
    """
    taken = []
    page.evaluate(PRESSED)
    numbers = page.locator("fieldset [role=spinbutton]")
    work, pause = numbers.nth(1), numbers.last
    moves = {
        "again": [(pause, "+")],
        "another": [(work, "+"), (pause, "+"), (work, "-"), (pause, "+")],
        "typed": [(pause, "")],
    }
    for turn, (number, key) in enumerate(islice(cycle(moves[how]), EDITS)):
        number.select_text()
        page.wait_for_timeout(TO_THE_KEY_MS)
        # What moves within half a second of a real key has been asked for: it is no shift.
        drawn = page.evaluate_handle(f"() => ({{ promise: ({EDIT})() }})")
        if key:
            page.keyboard.press(key)
        else:
            page.keyboard.insert_text(f"0:{turn * turn % EDITS + 11}")
        taken.append(drawn.evaluate("(drawn) => drawn.promise"))
        page.wait_for_timeout(pause_ms)
    return taken


def athlete(page: Page, address: str) -> None:
    """The page of a link on a phone a quarter as quick as this machine, opened for the first time."""
    page.goto(f"{address}library")
    page.get_by_role("button", name=f"Send out {LONGEST}").click()
    page.get_by_role("button", name="Make a link").click()
    link = page.get_by_label("Link for").first.input_value()
    painted, heavy = [], 0
    for _ in range(5):
        phone = browser_of(page).new_context(viewport=PHONE).new_page()
        phone.context.new_cdp_session(phone).send("Emulation.setCPUThrottlingRate", {"rate": 4})
        phone.goto(link)
        phone.get_by_role("button", name="Run it").wait_for()
        painted.append(phone.evaluate("performance.getEntriesByName('first-contentful-paint')[0].startTime"))
        heavy = phone.evaluate(
            """() => performance.getEntriesByType('resource')
                .filter(each => each.name.endsWith('.js')).reduce((sum, each) => sum + each.encodedBodySize, 0)"""
        )
        phone.context.close()
    tell("a link's page to its first paint, processor slowed 4 times", painted)
    print(f"JavaScript that a link's page loads: {heavy / 1000:.0f} kB as sent")


def main(address: str) -> None:
    wait_for(address)
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=os.environ["CHROMIUM"], args=["--no-sandbox", NOWHERE])
        page = browser.new_context(viewport=DESK, locale="en-GB").new_page()
        sent: list[int] = []
        page.goto(address)
        page.get_by_role("button", name="Enter as the demo coach").click()
        library(page)
        page.get_by_role("link", name=LONGEST, exact=True).click()
        page.get_by_role("region", name="Verdict").wait_for()
        bench = page.url
        page.on("response", lambda answer: sent.append(_weight(answer)) if answer.url.endswith(".js") else None)
        tell("from the address to the score on the screen", first_paint(page, bench))
        print(f"JavaScript that the bench loads: {sum(sent) / 5 / 1000:.0f} kB as sent")
        page.evaluate(WATCH)
        page.locator("[data-row='3']").click()
        page.get_by_label("Pattern", exact=True).wait_for()
        page.wait_for_timeout(1000)
        for what, pause_ms in (("", 250), (", while nudges are tried", LOOKS_MS)):
            for how, words in HOW.items():
                tell(f"from a key to the score drawn anew, {words}{what}", edits(page, how, pause_ms))
        print(f"layout shift while opening a row and editing: {page.evaluate('window.shift'):.4f}")
        page.goto(bench)
        page.get_by_role("region", name="Verdict").wait_for()
        page.evaluate(WATCH)
        page.wait_for_timeout(1500)
        print(f"layout shift while the bench loads: {page.evaluate('window.shift'):.4f}")
        athlete(page, address)
        page.goto(f"{address}bench")
        page.get_by_role("button", name="Add a part").click()
        page.get_by_label("Pattern").fill(MANY)
        page.get_by_text("Total 75:00").wait_for()
        page.wait_for_timeout(1000)
        tell("a frame while the cursor moves over 600 intervals", page.evaluate(FRAMES, 3))
        browser.close()


def _weight(answer) -> int:  # type: ignore[no-untyped-def]
    return int(answer.headers.get("content-length", 0))


if __name__ == "__main__":
    main(sys.argv[1])
