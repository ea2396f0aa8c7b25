"""The two languages in the app: typed, coloured, completed, pasted, kept in the book, opened from the library."""

import json
import re

from playwright.sync_api import expect

from tests.browser.conftest import type_pattern, verdict

LINES = """Warm-up: 10:00 skip
Bag (lactic capacity): 2 x (8 x (30 all out bag / 30 flow bag)) rest 2:00
Cool-down: 3:00 recover shadow"""


def row(page, index):
    return page.locator(f"[data-row='{index}']")


def offered(page, word):
    return page.get_by_role("listbox").get_by_role("option", name=word)


def paste(page, text):
    page.get_by_label("Pattern").evaluate(
        """(area, text) => {
            area.focus();
            area.select();
            const data = new DataTransfer();
            data.setData("text/plain", text);
            const event = new ClipboardEvent("paste", {clipboardData: data, bubbles: true, cancelable: true});
            if (area.dispatchEvent(event)) document.execCommand("insertText", false, text);
        }""",
        text,
    )


def test_words_are_coloured_by_what_they_are_and_said_in_plain_words(bench):
    type_pattern(bench, "3 x (1:00 power bag [1-2]) rest 1:00")
    effort = bench.locator("[aria-hidden] span", has_text=re.compile("^power$"))
    modality = bench.locator("[aria-hidden] span", has_text=re.compile("^bag$"))
    inks = [each.evaluate("node => getComputedStyle(node).color") for each in (effort, modality)]
    assert len(set(inks)) == 2
    said = "3 times (1:00 power on bag: jab, cross), with 1:00 of rest between. In all 5:00."
    expect(bench.get_by_text(said)).to_be_visible()


def test_a_word_is_completed_by_keyboard_and_by_pointer(bench):
    type_pattern(bench, "3:00 pow", reads=False)
    pattern = bench.get_by_label("Pattern")
    expect(offered(bench, "power")).to_be_visible()
    expect(pattern).to_have_attribute("aria-expanded", "true")
    pattern.press("ArrowDown")
    pattern.press("Enter")
    expect(pattern).to_have_value("3:00 power ")
    pattern.press_sequentially("pa")
    offered(bench, "pads").click()
    expect(pattern).to_have_value("3:00 power pads ")
    pattern.press_sequentially("in")
    expect(bench.get_by_role("listbox")).to_be_visible()
    pattern.press("Escape")
    expect(bench.get_by_role("listbox")).to_have_count(0)
    expect(pattern).to_be_visible()


def test_several_pasted_lines_become_parts_with_their_purposes_and_undo_takes_them_back(bench):
    bench.get_by_role("button", name="Add a part").click()
    paste(bench, LINES)
    expect(bench.get_by_text("3 parts laid")).to_be_visible()
    for index, name in enumerate(("Warm-up", "Bag", "Cool-down")):
        expect(row(bench, index)).to_contain_text(name)
    expect(verdict(bench)).to_contain_text("for lactic capacity")
    bench.keyboard.press("Control+z")
    expect(row(bench, 2)).to_have_count(0)


def test_a_ladder_over_weeks_is_made_a_series_and_its_next_session_is_marked(bench):
    type_pattern(bench, "6 x 30 power rest 90/75/60", reads=False)
    bench.get_by_role("button", name="Make the series of 3").click()
    bench.wait_for_url("**/bench/*")
    expect(bench.get_by_label("Title")).to_have_value("6 × (30 power) rest 1:30, week 1 of 3")
    bench.get_by_role("link", name="Library", exact=True).click()
    weeks = bench.get_by_role("listitem").filter(has_text="of 3")
    expect(weeks).to_contain_text(["week 1 of 3", "week 2 of 3", "week 3 of 3"])
    expect(weeks.filter(has_text="Next due")).to_have_count(1)
    expect(weeks.first).to_contain_text("Next due")


def test_lines_typed_by_hand_are_laid_when_the_row_is_left(bench):
    type_pattern(bench, "Bag: 3:00 power\nCore: 1:00 plank", reads=False)
    expect(bench.get_by_text("2 parts: Bag, Core.")).to_be_visible()
    bench.get_by_label("Title").click()
    expect(row(bench, 1)).to_contain_text("Core")


def test_reps_have_a_stepper_of_their_own(bench):
    type_pattern(bench, "4 x (20 reps power bag [1-2]) rest 0:30")
    reps = bench.get_by_role("spinbutton", name="Work, reps")
    reps.focus()
    bench.keyboard.press("+")
    expect(bench.get_by_label("Pattern")).to_have_value("4 × (30 reps power bag [1-2]) rest 0:30")
    expect(verdict(bench)).to_contain_text("240 counted exactly")


def test_a_protocol_is_found_scaled_and_opened_by_keyboard(inside):
    inside.get_by_role("link", name="The schools' protocols").click()
    inside.get_by_role("button", name="Open on the Bench").wait_for()
    inside.keyboard.press("/")
    inside.keyboard.type("research")
    tabata = inside.locator("[data-protocol='tabata']")
    tabata.focus()
    expect(inside.get_by_role("heading", name="Tabata")).to_be_visible()
    inside.keyboard.press("ArrowRight")
    expect(inside.get_by_text("Twice, with time to come back")).to_be_visible()
    inside.keyboard.press("Enter")
    expect(inside.get_by_label("Title")).to_have_value("Tabata: fighter")
    expect(inside.get_by_text("Ctrl Z brings back what was here")).to_be_visible()
    expect(inside.get_by_label("Pattern")).to_have_value("2 × (8 × (20 all out bag [1-2], 10 rest)) rest 5:00")


def test_a_combination_is_kept_found_by_bag_put_on_the_bench_and_a_deletion_taken_back(inside):
    inside.get_by_role("link", name="Book", exact=True).click()
    line = inside.locator("[data-combination]")
    line.fill("6-3-2, slip")
    expect(inside.get_by_text("rear uppercut, lead hook, cross, slip")).to_be_visible()
    inside.get_by_role("button", name="Mirrored").click()
    expect(line).to_have_value("5-4-1, slip")
    inside.get_by_label("Name", exact=True).fill("Off the keel")
    inside.get_by_role("button", name="Keep in the book").click()
    kept = inside.get_by_role("listitem").filter(has=inside.get_by_role("button", name="Off the keel", exact=True))
    expect(kept).to_be_visible()
    inside.get_by_role("combobox", name="For", exact=True).select_option("bag")
    expect(kept).to_have_count(0)
    inside.get_by_role("combobox", name="For", exact=True).select_option("pads")
    inside.get_by_role("button", name="Delete Off the keel").click()
    inside.get_by_role("button", name="Undo").click()
    inside.get_by_role("button", name="Put Off the keel on the Bench").click()
    expect(inside.get_by_label("Pattern")).to_have_value("3 × (3:00 combination [5-4-1, slip]) rest 1:00")
    expect(inside.get_by_label("Part", exact=True)).to_have_value("Off the keel")


def test_the_clubs_numbers_change_everywhere_at_once(inside):
    inside.get_by_role("link", name="Book", exact=True).click()
    inside.locator("[data-combination]").fill("7")
    expect(inside.get_by_text("lead overhand", exact=True)).to_be_visible()
    inside.get_by_label("Numbers of the club").select_option("body-hooks")
    expect(inside.get_by_text("lead hook to the body", exact=True)).to_be_visible()


def test_a_session_goes_out_as_a_file_and_comes_in_again(inside, tmp_path):
    inside.get_by_role("button", name="Send out Thirties and twenty-tens").click()
    with inside.expect_download() as download:
        inside.get_by_role("dialog").get_by_role("link", name="Session document").click()
    file = tmp_path / download.value.suggested_filename
    download.value.save_as(file)
    assert json.loads(file.read_text())["format"] == "yoisho-session"
    inside.get_by_role("button", name="Close").click()
    inside.get_by_label("Session file").set_input_files(file)
    expect(inside.get_by_label("Title")).to_have_value("Thirties and twenty-tens")
    wrong = tmp_path / "wrong.json"
    wrong.write_text(file.read_text().replace('"repeat"', '"loop"', 1))
    inside.get_by_role("link", name="Library", exact=True).click()
    inside.get_by_label("Session file").set_input_files(wrong)
    expect(inside.get_by_role("alert")).to_contain_text("tree")
    wrong.write_text("not json")
    inside.get_by_label("Session file").set_input_files(wrong)
    expect(inside.get_by_role("alert")).to_contain_text("wrong.json is not JSON")


def test_the_floor_calls_the_combination_before_and_during(inside):
    inside.get_by_role("link", name="Run Thirties and twenty-tens").click()
    inside.get_by_test_id("clock").wait_for()
    inside.keyboard.press("Space")
    for _ in range(3):
        inside.keyboard.press("n")
    expect(inside.locator("main")).to_have_attribute("data-phase", "rest")
    expect(inside.get_by_test_id("call").first).to_have_text(re.compile("jab.*cross.*lead hook to the body"))
    inside.keyboard.press("n")
    expect(inside.locator("main")).to_have_attribute("data-phase", "work")
    expect(inside.get_by_test_id("call").first).to_have_text(re.compile("jab.*cross.*lead hook to the body"))


def test_a_count_from_the_floor_stands_in_the_week(inside):
    inside.get_by_role("link", name="Run Thirties and twenty-tens").click()
    inside.get_by_test_id("clock").wait_for()
    inside.keyboard.press("Space")
    for _ in range(5):
        inside.keyboard.press("n")
    inside.keyboard.down("Escape")
    inside.get_by_role("heading", name="Plan and done").wait_for()
    inside.keyboard.up("Escape")
    strikes = inside.get_by_label("Strikes counted")
    strikes.fill("many")
    inside.get_by_role("radio", name=re.compile("^7")).check(force=True)
    expect(inside.get_by_role("button", name="Save log")).to_be_disabled()
    strikes.fill("412")
    inside.get_by_role("button", name="Save log").click()
    expect(inside.get_by_role("alert")).to_contain_text("412 strikes in 0:0"), "asked once, as it was all skipped"
    inside.get_by_role("button", name="Save log").click()
    inside.get_by_role("link", name="Trends", exact=True).click()
    inside.get_by_role("combobox", name="Of").select_option(label="Runa Velde")
    expect(inside.get_by_role("heading", name="Runa Velde", level=1)).to_be_visible()
    inside.get_by_role("button", name="Table").click()
    week = inside.get_by_role("region", name="Numbers of the weeks").get_by_role("row").last.get_by_role("cell")
    by_limb = [int(week.nth(place).inner_text().replace(",", "")) for place in range(7, 11)]
    assert abs(sum(by_limb) - 412) <= 2, "each limb is rounded"


def test_a_part_states_its_purpose_and_keeps_it(bench):
    type_pattern(bench, "Rounds (threshold): 3 x (3:00 combination) rest 1:00")
    purpose = bench.get_by_role("combobox", name="For", exact=True)
    expect(purpose).to_have_value("threshold")
    purpose.select_option("skill")
    bench.get_by_role("button", name="Save", exact=True).click()
    expect(bench.get_by_role("button", name="Saved")).to_be_visible()
    bench.reload()
    expect(purpose).to_have_value("skill")


def test_what_stands_in_the_middle_of_a_line_is_not_completed_at_its_end(bench):
    type_pattern(bench, "3:00 power")
    pattern = bench.get_by_label("Pattern")
    pattern.press("Home")
    pattern.press("Delete")
    pattern.press_sequentially("2")
    expect(pattern).to_have_value("2:00 power")
    expect(bench.get_by_text("2:00 power. In all 2:00.")).to_be_visible()
    expect(bench.get_by_role("listbox")).to_have_count(0)


def test_the_clubs_sessions_are_searched_and_one_is_duplicated(inside):
    search = inside.get_by_role("searchbox")
    search.fill("dario combination")
    expect(inside.get_by_role("listitem")).to_have_count(1)
    search.fill("nothing of the kind")
    expect(inside.get_by_role("heading", name="No session has all these words")).to_be_visible()
    search.fill("four by four")
    inside.get_by_role("button", name="Duplicate Four by four").click()
    expect(inside.get_by_role("link", name="Four by four, copy", exact=True)).to_be_visible()
