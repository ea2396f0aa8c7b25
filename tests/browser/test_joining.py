"""A hall of its own in a browser: opened with its code, joined by a link, and what an assistant may."""

from io import StringIO

import pytest
from django.core.management import call_command
from playwright.sync_api import expect

from server.accounts.models import Club

PASSWORD = "lamp over nine piers"

SIGN_OUT = """async () => {
    const token = document.cookie.match(/csrftoken=([^;]+)/)[1];
    return (await fetch("/api/sign-out", { method: "POST", headers: { "X-CSRFToken": token } })).status;
}"""


def account(page, name, email):
    page.get_by_label("Your name").fill(name)
    page.get_by_label("E-mail address").fill(email)
    page.get_by_label("Password").fill(PASSWORD)


@pytest.fixture
def door(app, live_server):
    """A server where nobody has been."""
    Club.objects.all().delete()
    app.goto(live_server.url)
    return app


def opened(page):
    out = StringIO()
    call_command("set_up_code", stdout=out)
    page.get_by_label("Set-up code").fill(out.getvalue().strip())
    page.get_by_label("Name of the club").fill("Low Quay")
    account(page, "Ansa Lund", "ansa@harbour.example")
    page.get_by_role("button", name="Open the hall").click()
    page.get_by_text("Nothing is planned for this day").wait_for()


def test_a_hall_is_opened_with_its_code_and_what_is_wrong_is_said_at_its_field(door):
    door.get_by_label("Set-up code").fill("aaaa-bbbb-cccc")
    door.get_by_label("Name of the club").fill("Low Quay")
    account(door, "Ansa Lund", "ansa@harbour.example")
    door.get_by_role("button", name="Open the hall").click()
    expect(door.get_by_role("alert")).to_contain_text("This is not the code")
    expect(door.get_by_label("Your name")).to_have_value("Ansa Lund")
    opened(door)
    door.reload()
    door.get_by_role("link", name="Library", exact=True).click()
    expect(door.get_by_text("No sessions yet")).to_be_visible()
    door.get_by_role("link", name="Roster", exact=True).click()
    expect(door.get_by_text("Nobody on the roster yet")).to_be_visible()


def test_an_assistant_joins_by_a_link_that_works_once_and_comes_to_no_bench(door):
    opened(door)
    door.get_by_role("link", name="Club", exact=True).click()
    door.get_by_label("Name", exact=True).fill("Per Quill")
    door.get_by_label("As", exact=True).select_option("assistant")
    door.get_by_role("button", name="Make a link").click()
    link = door.get_by_label("Link of the invitation").input_value()
    door.goto(link)
    door.get_by_role("button", name="Leave, and open it").click()
    expect(door.get_by_label("Your name")).to_have_value("Per Quill")
    account(door, "Per Quill", "per@harbour.example")
    door.get_by_role("button", name="Join").click()
    door.get_by_text("Run one from the library").wait_for()
    places = door.get_by_role("navigation", name="Places")
    expect(places.get_by_role("link", name="Bench", exact=True)).to_have_count(0)
    places.get_by_role("link", name="Library", exact=True).click()
    expect(door.get_by_text("As soon as a coach has saved one")).to_be_visible()
    for gone in ("New session", "Book"):
        expect(door.get_by_role("link", name=gone, exact=True)).to_have_count(0)
    door.goto(link.split("/join")[0] + "/bench")
    expect(door.get_by_text("This is for coaches")).to_be_visible()
    # Signed out by another window of the same browser: whatever is opened next leads to the door.
    assert door.evaluate(SIGN_OUT) == 200
    door.get_by_role("link", name="Log", exact=True).click()
    expect(door.get_by_role("heading", name="Sign in to your club")).to_be_visible()
    door.goto(link)
    expect(door.get_by_text("used already")).to_be_visible()
    door.get_by_role("button", name="To the door").click()
    door.get_by_label("E-mail address").fill("PER@harbour.example")
    door.get_by_label("Password").fill(PASSWORD)
    door.get_by_role("button", name="Sign in").click()
    expect(door.get_by_text("Run one from the library")).to_be_visible()


def test_the_clubs_clock_is_set_by_its_owner_and_kept(door):
    opened(door)
    door.get_by_role("link", name="Club", exact=True).click()
    door.get_by_label("Time zone").select_option("Pacific/Auckland")
    door.get_by_label("The week begins on").select_option(label="Sunday")
    expect(door.get_by_label("The week begins on")).to_have_value("6")
    door.reload()
    expect(door.get_by_label("Time zone")).to_have_value("Pacific/Auckland")
    expect(door.get_by_label("The week begins on")).to_have_value("6")
