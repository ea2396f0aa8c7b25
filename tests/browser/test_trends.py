"""Weeks looked at over the log: drawn, as a table, as a file; what was learned; what to do next time."""

import re

from playwright.sync_api import expect

from tests.browser.conftest import PHONE
from tests.browser.test_roster import region

RUNA = "Runa Velde"


def trends(page, who=RUNA):
    page.get_by_role("link", name="Log", exact=True).click()
    page.get_by_role("link", name="Trends", exact=True).click()
    page.get_by_role("combobox", name="Of").select_option(label=who)
    expect(page.get_by_role("heading", name=who, level=1)).to_be_visible()


def test_the_weeks_of_somebody_are_drawn_with_what_they_come_to(trained):
    trends(trained)
    drawing = region(trained, "Weeks").get_by_role("img", name="Runa Velde: load, monotony, strikes")
    for row in ("Load", "Monotony", "Strikes", "Minutes", "Tests", "Expected and said"):
        expect(drawing.get_by_text(row, exact=True)).to_be_visible()
    expect(region(trained, "In a sentence")).to_contain_text("of 5 for this block")
    trained.reload()
    expect(trained.get_by_role("heading", name=RUNA, level=1)).to_be_visible()


def test_the_same_numbers_stand_in_a_table_and_in_a_file(trained):
    trends(trained)
    trained.keyboard.press("t")
    table = region(trained, "Numbers of the weeks").get_by_role("table")
    expect(table.get_by_role("row")).to_have_count(13)
    with trained.expect_download() as taken:
        trained.get_by_role("button", name="Save as CSV").click()
    assert taken.value.suggested_filename == "trends-runa-velde.csv"
    lines = taken.value.path().read_text().splitlines()
    assert len(lines) == 13
    load = table.get_by_role("row").nth(11).get_by_role("cell").nth(2).inner_text()
    assert lines[11].split(",")[3] == load.replace(",", "")


def test_keys_choose_the_weeks_and_who_is_looked_at(trained):
    trends(trained)
    trained.get_by_role("heading", name=RUNA, level=1).click()
    trained.keyboard.press("[")
    expect(trained.get_by_role("combobox", name="Weeks")).to_have_value("4")
    trained.keyboard.press("n")
    expect(trained.get_by_role("heading", name="Sef Arden", level=1)).to_be_visible()


def test_what_was_learned_is_shown_before_and_after_and_can_be_switched_off(trained):
    trends(trained)
    learned = region(trained, "Learned")
    expect(learned.get_by_role("heading")).to_contain_text("Learned from")
    expect(learned.get_by_role("img", name="VO₂max")).to_be_visible()
    learned.get_by_label("Use it, wherever this person is judged").uncheck()
    expect(learned.get_by_label("Use it, wherever this person is judged")).not_to_be_checked()
    trained.get_by_role("link", name="Roster", exact=True).click()
    trained.get_by_role("link", name=RUNA).click()
    expect(region(trained, "What they have")).not_to_contain_text("From logs")


def test_a_capacity_says_that_it_was_learned(trained):
    trained.get_by_role("link", name="Roster", exact=True).click()
    trained.get_by_role("link", name=RUNA).click()
    expect(region(trained, "What they have")).to_contain_text("From logs: learned from")


def test_an_entry_is_left_out_on_its_page(trained):
    trained.get_by_role("link", name="Log", exact=True).click()
    trained.get_by_role("link", name="Thursday twenty-tens").first.click()
    tick = trained.get_by_label("Learn from it what", exact=False)
    tick.uncheck()
    trained.reload()
    expect(trained.get_by_label("Learn from it what", exact=False)).not_to_be_checked()


def test_what_comes_next_is_laid_on_the_bench(trained):
    trends(trained)
    step = region(trained, "Next time").get_by_role("button", name="To the bench").first
    step.click()
    expect(trained).to_have_url(re.compile(r"/bench$"))
    expect(trained.get_by_role("region", name="Verdict")).to_be_visible()


def test_what_comes_next_is_planned_on_a_day_by_one_key(trained):
    """As a session of its own: the plan that was run stays as it is, and what was planned says what was turned."""
    trends(trained)
    step = region(trained, "Next time").get_by_role("listitem").filter(has_text="To the bench").first
    title, turned = step.get_by_role("heading").inner_text().split(": ")
    step.get_by_role("button", name="Plan it").click()
    sheet = trained.get_by_role("dialog", name="Plan one")
    expect(sheet).to_contain_text(f"{title} ({turned})")
    expect(sheet.get_by_role("checkbox", name="Runa Velde")).to_be_checked()
    sheet.get_by_label("Hour").fill("07:15")
    sheet.get_by_role("button", name="Plan it").click()
    row = trained.get_by_role("listitem").filter(has_text=f"{title} ({turned})").first
    expect(row).to_contain_text("7:15")
    trained.reload()
    expect(sheet).to_have_count(0)
    expect(row).to_be_visible()
    trained.goto(f"{trained.url.split('/today')[0]}/library")
    expect(trained.get_by_role("link", name=f"{title} ({turned})").first).to_be_visible()
    expect(trained.get_by_role("link", name=title, exact=True).first).to_be_visible()


def test_a_phone_shows_the_newest_week_first(trained, live_server):
    trained.set_viewport_size(PHONE)
    trained.goto(f"{live_server.url}/log/trends")
    weeks = region(trained, "Weeks")
    expect(weeks).to_be_visible()
    assert weeks.evaluate("each => each.scrollLeft + each.clientWidth >= each.scrollWidth - 2")


def test_somebody_without_logs_is_said_to_have_none(inside):
    trends(inside, "Bodil Strand")
    expect(inside.get_by_text("Nothing logged in these weeks")).to_be_visible()


def test_a_file_of_heart_rate_is_laid_over_the_run_moved_and_kept(trained):
    trained.get_by_role("link", name="Log", exact=True).click()
    trained.get_by_role("link", name="Thursday twenty-tens").first.click()
    part = region(trained, "Heart rate from a file")
    rows = "\n".join(["time,hr", *(f"{at},{110 + at // 20 % 40}" for at in range(0, 1500, 5))])
    with trained.expect_file_chooser() as chooser:
        part.get_by_role("button", name="Heart rate from a file").click()
    chooser.value.set_files({"name": "watch.csv", "mimeType": "text/csv", "buffer": b"time,hr\n0,92\nnoon,95\n"})
    expect(part.get_by_role("alert")).to_contain_text("Line 3: “noon” is no time")
    with trained.expect_file_chooser() as chooser:
        part.get_by_role("button", name="Heart rate from a file").click()
    chooser.value.set_files({"name": "watch.csv", "mimeType": "text/csv", "buffer": rows.encode()})
    expect(part.get_by_role("status")).to_contain_text("CSV, 300 readings")
    begins = part.get_by_label("Begins at, seconds of the session", exact=True)
    begins.fill("12")
    begins.press("Enter")
    expect(part.get_by_role("img", name="beginning at second 12")).to_be_visible()
    part.get_by_role("button", name="Keep it with this entry").click()
    expect(part.get_by_role("status")).to_contain_text("heart rates are kept with it")


def test_a_class_is_logged_down_a_list_by_keys(inside):
    inside.get_by_role("link", name="Log", exact=True).click()
    inside.get_by_role("button", name="Log without a run").click()
    sheet = inside.get_by_role("dialog", name="Log without a run")
    sheet.get_by_label("What was done, as a line").fill("3 x 3:00 combinaton rest 1:00")
    sheet.get_by_label("Anton Reel").focus()
    for key in ("7", "ArrowDown", "t", "4"):
        inside.keyboard.press(key)
    sheet.get_by_role("button", name="Log it for 3").click()
    expect(sheet.get_by_role("alert")).to_contain_text("Character")
    sheet.get_by_label("What was done, as a line").fill("3 x 3:00 combination rest 1:00")
    sheet.get_by_role("button", name="Log it for 3").click()
    expect(inside.get_by_role("status").filter(has_text="Logged for 3")).to_be_visible()
    first = inside.get_by_role("listitem").filter(has_text="Anton Reel").first
    expect(first).to_contain_text("7 Very hard")
