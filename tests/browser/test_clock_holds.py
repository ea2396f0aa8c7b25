"""The clock of a run in a browser, whatever the device does to its time. How exact its sounds are: `make bench`."""

import re

from playwright.sync_api import expect

from tests.browser.test_floor import OFF_S, passed_s, phase, reading, to_floor


def begin(page, line):
    to_floor(page, line)
    expect(page.get_by_text("Called out", exact=True)).to_be_visible()
    page.keyboard.press("Space")
    page.keyboard.press("n")
    page.wait_for_timeout(1500)


def test_a_change_of_the_devices_time_moves_neither_the_clock_nor_a_bell_nor_the_second_after_a_reload(bench):
    begin(bench, "3:00 flow")
    before = reading(bench)
    earlier = "{ const own = Date.now.bind(Date); Date.now = () => own() - 3_600_000; }"
    bench.add_init_script(earlier)
    bench.evaluate(earlier)
    bench.wait_for_timeout(2500)
    after = reading(bench)
    assert abs(before.left_s - after.left_s - passed_s(before, after)) <= OFF_S
    bench.reload()
    expect(phase(bench)).to_have_attribute("data-phase", "work")
    again = reading(bench)
    assert abs(after.left_s - again.left_s - passed_s(after, again)) <= OFF_S


def test_a_sleep_of_the_device_is_slept_by_the_session_too(bench):
    """While a device sleeps the page's even clock stands and the device's own time goes on."""
    bench.evaluate("Object.defineProperty(navigator, 'wakeLock', {value: undefined})")
    begin(bench, "3:00 flow")
    before = reading(bench)
    bench.evaluate("{ const own = Date.now.bind(Date); Date.now = () => own() + 60_000; }")
    bench.wait_for_timeout(2000)
    after = reading(bench)
    assert abs(before.left_s - after.left_s - 60 - passed_s(before, after)) <= OFF_S


def test_a_tab_that_was_hidden_comes_back_at_its_second(bench):
    begin(bench, "2:00 flow")
    before = reading(bench)
    other = bench.context.new_page()
    other.goto(re.sub(r"/floor/.*", "/method", bench.url))
    other.wait_for_timeout(4000)
    bench.bring_to_front()
    after = reading(bench)
    assert abs(before.left_s - after.left_s - passed_s(before, after)) <= OFF_S
    other.close()
