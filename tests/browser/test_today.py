"""The day of the hall in a browser: planned, run with one key, minded, taken off and brought back."""

import datetime
import re

import pytest
from django.utils import timezone
from playwright.sync_api import expect

from server.roster.models import Person
from server.today.models import Planned
from tests.browser.conftest import PHONE


@pytest.fixture
def day(signed_in, live_server):
    """The demo's day at twenty past four in the afternoon."""
    signed_in.clock.set_fixed_time(datetime.datetime.now().replace(hour=16, minute=24))
    signed_in.goto(live_server.url)
    planned(signed_in).first.wait_for()
    return signed_in


def planned(page):
    return page.get_by_role("list", name="Planned").get_by_role("listitem")


def test_home_is_the_day_with_the_next_session_under_one_key(day):
    expect(planned(day)).to_have_count(4)
    expect(day.get_by_role("img", name=re.compile("^The day: 07:00 Four by four"))).to_be_visible()
    expect(planned(day).filter(has_text="In 1 h 56 min")).to_contain_text("Thirties and twenty-tens")
    day.keyboard.press("r")
    day.wait_for_url("**/floor/*")
    expect(day.get_by_text("Thirties and twenty-tens").first).to_be_visible()
    for letter, name in (("A", "Bram Oster"), ("B", "Ife Marlowe"), ("C", "Runa Velde")):
        expect(day.get_by_label(f"Person {letter}").locator("option:checked")).to_have_text(name)
    expect(day.get_by_role("region", name="Stops")).to_contain_text("Bram Oster")


def test_what_is_to_mind_stands_with_its_cure_and_leads_to_the_person(day):
    mind = day.get_by_role("region", name="Mind today")
    expect(mind.get_by_role("listitem").first).to_contain_text("has not been cleared by a licensed physician")
    day.get_by_label("Heat in the hall").fill("28,5")
    expect(mind).to_contain_text("Everybody")
    mind.get_by_role("link", name="Bram Oster").first.click()
    expect(day.get_by_role("region", name="Knock to the head")).to_be_visible()


def test_a_session_is_planned_for_a_group_every_week_and_taken_off_and_brought_back(day):
    day.keyboard.press("p")
    sheet = day.get_by_role("dialog", name="Plan one")
    sheet.get_by_label("Session", exact=True).select_option(label="Four by four")
    sheet.get_by_label("Hour").fill("21:15")
    today = day.get_by_label("Another day").input_value()
    sheet.get_by_label("Every week until").fill("2020-01-01")
    sheet.get_by_label("Group").select_option(label="Capstan squad, 8")
    sheet.get_by_role("button", name="Plan it").click()
    expect(sheet.get_by_role("alert")).to_contain_text("after the first")
    later = datetime.date.fromisoformat(today) + datetime.timedelta(days=15)
    sheet.get_by_label("Every week until").fill(str(later))
    sheet.get_by_role("button", name="Plan it").click()
    expect(planned(day)).to_have_count(5)
    expect(planned(day).last).to_contain_text("Capstan squad, 8 people")
    day.get_by_role("button", name="Take off: Four by four at 21:15").click()
    day.get_by_role("button", name="And all after").click()
    expect(planned(day)).to_have_count(4)
    day.get_by_role("button", name="Undo").click()
    expect(planned(day)).to_have_count(5)
    day.get_by_label("Another day").fill(str(later - datetime.timedelta(days=1)))
    expect(planned(day)).to_have_count(5)
    expect(planned(day).last).to_contain_text("21:15")


def test_a_day_with_nothing_planned_tells_three_ways_to_begin(day):
    tomorrow = datetime.date.fromisoformat(day.get_by_label("Another day").input_value()) + datetime.timedelta(days=1)
    day.get_by_label("Another day").fill(str(tomorrow))
    expect(day.get_by_text("Nothing is planned for this day")).to_be_visible()
    for way in ("The library", "The bench"):
        expect(day.get_by_role("link", name=way)).to_be_visible()
    day.reload()
    expect(planned(day)).to_have_count(4)


def test_on_a_phone_the_day_fits_and_the_next_is_large(day):
    day.set_viewport_size(PHONE)
    run = day.get_by_role("link", name="Run Thirties and twenty-tens at 18:20")
    assert run.bounding_box()["height"] >= 48
    assert day.evaluate("document.documentElement.scrollWidth") <= PHONE["width"]


@pytest.fixture
def over(inside, live_server):
    """Two who were to come yesterday, and nobody has told how it was."""
    planned = Planned.objects.first()
    yesterday = timezone.localdate() - datetime.timedelta(days=1)
    Planned.objects.exclude(pk=planned.pk).delete()
    Planned.objects.update(on=yesterday, at=datetime.time(10), group=None)
    planned.people.set(Person.objects.filter(name__in=["Runa Velde", "Tomas Brill"]))
    inside.goto(f"{live_server.url}/today")
    return inside.get_by_role("region", name="Waits for a log")


def test_what_is_over_is_logged_down_the_list_by_figures_and_taken_back(over, inside):
    expect(over.get_by_role("listitem")).to_have_count(2)
    over.get_by_role("radio", name="0 Rest").first.focus()
    inside.keyboard.press("7")
    expect(over.get_by_role("listitem").first).to_contain_text("7 Very hard, expected")
    expect(over.get_by_role("radio", name="0 Rest")).to_be_focused()
    inside.keyboard.press("t")
    expect(over.get_by_role("listitem").last).to_contain_text("10 Nothing left, expected")
    over.get_by_role("button", name="Undo: Runa Velde").click()
    expect(over.get_by_role("radio")).to_have_count(11)
    inside.get_by_role("link", name="Log", exact=True).click()
    expect(inside.get_by_text("Tomas Brill").first).to_be_visible()
    inside.get_by_role("link", name="Today", exact=True).click()
    expect(over.get_by_role("listitem")).to_have_count(1)


def test_on_a_phone_it_is_one_touch_and_whoever_was_not_there_is_left_out(over, inside):
    inside.set_viewport_size(PHONE)
    over.get_by_text("8", exact=True).first.click()
    expect(over.get_by_role("listitem").first).to_contain_text("8 Severe")
    over.get_by_role("button", name="Not there: Tomas Brill").click()
    expect(over.get_by_role("listitem").last).to_contain_text("Not there.")
    assert inside.evaluate("document.documentElement.scrollWidth") <= PHONE["width"]
    inside.reload()
    expect(inside.get_by_role("button", name="Plan one").first).to_be_visible()
    expect(over).to_have_count(0)
