"""A link on an athlete's phone: read, run, also without a network, and told of to the coach."""

import re
from datetime import timedelta

import pytest
from django.utils import timezone
from playwright.sync_api import expect

from server.sendout.models import CueTrack, SentBack
from server.sendout.tasks import make_track
from tests.browser.conftest import PHONE
from tests.browser.test_everyone import faults
from tests.browser.test_floor import phase
from tests.browser.test_roster import region


@pytest.fixture
def address(inside):
    """A link to a session of the demo hall, made in its menu."""
    inside.get_by_role("button", name="Send out Six-second bursts").click()
    sheet = inside.get_by_role("dialog", name="Send out Six-second bursts")
    expect(sheet.get_by_text("No link opens this session yet")).to_be_visible()
    sheet.get_by_role("button", name="Make a link").click()
    return sheet.get_by_label("Link for anybody").input_value()


@pytest.fixture
def phone(browser, address):
    """Somebody else's phone, on which nobody is signed in; its page may keep itself."""
    context = browser.new_context(viewport=PHONE, reduced_motion="reduce", service_workers="allow")
    page = context.new_page()
    page.goto(address)
    page.get_by_role("button", name="Run it").wait_for()
    yield page
    context.close()


def run_through(page):
    page.get_by_role("button", name="Run it").click()
    page.get_by_role("button", name="Start").last.click()
    page.get_by_role("button", name="Skip").click()
    expect(phase(page)).to_have_attribute("data-phase", "work")
    page.keyboard.down("Escape")
    page.get_by_role("heading", name="How was it?").wait_for()
    page.keyboard.up("Escape")


def tell(page):
    page.get_by_role("radio", name="7", exact=True).check(force=True)
    page.get_by_label("Your name").fill("Bram")
    page.get_by_label("A word to the coach").fill("Left wrist held up.")


def test_a_phone_reads_runs_and_tells_and_the_coach_takes_it_into_the_log(inside, phone, address):
    expect(phone.get_by_role("heading", name="Six-second bursts")).to_be_visible()
    assert faults(phone) == []
    assert "Tomas Brill" not in phone.content(), "whom the session is for is nobody's business"
    run_through(phone)
    tell(phone)
    phone.reload()
    expect(phone.get_by_label("Your name")).to_have_value("Bram")
    assert faults(phone) == []
    phone.get_by_role("button", name="Send it to the coach").click()
    expect(phone.get_by_role("status")).to_contain_text("It is with the coach")
    inside.goto(address.split("/s/")[0] + "/log")
    waiting = region(inside, "From athletes").get_by_role("listitem")
    expect(waiting).to_contain_text("Bram")
    expect(waiting).to_contain_text("7 Very hard")
    bram = waiting.get_by_role("option", name=re.compile("Bram Oster")).get_attribute("value")
    waiting.get_by_label("It was").select_option(bram)
    waiting.get_by_role("button", name="Take into the log").click()
    expect(region(inside, "From athletes")).to_have_count(0)
    entry = inside.get_by_role("listitem").filter(has_text="Bram Oster").first
    expect(entry).to_contain_text("Left wrist held up.")


def test_once_opened_it_runs_without_a_network_and_what_is_told_is_sent_when_there_is_one(phone):
    phone.evaluate("navigator.serviceWorker.ready")
    phone.reload()
    phone.get_by_role("button", name="Run it").wait_for()
    phone.context.set_offline(True)
    phone.reload()
    run_through(phone)
    tell(phone)
    phone.get_by_role("button", name="Send it to the coach").click()
    expect(phone.get_by_role("alert")).to_contain_text("There is no network")
    assert SentBack.objects.count() == 0
    phone.reload()
    expect(phone.get_by_role("button", name="Send again")).to_be_visible()
    phone.context.set_offline(False)
    phone.evaluate("dispatchEvent(new Event('online'))")
    expect(phone.get_by_role("status")).to_contain_text("It is with the coach")
    assert SentBack.objects.count() == 1


def test_a_link_that_was_taken_back_opens_nothing_and_says_so(inside, phone):
    inside.get_by_role("button", name="Take back").click()
    inside.get_by_role("button", name="Yes, take it back").click()
    expect(inside.get_by_text("1 link has ended")).to_be_visible()
    phone.reload()
    expect(phone.get_by_role("heading", name="This link opens nothing")).to_be_visible()
    expect(phone.get_by_text("Ask whoever sent it for a new one")).to_be_visible()


def test_its_page_is_light(phone):
    """Each script once: what keeps the page for later may ask for it again."""
    sizes = phone.evaluate(
        """() => performance.getEntriesByType('resource')
            .filter(entry => entry.name.endsWith('.js')).map(entry => [entry.name, entry.encodedBodySize])"""
    )
    of_each = {name: max(size for other, size in sizes if other == name) for name, _ in sizes}
    assert 0 < sum(of_each.values()) <= 120_000


def test_the_wall_sheet_is_asked_for_as_the_coach_wants_it(inside):
    inside.get_by_role("button", name="Send out Thirties and twenty-tens").click()
    sheet = region(inside, "Wall sheet")
    sheet.get_by_label("Paper").select_option(label="Letter")
    address = sheet.get_by_role("link", name="Open the PDF").get_attribute("href")
    answer = inside.context.request.get(
        address if address.startswith("http") else inside.url.split("/library")[0] + address
    )
    assert answer.headers["content-type"] == "application/pdf"
    assert answer.body().startswith(b"%PDF")


def test_a_cue_track_is_made_while_it_is_watched(inside, settings, tmp_path):
    settings.TRACKS = tmp_path
    inside.get_by_role("button", name="Send out Six-second bursts").click()
    part = region(inside, "Cue track")
    part.get_by_label("Format").select_option(label="WAV")
    part.get_by_role("button", name="Make the track").click()
    expect(part.get_by_role("progressbar", name="WAV, being made")).to_be_visible()
    make_track(track_id=CueTrack.objects.get().pk)
    with inside.expect_download() as download:
        part.get_by_role("link", name="Save").click()
    assert download.value.suggested_filename == "six-second-bursts.wav"
    part.get_by_role("button", name="Take off the list").click()
    expect(part.get_by_role("listitem")).to_have_count(0)


def test_a_token_is_made_shown_once_and_taken_back(inside):
    inside.get_by_role("link", name="Account", exact=True).click()
    part = region(inside, "Tokens")
    expect(part.get_by_text("No token yet.")).to_be_visible()
    part.get_by_label("What it is for").fill("Board in the hall")
    part.get_by_label("Its last day").fill(str(timezone.localdate() + timedelta(days=30)))
    part.get_by_role("button", name="Make a token").click()
    token = part.get_by_label("The token").input_value()
    address = inside.url.split("/account")[0]
    headers = {"Authorization": f"Bearer {token}"}
    assert inside.context.request.get(f"{address}/api/log", headers=headers).ok
    assert inside.context.request.get(f"{address}/api/people", headers=headers).status == 403
    inside.reload()
    expect(part.get_by_label("The token")).to_have_count(0)
    part.get_by_role("button", name="Take back Board in the hall").click()
    part.get_by_role("button", name="Yes, take it back").click()
    expect(part.get_by_text("No token yet.")).to_be_visible()


def test_the_description_of_the_api_opens_with_its_own_scripts(inside):
    """Under the page's rules for content; whatever is asked from outside fails the test."""
    inside.goto(inside.url.split("/library")[0] + "/api/docs")
    expect(inside.get_by_role("heading", name="Yoisho")).to_be_visible()
    expect(inside.get_by_role("link", name="logbook")).to_be_visible()


def test_a_club_goes_out_and_one_that_is_not_empty_takes_none(inside, tmp_path):
    inside.get_by_role("link", name="Club", exact=True).click()
    part = region(inside, "Records")
    with inside.expect_download() as download:
        part.get_by_role("link", name="Export the club").click()
    file = tmp_path / "club.zip"
    download.value.save_as(file)
    part.get_by_label("Archive of a club").set_input_files(file)
    expect(part.get_by_role("alert")).to_contain_text("Bring it into an empty one")
