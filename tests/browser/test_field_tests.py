"""Field tests on the floor: a clock, and the counts asked for as each part ends."""

import pytest
from playwright.sync_api import expect

from server.roster.models import FieldTest, Person
from tests.browser.conftest import PHONE
from tests.browser.test_people_on_the_floor import STRAP


@pytest.fixture
def ready(signed_in, live_server):
    """Somebody of the demo before a test, on a clock of the test's own."""
    signed_in.clock.install()
    signed_in.add_init_script(STRAP)

    def go(name, kind):
        person = Person.objects.get(name=name)
        signed_in.goto(f"{live_server.url}/roster/{person.pk}")
        signed_in.get_by_role("button", name="New test").click()
        sheet = signed_in.get_by_role("dialog", name="New test")
        sheet.get_by_label("Test", exact=True).select_option(kind)
        sheet.get_by_role("link", name="Run it on the floor").click()
        signed_in.get_by_role("button", name="Begin").wait_for()
        return signed_in

    return go


def run(page, seconds):
    page.clock.run_for(seconds * 1000)


def counts(page):
    return page.get_by_role("group", name="Strikes").get_by_role("textbox")


def test_the_strike_test_asks_for_its_counts_as_each_part_ends_and_takes_them_typed_or_tapped(ready):
    page = ready("Tomas Brill", "strikes")
    expect(page.get_by_text("chest pain or pressure")).to_be_visible()
    page.keyboard.press("Space")
    run(page, 6)
    for _ in range(4):
        page.keyboard.press("Space")
    run(page, 10)
    expect(counts(page)).to_have_value("4")
    counts(page).fill("57")
    page.get_by_role("button", name="Next part").click()
    page.get_by_role("button", name="Begin").click()
    run(page, 20)
    page.get_by_role("button", name="Stop this part").click()
    run(page, 5)
    page.get_by_role("button", name="Stop this part").click()
    page.get_by_role("button", name="Yes, stop").click()
    page.get_by_role("button", name="Begin").click()
    run(page, 36)
    expect(page.get_by_role("button", name="Next part")).to_be_disabled()
    counts(page).fill("148")
    page.reload()
    expect(counts(page)).to_have_value("148")
    page.get_by_role("button", name="Next part").click()
    page.set_viewport_size(PHONE)
    page.get_by_role("button", name="Begin").click()
    run(page, 5 + 40)
    for _ in range(3):
        page.get_by_role("button", name="Tap each strike").dispatch_event("pointerdown")
    run(page, 141)
    assert page.evaluate("document.documentElement.scrollWidth") <= PHONE["width"]
    expect(counts(page)).to_have_count(6)
    assert [field.input_value() for field in counts(page).all()] == ["", "3", "", "", "", ""]
    for field, count in zip(counts(page).all(), (145, 121, 103, 93, 89, 86), strict=True):
        field.fill(str(count))
    page.get_by_role("button", name="To the end").click()
    page.get_by_label("Bag or track").fill("bag 4")
    page.get_by_label("Who counted").fill("M. Askew")
    page.get_by_role("button", name="Keep the test").click()
    expect(page.get_by_role("region", name="Tests")).to_contain_text("57 strikes in 10 s")
    kept = FieldTest.objects.get(person__name="Tomas Brill", kind="strikes")
    assert kept.counts == [57, 148, 145, 121, 103, 93, 89, 86]
    assert (kept.where, kept.counted_by) == ("bag 4", "M. Askew")


def test_what_cannot_be_is_said_and_no_count_is_lost(ready):
    page = ready("Tomas Brill", "strikes")
    for seconds, told in ((10, ("57",)), (30, ("900",)), (180, ("145", "121", "103", "93", "89", "86"))):
        page.get_by_role("button", name="Begin").click()
        run(page, 6 + seconds)
        for field, count in zip(counts(page).all(), told, strict=True):
            field.fill(count)
        page.get_by_role("button", name="Next part" if seconds < 180 else "To the end").click()
    page.get_by_role("button", name="Keep the test").click()
    expect(page.get_by_role("alert")).to_be_visible()
    second = page.get_by_role("group", name="Strikes").nth(1).get_by_role("textbox")
    expect(second).to_have_value("900")
    second.fill("148")
    page.get_by_role("button", name="Keep the test").click()
    expect(page.get_by_role("region", name="Tests")).to_contain_text("57 strikes in 10 s")


def test_the_heart_at_rest_is_read_from_a_strap_over_a_minute(ready):
    page = ready("Tomas Brill", "hr-rest")
    page.get_by_role("button", name="Find a strap").click()
    page.evaluate("strap.beat(58)")
    expect(page.get_by_text("58 bpm")).to_be_visible()
    page.get_by_role("button", name="Begin").click()
    for second in range(66):
        page.evaluate(f"strap.beat({56 if second % 2 else 54})")
        run(page, 1)
    expect(page.get_by_role("group", name="Heart rate").get_by_role("textbox")).to_have_value("55")
    page.get_by_role("button", name="To the end").click()
    page.get_by_role("button", name="Keep the test").click()
    expect(page.get_by_role("region", name="Tests")).to_contain_text("55 bpm")


def test_after_a_knock_to_the_head_no_test_begins(signed_in, live_server):
    bram = Person.objects.get(name="Bram Oster")
    signed_in.goto(f"{live_server.url}/roster/{bram.pk}/test/strikes")
    expect(signed_in.get_by_text("no physician has cleared yet")).to_be_visible()
    expect(signed_in.get_by_role("button", name="Begin")).to_have_count(0)
