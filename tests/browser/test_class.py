"""A class from one line to everybody's log: proposed, changed by hand, run with somebody late, on the hall's board."""

import re

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import Asking
from tests.browser.test_whole_sessions import passes

LINE = "20/10 today at 12:10, 8 people, 3 bags, 1 pair of pads, 15 min, no warm-up, no cool-down, for lactic capacity"


@pytest.fixture
def classes(signed_in, live_server):
    signed_in.goto(f"{live_server.url}/class")
    signed_in.get_by_role("heading", name="Class", exact=True).wait_for()
    return signed_in


def proposed(page, line=LINE):
    page.get_by_label("Say what it is").fill(line)
    page.get_by_role("button", name="Propose").click()
    expect(page.get_by_role("button", name="Take To the beat")).to_be_visible(timeout=20_000)


def open_class(page, address, line=LINE):
    """A class in waves is kept, and opened."""
    asking = Asking(page, address)
    asked = asking.post("classes/line", {"text": line})["asked"]
    rows = asking.last("classes/solve", {"asked": asked})["answer"]["rows"]
    made = asking.post("classes", {"asked": asked, "rows": rows})
    page.goto(f"{address}/class/{made['id']}")
    page.get_by_role("region", name="Who is where").wait_for()


@pytest.fixture
def plan(signed_in, live_server):
    open_class(signed_in, live_server.url)
    return signed_in


def row(page, name):
    """The stations of somebody, wave by wave."""
    cells = (
        page.get_by_role("row")
        .filter(has=page.get_by_role("rowheader", name=re.compile(f"^{name}")))
        .get_by_role("button", name=re.compile(r", wave \d+:"))
    )
    return [
        re.sub(r"^.*?: ", "", label).removesuffix(", put there")
        for label in cells.evaluate_all("all => all.map(one => one.ariaLabel)")
    ]


def settled(page):
    expect(page.get_by_role("progressbar")).to_have_count(0)
    expect(page.get_by_role("button", name="Shuffle pairs")).to_be_enabled()


def test_one_line_is_read_back_and_proposed_in_schools_that_can_be_taken(classes):
    proposed(classes, f"{LINE}, wibble")
    expect(classes.get_by_text("8 people", exact=True)).to_be_visible()
    expect(classes.get_by_text("“wibble” was not read")).to_be_visible()
    names = classes.get_by_role("region", name="Proposed classes").get_by_role("heading", level=3).all_inner_texts()
    assert names == ["Waves", "Two on, two off", "Two at a bag", "Circuit", "To the beat"]
    for each in ("weakest", "middle", "strongest"):
        expect(classes.get_by_role("row", name=re.compile(f"^{each}"))).to_have_count(5)
    classes.get_by_role("button", name="Take Circuit").click()
    classes.wait_for_url("**/class/*")
    classes.reload()
    expect(classes.get_by_role("region", name="Who is where")).to_be_visible()


def test_a_line_that_cannot_be_keeps_what_was_typed_and_says_why(classes):
    classes.get_by_label("Say what it is").fill("20/10 on 2026-02-31, 8 people")
    classes.get_by_role("button", name="Propose").click()
    expect(classes.get_by_text("There is no 2026-02-31 in the calendar.")).to_be_visible()
    expect(classes.get_by_label("Say what it is")).to_have_value("20/10 on 2026-02-31, 8 people")
    classes.get_by_label("Say what it is").fill("20/10, 8 people, 6 min with warm-up")
    classes.get_by_role("button", name="Propose").click()
    expect(classes.get_by_role("alert")).to_contain_text("no room for a wave")


def test_by_keys_somebody_is_moved_swapped_absent_and_all_of_it_is_taken_back(plan):
    page = plan
    before = [row(page, f"Guest {number}") for number in range(1, 9)]
    page.get_by_role("button", name=re.compile("^Guest 1")).first.click()
    page.evaluate("document.activeElement.blur()")
    page.keyboard.press("m")
    sheet = page.get_by_role("dialog")
    wanted = next(each for each in ("bag 3", "bag 2", "bag 1") if each != before[0][0])
    sheet.get_by_label("Put at").select_option(wanted)
    sheet.get_by_role("button", name="Put there").click()
    settled(page)
    assert row(page, "Guest 1")[0] == wanted
    page.evaluate("document.activeElement.blur()")
    page.keyboard.press("x")
    settled(page)
    assert set(row(page, "Guest 1")) == {"not there"}
    page.keyboard.press("Control+z")
    expect(page.get_by_role("button", name=f"Guest 1, wave 1: {wanted}, put there")).to_be_visible()
    settled(page)
    page.keyboard.press("Control+z")
    settled(page)
    assert [row(page, f"Guest {number}") for number in range(1, 9)] == before
    page.evaluate("document.activeElement.blur()")
    page.keyboard.press("w")
    other = next(number for number in range(2, 9) if before[number - 1][0] != before[0][0])
    sheet.get_by_label("Swap in wave 1 with").select_option(f"Guest {other}")
    sheet.get_by_role("button", name="Swap").click()
    settled(page)
    assert (row(page, "Guest 1")[0], row(page, f"Guest {other}")[0]) == (before[other - 1][0], before[0][0])


def test_what_might_change_is_there_ahead_and_one_key_takes_it(plan):
    page = plan
    expect(page.get_by_role("button", name="Apply: Two more come")).to_be_visible()
    page.evaluate("document.activeElement.blur()")
    page.keyboard.press("1")
    expect(page.get_by_role("spinbutton", name="People")).to_have_value("10")
    expect(page.get_by_role("rowheader", name=re.compile("^Guest 10"))).to_be_visible()
    settled(page)
    page.get_by_role("button", name="Bags: less").click()
    expect(page.get_by_role("spinbutton", name="Bags")).to_have_value("2")
    settled(page)
    assert "bag 3" not in {station for number in range(1, 11) for station in row(page, f"Guest {number}")}
    page.reload()
    expect(page.get_by_role("spinbutton", name="Bags")).to_have_value("2")


def everything_is_read(board, columns):
    """The board stands in so many columns, and no name and no station is cut off, nor what to do at the pads."""
    expect(board.get_by_role("table")).to_have_count(columns)
    expect(board.get_by_text("holds")).to_be_visible()
    cells = board.get_by_role("cell")
    assert cells.count() >= 16
    cut = "all => all.filter(one => one.scrollWidth > one.clientWidth + 1).map(one => one.innerText)"
    assert cells.evaluate_all(cut) == []


def test_a_whole_class_runs_with_somebody_late_and_a_swap_and_everybody_is_logged(plan, live_server):
    page = plan
    page.get_by_role("button", name="Run", exact=True).click()
    expect(page.get_by_text("The class 8 people")).to_be_visible()
    page.clock.install()
    page.reload()
    page.clock.fast_forward(1000)
    expect(page.get_by_text(re.compile("GO|WARM")).first).to_be_visible()
    page.keyboard.press("Space")
    page.clock.fast_forward(500)
    if not page.get_by_test_id("moves").count():
        page.keyboard.press("Space")  # everybody is warm
    expect(page.get_by_test_id("moves")).to_contain_text("To wave 1")
    passes(page, 10 + 60, by=5)
    expect(page.get_by_test_id("moves")).to_contain_text("Wave 1 ·")
    hall = page.context.new_page()
    hall.goto(f"{live_server.url}/screen")
    board = hall.get_by_role("region", name="The board")
    expect(board.get_by_text("bag 3")).to_be_visible()
    expect(hall.get_by_text("Wave 1 of")).to_be_visible()
    everything_is_read(board, columns=2)
    hall.set_viewport_size({"width": 390, "height": 844})
    everything_is_read(board, columns=1)
    # Somebody comes late, while the clock runs.
    page.bring_to_front()
    page.keyboard.press("c")
    sheet = page.get_by_role("dialog", name="The class")
    sheet.get_by_label("Somebody late").fill("Milo V.")
    sheet.get_by_role("button", name="Add", exact=True).click()
    late = sheet.get_by_role("row", name=re.compile(r"^Milo V\. –"))
    expect(late).to_be_visible()
    # Two change places in the wave that comes.
    first = sheet.get_by_role("row", name=re.compile("^Guest 1 "))
    others = [sheet.get_by_role("row", name=re.compile(f"^Guest {number} ")) for number in range(2, 9)]
    mine = first.get_by_role("cell").nth(1).inner_text()
    other = next(one for one in others if one.get_by_role("cell").nth(1).inner_text() != mine)
    theirs = other.get_by_role("cell").nth(1).inner_text()
    sheet.get_by_label("Somebody", exact=True).select_option("Guest 1")
    sheet.get_by_label("Swaps with").select_option(other.get_by_role("rowheader").inner_text())
    sheet.get_by_role("button", name="Swap").click()
    expect(first.get_by_role("cell").nth(1)).to_have_text(theirs)
    expect(other.get_by_role("cell").nth(1)).to_have_text(mine)
    sheet.get_by_role("button", name="Close").click()
    page.clock.fast_forward(2500)
    expect(board.get_by_text("Milo")).to_be_visible(timeout=15_000)
    # A reload in the midst of it loses neither.
    page.reload()
    page.clock.fast_forward(1000)
    expect(page.get_by_test_id("moves")).to_be_visible()
    page.keyboard.press("c")
    expect(page.get_by_role("dialog", name="The class").get_by_role("row", name=re.compile("^Milo"))).to_be_visible()
    page.get_by_role("dialog", name="The class").get_by_role("button", name="Close").click()
    passes(page, 15 * 60, by=15)
    expect(page.locator("main")).to_have_attribute("data-phase", "done")
    page.keyboard.press("Space")
    listed = page.get_by_role("list", name="How hard was it, for each")
    expect(listed.get_by_role("listitem")).to_have_count(9)
    for name, rpe in (("Guest 1", "8"), ("Guest 2", "7"), ("Milo V.", "6")):
        listed.get_by_role("listitem").filter(has_text=re.compile(f"^{re.escape(name)}")).get_by_role(
            "radio", name=re.compile(f"^{rpe},")
        ).check(force=True)
    listed.get_by_role("listitem").filter(has_text="Guest 3").get_by_role("checkbox").uncheck()
    expect(page.get_by_text(re.compile("Not rated yet.*Guest 4"))).to_be_visible()
    page.reload()
    page.clock.fast_forward(1000)
    page.get_by_role("button", name="Save 3 of 8").click()
    page.get_by_role("heading", name="Log", exact=True).wait_for()
    entries = page.get_by_role("link", name=re.compile("Waves"))
    expect(entries).to_have_count(3)


def test_who_is_where_goes_to_the_wall_in_the_one_menu(plan):
    plan.evaluate("document.activeElement.blur()")
    plan.keyboard.press("o")
    sheet = plan.get_by_role("dialog", name=re.compile("^Send out"))
    for paper in ("A4", "Letter"):
        address = sheet.get_by_role("link", name=paper).get_attribute("href")
        answer = plan.request.get(plan.url.split("/class")[0] + address)
        assert answer.headers["content-type"] == "application/pdf"
        assert answer.body().startswith(b"%PDF")


def test_what_is_shown_is_drawn_and_called_strike_by_strike(floor):
    page = floor("6:00 flow shadow, 2 x (0:15 show [1-2-3b], 0:20 flow bag [1-2-3b])")
    page.keyboard.press("Space")
    for _ in range(2):
        page.keyboard.press("n")
    expect(page.get_by_text("WATCH", exact=True).last).to_be_visible()
    drawn = page.get_by_role("img", name="Shown: jab, cross, lead hook to the body").first
    expect(drawn).to_be_visible()
