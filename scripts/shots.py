"""Take one picture of each main view from the demo: `shots.py ADDRESS FOLDER`."""

import base64
import os
import sys
import time
import urllib.request
from collections.abc import Callable
from datetime import datetime
from pathlib import Path

from playwright.sync_api import Browser, Page, ViewportSize, sync_playwright

NOWHERE = "--host-resolver-rules=MAP * ~NOTFOUND , EXCLUDE 127.0.0.1 , EXCLUDE localhost"
DESK: ViewportSize = {"width": 1280, "height": 800}
PHONE: ViewportSize = {"width": 390, "height": 844}


def today(page: Page) -> None:
    """At twenty past four, with the evening still to come."""
    page.clock.set_fixed_time(datetime.now().replace(hour=16, minute=24))
    page.get_by_role("link", name="Today", exact=True).click()
    page.reload()
    page.get_by_role("region", name="Mind today").get_by_role("listitem").first.wait_for()


def roster(page: Page) -> None:
    page.get_by_role("link", name="Roster", exact=True).click()
    page.get_by_role("link", name="Runa Velde").click()
    page.get_by_role("heading", name="Runa Velde", exact=True).wait_for()
    page.wait_for_timeout(400)
    page.evaluate("scrollTo(0, 0)")


def library(page: Page) -> None:
    page.get_by_role("link", name="Library", exact=True).click()
    page.get_by_role("heading", name="Library", exact=True).wait_for()


def schools(page: Page) -> None:
    page.get_by_role("link", name="The schools' protocols").click()
    page.locator("[data-protocol='lactic-capacity']").click()
    page.get_by_role("button", name="Open on the Bench").wait_for()
    page.evaluate("scrollTo(0, 0)")


def book(page: Page) -> None:
    page.get_by_role("link", name="Book", exact=True).click()
    page.get_by_role("list", name="The book").wait_for()
    page.locator("[data-combination]").fill("1-2-3b, slip, 2")
    page.wait_for_timeout(300)


def bench(page: Page) -> None:
    page.get_by_role("link", name="Thirties and twenty-tens", exact=True).click()
    page.get_by_role("region", name="Verdict").wait_for()
    page.locator("dl[aria-busy=false]").wait_for()
    page.locator("[data-row='3']").click()
    page.get_by_label("Pattern").wait_for()
    box = page.locator("main svg[role=img]").first.bounding_box()
    assert box
    page.mouse.move(box["x"] + box["width"] * 0.6, box["y"] + min(box["height"], 200) / 2)
    page.evaluate("scrollTo(0, 0)")
    page.wait_for_timeout(300)


def propose(page: Page) -> None:
    bench(page)
    page.get_by_role("spinbutton", name="Minutes").fill("35")
    page.keyboard.press("Tab")
    page.get_by_role("button", name="Propose", exact=True).click()
    page.get_by_role("button", name="1 Put on the bench").wait_for()
    page.mouse.move(0, 0)
    page.wait_for_timeout(300)


def scale(page: Page) -> None:
    bench(page)
    page.get_by_role("button", name="Scale", exact=True).click()
    page.get_by_label("Or under the rules of").select_option("muay-thai-pro")
    page.get_by_role("region", name="professional Muay Thai").wait_for()
    page.mouse.move(0, 0)
    page.wait_for_timeout(300)


def floor_start(page: Page) -> None:
    page.get_by_role("link", name="Run Thirties and twenty-tens").click()
    page.get_by_text("Called out", exact=True).wait_for()


def skip(page: Page, times: int) -> None:
    """Skip so often; that everybody is warm is said once."""
    for _ in range(times):
        page.keyboard.press("n")
        if page.get_by_text("WARM?", exact=True).count():
            page.keyboard.press("Space")


def with_devices(page: Page) -> None:
    """Simulated straps and sensors on everybody."""
    for name in ("Heart rate", "Strikes"):
        for choice in page.get_by_role("region", name="Before the start").get_by_label(name).all():
            choice.select_option("simulated")
    page.wait_for_timeout(500)
    page.evaluate("document.activeElement.blur()")


def floor_work(page: Page) -> None:
    floor_start(page)
    with_devices(page)
    page.keyboard.press("Space")
    skip(page, 18)
    page.wait_for_timeout(2500)


def new_run(page: Page, title: str, line: str) -> None:
    """A session of one line, on the floor and not started."""
    page.get_by_role("link", name="New session").click()
    page.get_by_role("heading", name="Nothing on the bench yet").wait_for()
    page.get_by_label("Title").fill(title)
    page.get_by_label("for", exact=False).first.select_option(label="Runa Velde, kickboxer, 61 kg")
    page.get_by_role("button", name="Add a part").click()
    page.get_by_label("Pattern").fill(line)
    page.wait_for_timeout(900)
    page.get_by_role("button", name="Run", exact=True).click()
    page.get_by_test_id("clock").wait_for()


def floor_pair(page: Page) -> None:
    line = "8:00 flow; then 0:40, 6 x (30 power pairs bag [1-2-3b-2] @85-95%HR)"
    new_run(page, "Thirties in pairs", line)
    page.get_by_label("Person B").select_option(label="Dario Fenn")
    with_devices(page)
    page.keyboard.press("Space")
    skip(page, 3)
    page.keyboard.press("t")
    page.wait_for_timeout(24_000)


def second_screen(page: Page) -> None:
    floor_pair(page)
    hall = page.context.new_page()
    hall.set_viewport_size({"width": 1920, "height": 1080})
    home, _session = page.url.split("/floor/")
    kept = "Object.keys(localStorage).find((key) => key.startsWith('yoisho.runs.'))"
    run = page.evaluate(kept).removeprefix("yoisho.runs.")
    hall.goto(f"{home}/screen/{run}")
    hall.get_by_test_id("clock").wait_for()
    hall.wait_for_timeout(1500)


def log_entry(page: Page) -> None:
    """The whole session, run through on a clock that is moved a second at a time."""
    floor_start(page)
    with_devices(page)
    page.clock.install()
    page.reload()
    page.clock.fast_forward(1000)
    page.get_by_text("GO", exact=True).wait_for()
    page.keyboard.press("Space")
    while page.locator("main").get_attribute("data-phase") != "done":
        for _ in range(20):
            page.clock.fast_forward(1000)
    page.keyboard.press("Space")
    page.get_by_role("row", name="Peak heart rate").wait_for()
    page.keyboard.press("8")
    page.wait_for_timeout(200)


def linked(page: Page) -> str:
    """A link to the session of the demo that has the most to tell."""
    page.get_by_role("button", name="Send out Thirties and twenty-tens").click()
    page.get_by_role("button", name="Make a link").click()
    return page.get_by_label("Link for").first.input_value()


def browser_of(page: Page) -> Browser:
    browser = page.context.browser
    assert browser is not None
    return browser


def share_page(page: Page) -> None:
    phone = browser_of(page).new_context(viewport=PHONE, locale="en-GB").new_page()
    phone.goto(linked(page))
    phone.get_by_role("button", name="Run it").wait_for()
    page.goto("about:blank")
    page.set_content(
        f'<body style="margin:0"><img src="data:image/png;base64,{base64.b64encode(phone.screenshot()).decode()}">'
    )
    phone.context.close()


def log(page: Page) -> None:
    page.get_by_role("link", name="Log", exact=True).click()
    page.get_by_role("heading", name="Log", exact=True).wait_for()
    page.get_by_text("Opening the log").wait_for(state="hidden")


def camp(page: Page) -> None:
    page.get_by_role("link", name="Camp", exact=True).click()
    page.get_by_role("link", name="Eight weeks").or_(page.get_by_role("link", name="Nine weeks")).click()
    page.get_by_role("region", name="Weeks").wait_for()


def class_plan(page: Page) -> None:
    page.get_by_role("link", name="Class", exact=True).click()
    page.get_by_role("link", name="Dinner bell, seven waves").click()
    page.get_by_role("button", name="Apply: Two more come").wait_for()


def trends(page: Page) -> None:
    log(page)
    page.get_by_role("link", name="Trends", exact=True).click()
    page.get_by_role("combobox", name="Of").select_option(label="Runa Velde")
    page.get_by_role("img", name="VO₂max").wait_for()
    page.get_by_role("region", name="Next time").get_by_role("heading", level=3).first.wait_for()
    page.wait_for_timeout(300)


def method(page: Page) -> None:
    page.get_by_role("link", name="Method", exact=True).click()
    page.get_by_role("region", name="Known limits").wait_for()
    page.evaluate("document.getElementById('fit').scrollIntoView()")
    page.wait_for_timeout(200)


VIEWS: list[tuple[str, Callable[[Page], None], ViewportSize]] = [
    ("today", today, DESK),
    ("roster", roster, DESK),
    ("library-schools", schools, DESK),
    ("book", book, DESK),
    ("bench", bench, DESK),
    ("propose", propose, DESK),
    ("scale", scale, DESK),
    ("bench-phone", bench, PHONE),
    ("floor-work", floor_work, DESK),
    ("floor-work-phone", floor_work, PHONE),
    ("floor-pair", floor_pair, DESK),
    ("second-screen", second_screen, DESK),
    ("log-entry", log_entry, DESK),
    ("log", log, DESK),
    ("trends", trends, DESK),
    ("method", method, DESK),
    ("camp", camp, DESK),
    ("class", class_plan, DESK),
    ("share-page", share_page, PHONE),
]


def wait_for(address: str) -> None:
    for _ in range(100):
        try:
            urllib.request.urlopen(f"{address}api/me", timeout=2).close()
            return
        except OSError:
            time.sleep(0.2)
    raise SystemExit(f"no answer from {address}")


def main(address: str, folder: Path) -> None:
    wait_for(address)
    folder.mkdir(parents=True, exist_ok=True)
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=os.environ["CHROMIUM"], args=["--no-sandbox", NOWHERE])
        for name, reach, size in VIEWS:
            page = browser.new_context(viewport=size, locale="en-GB", service_workers="block").new_page()
            page.goto(address)
            page.get_by_role("button", name="Enter as the demo coach").click()
            library(page)
            reach(page)
            # The last page that was opened is the one to be seen.
            page.context.pages[-1].screenshot(path=folder / f"{name}.png")
            page.context.close()
        browser.close()


if __name__ == "__main__":
    main(sys.argv[1], Path(sys.argv[2]))
