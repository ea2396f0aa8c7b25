"""The hall's screen follows the coach's tablet."""

from playwright.sync_api import expect


def clock_of(page):
    return page.get_by_test_id("clock")


def test_another_screen_follows_the_run_joins_late_leaves_and_comes_back(floor, signed_in, live_server):
    home = live_server.url
    hall = signed_in.context.new_page()
    hall.goto(f"{home}/screen")
    expect(hall.get_by_text("Nothing runs just now")).to_be_visible()
    page = floor("10:00 flow; then 1:00, 3 x (30 power bag [1-2]) rest 0:30")
    page.keyboard.press("Space")
    page.keyboard.press("n")
    expect(hall.locator("main")).to_have_attribute("data-phase", "work")
    for _ in range(2):
        page.keyboard.press("n")
    page.keyboard.press("Space")  # everybody is warm
    expect(hall.get_by_text("POWER", exact=True)).to_be_visible()
    expect(hall.get_by_test_id("call").first).to_contain_text("cross")
    page.keyboard.press("Space")
    expect(page.get_by_role("button", name="Go on")).to_be_visible()
    expect(hall.get_by_text("HELD", exact=True)).to_be_visible()
    expect(clock_of(hall)).to_have_text(clock_of(page).inner_text())
    hall.goto(f"{home}/library")
    page.keyboard.press("Space")
    page.keyboard.press("n")
    hall.goto(f"{home}/screen")
    expect(hall.locator("main")).to_have_attribute("data-phase", "rest")
    page.keyboard.down("Escape")
    page.get_by_role("heading", name="Plan and done").wait_for()
    page.keyboard.up("Escape")
    expect(hall.get_by_text("Nothing runs just now")).to_be_visible()
