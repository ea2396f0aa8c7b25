"""Opening a hall with its code, and joining it by an invitation that works once."""

from datetime import timedelta
from io import StringIO

import pytest
from allauth.account.models import EmailAddress
from django.core.management import call_command
from django.test import Client
from django.utils import timezone

from server.accounts.models import Club, Invitation, SetUpCode, User
from tests.server.conftest import Coach, fault, sign_in

ACCOUNT = {"name": "Ansa Lund", "email": "ansa@harbour.example", "password": "lamp over nine piers"}


def post(client, path, body):
    return client.post(f"/api/{path}", body, content_type="application/json")


def code():
    out = StringIO()
    call_command("set_up_code", stdout=out)
    return out.getvalue().strip()


def test_the_first_visitor_with_the_code_opens_the_club_and_owns_it(nobody):
    assert nobody.get("/api/me").json()["fresh"]
    told = code()
    answer = post(nobody, "set-up", {**ACCOUNT, "code": told.upper().replace("-", " "), "club": "Capstan Hall"})
    assert answer.status_code == 201, answer.content
    me = nobody.get("/api/me").json()
    assert (me["club"], me["coach"], me["role"], me["fresh"]) == ("Capstan Hall", "Ansa Lund", "owner", False)
    assert sign_in(Client(), ACCOUNT["email"], ACCOUNT["password"]).status_code == 200


def test_the_code_works_once_and_there_is_no_other_while_a_club_is_here(nobody):
    told = code()
    post(nobody, "set-up", {**ACCOUNT, "code": told, "club": "Capstan Hall"})
    again = {**ACCOUNT, "email": "other@harbour.example", "code": told, "club": "Second"}
    assert post(Client(), "set-up", again).status_code == 409
    assert code() == ""
    assert Club.objects.count() == 1


def test_a_wrong_code_opens_nothing_and_after_ten_not_even_the_right_one(nobody):
    told = code()
    for _ in range(10):
        refused = fault(post(nobody, "set-up", {**ACCOUNT, "code": "aaaa-bbbb-cccc", "club": "Mine"}))
        assert "not the code" in refused["msg"]
    assert "not the code" in fault(post(nobody, "set-up", {**ACCOUNT, "code": told, "club": "Mine"}))["msg"]
    assert Club.objects.count() == 0
    assert post(nobody, "set-up", {**ACCOUNT, "code": code(), "club": "Mine"}).status_code == 201, "a new one does"


def test_the_code_itself_is_kept_nowhere(db):
    told = code()
    assert told.replace("-", "") not in str(list(SetUpCode.objects.values()))


@pytest.mark.parametrize(
    ("wrong", "field", "said"),
    [
        ({"password": "short"}, "password", "too short"),
        ({"password": "password123"}, "password", "too common"),
        ({"email": "ansa"}, "email", "pattern"),
        ({"club": " "}, "club", "character"),
    ],
)
def test_an_account_that_cannot_be_is_refused_at_its_field_and_the_code_still_works(nobody, wrong, field, said):
    body = {**ACCOUNT, "code": code(), "club": "Capstan Hall"}
    refused = fault(post(nobody, "set-up", {**body, **wrong}))
    assert field in refused["loc"]
    assert said in refused["msg"]
    assert (Club.objects.count(), User.objects.count()) == (0, 0)
    assert post(nobody, "set-up", body).status_code == 201


@pytest.mark.parametrize("address", ["a@\x8cb.example", "a@b..example", "a@-b.example", "a@b.e" + "x" * 70])
def test_an_address_that_no_mail_can_go_to_is_refused_at_its_field(coach, address):
    refused = fault(coach.post("invitations", {"name": "Ansa Lund", "role": "coach", "email": address}))
    assert "email" in refused["loc"]
    assert "name@harbour.example" in refused["msg"]


def test_an_address_in_other_letters_is_written_to(coach, mailoutbox):
    made = coach.post("invitations", {"name": "Ansa Lund", "role": "coach", "email": "ansa@hölle.example"}).json()
    assert made["sent"]
    assert mailoutbox[0].to == ["ansa@hölle.example"]


def invited(coach, role="coach"):
    made = coach.post("invitations", {"name": "Ansa Lund", "role": role}).json()
    return made["path"].removeprefix("/join/"), made


def test_an_invitation_leads_into_the_club_with_its_role_once(coach, nobody):
    secret, _ = invited(coach, "assistant")
    assert nobody.get(f"/api/join/{secret}").json() == {
        "club": "Capstan Hall",
        "name": "Ansa Lund",
        "email": "",
        "role": "assistant",
    }
    assert post(nobody, f"join/{secret}", ACCOUNT).json()["role"] == "assistant"
    second = post(Client(), f"join/{secret}", {**ACCOUNT, "email": "other@harbour.example"})
    assert second.status_code == 404
    assert "used already" in second.json()["detail"]
    assert [each["used"] for each in coach.listed("invitations")] == [True]
    assert len(coach.listed("members")) == 2


def test_an_invitation_that_is_over_taken_back_or_made_up_opens_nothing(coach, nobody):
    secret, made = invited(coach)
    Invitation.objects.update(until=timezone.now() - timedelta(minutes=1))
    assert "is over" in post(nobody, f"join/{secret}", ACCOUNT).json()["detail"]
    assert coach.client.delete(f"/api/invitations/{made['id']}").status_code == 204
    assert "no such invitation" in post(nobody, f"join/{secret}", ACCOUNT).json()["detail"]
    assert User.objects.count() == 1


def test_an_address_has_one_account_and_a_refused_one_does_not_use_the_invitation_up(coach, nobody):
    first, _ = invited(coach)
    second, _ = invited(coach)
    post(nobody, f"join/{first}", ACCOUNT)
    refused = fault(post(Client(), f"join/{second}", {**ACCOUNT, "email": "ANSA@harbour.example"}))
    assert "account with this address already" in refused["msg"]
    assert post(Client(), f"join/{second}", {**ACCOUNT, "email": "b@harbour.example"}).status_code == 201


def test_the_code_of_an_invitation_is_kept_nowhere(coach):
    secret, _ = invited(coach)
    assert secret not in str(list(Invitation.objects.values()))


def test_an_invitation_is_sent_by_mail_and_its_link_makes_an_account_whose_address_is_known(coach, nobody, mailoutbox):
    made = coach.post("invitations", {"name": "Ansa Lund", "role": "coach", "email": "Ansa@harbour.example"}).json()
    assert made["sent"]
    (mail,) = mailoutbox
    assert mail.to == ["ansa@harbour.example"]
    assert f"http://testserver{made['path']}" in mail.body
    assert "Odd Lind invites you to Capstan Hall" in mail.body
    assert nobody.get(f"/api{made['path']}").json()["email"] == "ansa@harbour.example"
    post(nobody, made["path"].strip("/"), ACCOUNT)
    assert EmailAddress.objects.get(email="ansa@harbour.example").verified


def test_an_invitation_that_cannot_be_sent_says_so_and_its_link_still_works(coach, nobody, settings, caplog):
    settings.EMAIL_BACKEND = "django.core.mail.backends.smtp.EmailBackend"
    settings.EMAIL_HOST, settings.EMAIL_PORT = "127.0.0.1", 1
    made = coach.post("invitations", {"name": "Ansa Lund", "role": "coach", "email": "ansa@harbour.example"}).json()
    assert made["sent"] is False
    assert "ansa" not in caplog.text
    assert post(nobody, made["path"].strip("/"), ACCOUNT).status_code == 201


def test_a_member_who_is_let_go_comes_in_no_more(coach, nobody):
    secret, _ = invited(coach)
    post(nobody, f"join/{secret}", ACCOUNT)
    member = next(each for each in coach.listed("members") if not each["me"])
    assert coach.put(f"members/{member['id']}", {"role": "coach", "active": False}).json()["active"] is False
    assert nobody.get("/api/people").status_code == 401, "also where they are signed in"
    assert sign_in(Client(), ACCOUNT["email"], ACCOUNT["password"]).status_code == 401


def test_a_club_is_never_left_without_an_owner(coach):
    me = coach.listed("members")[0]
    for change in ({"role": "coach", "active": True}, {"role": "owner", "active": False}):
        assert "needs an owner" in fault(coach.put(f"members/{me['id']}", change))["msg"]


def test_members_of_another_club_are_not_there(coach):
    theirs = Coach("Other Hall")
    assert coach.put(f"members/{theirs.user.pk}", {"role": "assistant", "active": True}).status_code == 404
    assert len(coach.listed("members")) == 1
