"""Whole sessions from the first bell to the log, on a clock that the test moves."""

import re

import pytest
from playwright.sync_api import expect

from tests.browser.test_floor import phase
from tests.browser.test_people_on_the_floor import RUNA, sheet

LINE = "5:00 flow; then 1:00, 4 x (30 power bag [1-2-3]) rest 0:30"
TOTAL_S = 300 + 60 + 4 * 30 + 3 * 30


def passes(page, seconds, by=1):
    for _ in range(0, seconds, by):
        page.clock.fast_forward(1000 * by)


@pytest.fixture
def ready(floor):
    """Runa before the start, with a simulated strap and sensor, the page's clock in the test's hand."""
    page = floor(LINE, RUNA)
    for name in ("Heart rate", "Strikes"):
        sheet(page).get_by_label(name).select_option("simulated")
    page.wait_for_timeout(500)
    page.evaluate("document.activeElement.blur()")
    page.clock.install()
    page.reload()
    page.clock.fast_forward(1000)
    expect(page.get_by_text("GO", exact=True)).to_be_visible()
    return page


def cell(page, row, column):
    return page.get_by_role("row", name=re.compile(f"^{row}")).get_by_role("cell").nth(column)


def to_log(page):
    page.keyboard.press("Space")
    page.get_by_role("heading", name="Plan and done").wait_for()
    expect(cell(page, "Peak heart rate", 1)).to_be_visible()


def test_a_session_that_is_run_through_is_done_round_for_round(ready):
    """A second at a time: the simulated strap wakes late and loses the heart now and then, which is told apart."""
    ready.keyboard.press("Space")
    passes(ready, 10 + TOTAL_S + 2)
    expect(phase(ready)).to_have_attribute("data-phase", "done")
    to_log(ready)
    expect(cell(ready, "Time", 1)).to_have_text("9:30")
    expect(cell(ready, "Efforts", 1)).to_have_text("4")
    assert int(cell(ready, "Strikes", 1).inner_text()) > 300
    assert "%" in cell(ready, "Fade", 1).inner_text()
    drawing = ready.get_by_role("img", name=re.compile("4 of 4 efforts"))
    told = int(re.search(r"(\d+) heart rates", drawing.get_attribute("aria-label"))[1])
    # The page's clock goes on between two of the test's seconds: on a busy machine it tells once for more than one.
    assert told > 0.7 * TOTAL_S
    expect(ready.get_by_text(re.compile("The strap told nothing for [01]:"))).to_be_visible()


def test_with_a_pause_a_reload_and_no_network_nothing_is_lost(ready):
    ready.keyboard.press("Space")
    passes(ready, 10 + 120, by=5)
    ready.keyboard.press("Space")
    expect(ready.get_by_text("HELD", exact=True)).to_be_visible()
    passes(ready, 90, by=5)
    ready.keyboard.press("Space")
    passes(ready, 120, by=5)
    ready.reload()
    ready.clock.fast_forward(1000)
    expect(phase(ready)).to_have_attribute("data-phase", "work")
    ready.context.set_offline(True)
    passes(ready, TOTAL_S - 240 - 60, by=5)
    expect(phase(ready)).not_to_have_attribute("data-phase", "done")
    passes(ready, 62)
    expect(phase(ready)).to_have_attribute("data-phase", "done")
    ready.context.set_offline(False)
    to_log(ready)
    expect(cell(ready, "Time", 1)).to_have_text("9:30")
    expect(cell(ready, "Efforts", 1)).to_have_text("4")
    ready.keyboard.press("7")
    ready.keyboard.press("s")
    entry = ready.get_by_role("listitem").first
    expect(entry).to_contain_text("9:30 of 9:30")
    expect(entry).to_contain_text("simulated")
