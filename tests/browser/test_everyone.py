"""For everyone: WCAG by axe on every screen, both sizes, nothing wider than the screen."""

import json
import re
from datetime import time, timedelta
from pathlib import Path

import pytest
from django.utils import timezone
from playwright.sync_api import expect

from server.accounts.models import User
from server.roster.models import Person
from server.today.models import Planned
from tests.browser.conftest import DESK, PHONE, verdict
from tests.browser.test_camp import AskingCamps
from tests.browser.test_class import open_class

AXE = (Path(__file__).resolve().parents[2] / "web/node_modules/axe-core/axe.min.js").read_text(encoding="utf-8")


RULES = "runOnly: ['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'], resultTypes: ['violations']"
"""Nobody plays anything on a page that axe would have to wait for."""


def faults(page):
    if not page.evaluate("'axe' in window"):
        page.evaluate(AXE)
    found = page.evaluate(f"axe.run({{{RULES}, preload: false}}).then(found => found.violations)")
    serious = [v for v in found if v["impact"] in ("serious", "critical")]
    return [(v["id"], [node["html"][:120] for node in v["nodes"]][:3]) for v in serious]


def go_to(page, place):
    further(page)
    page.get_by_role("link", name=place, exact=True).first.click()


def home_of(page):
    return page.url[: page.url.index("/", len("http://"))]


def camps(page):
    go_to(page, "Camp")
    page.get_by_role("heading", name="No camp yet").wait_for()


def new_camp(page):
    page.get_by_role("button", name="New camp").click()
    page.get_by_role("dialog", name="New camp").get_by_text("What matters, and with which sessions").click()


def camp(page):
    home = home_of(page)
    page.goto(f"{home}/camp/{AskingCamps(page, home).solved()['id']}")
    page.get_by_role("region", name="Held to").get_by_role("listitem").first.wait_for()


def camp_session(page):
    page.locator("[data-uid]").first.click()
    page.get_by_role("dialog").wait_for()


def camp_sent_out(page):
    page.keyboard.press("o")
    page.get_by_role("button", name="Make an address").click()
    page.get_by_label("Address of the calendar").wait_for()


def close(page):
    """The dialog of the screen before."""
    if page.get_by_role("dialog").count():
        page.keyboard.press("Escape")
    expect(page.get_by_role("dialog")).to_have_count(0)


def further(page):
    """On a phone the last places stand under "More"."""
    more = page.get_by_role("button", name="More", exact=True)
    if more.is_visible():
        more.click()


def door(page):
    further(page)
    page.get_by_role("button", name="Leave").click()
    page.get_by_role("button", name="Enter as the demo coach").wait_for()


def library(page):
    page.get_by_role("heading", name="Library").wait_for()


def today(page):
    go_to(page, "Today")
    page.get_by_role("list", name="Planned").wait_for()
    page.get_by_role("region", name="Mind today").get_by_role("listitem").first.wait_for()


def waits(page):
    yesterday = timezone.localdate() - timedelta(days=1)
    Planned.objects.filter(pk=Planned.objects.first().pk).update(on=yesterday, at=time(10))
    page.reload()
    page.get_by_role("region", name="Waits for a log").wait_for()


def account(page):
    go_to(page, "Account")
    page.get_by_role("region", name="Signed in").get_by_role("listitem").first.wait_for()


def own_account(page):
    """Of somebody with a password."""
    user = User.objects.get(username="demo-coach")
    user.set_password("lamp over nine piers")
    user.save()
    door(page)
    page.get_by_role("button", name="Enter as the demo coach").click()
    page.get_by_role("link", name="Roster").wait_for()
    account(page)
    page.get_by_role("button", name="Set it up").click()
    page.get_by_role("img", name="The secret as a picture").wait_for()


def forgot(page):
    page.get_by_role("link", name="The password is forgotten").click()
    page.get_by_role("button", name="Send the link").wait_for()


def mailbox(page):
    page.route(
        "**/api/mailbox",
        lambda route: route.fulfill(
            json=[{"to": "per@quay.example", "subject": "A new password for Yoisho", "sent_at": "2026-11-01T10:00:00Z",
                   "text": "Choose it here:\n\nhttp://127.0.0.1:8000/reset/3-cabcabcabcabcabcabcabcabcabcabcabcabcabcabca"}]
        ),
    )  # fmt: skip
    page.goto(home_of(page) + "/mailbox")
    page.get_by_role("link", name="reset").wait_for()


def import_people(page):
    go_to(page, "Roster")
    page.get_by_role("button", name="Import athletes from a file").click()
    rows = b"name,born,mass,level\nAda Quay,96,62,expert\nBen Moor,1990,80,club\n"
    page.get_by_label("File of athletes").set_input_files({"name": "a.csv", "mimeType": "text/csv", "buffer": rows})
    page.get_by_text("Leave out all of them").wait_for()


def field_test(page):
    person = Person.objects.get(name="Runa Velde")
    page.goto(home_of(page) + f"/roster/{person.pk}/test/strikes")
    page.get_by_role("button", name="Begin").click()
    page.get_by_role("button", name="Tap each strike").wait_for()


def plan_one(page):
    page.get_by_role("button", name="Plan one").click()
    page.get_by_label("Every week until").wait_for()


def send_out(page):
    page.get_by_role("button", name="Send out Four by four").click()
    page.get_by_role("button", name="Make a link").click()
    page.get_by_label("Link for anybody").wait_for()


def schools(page):
    page.get_by_role("link", name="The schools' protocols").click()
    page.get_by_role("button", name="Open on the Bench").wait_for()


def book(page):
    go_to(page, "Book")
    page.get_by_role("list", name="The book").wait_for()
    page.locator("[data-combination]").fill("1-6, slpi")
    page.get_by_role("button", name="Use slip").click()
    page.get_by_text("Not on the stationary bag").wait_for()


def completing(page):
    page.get_by_role("button", name="Add a part").click()
    page.get_by_label("Pattern").fill("3:00 pow")
    page.get_by_role("listbox").wait_for()


def empty_bench(page):
    page.get_by_role("link", name="New session").click()
    page.get_by_role("heading", name="Nothing on the bench yet").wait_for()


def full_bench(page):
    page.get_by_role("link", name="Thirties and twenty-tens", exact=True).click()
    verdict(page).wait_for()
    page.locator("[data-row='3']").click()
    page.get_by_label("Pattern").wait_for()


def proposals(page):
    page.keyboard.press("Escape")  # back from the comparison
    page.get_by_role("button", name="Propose", exact=True).click()
    page.get_by_role("button", name="1 Put on the bench").wait_for()


def keys(page):
    page.get_by_role("button", name="? Keys").click()
    page.get_by_role("dialog").wait_for()


def levels(page):
    page.get_by_role("button", name="Level by level").click()
    page.get_by_role("list", name="Levels").wait_for()


def several(page):
    page.get_by_role("button", name="Pick several").click()
    page.locator("[data-row='1']").click()


def compare(page):
    page.keyboard.press("Escape")  # back from the scaling
    page.get_by_role("button", name="Compare", exact=True).click()
    expect(page.locator("main section")).to_have_count(2)
    page.locator("main section dl").nth(1).wait_for()


def scale(page):
    page.get_by_role("button", name="Scale", exact=True).click()
    page.get_by_label("Hedda Quill").check()
    page.get_by_role("region", name="Hedda Quill").wait_for(timeout=30_000)


def history(page):
    page.get_by_role("button", name="History", exact=True).click()
    page.get_by_role("dialog", name="History").get_by_role("listitem").first.wait_for()


def who_says(page):
    verdict(page).get_by_role("button", name="5 of 5").click()
    page.get_by_role("dialog", name="Who says so?").wait_for()


def log(page):
    go_to(page, "Log")
    page.get_by_role("listitem").first.wait_for()


def floor_work(page):
    page.goto(f"{home_of(page)}/library")
    page.get_by_role("link", name="Run Six-second bursts").click()
    page.get_by_test_id("clock").wait_for()
    page.keyboard.press("Space")
    page.keyboard.press("n")
    expect(page.locator("main")).to_have_attribute("data-phase", "work")


def floor_start(page):
    page.get_by_role("link", name="Run Thirties and twenty-tens").click()
    page.get_by_role("region", name="Before the start").wait_for()


def unwell(page):
    floor_work(page)
    page.keyboard.press("u")
    page.get_by_role("dialog", name="Somebody is unwell").wait_for()


def no_second_screen(page):
    page.goto(home_of(page) + "/screen")
    page.get_by_text("Nothing runs just now").wait_for()


def floor_rest(page):
    page.keyboard.press("n")
    expect(page.locator("main")).to_have_attribute("data-phase", "rest")


def log_entry(page):
    page.keyboard.down("Escape")
    page.get_by_role("heading", name="Plan and done").wait_for()
    page.keyboard.up("Escape")


def roster(page):
    go_to(page, "Roster")
    page.get_by_role("link", name="Bram Oster").click()
    page.get_by_role("region", name="Strike test").wait_for()


def new_athlete(page):
    go_to(page, "Roster")
    page.get_by_role("button", name="New athlete").click()
    page.get_by_text("All else, where you know it").click()
    page.get_by_label("Next bout").wait_for()


def new_limit(page):
    page.get_by_role("button", name="Add a limit").click()
    page.get_by_label("Who says so").wait_for()


def club(page):
    go_to(page, "Club")
    page.get_by_label("Name", exact=True).fill("Ansa Lund")
    page.get_by_role("button", name="Make a link").click()
    page.get_by_label("Link of the invitation").wait_for()


def invitation(page):
    link = page.get_by_label("Link of the invitation").input_value()
    door(page)
    page.goto(link)
    page.get_by_role("heading", name="Join Capstan Hall").wait_for()


def classes(page):
    go_to(page, "Class")
    page.get_by_text("None yet. Say above").wait_for()


def class_proposed(page):
    page.get_by_label("Say what it is").fill("20/10, 9 people, 2 bags, 20 min, wibble")
    page.get_by_role("button", name="Propose").click()
    page.get_by_role("button", name="Take To the beat").wait_for()


def class_asked(page):
    page.get_by_role("button", name="Fill in a form").click()
    page.get_by_role("dialog", name="What is asked of the class").get_by_label("A name at the door").wait_for()


def class_plan(page):
    open_class(page, home_of(page), "20/10, 9 people, 2 bags, 20 min")
    page.get_by_role("button", name="Apply: Two more come").wait_for()


def class_person(page):
    page.get_by_role("button", name=re.compile("^Guest 2, wave 2:")).click()
    page.get_by_role("dialog", name="Guest 2, wave 2").get_by_label("Put at").wait_for()


def class_on_the_floor(page):
    page.get_by_role("button", name="Run", exact=True).click()
    page.get_by_text(re.compile("^The class")).wait_for()
    page.keyboard.press("Space")
    page.keyboard.press("Space")
    page.get_by_test_id("moves").wait_for()


def class_panel(page):
    page.keyboard.press("c")
    page.get_by_role("dialog", name="The class").get_by_label("Somebody late").wait_for()


def class_log(page):
    page.keyboard.down("Escape")
    page.get_by_role("list", name="How hard was it, for each").wait_for()
    page.keyboard.up("Escape")


def method(page):
    go_to(page, "Method")
    page.get_by_role("region", name="Known limits").wait_for()


def by_hand(page):
    go_to(page, "Log")
    page.get_by_role("button", name="Log without a run").click()
    page.get_by_role("dialog", name="Log without a run").get_by_label("Anton Reel").wait_for()


def trends(page):
    go_to(page, "Log")
    page.get_by_role("link", name="Trends", exact=True).click()
    page.get_by_role("combobox", name="Of").select_option(label="Runa Velde")
    page.get_by_role("img", name="VO₂max").wait_for()
    page.get_by_role("region", name="Next time").get_by_role("heading", level=3).first.wait_for()


WALKS = {
    "door": [door, forgot],
    "mailbox": [mailbox],
    "today": [today, plan_one, waits],
    "library": [library, send_out, schools, book],
    "new session": [empty_bench, completing],
    "bench": [full_bench, keys, who_says, levels, several, history, scale, compare, proposals],
    "camp": [camps, new_camp, camp, camp_session, camp_sent_out],
    "class": [classes, class_asked, class_proposed, class_plan, class_person],
    "class on the floor": [class_plan, class_on_the_floor, class_panel, class_log],
    "log": [log, by_hand],
    "roster": [roster, new_limit, new_athlete, import_people, field_test],
    "club": [club, invitation],
    "account": [account],
    "own account": [own_account],
    "method": [method],
    "floor": [floor_start, floor_work, floor_rest, log_entry, no_second_screen],
    "unwell": [unwell],
}
"""Screens in the order in which they are gone through."""


def fits_everyone(page, walk):
    wrong = {}
    for screen in walk:
        # Reached on a phone, where a hand has the least room, and then seen at the desk.
        page.set_viewport_size(PHONE)
        close(page)
        screen(page)
        for size in (PHONE, DESK):
            page.set_viewport_size(size)
            found, wide = faults(page), page.evaluate("document.documentElement.scrollWidth")
            if found or wide > size["width"]:
                wrong[screen.__name__, size["width"]] = found, wide
    assert wrong == {}


@pytest.mark.parametrize("walk", WALKS.values(), ids=WALKS)
def test_every_screen_is_usable_by_everyone_and_fits(inside, walk):
    fits_everyone(inside, walk)


def test_trends_are_usable_by_everyone_and_fit(trained):
    fits_everyone(trained, [trends])


def test_touch_targets_on_a_phone_are_big_enough_for_gloves(inside):
    inside.set_viewport_size(PHONE)
    floor_work(inside)
    for name in ("Back", "Pause", "Skip"):
        box = inside.get_by_role("button", name=name, exact=True).last.bounding_box()
        assert box["height"] >= 72, name
        assert box["width"] >= 72, name


def test_the_bench_can_be_worked_without_a_pointer(inside):
    inside.get_by_role("link", name="Four by four", exact=True).focus()
    inside.keyboard.press("Enter")
    verdict(inside).wait_for()
    inside.locator("[data-row='2']").focus()
    inside.keyboard.press("ArrowUp")
    inside.keyboard.press("Enter")
    expect(inside.get_by_label("Pattern")).to_have_value("4 × (4:00 combination) recover 3:00")
    inside.keyboard.press("Escape")
    expect(inside.get_by_label("Pattern")).to_have_count(0)
    inside.keyboard.press("a")
    expect(inside.get_by_label("Pattern")).to_be_focused()


def test_an_empty_log_shows_a_way_on(inside):
    empty = json.dumps({"items": [], "count": 0})
    inside.route("**/api/log?*", lambda route: route.fulfill(body=empty, content_type="application/json"))
    inside.get_by_role("link", name="Log", exact=True).click()
    expect(inside.get_by_role("heading", name="Nothing logged yet")).to_be_visible()


def test_a_first_visit_without_an_answer_says_so_and_goes_on_by_itself(hall):
    hall.route("**/api/me", lambda route: route.abort())
    hall.reload()
    expect(hall.get_by_text("No connection")).to_be_visible()
    hall.unroute("**/api/me")
    expect(hall.get_by_role("button", name="Enter as the demo coach")).to_be_visible()


def test_the_first_load_is_light(inside):
    sizes = inside.evaluate(
        """() => performance.getEntriesByType('resource')
            .filter(entry => entry.name.endsWith('.js')).map(entry => entry.encodedBodySize)"""
    )
    assert 0 < sum(sizes) < 250_000
