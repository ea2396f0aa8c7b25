"""The clock of a run in a browser, whatever the device does to its time. How exact its sounds are: `make bench`."""

import re

from playwright.sync_api import expect

from tests.browser.test_floor import OFF_S, passed_s, phase, reading


def begin(floor, line, first="0"):
    page = floor(line)
    page.evaluate(first)
    expect(page.get_by_text("Called out", exact=True)).to_be_visible()
    page.keyboard.press("Space")
    page.keyboard.press("n")
    page.wait_for_timeout(1500)
    return page


def test_a_change_of_the_devices_time_moves_neither_the_clock_nor_a_bell_nor_the_second_after_a_reload(floor):
    page = begin(floor, "3:00 flow")
    before = reading(page)
    earlier = "{ const own = Date.now.bind(Date); Date.now = () => own() - 3_600_000; }"
    page.add_init_script(earlier)
    page.evaluate(earlier)
    page.wait_for_timeout(2500)
    after = reading(page)
    assert abs(before.left_s - after.left_s - passed_s(before, after)) <= OFF_S
    page.reload()
    expect(phase(page)).to_have_attribute("data-phase", "work")
    again = reading(page)
    assert abs(after.left_s - again.left_s - passed_s(after, again)) <= OFF_S


def test_a_sleep_of_the_device_is_slept_by_the_session_too(floor):
    """While a device sleeps the page's even clock stands and the device's own time goes on."""
    page = begin(floor, "3:00 flow", "Object.defineProperty(navigator, 'wakeLock', {value: undefined})")
    before = reading(page)
    page.evaluate("{ const own = Date.now.bind(Date); Date.now = () => own() + 60_000; }")
    page.wait_for_timeout(2000)
    after = reading(page)
    assert abs(before.left_s - after.left_s - 60 - passed_s(before, after)) <= OFF_S


def test_a_tab_that_was_hidden_comes_back_at_its_second(floor):
    page = begin(floor, "2:00 flow")
    before = reading(page)
    other = page.context.new_page()
    other.goto(re.sub(r"/floor/.*", "/method", page.url))
    other.wait_for_timeout(4000)
    page.bring_to_front()
    after = reading(page)
    assert abs(before.left_s - after.left_s - passed_s(before, after)) <= OFF_S
    other.close()
