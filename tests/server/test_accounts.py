from django.core.management import call_command
from django.test import Client

from server.accounts.models import User


def sign_in(client, username, password):
    return client.post("/api/sign-in", {"username": username, "password": password}, content_type="application/json")


def test_nobody_is_signed_in_at_first(nobody):
    assert nobody.get("/api/me").json() == {
        "signed_in": False, "role": None, "fresh": True, "coach_id": None, "club_id": None, "coach": None, "club": None,
        "school": "overhands", "emergency_number": "112", "last_lactic_days": 9,
        "time_zone": "UTC", "first_weekday": 0,
        "demo": False,
    }  # fmt: skip


def test_a_coach_signs_in_and_out(coach):
    coach.user.set_password("harbour-lamp-nine")
    coach.user.save()
    client = Client()
    assert sign_in(client, coach.user.username, "harbour-lamp-nine").json()["club"] == "Capstan Hall"
    assert client.get("/api/people").status_code == 200
    client.post("/api/sign-out")
    assert client.get("/api/people").status_code == 401


def test_a_wrong_password_says_what_to_check(coach):
    coach.user.set_password("harbour-lamp-nine")
    coach.user.save()
    answer = sign_in(Client(), coach.user.username, "wrong")
    assert answer.status_code == 401
    assert "Check both" in answer.json()["detail"]


def test_passwords_are_kept_by_argon2(coach):
    coach.user.set_password("harbour-lamp-nine")
    assert coach.user.password.startswith("argon2")


def test_guessing_is_stopped_after_ten_tries(coach, nobody):
    coach.user.set_password("harbour-lamp-nine")
    coach.user.save()
    for _ in range(11):
        sign_in(nobody, coach.user.username, "wrong")
    assert sign_in(nobody, coach.user.username, "harbour-lamp-nine").status_code in (401, 403, 429)


def test_an_account_without_a_club_reads_nothing(db, nobody):
    user = User.objects.create(username="drifter")
    nobody.force_login(user, backend="server.accounts.backend.CoachBackend")
    assert nobody.get("/api/me").json()["signed_in"] is False
    assert nobody.get("/api/people").status_code == 403


def test_the_demo_opens_only_where_it_is_on(nobody, settings):
    call_command("load_demo")
    assert nobody.post("/api/demo").status_code == 404
    settings.DEMO = True
    assert nobody.post("/api/demo").json()["club"] == "Capstan Hall"


def test_a_request_from_another_place_without_the_cookie_is_refused(coach):
    careful = Client(enforce_csrf_checks=True)
    careful.force_login(coach.user, backend="server.accounts.backend.CoachBackend")
    assert careful.post("/api/read", {"text": "20 flow"}, content_type="application/json").status_code == 403
