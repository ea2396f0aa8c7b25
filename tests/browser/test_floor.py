"""Whole runs on the floor, ending in the log."""

import re
from typing import NamedTuple

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import PHONE, stand, type_pattern

SHORT = "2 x (4s power) rest 0:03"


def seconds_left(page) -> int:
    text = page.get_by_test_id("clock").inner_text()
    if ":" in text:
        minutes, seconds = text.split(":")
        return 60 * int(minutes) + int(seconds)
    return int(text)


OFF_S = 1.6
"""What is shown is whole seconds, and drawn a moment after they pass."""


class Reading(NamedTuple):
    left_s: int
    at_ms: float
    """By the time that goes on through a reload and knows nothing of what is done to the device's own."""


def reading(page) -> Reading:
    """What the clock shows, and when."""
    at_ms = page.evaluate("performance.timeOrigin + performance.now()")
    return Reading(seconds_left(page), at_ms)


def passed_s(before: Reading, after: Reading) -> float:
    return (after.at_ms - before.at_ms) / 1000


def phase(page):
    return page.locator("main")


WHAT_IS_DONE = """Core: 40 plank call "breathe" every 0:08
Grow: 3 x (1:00 technique bag [adding 2b-3 | 1-2 | 4-5]) rest 0:20
Sides: 1:00 flow reflex bag [1-2] southpaw switch half"""


def test_the_floor_says_what_is_done_which_side_when_it_changes_and_what_is_new(floor):
    page = floor(WHAT_IS_DONE)
    page.keyboard.press("Space")
    page.keyboard.press("n")
    expect(page.get_by_text("PLANK", exact=True).last).to_be_visible()
    expect(page.get_by_text("BREATHE", exact=True).last).to_be_visible()
    expect(page.get_by_text("PLANK", exact=True).last).to_be_visible()
    for _ in range(3):
        page.keyboard.press("n")
    new = page.get_by_test_id("call").locator("span", has_text=re.compile("^jab, crossnew$")).first
    expect(new).to_be_visible()
    expect(page.get_by_text("45 strikes a minute").first).to_be_visible()
    for _ in range(3):
        page.keyboard.press("n")
    expect(page.get_by_text("REFLEX BAG", exact=True).last).to_be_visible()
    expect(page.get_by_test_id("side")).to_have_text(re.compile(r"^southpawswitch in \d+$"))


def test_what_is_on_the_hands_is_shown_as_it_changes_and_what_to_bring_before_the_start(floor):
    page = floor("1:00 flow bag in 16 oz gloves, 0:30 rest, 1:00 carry bare hands, 1:00 flow bag in 16 oz gloves")
    expect(page.get_by_role("region", name="Before the start")).to_contain_text("To bring 16 oz gloves, ball")
    page.keyboard.press("Space")
    page.keyboard.press("n")
    page.keyboard.press("n")
    expect(phase(page)).to_have_attribute("data-phase", "rest")
    expect(page.get_by_text("gloves off", exact=True)).to_be_visible()
    expect(page.get_by_text("Next: gloves off, carry 1:00")).to_be_visible()
    page.keyboard.press("n")
    expect(page.get_by_text("Next: 16 ounce gloves on, flow 1:00")).to_be_visible()
    expect(page.get_by_text("gloves off", exact=True)).to_have_count(0)
    page.keyboard.press("n")
    expect(page.get_by_text("16 ounce gloves on", exact=True)).to_be_visible()


def test_from_a_line_to_the_log_the_whole_way(bench):
    bench.get_by_label("for", exact=False).first.select_option(label="Runa Velde, kickboxer, 61 kg")
    type_pattern(bench, SHORT)
    bench.get_by_text(re.compile(r"^Total")).wait_for()
    bench.get_by_role("button", name="Run", exact=True).click()
    bench.wait_for_url("**/floor/*")
    stand(bench)
    bench.keyboard.press("Space")
    expect(phase(bench)).to_have_attribute("data-phase", "ready")
    bench.keyboard.press("n")
    expect(phase(bench)).to_have_attribute("data-phase", "work")
    expect(bench.get_by_text("POWER", exact=True).first).to_be_visible()
    expect(bench.get_by_text("Next: rest 0:03")).to_be_visible()
    expect(phase(bench)).to_have_attribute("data-phase", "rest")
    expect(bench.get_by_text("Next round")).to_be_visible()
    expect(phase(bench)).to_have_attribute("data-phase", "work")
    expect(phase(bench)).to_have_attribute("data-phase", "done")
    bench.keyboard.press("Space")
    expect(bench.get_by_role("heading", name="How hard was it, Runa?")).to_be_visible()
    efforts = bench.get_by_role("row", name=re.compile("^Efforts"))
    expect(efforts).to_have_text(re.compile("Efforts\\s*2\\s*2"))
    bench.keyboard.press("8")
    expect(bench.get_by_text("Severe").first).to_be_visible()
    bench.get_by_label("Note").fill("Hands stayed up.")
    bench.get_by_role("button", name="Save log").click()
    entry = bench.get_by_role("listitem").first
    expect(entry).not_to_contain_text("New session")
    expect(entry).to_contain_text("Runa Velde")
    expect(entry).to_contain_text("0:11 of 0:11")
    expect(entry).to_contain_text("Hands stayed up.")
    bench.reload()
    expect(bench.get_by_role("listitem").first).to_contain_text("Hands stayed up.")


def test_pause_holds_the_clock_and_space_goes_on(floor):
    page = floor("2:00 flow")
    page.keyboard.press("Space")
    page.keyboard.press("n")
    page.wait_for_timeout(1200)
    page.keyboard.press("Space")
    expect(page.get_by_text("HELD", exact=True)).to_be_visible()
    held = seconds_left(page)
    page.wait_for_timeout(1500)
    assert seconds_left(page) == held
    page.keyboard.press("Space")
    page.wait_for_timeout(1500)
    assert seconds_left(page) < held


def test_skip_and_back_move_by_intervals(floor):
    page = floor("3 x (40 power) rest 0:20")
    page.keyboard.press("Space")
    for expected in ("work", "rest", "work"):
        page.keyboard.press("n")
        expect(phase(page)).to_have_attribute("data-phase", expected)
    page.keyboard.press("b")
    expect(phase(page)).to_have_attribute("data-phase", "rest")


def test_a_reload_comes_back_at_the_right_second(floor):
    page = floor("3:00 flow")
    page.keyboard.press("Space")
    page.keyboard.press("n")
    page.wait_for_timeout(2000)
    before = reading(page)
    page.reload()
    page.get_by_test_id("clock").wait_for()
    after = reading(page)
    assert abs(before.left_s - after.left_s - passed_s(before, after)) <= OFF_S
    expect(phase(page)).to_have_attribute("data-phase", "work")


def test_a_run_goes_on_and_is_logged_after_a_lost_network(floor):
    page = floor(SHORT)
    page.keyboard.press("Space")
    page.context.set_offline(True)
    for _ in range(4):
        page.keyboard.press("n")
    expect(phase(page)).to_have_attribute("data-phase", "done")
    page.context.set_offline(False)
    page.keyboard.press("Space")
    page.get_by_role("heading", name="Plan and done").wait_for()
    page.context.set_offline(True)
    page.keyboard.press("5")
    page.keyboard.press("s")
    expect(page.get_by_text("is sent when there is a network").first).to_be_visible()
    page.context.set_offline(False)
    expect(page.get_by_role("heading", name="Log", exact=True)).to_be_visible()
    expect(page.get_by_role("listitem").first).to_contain_text("0 of 2 efforts")


def test_ending_early_takes_a_held_key_and_is_logged_as_it_was(floor):
    page = floor("3 x (40 power) rest 0:20")
    page.keyboard.press("Space")
    page.keyboard.press("n")
    page.keyboard.press("Escape")
    expect(phase(page)).to_have_attribute("data-phase", "work")
    page.keyboard.down("Escape")
    page.get_by_role("heading", name="Plan and done").wait_for()
    page.keyboard.up("Escape")
    expect(page.get_by_role("row", name=re.compile("^Efforts"))).to_have_text(re.compile("Efforts\\s*3\\s*0"))


def test_a_run_that_was_left_waits_in_the_log(floor):
    page = floor("3:00 flow")
    page.keyboard.press("Space")
    page.wait_for_timeout(300)
    page.goto(re.sub(r"/floor/\d+", "/log", page.url))
    expect(page.get_by_text("is still on the floor")).to_be_visible()
    page.get_by_role("link", name="Back to the floor").click()
    expect(page.get_by_test_id("clock")).to_be_visible()


def test_a_log_half_written_survives_a_reload(floor):
    page = floor(SHORT)
    page.keyboard.press("Space")
    for _ in range(4):
        page.keyboard.press("n")
    page.keyboard.press("Space")
    page.get_by_label("Note").fill("Left shoulder.")
    page.reload()
    expect(page.get_by_label("Note")).to_have_value("Left shoulder.")


SIZES = [{"width": 1280, "height": 800}, {"width": 1920, "height": 1080}, PHONE]


@pytest.mark.parametrize("line", ["45 power, 20 rest", "9:00 combination, 20 rest", "12:00 flow"])
def test_numerals_take_a_quarter_of_the_screen_and_stay_on_it(floor, line):
    page = floor(line)
    page.keyboard.press("Space")
    page.keyboard.press("n")
    expect(phase(page)).to_have_attribute("data-phase", "work")
    for size in SIZES:
        page.set_viewport_size(size)
        measured = page.get_by_test_id("clock").evaluate(
            """clock => {
                const range = document.createRange(); range.selectNodeContents(clock);
                const box = range.getBoundingClientRect();
                const pen = document.createElement('canvas').getContext('2d');
                const style = getComputedStyle(clock);
                pen.font = `${style.fontWeight} ${style.fontSize} ${style.fontFamily}`;
                return {right: box.right, digits: pen.measureText('0').actualBoundingBoxAscent};
            }"""
        )
        assert measured["digits"] >= (size["height"] / 4 if size is not PHONE else size["height"] / 7)
        assert measured["right"] <= size["width"]
        assert page.evaluate("document.documentElement.scrollWidth") <= size["width"]


def test_what_comes_first_is_said_then_three_clacks_and_the_bell_are_planned_ahead(floor, signed_in):
    """In which order and how far ahead; how exact they sound is measured by `make bench`."""
    signed_in.add_init_script(
        """
        window.planned = [];
        const {start, stop} = AudioBufferSourceNode.prototype;
        AudioBufferSourceNode.prototype.start = function (at) {
            this.plan = {at, ahead_s: at - this.context.currentTime, lasts_s: this.buffer.duration, silent: false};
            window.planned.push(this.plan);
            return start.call(this, at);
        };
        AudioBufferSourceNode.prototype.stop = function () {
            this.plan.silent = this.context.currentTime < this.plan.at + 0.05;
            return stop.call(this);
        };
        """
    )
    page = floor("30 power, 30 rest")
    expect(page.get_by_text("fetching the voice")).to_have_count(0)
    page.keyboard.press("Space")
    expect(phase(page)).to_have_attribute("data-phase", "work")
    # What is planned anew, as the device's clock shifts, sounds once.
    planned = [each for each in page.evaluate("window.planned") if not each["silent"]]
    first = sorted(planned, key=lambda each: each["at"])
    said, *clacks, bell = (each["lasts_s"] for each in first[:5])
    assert len(clacks) == 3
    assert max(clacks) == min(clacks) < min(said, bell)
    assert max(each["ahead_s"] for each in planned) > 2, "planned ahead, not as it is due"


REPS = "2 x (5 reps power bag [1-2]) rest 0:30"


def test_before_the_start_the_signs_to_stop_at_stand_there_and_a_cold_start_is_asked_about(floor):
    page = floor("6 x (30 power) rest 0:30", warm=False)
    sheet = page.get_by_role("region", name="Before the start")
    expect(sheet).to_contain_text("chest pain")
    expect(sheet).to_contain_text("Hard work starts at 0:00")
    expect(page.get_by_text("WARM?", exact=True)).to_be_visible()
    page.keyboard.press("Space")
    expect(page.get_by_text("GO", exact=True)).to_be_visible()
    page.keyboard.press("Space")
    expect(phase(page)).to_have_attribute("data-phase", "ready")
    expect(sheet).to_have_count(0)


def test_a_warm_start_is_one_key(floor):
    page = floor("10:00 flow; then 1:00, 6 x (30 power) rest 0:30", warm=False)
    expect(page.get_by_text("GO", exact=True)).to_be_visible()
    page.keyboard.press("Space")
    expect(page.get_by_role("region", name="Before the start")).to_have_count(0)


def test_reps_are_counted_down_and_the_rest_starts_by_itself(floor):
    page = floor(REPS)
    page.keyboard.press("Space")
    page.keyboard.press("n")
    clock_ = page.get_by_test_id("clock")
    expect(clock_).to_have_text("05")
    for left in ("04", "03", "02", "01"):
        page.keyboard.press("Enter")
        expect(clock_).to_have_text(left)
    page.get_by_role("button", name="Count a rep, 1 left").click()
    expect(phase(page)).to_have_attribute("data-phase", "rest")


def test_open_ended_work_counts_up_is_frozen_to_look_and_ends_when_the_coach_says(floor):
    page = floor("0:40 recover, open 0:03 technique bag [2-3b], 0:40 rest, 1:00 flow")
    page.keyboard.press("Space")
    page.keyboard.press("n")
    expect(page.get_by_text("Next: technique open-ended")).to_be_visible()
    page.keyboard.press("n")
    expect(page.get_by_text(re.compile("^about .* left$"))).to_be_visible()
    page.wait_for_timeout(4500)
    expect(phase(page)).to_have_attribute("data-phase", "work")
    lasted = seconds_left(page)
    assert 4 <= lasted <= 7, "it counts up, past what was stated"
    page.keyboard.press("Space")
    expect(page.get_by_text("STOP AND LOOK", exact=True)).to_be_visible()
    page.reload()
    frozen = seconds_left(page)
    page.wait_for_timeout(1500)
    assert seconds_left(page) == frozen
    page.get_by_role("button", name="Go on").first.click()
    page.wait_for_timeout(2500)
    lasted = seconds_left(page)
    assert frozen + 2 <= lasted <= frozen + 4
    page.keyboard.press("n")
    expect(phase(page)).to_have_attribute("data-phase", "rest")
    page.keyboard.down("Escape")
    page.get_by_role("heading", name="Plan and done").wait_for()
    page.keyboard.up("Escape")
    row = page.get_by_role("row", name=re.compile("open, about 0:03"))
    expect(row).to_have_text(re.compile(f"0:({lasted:02}|{lasted + 1:02})$"))


def test_the_clock_waits_for_the_last_rep_also_over_a_reload(floor):
    page = floor("2 x (2 reps power bag [1-2]) rest 0:30")
    page.keyboard.press("Space")
    page.keyboard.press("n")
    page.keyboard.press("Enter")
    # Two reps were reckoned with five seconds.
    page.wait_for_timeout(6500)
    expect(phase(page)).to_have_attribute("data-phase", "work")
    expect(page.get_by_test_id("clock")).to_have_text("01")
    page.reload()
    expect(page.get_by_test_id("clock")).to_have_text("01")
    page.keyboard.press("Enter")
    expect(phase(page)).to_have_attribute("data-phase", "rest")


def test_somebody_unwell_stops_the_clock_and_shows_what_to_do_first(floor):
    page = floor("10:00 flow; then 1:00, 6 x (30 power) rest 0:30")
    page.keyboard.press("Space")
    page.keyboard.press("n")
    page.keyboard.press("u")
    sheet = page.get_by_role("dialog", name="Somebody is unwell")
    expect(sheet).to_contain_text("call 112 now")
    left = seconds_left(page)
    page.wait_for_timeout(1300)
    assert seconds_left(page) == left
    sheet.get_by_role("button", name="All well").click()
    expect(page.get_by_text("HELD", exact=True)).to_be_visible()
    page.keyboard.press("u")
    sheet.get_by_role("button", name="End the session").click()
    expect(page.get_by_role("heading", name="Plan and done")).to_be_visible()


def test_what_is_called_is_set_for_the_session_and_kept(floor):
    page = floor("3:00 flow bag [1-2] switch at half")
    page.get_by_label("change of sides").uncheck()
    page.get_by_role("combobox", name="Combination again").select_option("30")
    page.wait_for_timeout(500)
    page.reload()
    expect(page.get_by_label("change of sides")).not_to_be_checked()
    expect(page.get_by_label("what comes next")).to_be_checked()
    expect(page.get_by_role("combobox", name="Combination again")).to_have_value("30")


def test_all_that_is_said_is_fetched_before_the_start_and_kept_on_the_device(floor):
    page = floor("3:00 flow bag [1-2] switch at half")
    expect(page.get_by_text("Called out", exact=True)).to_be_visible()
    kept = page.evaluate("caches.open('yoisho-speech').then((shelf) => shelf.keys()).then((keys) => keys.length)")
    assert kept >= 3


def test_a_log_written_off_line_is_sent_after_the_tab_was_closed(floor):
    page = floor(SHORT, title="Closed too soon")
    page.keyboard.press("Space")
    for _ in range(4):
        page.keyboard.press("n")
    page.keyboard.press("Space")
    page.get_by_role("heading", name="Plan and done").wait_for()
    home = page.url.split("/log")[0]
    page.context.set_offline(True)
    page.keyboard.press("6")
    page.keyboard.press("s")
    expect(page.get_by_text("is sent when there is a network").first).to_be_visible()
    context = page.context
    later = context.new_page()
    page.close()
    context.set_offline(False)
    later.goto(f"{home}/log")
    expect(later.get_by_role("listitem").first).to_contain_text("Closed too soon")
    expect(later.get_by_text("is sent when there is a network")).to_have_count(0)


def test_what_happened_in_a_run_is_on_record_and_somebody_unwell_stands_in_the_log(floor):
    page = floor("10:00 flow; then 1:00, 6 x (30 power) rest 0:30")
    page.keyboard.press("Space")
    page.keyboard.press("n")
    with page.expect_response(lambda answer: answer.url.endswith("/journal") and answer.ok) as sent:
        page.keyboard.press("u")
    kinds = [event["kind"] for event in sent.value.json()["events"]]
    assert kinds == ["start", "skip", "pause", "unwell"]
    page.get_by_role("button", name="End the session").click()
    page.get_by_role("heading", name="Plan and done").wait_for()
    page.keyboard.press("4")
    page.keyboard.press("s")
    expect(page.get_by_role("listitem").first).to_contain_text("Somebody was unwell at 0:0")


def test_ten_seconds_more_are_added_to_a_rest(floor):
    page = floor("10:00 flow; then 0:30, 2 x (30 power) rest 0:30")
    page.keyboard.press("Space")
    page.keyboard.press("n")
    page.keyboard.press("+")
    page.keyboard.press("n")
    expect(phase(page)).to_have_attribute("data-phase", "rest")
    before = seconds_left(page)
    page.keyboard.press("+")
    page.wait_for_timeout(200)
    after = seconds_left(page)
    assert before + 8 <= after <= before + 10, "and none were added to the work before"
    page.wait_for_timeout(2200)
    assert seconds_left(page) < after


def test_the_pulse_beats_for_the_eye_in_its_own_double_and_half_time(floor):
    page = floor("3:00 flow bag 60 a minute")
    page.keyboard.press("Space")
    page.keyboard.press("n")
    expect(page.get_by_test_id("pulse")).to_have_count(0)
    for word in ("pulse", "double time", "half time"):
        page.keyboard.press("t")
        expect(page.get_by_text(f"T{word}", exact=True)).to_be_visible()
        expect(page.get_by_test_id("pulse")).to_be_visible()
    page.keyboard.press("t")
    expect(page.get_by_test_id("pulse")).to_have_count(0)


def test_music_is_counted_in_eights_without_being_asked_for(floor):
    page = floor("3:00 flow bag to 120 beats half time")
    page.keyboard.press("Space")
    page.keyboard.press("n")
    expect(page.get_by_test_id("pulse").locator("b")).to_have_text(re.compile("^[1-8]$"))
