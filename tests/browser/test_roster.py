"""The roster in a browser: somebody new in a moment, limits that are obeyed, a knock that nobody goes past."""

import re

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import PHONE, type_pattern, verdict
from tests.browser.test_floor import phase
from tests.browser.test_people_on_the_floor import sheet as before_the_start


@pytest.fixture
def roster(signed_in, live_server):
    signed_in.goto(f"{live_server.url}/roster")
    signed_in.get_by_role("heading", name="Roster").wait_for()
    return signed_in


def open_page(page, name):
    page.get_by_role("list", name="Athletes").get_by_role("link", name=name).click()
    page.get_by_role("heading", name=name, exact=True).wait_for()


def region(page, name):
    return page.get_by_role("region", name=name, exact=True)


def fill_four(page, name="Ansa Lund", year="1994", mass="62,5"):
    page.get_by_label("Name", exact=True).fill(name)
    page.get_by_label("Year of birth").fill(year)
    page.get_by_label("Mass, kg").fill(mass)


def test_somebody_new_is_on_the_bench_after_four_fields(roster):
    roster.keyboard.press("n")
    fill_four(roster)
    roster.get_by_role("button", name="Add", exact=True).click()
    roster.get_by_role("heading", name="Ansa Lund", exact=True).wait_for()
    expect(region(roster, "Profile")).to_contain_text("62.5 kg")
    expect(region(roster, "What they have").get_by_role("listitem").nth(3)).to_contain_text("Default")
    roster.get_by_role("link", name="Bench", exact=True).click()
    type_pattern(roster, "10:00 flow, 5 x (1:00 power) rest 1:00")
    roster.get_by_label("for", exact=False).first.select_option(label="Ansa Lund")
    expect(verdict(roster)).to_contain_text("No screening is on record")


def test_what_cannot_be_is_said_at_its_field_and_nothing_typed_is_lost(roster):
    roster.get_by_role("button", name="New athlete").click()
    fill_four(roster, year="2024")
    roster.get_by_role("button", name="Add", exact=True).click()
    expect(roster.get_by_role("alert")).to_contain_text("ages from 8 to 95")
    expect(roster.get_by_label("Name", exact=True)).to_have_value("Ansa Lund")
    roster.get_by_label("Year of birth").fill("1994")
    roster.get_by_role("button", name="Add", exact=True).click()
    roster.get_by_role("heading", name="Ansa Lund", exact=True).wait_for()


def test_a_change_and_an_archiving_are_undone_with_one_press(roster):
    open_page(roster, "Tomas Brill")
    roster.get_by_role("button", name="Edit", exact=True).click()
    roster.get_by_label("Mass, kg").fill("73")
    roster.get_by_role("button", name="Save", exact=True).click()
    expect(region(roster, "Profile")).to_contain_text("73 kg")
    roster.get_by_role("button", name="Undo").click()
    expect(region(roster, "Profile")).to_contain_text("71 kg")
    roster.get_by_role("button", name="Archive", exact=True).click()
    expect(roster.get_by_role("list", name="Athletes")).not_to_contain_text("Tomas Brill")
    roster.get_by_role("button", name="Undo").click()
    expect(roster.get_by_role("list", name="Athletes")).to_contain_text("Tomas Brill")


def test_the_list_is_narrowed_by_words_and_by_group(roster):
    people = roster.get_by_role("list", name="Athletes").get_by_role("listitem")
    expect(people).to_have_count(16)
    roster.get_by_label("Search people").fill("dock")
    expect(people).to_have_count(5)
    roster.get_by_role("button", name=re.compile("^Capstan squad")).click()
    expect(people).to_have_count(1)
    roster.get_by_label("Search people").fill("nobody at all")
    roster.get_by_role("button", name="Show all").click()
    expect(people).to_have_count(16)


def test_a_limit_stands_against_the_session_on_the_bench_until_it_is_lifted(roster):
    open_page(roster, "Dario Fenn")
    roster.get_by_role("button", name="Add a limit").click()
    sheet = roster.get_by_role("dialog", name="Add a limit")
    sheet.get_by_label("Limit", exact=True).select_option(label="no power")
    sheet.get_by_role("button", name="Add", exact=True).click()
    expect(region(roster, "Limits")).to_contain_text("No power, until lifted")
    roster.get_by_role("link", name="Bench", exact=True).click()
    type_pattern(roster, "10:00 flow, 8 x (20 power / 10 rest)")
    roster.get_by_label("for", exact=False).first.select_option(label="Dario Fenn, mixed martial artist, 77 kg")
    expect(verdict(roster)).to_contain_text("No power: power at 10:00")
    roster.get_by_role("link", name="Roster", exact=True).click()
    open_page(roster, "Dario Fenn")
    region(roster, "Limits").get_by_role("button", name="Lift: no power").click()
    expect(region(roster, "Limits")).to_contain_text("Everything may be trained")
    roster.go_back()
    roster.go_back()
    expect(verdict(roster)).not_to_contain_text("No power")


def test_a_test_says_whether_its_change_is_real_and_can_be_taken_out(roster):
    open_page(roster, "Ife Marlowe")
    tests = region(roster, "Tests")
    expect(tests).to_contain_text("Within error: +70")
    roster.get_by_role("button", name="New test").click()
    sheet = roster.get_by_role("dialog", name="New test")
    sheet.get_by_label("Test", exact=True).select_option(label="run of 12 minutes")
    sheet.get_by_label("Run of 12 minutes, m").fill("24")
    sheet.get_by_role("button", name="Save", exact=True).click()
    expect(sheet.get_by_role("alert")).to_contain_text("From 1200 to 4600 m")
    sheet.get_by_label("Run of 12 minutes, m").fill("2800")
    sheet.get_by_role("button", name="Save", exact=True).click()
    expect(tests).to_contain_text("Real: +350")
    expect(region(roster, "What they have")).to_contain_text("12-minute run, 2800 m")
    tests.get_by_role("button", name=re.compile("^Take out")).first.click()
    expect(region(roster, "What they have")).to_contain_text("12-minute run, 2450 m")
    tests.get_by_role("button", name="Undo").click()
    expect(region(roster, "What they have")).to_contain_text("12-minute run, 2800 m")


def test_after_a_knock_to_the_head_the_clock_does_not_start_whatever_is_pressed(floor):
    page = floor("10:00 flow", "Bram Oster")
    expect(page.get_by_text("STOP", exact=True)).to_be_visible()
    stops = page.get_by_role("region", name="Stops")
    expect(stops).to_contain_text("There is no way past this")
    expect(stops.get_by_role("checkbox")).to_have_count(0)
    page.keyboard.press("Space")
    page.get_by_role("button", name="Stopped: read why").click()
    expect(before_the_start(page)).to_be_visible()
    expect(phase(page)).to_have_attribute("data-phase", "ready")
    page.get_by_label("Person A").select_option(label="Tomas Brill")
    expect(stops).to_have_count(0)
    page.evaluate("document.activeElement.blur()")
    page.keyboard.press("Space")
    expect(before_the_start(page)).to_have_count(0)


def test_a_limit_is_gone_past_only_when_it_is_seen_and_it_stays_on_record(floor):
    page = floor("10:00 flow shadow, 6 power", "Anton Reel")
    page.keyboard.press("Space")
    expect(before_the_start(page)).to_be_visible()
    expect(phase(page)).to_have_attribute("data-phase", "ready")
    page.get_by_role("region", name="Stops").get_by_role("checkbox").check()
    page.evaluate("document.activeElement.blur()")
    page.keyboard.press("Space")
    expect(before_the_start(page)).to_have_count(0)
    page.keyboard.down("Escape")
    page.get_by_role("heading", name="Plan and done").wait_for()
    page.keyboard.up("Escape")
    page.keyboard.press("3")
    page.keyboard.press("s")
    expect(page.get_by_role("listitem").first).to_contain_text("Run past this stop")


def test_a_knock_on_the_floor_is_noted_with_one_press_and_stands_on_the_page(floor):
    page = floor("10:00 flow", "Tomas Brill")
    page.keyboard.press("Space")
    page.keyboard.press("u")
    page.get_by_role("button", name="Knock to the head: Tomas Brill").click()
    expect(page.get_by_role("status").filter(has_text="nothing but rest")).to_be_visible()
    page.goto(page.url.split("/floor")[0] + "/roster")
    open_page(page, "Tomas Brill")
    knock = region(page, "Knock to the head")
    expect(knock).to_contain_text("noted by Marit Askew")
    knock.get_by_label("Cleared by").fill("Dr A. Holm")
    knock.get_by_role("button", name="Enter the clearance").click()
    expect(knock).to_have_count(0)


def test_erasing_asks_first_and_then_nobody_finds_them(roster):
    open_page(roster, "Jory Pell")
    with roster.expect_download() as taken:
        region(roster, "Data").get_by_role("link", name="Export").click()
    assert taken.value.suggested_filename == "jory-pell.zip"
    region(roster, "Data").get_by_role("button", name="Erase", exact=True).click()
    region(roster, "Data").get_by_role("button", name="Keep").click()
    region(roster, "Data").get_by_role("button", name="Erase", exact=True).click()
    region(roster, "Data").get_by_role("button", name="Yes, erase Jory Pell").click()
    expect(roster.get_by_role("list", name="Athletes").get_by_role("listitem")).to_have_count(15)
    expect(roster.get_by_role("list", name="Athletes")).not_to_contain_text("Jory Pell")


def test_on_a_phone_the_list_comes_first_and_the_page_has_a_way_back(roster):
    roster.set_viewport_size(PHONE)
    expect(roster.get_by_role("heading", name="Profile")).to_be_hidden()
    open_page(roster, "Runa Velde")
    expect(roster.get_by_role("list", name="Athletes")).to_be_hidden()
    roster.get_by_role("article").get_by_role("link", name="Roster").click()
    expect(roster.get_by_role("list", name="Athletes")).to_be_visible()


def test_a_list_from_a_spreadsheet_comes_in_without_its_bad_rows(inside, live_server):
    inside.goto(f"{live_server.url}/roster")
    inside.get_by_role("button", name="Import athletes from a file").click()
    sheet = inside.get_by_role("dialog", name="Import athletes")
    rows = ["name;born;weight;level", "Åse Quay;1996;62,5;club", "Ben Moor;88;81;expert", "Cleo Ray;1990;58;fighter"]
    file = {"name": "hall.csv", "mimeType": "text/csv", "buffer": "\n".join(rows).encode("windows-1252")}
    with inside.expect_file_chooser() as chooser:
        sheet.get_by_role("button", name="Choose a file").click()
    chooser.value.set_files(file)
    expect(sheet.get_by_role("listitem")).to_have_count(3)
    expect(sheet.get_by_role("listitem").first).to_contain_text("Åse Quay 1996, 62.5 kg, club")
    expect(sheet.get_by_text("Write beginner, club or fighter")).to_be_visible()
    expect(sheet.get_by_role("button", name="Take in 3 athletes")).to_be_disabled()
    inside.set_viewport_size(PHONE)
    assert inside.evaluate("document.documentElement.scrollWidth") <= PHONE["width"]
    sheet.get_by_role("button", name="Leave out all of them").click()
    sheet.get_by_role("button", name="Take in 2 athletes").click()
    expect(sheet.get_by_role("heading", name="2 athletes came in")).to_be_visible()
    sheet.get_by_role("button", name="To the roster").click()
    expect(inside.get_by_role("link", name="Åse Quay")).to_be_visible()
    expect(inside.get_by_role("link", name="Ben Moor")).to_have_count(0)
