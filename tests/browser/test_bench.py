import re

from playwright.sync_api import expect

from tests.browser.conftest import type_pattern, verdict

TABATA = "8x(20 all-out / 10 rest)"


def total(page):
    return page.get_by_text(re.compile(r"^Total \d+:\d\d$"))


def test_a_line_is_drawn_simulated_and_judged_at_once(bench):
    type_pattern(bench, TABATA)
    expect(verdict(bench)).to_contain_text("for lactic capacity")
    expect(total(bench)).to_have_text("Total 4:00")
    expect(bench.get_by_role("img", name=re.compile(r"Session of 4:00.*8 × \(20 all out, 10 rest\)"))).to_be_visible()
    expect(bench.get_by_text("Read as 8 × (20 all out, 10 rest).")).to_be_visible()
    expect(bench.get_by_text("8 times (0:20 all out; 0:10 rest). In all 4:00.")).to_be_visible()
    for store in ("Sprint", "Lactic", "Aerobic", "Heart"):
        expect(bench.locator("svg text", has_text=re.compile(f"^{store}$"))).to_be_visible()


def test_everything_follows_an_edit_by_keyboard(bench):
    type_pattern(bench, TABATA)
    expect(total(bench)).to_have_text("Total 4:00")
    rounds = bench.get_by_role("spinbutton", name="Rounds")
    rounds.focus()
    bench.keyboard.press("+")
    bench.keyboard.press("+")
    expect(total(bench)).to_have_text("Total 5:00")
    expect(bench.get_by_label("Pattern")).to_have_value("10 × (20 all out, 10 rest)")
    bench.keyboard.press("Tab")
    bench.keyboard.type("0:30")
    expect(total(bench)).to_have_text("Total 6:40")
    bench.get_by_label("Work: effort").select_option("power")
    expect(bench.get_by_label("Pattern")).to_have_value("10 × (30 power, 10 rest)")


def test_what_a_step_of_the_number_in_hand_would_make_is_worked_out_before_it_is_made(bench):
    type_pattern(bench, TABATA)
    expect(total(bench)).to_have_text("Total 4:00")

    def is_of_seven(answer):
        return answer.url.endswith("/api/evaluate") and '"count":7' in (answer.request.post_data or "")

    with bench.expect_response(is_of_seven):
        bench.get_by_role("spinbutton", name="Rounds").focus()
    bench.route("**/api/evaluate", lambda route: route.abort())
    bench.keyboard.press("-")
    expect(total(bench)).to_have_text("Total 3:30")


def test_what_cannot_be_worked_out_says_why_and_passes_nothing_of_before_off_as_its_own(bench):
    type_pattern(bench, "3 x 60:00 flow")
    expect(total(bench)).to_have_text("Total 180:00")
    bench.keyboard.press("Escape")
    bench.keyboard.press("d")
    expect(bench.get_by_text("A session lasts at most 4 hours; use fewer repetitions or shorter work.")).to_be_visible()
    expect(bench.locator("[data-row='1']")).to_contain_text("180:00")
    expect(bench.get_by_text("From before the change that cannot be worked out.")).to_be_visible()
    bench.keyboard.press("Control+z")
    expect(bench.get_by_role("img", name=re.compile("Session of 180:00"))).to_be_visible()
    expect(bench.get_by_text("From before")).to_have_count(0)


def test_undo_and_redo_take_every_edit_back_and_forth(bench):
    type_pattern(bench, TABATA)
    expect(total(bench)).to_have_text("Total 4:00")
    bench.get_by_role("spinbutton", name="Rounds").focus()
    bench.keyboard.press("-")
    expect(total(bench)).to_have_text("Total 3:30")
    bench.keyboard.press("Control+z")
    expect(total(bench)).to_have_text("Total 4:00")
    bench.keyboard.press("Control+Shift+z")
    expect(total(bench)).to_have_text("Total 3:30")


def test_a_new_row_is_empty_and_judges_nothing_until_a_line_is_typed(bench):
    bench.keyboard.press("a")
    pattern = bench.get_by_label("Pattern")
    expect(pattern).to_be_focused()
    expect(pattern).to_have_value("")
    expect(bench.get_by_text("No verdict yet")).to_be_visible()
    bench.keyboard.type(TABATA)
    expect(pattern).to_have_value(TABATA)
    expect(total(bench)).to_have_text("Total 4:00")


def test_a_wrong_word_is_named_at_its_character_and_mended_with_one_key(bench):
    type_pattern(bench, "2 x (30 technique, 30 speed) rest 0:15")
    expect(total(bench)).to_have_text("Total 2:15")
    type_pattern(bench, "2 x (30 technique, 30 sped) rest 0:15", reads=False)
    said = bench.get_by_role("status").filter(has_text="Did you mean speed?")
    expect(said).to_contain_text("Character 23")
    expect(said).to_contain_text("For example: 8 x (20 all out / 10 rest)")
    expect(bench.locator("[data-fault]")).to_have_text("sped")
    expect(bench.get_by_text("From before the line that cannot be read yet")).to_have_count(2)
    bench.get_by_role("button", name="Use speed").click()
    expect(bench.get_by_label("Pattern")).to_have_value("2 x (30 technique, 30 speed) rest 0:15")
    expect(bench.locator("[data-fault]")).to_have_count(0)
    expect(bench.get_by_text("From before the line")).to_have_count(0)


def test_enter_finishes_a_line_and_shift_enter_makes_another(bench):
    bench.keyboard.press("a")
    bench.keyboard.type("Bag: 3:00 power bag")
    bench.keyboard.press("Shift+Enter")
    bench.keyboard.type("Core: 1:00 plank")
    bench.keyboard.press("Enter")
    expect(bench.locator("[data-row]")).to_have_count(2)
    expect(bench.locator("[data-row='0']")).to_contain_text("3:00 power bag")
    bench.keyboard.press("a")
    bench.keyboard.type("2:00 pwer ")
    bench.keyboard.press("Enter")
    expect(bench.locator("[data-fault]")).to_have_text("pwer")
    expect(bench.get_by_label("Pattern")).to_be_focused()
    bench.get_by_role("button", name="Use power").click()
    expect(bench.locator("[data-fault]")).to_have_count(0)
    bench.get_by_label("Pattern").press("Enter")
    expect(bench.locator("[data-row='2']")).to_be_focused()
    expect(bench.locator("[data-row='2']")).to_contain_text("2:00 power")


def test_a_line_that_cannot_be_read_is_not_saved_over_the_good_one_and_can_be_left(bench):
    type_pattern(bench, TABATA)
    type_pattern(bench, "8x(20 all-out /", reads=False)
    bench.keyboard.press("Control+s")
    expect(bench.get_by_text("A line cannot be read yet")).to_be_visible()
    bench.get_by_role("button", name="Leave it as it was").click()
    expect(bench.get_by_label("Pattern")).to_have_value("8 × (20 all out, 10 rest)")


def test_a_save_in_the_same_breath_saves_the_line_just_typed(bench):
    type_pattern(bench, "7:00 flow", reads=False)
    bench.keyboard.press("Control+s")
    bench.wait_for_url("**/bench/*")
    bench.get_by_role("link", name="Library", exact=True).click()
    expect(bench.get_by_text("7:00 flow").first).to_be_visible()


def test_an_impossible_number_is_refused_where_it_is_typed(bench):
    type_pattern(bench, TABATA)
    bench.get_by_role("spinbutton", name="Rounds").fill("999")
    expect(bench.get_by_text("from 1 to 200")).to_be_visible()
    expect(total(bench)).to_have_text("Total 4:00")


def test_a_proposal_lands_on_the_bench_with_its_reason_and_can_be_undone(bench):
    bench.get_by_label("Purpose").select_option("sprint-power")
    bench.get_by_role("spinbutton", name="Minutes").fill("30")
    bench.keyboard.press("Escape")
    bench.get_by_role("button", name="Propose", exact=True).click()
    expect(bench.get_by_role("heading", name=re.compile("ways to sprint power"))).to_be_visible()
    bench.get_by_role("button", name="1 Put on the bench").click()
    expect(bench.get_by_text("Source: NSCA")).to_be_visible()
    expect(verdict(bench)).to_contain_text("for sprint power")
    expect(verdict(bench)).to_contain_text(re.compile("On target|Well aimed"))
    expect(bench.locator("[data-row]").first).to_contain_text("Warm-up")
    bench.get_by_role("button", name="Undo").click()
    expect(bench.get_by_role("heading", name="Nothing on the bench yet")).to_be_visible()


def test_the_verdict_follows_the_person_and_heart_rate_gives_way_to_effort(bench):
    type_pattern(bench, "20:00 flow")
    expect(verdict(bench)).to_contain_text("peak heart rate")
    bench.get_by_label("for", exact=False).first.select_option(label="Hedda Quill, over-55s class")
    expect(verdict(bench)).to_contain_text("by RPE")
    expect(verdict(bench)).to_contain_text("physician")


def test_parts_are_added_doubled_removed_and_brought_back(bench):
    type_pattern(bench, "5:00 flow")
    bench.keyboard.press("Escape")
    bench.locator("[data-row='0']").focus()
    bench.keyboard.press("d")
    expect(bench.locator("[data-row]")).to_have_count(2)
    expect(total(bench)).to_have_text("Total 10:00")
    bench.keyboard.press("Delete")
    expect(bench.locator("[data-row]")).to_have_count(1)
    bench.keyboard.press("Control+z")
    expect(bench.locator("[data-row]")).to_have_count(2)


def test_a_saved_session_survives_a_reload_and_stands_in_the_library(bench):
    bench.get_by_label("Title").fill("Harbour rounds")
    type_pattern(bench, "3 x 3:00 technique rest 1:00")
    bench.keyboard.press("Control+s")
    bench.wait_for_url("**/bench/*")
    expect(bench.get_by_role("button", name="Saved")).to_be_visible()
    bench.reload()
    expect(bench.get_by_label("Title")).to_have_value("Harbour rounds")
    expect(bench.get_by_text("3 × (3:00 technique) rest 1:00").first).to_be_visible()
    bench.get_by_role("link", name="Library", exact=True).click()
    expect(bench.get_by_role("link", name="Harbour rounds", exact=True)).to_be_visible()


def test_an_edit_not_yet_saved_survives_a_reload_half_typed_line_and_all(bench):
    type_pattern(bench, TABATA)
    expect(total(bench)).to_have_text("Total 4:00")
    type_pattern(bench, "9 x (20 all-out / 10 re", reads=False)
    bench.reload()
    expect(bench.get_by_label("Pattern")).to_have_value("9 x (20 all-out / 10 re")
    expect(bench.get_by_text("not saved yet")).to_be_visible()
    expect(total(bench)).to_have_text("Total 4:00")


def test_a_lost_connection_is_said_keeps_the_edit_and_is_tried_again(bench):
    type_pattern(bench, TABATA)
    expect(total(bench)).to_have_text("Total 4:00")
    bench.context.set_offline(True)
    bench.get_by_role("spinbutton", name="Rounds").focus()
    bench.keyboard.press("+")
    expect(bench.get_by_text("Off line")).to_be_visible()
    expect(bench.get_by_role("spinbutton", name="Rounds")).to_have_value("9")
    bench.context.set_offline(False)
    expect(total(bench)).to_have_text("Total 4:30")
    expect(bench.get_by_text("Off line")).to_have_count(0)


def test_a_save_without_a_network_is_sent_when_it_is_back(bench):
    type_pattern(bench, TABATA)
    expect(total(bench)).to_have_text("Total 4:00")
    bench.context.set_offline(True)
    bench.keyboard.press("Control+s")
    expect(bench.get_by_role("button", name="Waiting for the network")).to_be_visible()
    bench.context.set_offline(False)
    expect(bench.get_by_role("button", name="Saved")).to_be_visible()


def test_a_session_that_is_gone_says_so_with_a_way_on(inside):
    inside.goto(inside.url.replace("/library", "/bench/99999"))
    expect(inside.get_by_text("No such session in your club")).to_be_visible()
    expect(inside.get_by_role("link", name="Go to the library")).to_be_visible()


def test_deleting_asks_first(inside):
    inside.get_by_role("button", name="Delete Four by four").click()
    inside.get_by_role("button", name="Keep it").click()
    expect(inside.get_by_role("link", name="Four by four", exact=True)).to_be_visible()
    inside.get_by_role("button", name="Delete Four by four").click()
    inside.get_by_role("button", name="Yes, delete").click()
    expect(inside.get_by_role("link", name="Four by four", exact=True)).to_have_count(0)


def test_a_reason_points_at_its_intervals_on_the_score(bench):
    bench.get_by_label("Purpose").select_option("sprint-power")
    type_pattern(bench, "6 x (6 all out) rest 0:10")
    expect(total(bench)).to_have_text("Total 1:26")
    reason = verdict(bench).get_by_role("button", name=re.compile("leave the sprint store"))
    reason.hover()
    expect(bench.locator("svg rect[fill='var(--vermilion)']")).to_have_count(5)


def test_undo_goes_on_after_a_reload(bench):
    type_pattern(bench, TABATA)
    expect(total(bench)).to_have_text("Total 4:00")
    bench.get_by_role("spinbutton", name="Rounds").focus()
    bench.keyboard.press("-")
    expect(total(bench)).to_have_text("Total 3:30")
    key = bench.get_by_role("button", name="Save", exact=True)
    before = key.bounding_box()
    key.click()
    expect(bench.get_by_role("button", name="Saved")).to_be_visible()
    assert bench.get_by_role("button", name="Saved").bounding_box() == before, "and nothing beside it moves"
    bench.get_by_role("spinbutton", name="Rounds").focus()
    bench.keyboard.press("-")
    expect(total(bench)).to_have_text("Total 3:00")
    bench.reload()
    expect(total(bench)).to_have_text("Total 3:00")
    bench.get_by_role("button", name="Undo").click()
    expect(total(bench)).to_have_text("Total 3:30")
    bench.get_by_role("button", name="Redo").click()
    expect(total(bench)).to_have_text("Total 3:00")


def test_rows_are_moved_by_key_and_the_score_follows(inside):
    inside.get_by_role("link", name="Thirties and twenty-tens", exact=True).click()
    inside.locator("[data-row='4']").wait_for()
    inside.keyboard.press("ArrowUp")
    expect(inside.locator("[data-row='2']")).to_be_focused()
    inside.keyboard.press("Alt+ArrowUp")
    expect(inside.locator("[data-row='1']")).to_contain_text("Thirties")
    expect(inside.locator("[data-row='1']")).to_be_focused()
    expect(inside.locator("[data-row='2']")).to_contain_text("Skill rounds")
    inside.keyboard.press("Control+z")
    expect(inside.locator("[data-row='1']")).to_contain_text("Skill rounds")


def test_the_interval_under_the_cursor_is_told_with_its_strikes_by_limb(bench):
    type_pattern(bench, "8 x (20 all out bag [1-2] / 10 rest)")
    bench.get_by_text(re.compile(r"^Total")).wait_for()
    bench.get_by_label("Pattern").press("Escape")
    for _ in range(7):
        bench.keyboard.press(".")
    told = bench.get_by_test_id("under")
    expect(told).to_contain_text("0:35 · round 2 of 8 · all out 0:20, bag · jab, cross · about")
    expect(told).to_contain_text(re.compile(r"strikes: left hand \d+, right hand \d+"))


def test_the_keys_are_listed_on_a_question_mark(bench):
    type_pattern(bench, TABATA)
    bench.get_by_label("Pattern").press("Escape")
    bench.keyboard.press("?")
    keys = bench.get_by_role("dialog", name="Keys of the bench")
    expect(keys).to_contain_text("move the row up or down")
    bench.keyboard.press("Escape")
    expect(keys).to_be_hidden()
    expect(total(bench)).to_have_text("Total 4:00")


def test_a_line_that_cannot_be_read_yet_goes_with_its_row(inside):
    inside.get_by_role("link", name="Four by four", exact=True).click()
    inside.locator("[data-row='1']").click()
    inside.get_by_label("Pattern").fill("4 x (4:00 combi")
    expect(inside.get_by_text("Did you mean")).to_be_visible()
    # The first closes what could come next, the second the row.
    expect(inside.get_by_role("listbox")).to_be_visible()
    inside.get_by_label("Pattern").press("Escape")
    expect(inside.get_by_role("listbox")).to_be_hidden()
    inside.get_by_label("Pattern").press("Escape")
    expect(inside.locator("[data-row='1']")).to_be_focused()
    inside.keyboard.press("Alt+ArrowUp")
    inside.keyboard.press("Enter")
    expect(inside.get_by_label("Part", exact=True)).to_have_value("Long rounds")
    expect(inside.get_by_label("Pattern")).to_have_value("4 x (4:00 combi")
