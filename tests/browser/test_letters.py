"""A log that the server would not take comes back with its reason and ways on; nothing of it is gone by itself."""

import json

import pytest
from playwright.sync_api import expect

GONE = json.dumps({"detail": "No such person in your club."})


def run_through(page, title: str = "Six-second bursts") -> None:
    """Begin a run, end it at once, and rate it."""
    page.get_by_role("link", name="Library", exact=True).first.click()
    page.get_by_role("link", name=f"Run {title}").click()
    page.get_by_test_id("clock").wait_for()
    page.keyboard.press("Space")
    page.keyboard.press("Space")
    page.wait_for_timeout(300)
    page.keyboard.down("Escape")
    page.get_by_role("heading", name="Plan and done").wait_for()
    page.keyboard.up("Escape")
    page.keyboard.press("7")
    page.get_by_label("Note").fill("Left side lazy")


@pytest.fixture
def refused(inside):
    """The log of a run, refused."""
    run_through(inside)
    inside.route("**/api/runs/*/log", lambda route: route.fulfill(status=404, body=GONE))
    inside.get_by_role("button", name="Save log").first.click()
    expect(inside.get_by_role("alert")).to_contain_text("No such person")
    inside.unroute("**/api/runs/*/log")
    inside.get_by_role("link", name="Log", exact=True).click()
    expect(inside.get_by_text("Came back", exact=True)).to_be_visible()
    return inside


def entry(page):
    return page.get_by_role("listitem").first


def test_it_stays_with_its_reason_after_a_reload_and_can_be_opened_again(refused):
    refused.reload()
    expect(refused.get_by_text("No such person in your club.")).to_be_visible()
    expect(refused.get_by_text("has ended and is not logged yet")).to_have_count(0)
    refused.get_by_role("button", name="Open it again").click()
    expect(refused.get_by_label("Note")).to_have_value("Left side lazy")
    refused.get_by_role("button", name="Save log").first.click()
    expect(entry(refused)).to_contain_text("Left side lazy")
    expect(refused.get_by_text("Came back", exact=True)).to_have_count(0)


def test_it_is_saved_without_the_session_and_the_person_it_names(refused):
    refused.get_by_role("button", name="Save without session and person").click()
    expect(entry(refused)).to_contain_text("Nobody in particular")
    expect(entry(refused)).to_contain_text("Left side lazy")


def test_it_is_thrown_away_only_after_a_question(refused):
    refused.get_by_role("button", name="Throw away").click()
    refused.get_by_role("button", name="Keep it").click()
    expect(refused.get_by_text("Came back", exact=True)).to_be_visible()
    refused.get_by_role("button", name="Throw away").click()
    refused.get_by_role("button", name="Throw it away").click()
    expect(refused.get_by_text("Came back", exact=True)).to_have_count(0)
    refused.reload()
    expect(refused.get_by_role("heading", name="Log", exact=True)).to_be_visible()
    expect(refused.get_by_text("Came back", exact=True)).to_have_count(0)


def test_one_that_the_server_fails_with_waits_and_holds_up_nothing(inside):
    run_through(inside)
    inside.route("**/api/runs/*/log", lambda route: route.fulfill(status=500, body="{}"))
    inside.get_by_role("button", name="Save log").first.click()
    expect(inside.get_by_text("The server failed with it once.")).to_be_visible()
    inside.unroute("**/api/runs/*/log")
    run_through(inside, "Four by four")
    inside.get_by_role("button", name="Save log").first.click()
    expect(entry(inside)).to_contain_text("Four by four")
    expect(inside.get_by_text("The server failed with it")).to_be_visible()
    inside.get_by_role("button", name="Try now").click()
    expect(inside.get_by_text("The server failed with it")).to_have_count(0)
    expect(inside.get_by_role("listitem").filter(has_text="Six-second bursts").first).to_be_visible()
