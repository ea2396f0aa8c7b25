"""Several people on one clock in a real browser: pairs, straps, sensors, and each one's log."""

import re

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import PHONE
from tests.browser.test_floor import SIZES, phase, seconds_left

PAIRS = "10:00 flow; then 0:20, 3 x (20 power pairs bag [1-2-3b])"
RUNA = "Runa Velde"

STRAP = """
window.strap = {beats: null, cut: null, asked: null};
class Characteristic extends EventTarget {
    value = null;
    async startNotifications() {}
}
class Device extends EventTarget {
    gatt = {
        connect: async () => ({getPrimaryService: async () => ({getCharacteristic: async () => heart})}),
        disconnect() {},
    };
}
const heart = new Characteristic();
const device = new Device();
Object.defineProperty(navigator, 'bluetooth', {value: {
    requestDevice: async (asked) => { window.strap.asked = asked; return device; },
}});
window.strap.beat = (bpm) => {
    heart.value = new DataView(Uint8Array.from([0, bpm]).buffer);
    heart.dispatchEvent(new Event('characteristicvaluechanged'));
};
window.strap.cut = () => {
    device.gatt.connect = async () => { throw new Error('out of reach'); };
    device.dispatchEvent(new Event('gattserverdisconnected'));
};
"""


def sheet(page):
    return page.get_by_role("region", name="Before the start")


def on_the_floor(page):
    return page.get_by_role("list", name="On the floor").get_by_role("listitem")


def start(page, skips=0):
    page.evaluate("document.activeElement.blur()")
    page.keyboard.press("Space")
    for _ in range(skips):
        page.keyboard.press("n")


def warm(page):
    """Skipping the warm-up is asked about once."""
    expect(page.get_by_text("WARM?", exact=True)).to_be_visible()
    page.keyboard.press("Space")


def end(page):
    page.keyboard.down("Escape")
    page.get_by_role("heading", name="Plan and done").wait_for()
    page.keyboard.up("Escape")


def strapped(floor, signed_in, line):
    """Runa before the start with a strap by Bluetooth that was found and has told nothing yet."""
    signed_in.add_init_script(STRAP)
    page = floor(line, RUNA)
    sheet(page).get_by_label("Heart rate").select_option("bluetooth")
    sheet(page).get_by_role("button", name="Find the strap").click()
    return page


@pytest.fixture
def pair(floor):
    """Runa and Dario before the start of work in pairs, both with simulated devices."""
    page = floor(PAIRS, RUNA)
    sheet(page).get_by_label("Person B").select_option(label="Dario Fenn")
    for name in ("Heart rate", "Strikes"):
        for choice in sheet(page).get_by_label(name).all():
            choice.select_option("simulated")
    expect(sheet(page)).to_contain_text("not a measurement")
    return page


def test_a_pair_alternates_by_name_and_can_be_swapped_by_hand(pair):
    start(pair, 3)
    warm(pair)
    expect(phase(pair)).to_have_attribute("data-phase", "work")
    expect(on_the_floor(pair).first).to_contain_text("Runa works")
    expect(on_the_floor(pair).last).to_contain_text("Dario rests")
    expect(pair.get_by_text("Next: Dario power 0:20")).to_be_visible()
    pair.keyboard.press("n")
    expect(on_the_floor(pair).last).to_contain_text("Dario works")
    pair.keyboard.press("w")
    expect(on_the_floor(pair).first).to_contain_text("Runa works")
    pair.reload()
    expect(on_the_floor(pair).first).to_contain_text("Runa works")


def test_what_is_pressed_before_it_is_known_who_may_start_is_done_in_order_after_it(pair):
    held = []
    pair.route("**/gate?*", lambda route: held.append(route))
    pair.reload()
    expect(sheet(pair)).to_be_visible()
    start(pair, 3)
    expect(pair.get_by_text("WARM?", exact=True)).to_have_count(0)
    assert held
    for request in held:
        request.continue_()
    warm(pair)
    expect(on_the_floor(pair).first).to_contain_text("Runa works")
    expect(pair.get_by_role("main"), "the first of three rounds").to_contain_text(re.compile(r"(2:00|1:[45]\d) left"))


def test_a_press_for_warm_and_one_for_the_start_both_count_before_it_is_known_who_may(floor):
    page = floor("3 x (20 power bag) rest 2:00", RUNA, warm=False)
    held = []
    page.route("**/gate?*", lambda route: held.append(route))
    page.reload()
    expect(page.get_by_text("WARM?", exact=True)).to_be_visible()
    for skips in (1, 0, 0):
        start(page, skips)
    assert held
    for request in held:
        request.continue_()
    expect(phase(page)).to_have_attribute("data-phase", "work")
    expect(page.get_by_text("HELD", exact=True)).to_have_count(0)


def test_of_two_on_pads_one_holds_until_the_coach_swaps_them(floor):
    page = floor("0:30 recover, 3 x (2:00 flow pads [3-2b]) rest 0:40")
    sheet(page).get_by_role("button", name="Add a person").click()
    expect(sheet(page)).to_contain_text("A works 6:00 and B 0:00 of 7:50: one holds until you swap them.")
    start(page, 2)
    expect(on_the_floor(page).first).to_contain_text("works")
    expect(on_the_floor(page).last).to_contain_text("holds")
    page.keyboard.press("w")
    expect(on_the_floor(page).first).to_contain_text("holds")
    page.keyboard.press("n")
    page.keyboard.press("n")
    expect(on_the_floor(page).last).to_contain_text("works")


def test_both_hearts_are_shown_and_each_is_logged_with_their_own_work_and_rest(pair):
    start(pair, 3)
    warm(pair)
    expect(pair.get_by_test_id("heart-A")).to_be_visible()
    expect(pair.get_by_test_id("heart-B")).to_be_visible()
    expect(pair.get_by_test_id("strikes-A")).to_have_text(re.compile("^([5-9]|[1-9][0-9]) strikes$"))
    pair.wait_for_timeout(1100)
    pair.keyboard.press("Space")
    counted = pair.get_by_test_id("strikes-A").inner_text()
    pair.reload()
    expect(pair.get_by_test_id("strikes-A")).to_have_text(counted)
    pair.keyboard.press("Space")
    pair.keyboard.press("n")
    pair.wait_for_timeout(7000)
    end(pair)
    pair.keyboard.press("8")
    expect(pair.get_by_role("row", name=re.compile("^Own work"))).to_be_visible()
    own = pair.get_by_role("row", name=re.compile("^Own rest")).inner_text()
    pair.get_by_role("button", name=re.compile("^B Dario")).click()
    expect(pair.get_by_role("heading", name="How hard was it, Dario?")).to_be_visible()
    assert pair.get_by_role("row", name=re.compile("^Own rest")).inner_text() != own
    pair.keyboard.press("6")
    pair.keyboard.press("n")
    pair.get_by_role("button", name="right wrist").click()
    expect(pair.get_by_text("No power with that hand")).to_be_visible()
    pair.keyboard.press("s")
    entries = pair.get_by_role("listitem")
    expect(entries.filter(has_text="Dario Fenn").filter(has_text="right wrist")).to_have_count(1)
    runa = entries.filter(has_text="Runa Velde").first
    expect(runa).to_contain_text("with simulated devices")
    expect(runa).not_to_contain_text("strikes counted")
    runa.get_by_role("link").first.click()
    expect(pair.get_by_role("img", name=re.compile("What was done over what was planned"))).to_be_visible()


def test_what_the_strap_told_survives_a_reload_and_a_lost_network(pair):
    start(pair, 1)
    expect(pair.get_by_test_id("heart-A")).to_be_visible()
    pair.wait_for_timeout(4000)
    pair.reload()
    expect(phase(pair)).to_have_attribute("data-phase", "work")
    expect(pair.get_by_test_id("heart-A")).to_be_visible()
    pair.wait_for_timeout(3000)
    pair.context.set_offline(True)
    pair.wait_for_timeout(2000)
    pair.context.set_offline(False)
    end(pair)
    heart = pair.get_by_role("img", name=re.compile("heart rates"))
    # They come after the page they stand on.
    expect(heart).to_have_attribute("aria-label", re.compile(r"[1-9]\d* heart rates"))
    told = int(re.search(r"(\d+) heart rates", heart.get_attribute("aria-label"))[1])
    assert told >= 7, "before the reload, after it and without a network"


def test_a_strap_by_bluetooth_is_shown_lost_by_word_and_kept_apart_from_zero(floor, signed_in):
    page = strapped(floor, signed_in, "20:00 flow")
    assert page.evaluate("window.strap.asked.filters[0].services") == ["heart_rate"]
    page.evaluate("window.strap.beat(131)")
    expect(sheet(page).get_by_role("button", name="Strap found, 131")).to_be_visible()
    start(page, 1)
    page.evaluate("window.strap.beat(147)")
    expect(page.get_by_test_id("heart-A")).to_have_text("147")
    page.evaluate("window.strap.cut()")
    expect(on_the_floor(page).first).to_contain_text("strap lost")
    expect(page.get_by_test_id("heart-A")).to_have_text("147")
    page.reload()
    expect(on_the_floor(page).first).to_contain_text("strap lost")
    page.get_by_role("button", name="strap lost").click()
    page.evaluate("window.strap.beat(139)")
    expect(page.get_by_test_id("heart-A")).to_have_text("139")
    with page.expect_response(lambda answer: answer.url.endswith("/journal") and answer.ok) as sent:
        end(page)
    kinds = [event["kind"] for event in sent.value.json()["events"]]
    assert kinds.index("strap-lost") < len(kinds) - kinds[::-1].index("strap") - 1


def test_a_silent_strap_is_lost_after_a_few_seconds(floor, signed_in):
    page = strapped(floor, signed_in, "20:00 flow")
    start(page, 1)
    page.evaluate("window.strap.beat(140)")
    expect(on_the_floor(page).first).not_to_contain_text("strap lost")
    expect(on_the_floor(page).first).to_contain_text("strap lost")


def test_the_heart_stands_against_its_band_in_words(floor, signed_in):
    page = strapped(floor, signed_in, "20:00 flow @60-70%HR")
    start(page, 1)
    for bpm, word in ((90, "under"), (122, "in band"), (170, "over")):
        page.evaluate(f"window.strap.beat({bpm})")
        expect(on_the_floor(page).first).to_have_attribute("data-word", word)
        expect(on_the_floor(page).first.get_by_text(word, exact=True)).to_be_visible()
    expect(page.get_by_role("img", name=re.compile("^Band"))).to_be_visible()


def test_a_sensor_counts_the_reps_down(floor):
    page = floor("2 x (40 reps speed bag [1]) rest 0:30", RUNA)
    sheet(page).get_by_label("Strikes").select_option("simulated")
    page.wait_for_timeout(600)
    start(page, 1)
    before = seconds_left(page)
    assert before <= 40
    expect(page.get_by_test_id("clock")).not_to_have_text(f"{before:02}")
    assert seconds_left(page) < before


@pytest.mark.browser_context_args(has_touch=True, is_mobile=True)
@pytest.mark.parametrize(("width", "height"), [(390, 844), (844, 390), (1180, 820)])
def test_gloves_find_every_key_of_the_floor_and_the_clock_stays_large(floor, width, height):
    page = floor("3 x (5:00 flow bag [1-2] pairs) rest 1:00")
    page.set_viewport_size({"width": width, "height": height})
    page.get_by_role("button", name="Start").last.tap()

    def keys(*names):
        for name in names:
            box = page.get_by_role("button", name=name, exact=True).last.bounding_box()
            assert min(box["width"], box["height"]) >= 60, name
            assert box["x"] >= 0, name
            assert box["x"] + box["width"] <= width, name
            assert box["y"] + box["height"] <= height, name

    keys("Back", "Pause", "Skip", "Swap", "Unwell", "Hold to end")
    for _ in range(3):
        page.get_by_role("button", name="Skip", exact=True).tap()
    keys("+ 10 s", "Unwell")
    digits = page.get_by_test_id("clock").bounding_box()
    assert digits["height"] >= height / 6
    assert (
        digits["y"] + digits["height"] <= page.get_by_role("button", name="Pause", exact=True).last.bounding_box()["y"]
    )


def test_three_at_one_bag_each_do_all_of_it(floor):
    page = floor(PAIRS)
    sheet(page).get_by_role("button", name="Add a person").click()
    expect(sheet(page)).to_contain_text(re.compile(r"Each works [\d:]+ and rests [\d:]+ of [\d:]+: 1 to \d"))
    start(page, 3)
    warm(page)
    for working in (0, 1, 2, 0):
        expect(on_the_floor(page).nth(working)).to_contain_text("works")
        assert on_the_floor(page).filter(has_text="works").count() == 1
        page.keyboard.press("n")


def test_skipping_the_warm_up_asks_whether_everybody_is_warm_and_can_be_taken_back(floor):
    page = floor(PAIRS)
    start(page, 3)
    expect(page.get_by_text("WARM?", exact=True)).to_be_visible()
    page.keyboard.press("b")
    expect(phase(page)).to_have_attribute("data-phase", "rest")
    page.keyboard.press("n")
    warm(page)
    expect(phase(page)).to_have_attribute("data-phase", "work")
    assert seconds_left(page) <= 20


def test_the_hall_sets_its_emergency_number_and_it_stands_where_it_is_needed(floor):
    page = floor(PAIRS)
    sheet(page).get_by_role("button", name="Change").click()
    number = sheet(page).get_by_label("Emergency number of this hall")
    number.fill("call me")
    sheet(page).get_by_role("button", name="Save").click()
    expect(sheet(page).get_by_role("alert")).to_contain_text("Figures and the signs")
    expect(number).to_have_value("call me")
    number.fill("144")
    sheet(page).get_by_role("button", name="Save").click()
    expect(sheet(page)).to_contain_text("Emergency number of this hall: 144")
    start(page)
    page.keyboard.press("u")
    expect(page.get_by_role("dialog", name="Somebody is unwell")).to_contain_text("call 144 now")


def test_bells_are_muted_by_kind_for_the_session(floor):
    page = floor("3:00 flow")
    with page.expect_response(lambda answer: answer.url.endswith("/calls") and answer.ok):
        sheet(page).get_by_label("clack at ten seconds").uncheck()
    page.reload()
    expect(sheet(page).get_by_label("clack at ten seconds")).not_to_be_checked()
    expect(sheet(page).get_by_label("bell", exact=True)).to_be_checked()


def fits(page, size):
    """Nobody and no numeral is cut off by the screen."""
    page.set_viewport_size(size)
    boxes = page.evaluate(
        """() => {
            const box = (element) => element.getBoundingClientRect().toJSON();
            const people = [...document.querySelectorAll('[aria-label="On the floor"] > li')].map(box);
            const range = document.createRange();
            range.selectNodeContents(document.querySelector('[data-testid=clock]'));
            return {people, clock: box(range), scroll: document.documentElement.scrollWidth};
        }"""
    )
    people = all(person["bottom"] <= size["height"] and person["right"] <= size["width"] for person in boxes["people"])
    return people and boxes["scroll"] <= size["width"] and boxes["clock"]["right"] <= size["width"]


def test_a_pair_with_its_combination_and_hearts_fits_every_screen_in_both_states(pair):
    start(pair, 3)
    for state in ("held", "work"):
        if state == "work":
            warm(pair)
            expect(phase(pair)).to_have_attribute("data-phase", "work")
        expect(on_the_floor(pair)).to_have_count(2)
        assert [size for size in SIZES if not fits(pair, size)] == [], state


def test_the_halls_screen_shows_who_works_with_their_heart_and_the_pulse(pair):
    start(pair, 3)
    warm(pair)
    pair.keyboard.press("t")
    expect(pair.get_by_test_id("heart-A")).to_be_visible()
    hall = pair.context.new_page()
    hall.goto(pair.url.split("/floor")[0] + "/screen")
    expect(hall.get_by_test_id("heart-A")).to_be_visible()
    expect(hall.get_by_test_id("pulse")).to_be_visible()
    pair.bring_to_front()
    pair.keyboard.press("n")
    working = "Dario works" if on_the_floor(pair).last.get_by_text("works").count() else "Runa works"
    expect(on_the_floor(hall).filter(has_text=working)).to_have_count(1)


def test_the_usual_log_takes_two_touches(pair):
    pair.set_viewport_size(PHONE)
    start(pair, 1)
    end(pair)
    pair.get_by_role("radio", name=re.compile("^7")).locator("..").click()
    pair.get_by_role("button", name="Save log").first.click()
    expect(pair.get_by_role("heading", name="Log", exact=True)).to_be_visible()
