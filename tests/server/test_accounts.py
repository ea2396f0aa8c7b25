import re
import urllib.parse

import pytest
from allauth.mfa.totp.internal.auth import hotp_value, yield_hotp_counters_from_time
from allauth.usersessions.models import UserSession
from django.core.management import call_command
from django.db import connection
from django.test import Client
from django.test.utils import CaptureQueriesContext

from server.accounts.models import User
from server.bounded import Bound
from tests.server.conftest import at_the_door, sign_in

EMAIL, PASSWORD = "odd@harbour.example", "harbour-lamp-nine"


@pytest.fixture
def known(coach):
    """A coach with an address and a password."""
    coach.user.email = EMAIL
    coach.user.set_password(PASSWORD)
    coach.user.save()
    return coach


def said(answer) -> str:
    return " ".join(error["message"] for error in answer.json()["errors"])


def link_in(mail, to: str) -> str:
    """The end of the link to a page in a mail."""
    return re.search(rf"http://testserver/{to}/(\S+)", mail.body)[1]


def test_nobody_is_signed_in_at_first(nobody):
    assert nobody.get("/api/me").json() == {
        "signed_in": False, "role": None, "fresh": True, "email": None, "password": False,
        "coach_id": None, "club_id": None, "coach": None, "club": None,
        "school": "overhands", "emergency_number": "112", "last_lactic_days": 9,
        "time_zone": "UTC", "first_weekday": 0,
        "demo": False,
    }  # fmt: skip


def test_a_coach_signs_in_and_out(known):
    client = Client()
    assert sign_in(client, "Odd@Harbour.example", PASSWORD).status_code == 200
    assert client.get("/api/me").json()["club"] == "Capstan Hall"
    client.post("/api/sign-out")
    assert client.get("/api/people").status_code == 401


def test_signing_in_asks_no_more_of_who_is_signed_in_at_many_places(known):
    def asked() -> int:
        with CaptureQueriesContext(connection) as questions:
            assert sign_in(Client(), EMAIL, PASSWORD).status_code == 200
        return len(questions)

    first = asked()
    for _ in range(5):
        sign_in(Client(), EMAIL, PASSWORD)
    assert asked() == first
    assert UserSession.objects.filter(user=known.user).count() == 7, "each is told among the open ones"


def test_a_wrong_password_and_an_unknown_address_are_told_alike(known):
    wrong, unknown = sign_in(Client(), EMAIL, "wrong"), sign_in(Client(), "nobody@harbour.example", PASSWORD)
    assert (wrong.status_code, said(wrong)) == (unknown.status_code, said(unknown))
    assert "Check both" in said(wrong)


def test_passwords_are_kept_by_argon2(known):
    assert known.user.password.startswith("argon2")


def test_guessing_is_stopped_after_five_tries_even_with_the_right_word(known, nobody):
    for _ in range(5):
        assert "Check both" in said(sign_in(nobody, EMAIL, "wrong"))
    assert "Wait five minutes" in said(sign_in(nobody, EMAIL, PASSWORD))


def tried(address: str, email: str, password: str) -> str:
    """What is said to somebody at that address; nothing where they are in."""
    answer = sign_in(Client(REMOTE_ADDR=address), email, password)
    return "" if answer.status_code == 200 else said(answer)


def test_nobody_elsewhere_can_lock_somebody_out(known):
    for _ in range(6):
        told = tried("192.0.2.7", EMAIL, "wrong")
    assert "Wait five minutes" in told
    assert "Wait five minutes" in tried("192.0.2.7", EMAIL.upper(), PASSWORD), "however it is written"
    assert tried("198.51.100.9", EMAIL, PASSWORD) == ""


def test_trying_one_word_on_many_names_is_stopped_by_address(known):
    for number in range(10):
        assert "Check both" in tried("192.0.2.7", f"coach{number}@harbour.example", "summer2026")
    assert "Wait five minutes" in tried("192.0.2.7", EMAIL, PASSWORD)


def test_guessing_at_one_name_from_everywhere_is_stopped_over_all(known, settings):
    settings.ACCOUNT_RATE_LIMITS = {**settings.ACCOUNT_RATE_LIMITS, "login_failed_anywhere": "4/h/key"}
    for number in range(4):
        assert "Check both" in tried(f"192.0.2.{number}", EMAIL, "wrong")
    assert "Wait five minutes" in tried("192.0.2.200", EMAIL, PASSWORD)


def test_whoever_comes_in_is_not_counted_as_wrong(known, settings):
    settings.ACCOUNT_RATE_LIMITS = {**settings.ACCOUNT_RATE_LIMITS, "login_failed_anywhere": "4/h/key"}
    for number in range(8):
        assert tried(f"192.0.2.{number}", EMAIL, PASSWORD) == ""


def test_a_crowd_at_the_door_is_told_to_come_again(known, monkeypatch):
    monkeypatch.setattr("server.accounts.backend.hashing", Bound(at_once=0, waiting=0))
    assert "in a moment" in tried("192.0.2.7", EMAIL, PASSWORD)


def test_a_new_password_is_set_by_a_link_that_works_once(known, nobody, mailoutbox):
    assert at_the_door(nobody, "POST", "auth/password/request", {"email": EMAIL}).status_code == 200
    key = link_in(mailoutbox[0], "reset")
    short = at_the_door(nobody, "POST", "auth/password/reset", {"key": key, "password": "short"})
    assert "too short" in said(short), "and the link still works"
    new = {"key": key, "password": "lamp over nine piers"}
    assert at_the_door(nobody, "POST", "auth/password/reset", new).status_code == 200
    assert nobody.get("/api/me").json()["coach"] == "Odd Lind", "they are in"
    again = at_the_door(Client(), "POST", "auth/password/reset", {**new, "password": "another one of mine"})
    assert "used already" in said(again)
    assert sign_in(Client(), EMAIL, "lamp over nine piers").status_code == 200


def test_a_link_that_is_over_or_was_asked_before_another_password_sets_none(known, nobody, mailoutbox, settings):
    at_the_door(nobody, "POST", "auth/password/request", {"email": EMAIL})
    settings.PASSWORD_RESET_TIMEOUT = -1
    new = {"key": link_in(mailoutbox[0], "reset"), "password": "lamp over nine piers"}
    assert "is over" in said(at_the_door(nobody, "POST", "auth/password/reset", new))
    assert sign_in(Client(), EMAIL, PASSWORD).status_code == 200


def test_a_link_for_one_address_sets_nobody_elses_password(known, stranger, nobody, mailoutbox):
    User.objects.filter(pk=stranger.user.pk).update(email="liv@quay.example")
    for email in (EMAIL, "liv@quay.example"):
        at_the_door(nobody, "POST", "auth/password/request", {"email": email})
    mine, theirs = (link_in(mail, "reset") for mail in mailoutbox)
    mixed = theirs.split("-")[0] + "-" + mine.split("-", 1)[1]
    refused = at_the_door(nobody, "POST", "auth/password/reset", {"key": mixed, "password": "lamp over nine piers"})
    assert "used already" in said(refused)


def test_whether_an_address_has_an_account_is_not_told(known, nobody, mailoutbox):
    unknown = at_the_door(nobody, "POST", "auth/password/request", {"email": "nobody@harbour.example"})
    assert unknown.status_code == 200
    assert mailoutbox == []


def test_another_address_counts_once_it_is_confirmed(known, nobody, mailoutbox):
    sign_in(nobody, EMAIL, PASSWORD)
    new = {"email": "new@harbour.example"}
    assert at_the_door(nobody, "POST", "account/email", new).status_code == 401, "the password is wanted again"
    at_the_door(nobody, "POST", "auth/reauthenticate", {"password": PASSWORD})
    asked = at_the_door(nobody, "POST", "account/email", new)
    assert asked.status_code == 200, asked.content
    assert User.objects.get(pk=known.user.pk).email == EMAIL, "not yet"
    key = link_in(next(mail for mail in mailoutbox if mail.to == ["new@harbour.example"]), "confirm")
    answer = at_the_door(nobody, "POST", "auth/email/verify", {"key": urllib.parse.unquote(key)})
    assert answer.status_code in (200, 401), answer.content
    assert sign_in(Client(), "new@harbour.example", PASSWORD).status_code == 200
    assert sign_in(Client(), EMAIL, PASSWORD).status_code == 400, "the old one is given up"
    assert User.objects.get(pk=known.user.pk).email == "new@harbour.example"


def test_everywhere_else_is_signed_out_at_once(known, nobody):
    elsewhere = Client()
    for client in (nobody, elsewhere):
        sign_in(client, EMAIL, PASSWORD)
    sessions = at_the_door(nobody, "GET", "auth/sessions").json()["data"]
    others = [each["id"] for each in sessions if not each["is_current"]]
    assert len(others) == 1
    at_the_door(nobody, "DELETE", "auth/sessions", {"sessions": others})
    assert elsewhere.get("/api/people").status_code == 401
    assert nobody.get("/api/people").status_code == 200


def test_with_a_second_step_the_password_alone_opens_nothing(known, nobody):
    sign_in(nobody, EMAIL, PASSWORD)
    totp = "account/authenticators/totp"
    assert at_the_door(nobody, "POST", "auth/reauthenticate", {"password": "wrong"}).status_code == 400
    assert at_the_door(nobody, "POST", "auth/reauthenticate", {"password": PASSWORD}).status_code == 200
    secret = at_the_door(nobody, "GET", totp).json()["meta"]["secret"]
    wrong = at_the_door(nobody, "POST", totp, {"code": "000000"})
    assert "not the code" in said(wrong)
    code = hotp_value(secret, next(yield_hotp_counters_from_time()))
    assert at_the_door(nobody, "POST", totp, {"code": f"{code:06}"}).status_code == 200
    spare = at_the_door(nobody, "GET", "account/authenticators/recovery-codes").json()["data"]["unused_codes"]
    assert len(spare) == 10
    client = Client()
    half = sign_in(client, EMAIL, PASSWORD)
    assert half.status_code == 401
    assert client.get("/api/people").status_code == 401
    assert at_the_door(client, "POST", "auth/2fa/authenticate", {"code": spare[0]}).status_code == 200
    assert client.get("/api/people").status_code == 200
    client.post("/api/sign-out")
    sign_in(client, EMAIL, PASSWORD)
    assert at_the_door(client, "POST", "auth/2fa/authenticate", {"code": spare[0]}).status_code == 400, "it works once"


def test_nobody_signs_up_without_an_invitation(known, nobody):
    new = {"email": "liv@quay.example", "password": "lamp over nine piers"}
    assert at_the_door(nobody, "POST", "auth/signup", new).status_code == 403
    assert User.objects.count() == 1


def test_what_is_sent_is_shown_in_the_demo_and_nowhere_else(coach, nobody, settings, tmp_path):
    settings.EMAIL_BACKEND = "django.core.mail.backends.filebased.EmailBackend"
    settings.EMAIL_FILE_PATH = tmp_path / "mail"
    coach.post("invitations", {"name": "Liv Bø", "role": "coach", "email": "liv@quay.example"})
    assert nobody.get("/api/mailbox").status_code == 404
    settings.DEMO = True
    coach.post("invitations", {"name": "Per Quill", "role": "coach", "email": "per@quay.example"})
    newest, first = nobody.get("/api/mailbox").json()
    assert (newest["to"], first["to"]) == ("per@quay.example", "liv@quay.example")
    assert "Liv Bø,\n\nOdd Lind invites you" in first["text"]
    settings.EMAIL_BACKEND = "django.core.mail.backends.smtp.EmailBackend"
    assert nobody.get("/api/mailbox").status_code == 404


def test_an_account_without_a_club_reads_nothing(db, nobody):
    user = User.objects.create(username="drifter")
    nobody.force_login(user, backend="server.accounts.backend.CoachBackend")
    assert nobody.get("/api/me").json()["signed_in"] is False
    assert nobody.get("/api/people").status_code == 403


def test_the_demo_opens_only_where_it_is_on(nobody, settings):
    call_command("load_demo", weeks=0)
    assert nobody.post("/api/demo").status_code == 404
    settings.DEMO = True
    assert nobody.post("/api/demo").json()["club"] == "Capstan Hall"


def test_a_request_from_another_place_without_the_cookie_is_refused(coach):
    careful = Client(enforce_csrf_checks=True)
    careful.force_login(coach.user, backend="server.accounts.backend.CoachBackend")
    assert careful.post("/api/read", {"text": "20 flow"}, content_type="application/json").status_code == 403
