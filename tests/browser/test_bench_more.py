"""The bench beyond a line and its verdict: levels, several rows, history, compare, scale, claims, two tabs."""

import re

import pytest
from playwright.sync_api import expect

from server.sessions.models import Session
from tests.browser.conftest import type_pattern, verdict

THIRTIES = "Thirties and twenty-tens"


@pytest.fixture
def thirties(inside):
    """The demo's long session on the bench."""
    inside.get_by_role("link", name=THIRTIES, exact=True).click()
    expect(total(inside)).to_have_text("Total 36:20")
    return inside


def total(page):
    return page.get_by_text(re.compile(r"^Total \d+:\d\d$"))


def row(page, index: int):
    return page.locator(f"[data-row='{index}']")


def place(page, word: str):
    return page.get_by_role("button", name=word, exact=True)


def saved(page) -> None:
    expect(page.get_by_role("button", name="Saved")).to_be_visible()


def levels(page):
    return page.get_by_role("list", name="Levels")


@pytest.fixture
def opened(bench):
    """One part, level by level."""
    type_pattern(bench, "2 x (30 technique, 30 speed, 30 power) rest 0:15")
    expect(total(bench)).to_have_text("Total 3:15")
    bench.get_by_role("button", name="Level by level").click()
    expect(levels(bench).get_by_role("listitem")).to_have_count(4)
    return bench


def pattern(page):
    return page.get_by_label("Pattern", exact=True)


def test_a_part_says_what_is_on_the_hands_and_it_stays_over_lines_and_a_reload(bench):
    type_pattern(bench, "5:00 flow bag, 2:00 power bag")
    bench.get_by_role("combobox", name="Hands").select_option(label="bare hands")
    expect(verdict(bench)).to_contain_text("5:00: bare hands, and power.")
    bench.get_by_role("combobox", name="Hands").select_option(label="14 oz gloves")
    bench.get_by_label("Straps").check()
    expect(verdict(bench)).not_to_contain_text("bare hands")
    expect(bench.get_by_role("region", name="Kit")).to_contain_text("To bring: 14 oz gloves, straps.")
    type_pattern(bench, "6:00 flow bag, 2:00 power bag")
    expect(total(bench)).to_have_text("Total 8:00")
    bench.reload()
    expect(total(bench)).to_have_text("Total 8:00")
    expect(bench.get_by_role("region", name="Kit")).to_contain_text("To bring: 14 oz gloves, straps.")
    bench.keyboard.press("Escape")
    expect(row(bench, 0)).to_contain_text("14 oz gloves, straps")


def test_a_level_is_edited_as_its_own_line_combination_and_cues_with_it(opened):
    line = opened.get_by_label("Line of 30 speed")
    line.fill('45 speed [1-2] call "push" every 0:10')
    line.press("Enter")
    expect(pattern(opened)).to_have_value(re.compile(r'45 speed \[1-2\] call "push" every 0:10'))
    expect(total(opened)).to_have_text("Total 3:45")


def test_a_level_that_cannot_be_read_says_where_and_keeps_what_was_typed(opened):
    line = opened.get_by_label("Line of 30 speed")
    line.fill("45 sped")
    line.press("Enter")
    expect(levels(opened).get_by_role("alert")).to_contain_text("Did you mean speed?")
    expect(line).to_have_value("45 sped")
    expect(total(opened)).to_have_text("Total 3:15")
    opened.get_by_role("button", name="Use speed").click()
    line.press("Enter")
    expect(total(opened)).to_have_text("Total 3:45")


def test_levels_are_nested_split_moved_and_brought_back_by_key(opened):
    opened.get_by_label("Pick 30 speed").focus()
    opened.keyboard.press("Alt+ArrowDown")
    expect(pattern(opened)).to_have_value("2 × (30 technique, 30 power, 30 speed) rest 0:15")
    expect(opened.get_by_label("Pick 30 speed")).to_be_focused()
    opened.keyboard.press("n")
    expect(pattern(opened)).to_have_value("2 × (30 technique, 30 power, 2 × (30 speed)) rest 0:15")
    opened.keyboard.press("u")
    expect(pattern(opened)).to_have_value("2 × (30 technique, 30 power, 30 speed) rest 0:15")
    opened.get_by_label("Pick 30 technique").focus()
    opened.keyboard.press("s")
    expect(pattern(opened)).to_have_value("2 × (15 technique, 15 technique, 30 power, 30 speed) rest 0:15")
    for _ in range(4):
        opened.keyboard.press("Control+z")
    expect(pattern(opened)).to_have_value("2 × (30 technique, 30 speed, 30 power) rest 0:15")


def test_several_levels_are_changed_together(opened):
    for word in ("technique", "power"):
        opened.get_by_label(f"Pick 30 {word}").check()
    opened.get_by_role("button", name="All 5 seconds longer").click()
    expect(pattern(opened)).to_have_value("2 × (35 technique, 30 speed, 35 power) rest 0:15")
    opened.get_by_role("toolbar", name="Change the levels").get_by_role("button", name="Nest", exact=True).click()
    expect(opened.get_by_text("Only what stands side by side goes into one repeat.")).to_be_visible()


def test_what_cannot_be_done_to_a_level_says_why(opened):
    opened.get_by_label("Pick 30 speed").focus()
    opened.keyboard.press("u")
    expect(opened.get_by_text("Only a repeat can be taken away.")).to_be_visible()


def drag(page, handle, onto) -> None:
    # Far from the edges, where a drag scrolls the page.
    page.set_viewport_size({"width": 1280, "height": 1400})
    handle.scroll_into_view_if_needed()
    onto.scroll_into_view_if_needed()
    start, end = handle.bounding_box(), onto.bounding_box()
    page.mouse.move(start["x"] + start["width"] / 2, start["y"] + start["height"] / 2)
    page.mouse.down()
    page.mouse.move(start["x"] + 12, start["y"] + 20, steps=3)
    page.mouse.move(end["x"] + 12, end["y"] + end["height"] / 3, steps=12)
    page.mouse.up()


def test_a_row_is_dragged_to_another_place(thirties):
    drag(thirties, thirties.get_by_role("button", name="Move Prepare"), row(thirties, 2))
    expect(row(thirties, 2)).to_contain_text("Prepare")
    expect(row(thirties, 0)).to_contain_text("Skill rounds")
    expect(total(thirties)).to_have_text("Total 36:20")
    thirties.keyboard.press("Control+z")
    expect(row(thirties, 0)).to_contain_text("Prepare")


def test_a_level_is_dragged_inside_its_repeat(opened):
    drag(opened, opened.get_by_role("button", name="Move 30 power"), opened.get_by_label("Line of 30 technique"))
    expect(pattern(opened)).to_have_value("2 × (30 power, 30 technique, 30 speed) rest 0:15")


def test_several_rows_are_picked_by_key_and_changed_together(thirties):
    row(thirties, 3).focus()
    row(thirties, 3).press("ArrowUp")
    thirties.keyboard.press("ArrowUp")
    thirties.keyboard.press("Shift+ArrowDown")
    bar = thirties.get_by_role("toolbar", name="Change several rows")
    expect(bar).to_contain_text("2 rows picked")
    bar.get_by_role("button", name="Make one part").click()
    expect(thirties.locator("[data-row]")).to_have_count(4)
    expect(row(thirties, 1)).to_contain_text("rest 1:00; then 1:00, 2 ×")
    expect(total(thirties)).to_have_text("Total 36:20")
    thirties.get_by_role("button", name="Pick several").click()
    for index in (0, 3):
        row(thirties, index).click()
    expect(bar).to_contain_text("2 rows picked")
    bar.get_by_label("Purpose of all rows picked").select_option(label="cool-down")
    expect(thirties.locator("[data-row]", has_text="cool-down")).to_have_count(2)
    bar.get_by_role("button", name="Remove").click()
    expect(thirties.locator("[data-row]")).to_have_count(2)
    for _ in range(3):
        thirties.get_by_role("button", name="Undo").click()
    expect(thirties.locator("[data-row]")).to_have_count(5)


def test_a_saved_session_saves_itself_and_its_history_restores_any_version(thirties):
    thirties.get_by_label("Title").fill("Thirties, the short way")
    row(thirties, 4).click()
    thirties.get_by_role("button", name="Remove").click()
    expect(total(thirties)).to_have_text("Total 32:20")
    saved(thirties)
    thirties.reload()
    expect(total(thirties)).to_have_text("Total 32:20")
    place(thirties, "History").click()
    history = thirties.get_by_role("dialog", name="History")
    expect(history.get_by_role("listitem")).to_have_count(2)
    expect(history.get_by_role("listitem").first).to_contain_text("Marit Askew, kept by itself")
    history.get_by_role("button", name="Restore").click()
    expect(total(thirties)).to_have_text("Total 36:20")
    expect(thirties.get_by_label("Title")).to_have_value(THIRTIES)
    thirties.keyboard.press("Control+z")
    expect(total(thirties)).to_have_text("Total 32:20")


def test_another_person_or_purpose_is_a_look_until_it_is_kept(thirties):
    thirties.get_by_label("Purpose").select_option("aerobic-power")
    thirties.get_by_label("for", exact=False).first.select_option(label="nobody in particular")
    expect(verdict(thirties)).to_contain_text("for aerobic power")
    look = thirties.get_by_role("status").filter(has_text="Saved, and run, for")
    expect(look).to_contain_text("lactic capacity")
    expect(thirties.get_by_role("button", name="Saved", exact=True)).to_be_visible()
    thirties.get_by_role("button", name="Back to what is saved").click()
    expect(verdict(thirties)).to_contain_text("for lactic capacity")
    expect(look).to_have_count(0)

    thirties.get_by_label("Purpose").select_option("aerobic-power")
    thirties.get_by_role("button", name="Keep it").click()
    expect(look).to_have_count(0)
    saved(thirties)
    thirties.reload()
    expect(thirties.get_by_label("Purpose")).to_have_value("aerobic-power")
    thirties.keyboard.press("h")
    versions = thirties.get_by_role("dialog", name="History").get_by_role("listitem")
    expect(versions.first).to_contain_text(", aerobic power,")
    expect(versions.last).to_contain_text(", lactic capacity,")


def test_what_was_never_saved_is_asked_about_before_another_session_takes_its_place(bench):
    ask = bench.get_by_role("dialog", name="Not saved yet")

    def anew():
        bench.get_by_role("link", name="Library", exact=True).click()
        bench.get_by_role("link", name="New session").click()

    type_pattern(bench, "7:00 flow")
    anew()
    ask.get_by_role("button", name="Go on with it").click()
    expect(total(bench)).to_have_text("Total 7:00")
    anew()
    ask.get_by_role("button", name="Replace it").click()
    expect(bench.get_by_role("heading", name="Nothing on the bench yet")).to_be_visible()
    bench.keyboard.press("Control+z")
    expect(total(bench)).to_have_text("Total 7:00")
    anew()
    ask.get_by_role("button", name="Save it first").click()
    expect(bench.get_by_role("heading", name="Nothing on the bench yet")).to_be_visible()
    bench.get_by_role("link", name="Library", exact=True).click()
    expect(bench.get_by_text("7:00 flow").first).to_be_visible()


def test_the_main_set_is_in_hand_when_a_session_is_opened(thirties):
    expect(row(thirties, 3)).to_contain_text("Twenty-tens")
    expect(row(thirties, 3)).to_have_attribute("tabindex", "0")


def test_a_version_is_compared_with_what_stands_here(thirties):
    row(thirties, 4).click()
    pattern(thirties).fill("6:00 recover shadow")
    expect(total(thirties)).to_have_text("Total 38:20")
    saved(thirties)
    pattern(thirties).press("Escape")
    thirties.keyboard.press("h")
    thirties.get_by_role("dialog", name="History").get_by_role("button", name="Compare").last.click()
    expect(thirties.get_by_role("heading", name="Side by side")).to_be_visible()
    expect(thirties.get_by_label("Right")).to_have_value("v1")
    expect(thirties.locator("mark")).to_have_text(["6:00 recover shadow", "4:00 recover shadow"])
    expect(thirties.get_by_text("2:00 less")).to_be_visible()
    thirties.get_by_role("button", name="Restore this version").click()
    expect(total(thirties)).to_have_text("Total 36:20")


def test_two_sessions_stand_side_by_side_for_one_person(thirties):
    row(thirties, 4).focus()
    thirties.keyboard.press("c")
    thirties.get_by_label("Right").select_option(label="Four by four")
    columns = thirties.locator("main section")
    expect(columns.nth(1)).to_contain_text("4 × (4:00 combination) recover 3:00")
    expect(columns.nth(1)).to_contain_text(re.compile(r"[▲▼] \d"))
    thirties.keyboard.press("Escape")
    expect(total(thirties)).to_have_text("Total 36:20")


def test_a_session_is_scaled_for_somebody_with_their_cautions(thirties):
    row(thirties, 4).focus()
    thirties.keyboard.press("s")
    thirties.get_by_label("Hedda Quill").check()
    column = thirties.get_by_role("region", name="Hedda Quill")
    expect(column).to_contain_text(re.compile("Effect kept|Apart"))
    expect(column).to_contain_text("physician")
    thirties.get_by_label("everybody").check()
    for role in ("The weakest", "The middle", "The strongest"):
        expect(thirties.get_by_text(role, exact=True)).to_be_visible(timeout=60_000)
    thirties.keyboard.press("3")
    expect(thirties.get_by_label("for", exact=False).first).to_contain_text("Dario Fenn")
    thirties.keyboard.press("Control+z")
    expect(total(thirties)).to_have_text("Total 36:20")


def test_a_session_is_converted_to_other_rules_and_one_without_rounds_says_why(inside):
    inside.get_by_role("link", name="Four by four", exact=True).click()
    expect(verdict(inside)).to_be_visible()
    place(inside, "Scale").click()
    inside.get_by_label("Or under the rules of").select_option("muay-thai-pro")
    column = inside.get_by_role("region", name="professional Muay Thai")
    expect(column).to_contain_text("rest 2:00")
    column.get_by_role("button", name="Keep as a session of its own").click()
    expect(inside.get_by_label("Title")).to_have_value("Four by four, professional Muay Thai")
    inside.get_by_role("link", name="Library", exact=True).click()
    inside.get_by_role("link", name="Flow for the over-55s", exact=True).click()
    expect(verdict(inside)).to_be_visible()
    pick = inside.locator("[data-row='1']")
    pick.click()
    pattern(inside).fill("15:00 flow shadow")
    expect(total(inside)).to_have_text("Total 22:00")
    pattern(inside).press("Escape")
    place(inside, "Scale").click()
    inside.get_by_label("Or under the rules of").select_option("mma-pro")
    expect(inside.get_by_text("There are no rounds here")).to_be_visible()


def test_every_number_says_who_says_so_and_leads_to_the_method(thirties):
    verdict(thirties).get_by_role("button", name=re.compile(r"^\d+ to \d+$")).first.click()
    entry = thirties.get_by_role("dialog", name="Who says so?")
    expect(entry).to_contain_text("Peak lactate")
    expect(entry).to_contain_text("di Prampero and Ferretti 1999")
    entry.get_by_role("link", name="Read the method").click()
    expect(thirties).to_have_url(re.compile("/method#readouts$"))


def test_a_claim_is_checked_beside_the_verdict(thirties):
    verdict(thirties).get_by_text("Check a claim").click()
    thirties.get_by_label("kcal claimed").fill("0")
    expect(thirties.get_by_role("alert")).to_have_text("from 1 to 20000 kcal")
    thirties.get_by_label("kcal claimed").fill("900")
    verdict(thirties).get_by_role("button", name="Check").click()
    expect(verdict(thirties)).to_contain_text("Very unlikely.")
    thirties.get_by_label("Claim", exact=True).select_option("tabata")
    verdict(thirties).get_by_role("button", name="Check").click()
    expect(verdict(thirties)).to_contain_text("Tabata et al. 1996")


def test_a_caution_is_cured_with_one_press(bench):
    bench.get_by_label("Purpose").select_option("lactic-power")
    type_pattern(bench, "3 x (30 power) rest 2:30")
    expect(verdict(bench)).to_contain_text("Hard work starts at 0:00")
    verdict(bench).get_by_role("button", name="Cure: a warm-up").click()
    expect(verdict(bench)).not_to_contain_text("Hard work starts at 0:00")
    expect(row(bench, 0)).to_contain_text("Warm-up")


def test_the_heart_has_its_target_band_and_every_store_its_soft_one(bench):
    bench.get_by_label("Purpose").select_option("threshold")
    type_pattern(bench, "20:00 technique")
    expect(bench.locator("[data-wanted='heart']")).to_have_count(1)
    for store in ("sprint", "lactic", "aerobic", "heart"):
        expect(bench.locator(f"[data-band='{store}']")).to_have_count(1)


def test_the_score_unfolds_and_folds_by_key(thirties):
    row(thirties, 4).focus()
    axis = thirties.locator("svg[role=img] text", has_text=re.compile(r"^\d+:\d\d$"))
    folded = axis.all_text_contents()
    thirties.keyboard.press("]")
    expect(thirties.get_by_role("button", name="Fold the score")).to_be_visible()
    assert axis.all_text_contents() != folded
    thirties.keyboard.press("[")
    expect(thirties.get_by_role("button", name="Unfold the score")).to_be_visible()
    assert axis.all_text_contents() == folded


def test_tags_are_kept_and_found_in_the_library(thirties):
    tags = thirties.get_by_label("Tags")
    tags.fill("Thursday,  harbour , Thursday")
    tags.press("Enter")
    expect(tags).to_have_value("Thursday, harbour")
    saved(thirties)
    thirties.get_by_role("link", name="Library", exact=True).click()
    thirties.get_by_role("button", name="harbour", exact=True).click()
    expect(thirties.get_by_role("link", name=THIRTIES, exact=True)).to_be_visible()
    expect(thirties.get_by_role("link", name="Four by four", exact=True)).to_have_count(0)


def test_a_library_of_hundreds_shows_a_hundred_and_searches_them_all(inside):
    known = Session.objects.first()
    plans = [{**known.document, "title": f"Session {number:03d}"} for number in range(250)]
    same = {"club": known.club, "target": known.target}
    Session.objects.bulk_create([Session(document=plan, saved_at=known.saved_at, **same) for plan in plans])
    inside.reload()
    rows = inside.locator("main ul > li")
    expect(inside.get_by_text("of 254 sessions")).to_be_visible()
    expect(rows).to_have_count(100)
    inside.get_by_role("button", name="Show more").click()
    expect(rows).to_have_count(200)
    inside.get_by_role("searchbox").fill("Session 003")
    expect(rows).to_have_count(1)
    expect(inside.get_by_role("button", name="Show more")).to_have_count(0)


@pytest.fixture
def two_tabs(inside):
    """Two tabs on one session; the later, without a network for a while, edits what the first saves meanwhile."""
    inside.get_by_role("link", name="Six-second bursts", exact=True).click()
    expect(verdict(inside)).to_be_visible()
    other = inside.context.new_page()
    other.goto(inside.url)
    expect(verdict(other)).to_be_visible()
    other.route("**/api/sessions/**", lambda route: route.abort())
    row(other, 1).click()
    pattern(other).fill("12 x (6 all out) rest 1:30")
    expect(total(other)).to_have_text("Total 31:42")
    row(inside, 0).click()
    pattern(inside).fill("8:00 flow")
    expect(total(inside)).to_have_text("Total 25:30")
    saved(inside)
    other.unroute("**/api/sessions/**")
    expect(other.get_by_role("alert")).to_contain_text("saved elsewhere")
    return inside, other


def test_a_tab_without_an_edit_of_its_own_takes_what_was_saved_elsewhere(inside):
    inside.get_by_role("link", name="Six-second bursts", exact=True).click()
    expect(verdict(inside)).to_be_visible()
    other = inside.context.new_page()
    other.goto(inside.url)
    expect(verdict(other)).to_be_visible()
    inside.get_by_label("Title").fill("Seven-second bursts")
    saved(inside)
    other.evaluate("window.dispatchEvent(new Event('focus'))")
    expect(other.get_by_label("Title")).to_have_value("Seven-second bursts")
    expect(other.get_by_text("saved elsewhere meanwhile")).to_be_visible()


def test_the_later_of_two_tabs_is_told_and_merges_both_edits(two_tabs):
    _first, later = two_tabs
    later.get_by_role("button", name="Merge both").click()
    expect(later.get_by_text("Both are merged.")).to_be_visible()
    expect(row(later, 0)).to_contain_text("8:00 flow")
    saved(later)
    later.reload()
    expect(later.get_by_text("12 × (6 all out) rest 1:30").first).to_be_visible()
    expect(later.get_by_text("8:00 flow").first).to_be_visible()


def test_the_later_tab_may_take_what_was_saved_and_undo_that(two_tabs):
    _first, later = two_tabs
    later.get_by_role("button", name="Take theirs").click()
    expect(total(later)).to_have_text("Total 25:30")
    later.get_by_role("button", name="Undo").click()
    expect(later.get_by_text("12 × (6 all out) rest 1:30").first).to_be_visible()


def test_off_line_edits_go_on_and_are_saved_by_themselves_when_the_network_is_back(thirties):
    thirties.context.set_offline(True)
    row(thirties, 4).click()
    thirties.get_by_role("spinbutton", name="Recover").fill("6:00")
    expect(thirties.get_by_text("Off line").first).to_be_visible()
    thirties.context.set_offline(False)
    expect(total(thirties)).to_have_text("Total 38:20")
    saved(thirties)
    thirties.reload()
    expect(total(thirties)).to_have_text("Total 38:20")


def test_it_prints_the_score_the_outline_and_the_verdict_and_no_keys(thirties):
    thirties.emulate_media(media="print")
    expect(total(thirties)).to_be_visible()
    expect(verdict(thirties)).to_be_visible()
    for word in ("Add a part", "Undo", "Compare"):
        expect(thirties.get_by_text(word, exact=True)).to_be_hidden()


def test_the_later_tab_may_keep_its_own_as_a_copy(two_tabs):
    first, later = two_tabs
    later.get_by_role("button", name="Save mine as a copy").click()
    saved(later)
    assert later.url != first.url
    expect(later.get_by_text("12 × (6 all out) rest 1:30").first).to_be_visible()
    later.get_by_role("link", name="Library", exact=True).click()
    expect(later.get_by_role("link", name="Six-second bursts", exact=True)).to_have_count(2)
