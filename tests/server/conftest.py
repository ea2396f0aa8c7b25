import json
from unittest.mock import patch

import pytest
from django.contrib.auth.hashers import Argon2PasswordHasher
from django.test import Client

from server.accounts.models import Club, User
from server.roster.models import Person
from yoisho.session.document import Part, Session, to_document
from yoisho.session.shorthand import read

TWENTY_TENS = "8 x (20 all out / 10 rest)"


def document(*lines: str, title: str = "Thursday") -> dict:
    parts = tuple(Part(f"Part {number}", read(text)) for number, text in enumerate(lines, 1))
    return to_document(Session(title, parts))


class Coach:
    """A coach of one club, signed in."""

    def __init__(self, club_name: str):
        self.club = Club.objects.create(name=club_name)
        self.user = User.objects.create(
            username=f"coach of {club_name}", first_name="Odd", last_name="Lind", club=self.club, role="owner"
        )
        self.client = Client()
        self.client.force_login(self.user, backend="server.accounts.backend.CoachBackend")

    def person(self, name: str = "Runa Velde", **more: object) -> Person:
        known = {"sport": "kickboxer", "level": "club", "sex": "female", "birth_year": 1996, "mass_kg": 62.0}
        return Person.objects.create(club=self.club, name=name, **{**known, **more})

    def get(self, path: str):
        return self.client.get(f"/api/{path}")

    def listed(self, path: str) -> list:
        """All of a short list: one page of it."""
        page = self.get(path).json()
        assert page["count"] == len(page["items"])
        return page["items"]

    def post(self, path: str, body: object = None):
        return self.client.post(f"/api/{path}", body or {}, content_type="application/json")

    def put(self, path: str, body: object):
        return self.client.put(f"/api/{path}", body, content_type="application/json")

    def session(self, *lines: str, **more: object) -> dict:
        body = {"document": document(*(lines or (TWENTY_TENS,))), "target": "lactic-capacity", **more}
        answer = self.post("sessions", body)
        assert answer.status_code == 201, answer.content
        return answer.json()


@pytest.fixture
def coach(db: None) -> Coach:
    return Coach("Capstan Hall")


@pytest.fixture
def stranger(db: None) -> Coach:
    return Coach("Other Hall")


@pytest.fixture
def nobody(db: None) -> Client:
    return Client()


@pytest.fixture(autouse=True)
def demo_off(settings) -> None:
    settings.DEMO = False


@pytest.fixture(scope="session", autouse=True)
def light_passwords():
    """As they are hashed anywhere, with less work: what the work is for, time, no test has."""
    with patch.multiple(Argon2PasswordHasher, time_cost=1, memory_cost=1024, parallelism=1):
        yield


@pytest.fixture(autouse=True)
def files_found_as_asked(settings) -> None:
    """Every client is a server of its own, and would look through all files of the front end as it starts."""
    settings.WHITENOISE_AUTOREFRESH = True


@pytest.fixture(autouse=True)
def own_speech(settings, tmp_path) -> None:
    settings.SPEECH = tmp_path / "speech"


DOOR = "/_allauth/browser/v1/"


def at_the_door(client: Client, method: str, path: str, body: object = None, **headers: str):
    """Something of an account's own: signing in, its password, its second step."""
    return client.generic(method, DOOR + path, json.dumps(body or {}), content_type="application/json", headers=headers)


def sign_in(client: Client, email: str, password: str):
    return at_the_door(client, "POST", "auth/login", {"email": email, "password": password})


def run_of(saved: dict, **more: object) -> dict:
    """A run's plan as a device tells it: the session as it stood when the run began."""
    return {"session_id": saved["id"], "revision": saved["revision"], "document": saved["document"], **more}


def fault(answer) -> dict:
    """The first fault of a refusal: its place, message and kind."""
    assert answer.status_code == 422, answer.content
    return answer.json()["detail"][0]
