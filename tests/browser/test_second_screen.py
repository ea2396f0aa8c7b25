"""The hall's screen follows the coach's tablet."""

import re

from playwright.sync_api import expect

from tests.browser.conftest import type_pattern


def clock_of(page):
    return page.get_by_test_id("clock")


def test_another_screen_follows_the_run_joins_late_leaves_and_comes_back(bench):
    home = bench.url.split("/bench")[0]
    hall = bench.context.new_page()
    hall.goto(f"{home}/screen")
    expect(hall.get_by_text("Nothing runs just now")).to_be_visible()
    type_pattern(bench, "10:00 flow; then 1:00, 3 x (30 power bag [1-2]) rest 0:30")
    bench.get_by_text(re.compile(r"^Total")).wait_for()
    bench.get_by_role("button", name="Run", exact=True).click()
    clock_of(bench).wait_for()
    bench.keyboard.press("Space")
    bench.keyboard.press("n")
    expect(hall.locator("main")).to_have_attribute("data-phase", "work")
    for _ in range(2):
        bench.keyboard.press("n")
    bench.keyboard.press("Space")  # everybody is warm
    expect(hall.get_by_text("POWER", exact=True)).to_be_visible()
    expect(hall.get_by_test_id("call").first).to_contain_text("cross")
    bench.keyboard.press("Space")
    expect(hall.get_by_text("HELD", exact=True)).to_be_visible()
    assert clock_of(hall).inner_text() == clock_of(bench).inner_text()
    hall.goto(f"{home}/library")
    bench.keyboard.press("Space")
    bench.keyboard.press("n")
    hall.goto(f"{home}/screen")
    expect(hall.locator("main")).to_have_attribute("data-phase", "rest")
    bench.keyboard.down("Escape")
    bench.get_by_role("heading", name="Plan and done").wait_for()
    bench.keyboard.up("Escape")
    expect(hall.get_by_text("Nothing runs just now")).to_be_visible()
