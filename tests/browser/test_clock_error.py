"""Every sound at its moment, in a real browser: at most twenty milliseconds off, whatever else the page does."""

import re

import pytest
from playwright.sync_api import expect

from scripts.clock_error import PROBE, READ, WORST_S, ZERO, errors
from tests.browser.test_floor import phase, seconds_left, to_floor

pytestmark = pytest.mark.alone

BUSY = """() => setInterval(() => {
    const until = performance.now() + 1500;
    while (performance.now() < until);
}, 3000)"""


@pytest.fixture
def probed(bench):
    bench.add_init_script(PROBE)
    bench.reload()
    bench.get_by_role("heading", name="Nothing on the bench yet").wait_for()
    return bench


def begin(page, line):
    """Start a run; gives the moments its sounds are due at [s]."""
    to_floor(page, line)
    session = int(page.url.rsplit("/", 1)[1])
    plan = page.evaluate("(id) => fetch(`/api/sessions/${id}/run`).then((answer) => answer.json())", session)
    expect(page.get_by_text("Called out", exact=True)).to_be_visible()
    page.keyboard.press("Space")
    return session, [sound["at_s"] for sound in (*plan["cues"], *plan["calls"])]


def measured(page, session, due):
    return errors(page.evaluate(READ), page.evaluate(ZERO, session), due)


def worst_s(found):
    return max(abs(error.own_s) for error in found)


def test_on_a_page_that_is_busy_for_a_second_and_a_half_again_and_again(probed):
    session, due = begin(probed, "4 x (6 flow, 4 rest)")
    probed.evaluate(BUSY)
    probed.wait_for_timeout(32_000)
    found = measured(probed, session, due)
    assert len(found) >= 12
    assert worst_s(found) <= WORST_S


def test_after_a_pause_and_after_a_jump(probed):
    session, due = begin(probed, "6 x (6 flow, 4 rest)")
    probed.wait_for_timeout(4000)
    probed.keyboard.press("Space")
    probed.wait_for_timeout(3000)
    probed.keyboard.press("Space")
    probed.keyboard.press("n")
    probed.evaluate("window.sounded.length = 0")
    probed.wait_for_timeout(14_000)
    found = measured(probed, session, due)
    assert len(found) >= 5
    assert worst_s(found) <= WORST_S


def test_a_change_of_the_devices_time_moves_neither_the_clock_nor_a_bell_nor_the_second_after_a_reload(probed):
    begin(probed, "3:00 flow")
    probed.keyboard.press("n")
    probed.wait_for_timeout(1500)
    before, began = seconds_left(probed), probed.evaluate("performance.now()")
    probed.add_init_script("{ const own = Date.now.bind(Date); Date.now = () => own() - 3_600_000; }")
    probed.evaluate("{ const own = Date.now.bind(Date); Date.now = () => own() - 3_600_000; }")
    probed.wait_for_timeout(2500)
    passed = (probed.evaluate("performance.now()") - began) / 1000
    assert abs(before - seconds_left(probed) - passed) <= 1.1
    left = seconds_left(probed)
    probed.reload()
    expect(phase(probed)).to_have_attribute("data-phase", "work")
    assert 0 <= left - seconds_left(probed) <= 6


def test_a_sleep_of_the_device_is_slept_by_the_session_too(probed):
    """While a device sleeps the page's even clock stands and the device's own time goes on."""
    probed.evaluate("Object.defineProperty(navigator, 'wakeLock', {value: undefined})")
    begin(probed, "3:00 flow")
    probed.keyboard.press("n")
    probed.wait_for_timeout(1200)
    before = seconds_left(probed)
    probed.evaluate("{ const own = Date.now.bind(Date); Date.now = () => own() + 60_000; }")
    probed.wait_for_timeout(2000)
    assert 61 <= before - seconds_left(probed) <= 66


def test_a_tab_that_was_hidden_comes_back_at_its_second(probed):
    begin(probed, "2:00 flow")
    probed.keyboard.press("n")
    probed.wait_for_timeout(1000)
    before, began = seconds_left(probed), probed.evaluate("performance.now()")
    other = probed.context.new_page()
    other.goto(re.sub(r"/floor/.*", "/method", probed.url))
    other.wait_for_timeout(4000)
    probed.bring_to_front()
    passed = (probed.evaluate("performance.now()") - began) / 1000
    assert abs(before - seconds_left(probed) - passed) <= 1.1
    other.close()
