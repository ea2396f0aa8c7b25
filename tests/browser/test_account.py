"""An account of one's own: invited and reset by mail, a second step, a passkey, and out of everywhere else."""

import re
import time

import pytest
from allauth.account.models import EmailAddress
from allauth.mfa.totp.internal.auth import hotp_value
from playwright.sync_api import expect

from server.accounts.models import User
from tests.browser.conftest import PHONE

EMAIL, PASSWORD = "per@harbour.example", "lamp over nine piers"


@pytest.fixture
def mailed(app, settings, tmp_path):
    """The demo hall, whose mails are laid in a mailbox."""
    settings.EMAIL_BACKEND = "django.core.mail.backends.filebased.EmailBackend"
    settings.EMAIL_FILE_PATH = tmp_path / "mail"
    return app


@pytest.fixture
def known(mailed):
    """A coach of the demo hall has an account with a password."""
    club = User.objects.get(username="demo-coach").club
    user = User(username="per", email=EMAIL, first_name="Per", last_name="Quill", club=club, role="coach")
    user.set_password(PASSWORD)
    user.save()
    EmailAddress.objects.create(user=user, email=EMAIL, primary=True)
    return mailed


def sign_in(page, password=PASSWORD):
    page.get_by_label("E-mail address").fill(EMAIL)
    page.get_by_label("Password").fill(password)
    page.get_by_role("button", name="Sign in", exact=True).click()


def code_of(secret: str) -> str:
    return f"{hotp_value(secret, int(time.time()) // 30):06}"


def account(page, at):
    page.goto(f"{at}/account")
    expect(page.get_by_role("heading", name="Per Quill")).to_be_visible()


def sure(page):
    """It is asked for once, and what was wanted is done."""
    again = page.get_by_role("dialog", name="Your password again")
    again.get_by_label("Password").fill("wrong")
    again.get_by_role("button", name="It is me").click()
    expect(again.get_by_role("alert")).to_contain_text("not your password")
    again.get_by_label("Password").fill(PASSWORD)
    again.get_by_role("button", name="It is me").click()
    expect(again).to_have_count(0)


def test_an_invitation_goes_by_mail_and_the_link_in_it_makes_the_account(mailed, live_server):
    mailed.goto(live_server.url)
    mailed.get_by_role("button", name="Enter as the demo coach").click()
    mailed.get_by_role("link", name="Club", exact=True).click()
    mailed.get_by_label("Name", exact=True).fill("Per Quill")
    mailed.get_by_label("E-mail address, if it is to be sent").fill(EMAIL)
    mailed.get_by_role("button", name="Send a link").click()
    expect(mailed.get_by_text(f"It was sent to {EMAIL}")).to_be_visible()
    mailed.get_by_role("button", name="Leave").click()
    mailed.get_by_role("link", name="What was mailed").click()
    expect(mailed.get_by_text("invites you to Capstan Hall on Yoisho, as coach")).to_be_visible()
    mailed.get_by_role("link", name=re.compile(r"\bjoin\b")).click()
    expect(mailed.get_by_label("E-mail address")).to_have_value(EMAIL)
    mailed.get_by_label("Password").fill(PASSWORD)
    mailed.get_by_role("button", name="Join").click()
    expect(mailed.get_by_role("link", name="Roster")).to_be_visible()


def test_a_forgotten_password_is_set_anew_by_a_link_that_works_once(known, live_server):
    known.goto(live_server.url)
    sign_in(known, "forgotten")
    expect(known.get_by_role("alert")).to_contain_text("do not belong together")
    known.get_by_role("link", name="The password is forgotten").click()
    known.get_by_label("E-mail address").fill(EMAIL)
    known.get_by_role("button", name="Send the link").click()
    expect(known.get_by_text(f"an account for {EMAIL}")).to_be_visible()
    known.goto(f"{live_server.url}/mailbox")
    link = known.get_by_role("link", name=re.compile(r"\breset\b")).get_attribute("href")
    known.goto(link)
    known.get_by_label("New password").fill("password")
    known.get_by_role("button", name="Keep it").click()
    expect(known.get_by_role("alert")).to_contain_text("too common")
    known.get_by_label("New password").fill("nine lamps, one pier")
    known.get_by_role("button", name="Keep it").click()
    expect(known.get_by_role("link", name="Roster")).to_be_visible()
    known.get_by_role("button", name="Leave").click()
    known.get_by_role("heading", name="Sign in to your club").wait_for()
    known.goto(link)
    known.get_by_label("New password").fill("and another one of mine")
    known.get_by_role("button", name="Keep it").click()
    expect(known.get_by_text("used already, or is over")).to_be_visible()
    known.get_by_role("link", name="Ask for a new one").click()
    expect(known.get_by_role("button", name="Send the link")).to_be_visible()


def test_another_address_counts_once_the_mail_to_it_is_answered(known, live_server):
    known.goto(live_server.url)
    sign_in(known)
    known.get_by_role("link", name="Roster").wait_for()
    account(known, live_server.url)
    known.get_by_label("Another address").fill("quill@harbour.example")
    known.get_by_role("button", name="Send a mail to it").click()
    sure(known)
    expect(known.get_by_text("waits to be answered")).to_be_visible()
    expect(known.get_by_text(f"You sign in with {EMAIL}.")).to_be_visible()
    known.goto(f"{live_server.url}/mailbox")
    known.get_by_role("link", name=re.compile(r"\bconfirm\b")).click()
    known.get_by_role("button", name="It is mine").click()
    expect(known.get_by_text("From now on you sign in with it")).to_be_visible()
    account(known, live_server.url)
    expect(known.get_by_text("You sign in with quill@harbour.example.")).to_be_visible()


def test_a_second_step_is_set_up_asked_for_and_opened_by_a_spare_code_on_a_phone(known, live_server):
    known.set_viewport_size(PHONE)
    known.goto(live_server.url)
    sign_in(known)
    known.get_by_role("link", name="Roster").wait_for()
    account(known, live_server.url)
    known.get_by_role("button", name="Set it up").click()
    expect(known.get_by_role("img", name="The secret as a picture")).to_be_visible()
    secret = known.get_by_text(re.compile("^[A-Z2-7]{32}$")).inner_text()
    known.get_by_label("The six figures").fill(code_of(secret))
    known.get_by_role("button", name="Turn it on").click()
    sure(known)
    codes = known.get_by_role("list", name="Spare codes").get_by_role("listitem")
    expect(codes).to_have_count(10)
    spare = codes.all_inner_texts()
    assert known.evaluate("document.documentElement.scrollWidth") <= PHONE["width"]
    known.get_by_role("button", name="More").click()
    known.get_by_role("button", name="Leave").click()
    sign_in(known)
    expect(known.get_by_role("heading", name="And the second step")).to_be_visible()
    known.get_by_label("Code").fill("000000")
    known.get_by_role("button", name="Go on").click()
    expect(known.get_by_role("alert")).to_contain_text("not the code")
    known.get_by_label("Code").fill(spare[0])
    known.get_by_role("button", name="Go on").click()
    expect(known.get_by_role("link", name="Roster")).to_be_visible()
    account(known, live_server.url)
    expect(known.get_by_text("9 spare codes left")).to_be_visible()


def test_one_is_signed_out_everywhere_else(known, live_server, new_context):
    other = new_context().new_page()
    for page in (known, other):
        page.goto(live_server.url)
        sign_in(page)
        page.get_by_role("link", name="Roster").wait_for()
    account(known, live_server.url)
    expect(known.get_by_role("region", name="Signed in").get_by_role("listitem")).to_have_count(2)
    known.get_by_role("button", name="Sign out everywhere else").click()
    expect(known.get_by_role("region", name="Signed in").get_by_role("listitem")).to_have_count(1)
    other.get_by_role("link", name="Log", exact=True).click()
    expect(other.get_by_role("heading", name="Sign in to your club")).to_be_visible()


def test_a_passkey_opens_the_account_without_a_password(known, live_server, new_context):
    # At a name, since no passkey is made for a number.
    at = live_server.url.replace("127.0.0.1", "localhost")
    page = new_context().new_page()
    cdp = page.context.new_cdp_session(page)
    cdp.send("WebAuthn.enable")
    key = {"protocol": "ctap2", "transport": "internal", "hasResidentKey": True, "hasUserVerification": True,
           "isUserVerified": True, "automaticPresenceSimulation": True}  # fmt: skip
    cdp.send("WebAuthn.addVirtualAuthenticator", {"options": key})
    page.goto(at)
    sign_in(page)
    page.get_by_role("link", name="Roster").wait_for()
    account(page, at)
    page.get_by_label("Name of this device").fill("Phone at the ropes")
    page.get_by_role("button", name="Make a passkey").click()
    sure(page)
    expect(page.get_by_text("Phone at the ropes")).to_be_visible()
    page.get_by_role("button", name="Leave").click()
    page.get_by_role("button", name="Sign in with a passkey").click()
    expect(page.get_by_role("link", name="Roster")).to_be_visible()


def test_the_demo_coach_is_told_why_there_is_nothing_to_change(signed_in, live_server):
    signed_in.goto(f"{live_server.url}/account")
    expect(signed_in.get_by_text("comes in by one click")).to_be_visible()
    expect(signed_in.get_by_role("region", name="Signed in").get_by_text("here")).to_be_visible()
    expect(signed_in.get_by_label("New password")).to_have_count(0)
