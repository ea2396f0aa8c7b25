"""Tokens of the API: scopes, an end, shown once; and the page about the API."""

import re
import subprocess
from datetime import timedelta
from pathlib import Path
from uuid import uuid4

import pytest
from django.test import Client
from django.utils import timezone

from server.accounts.access import ACCESS
from server.accounts.models import ApiToken, Role, User
from server.accounts.scopes import ABOUT, SCOPES
from tests.server.conftest import fault, run_of

DOCS = Path(__file__).resolve().parents[2] / "docs" / "api.md"


def make(coach, *scopes: str, days: int = 30) -> dict:
    last_day = str(timezone.localdate() + timedelta(days=days))
    answer = coach.post("tokens", {"name": "Board in the hall", "scopes": list(scopes), "last_day": last_day})
    assert answer.status_code == 201, answer.content
    return answer.json()


def by(token: str, path: str, method: str = "get", **more):
    return getattr(Client(), method)(f"/api/{path}", headers={"Authorization": f"Bearer {token}"}, **more)


def logged(coach) -> None:
    body = {"run": run_of(coach.session()), "started_at": "2026-11-01T10:00:00Z", "done_s": 230, "done_efforts": 8,
            "rpe": 9}  # fmt: skip
    assert coach.put(f"runs/{uuid4()}/log", body).status_code == 200


def test_a_token_reads_what_its_scope_says_and_nothing_else(coach):
    logged(coach)
    token = make(coach, "read-log")["token"]
    assert by(token, "log").json()["items"][0]["rpe"] == 9
    refused = by(token, "people")
    assert refused.status_code == 403
    assert "read-people" in refused.json()["detail"]


def test_what_no_scope_holds_is_for_people_who_have_signed_in(coach):
    token = make(coach, *SCOPES)["token"]
    for path in ("tokens", "members", "club/records"):
        assert by(token, path).status_code == 403, path


def test_a_token_writes_where_it_may_without_a_cookie(coach):
    person = coach.person()
    token = make(coach, "write-log")["token"]
    body = {"minutes": 30, "purpose": "skill", "started_at": "2026-11-01T10:00:00Z",
            "rated": [{"person_id": person.pk, "rpe": 4}]}  # fmt: skip
    answer = by(token, "by-hand", "post", data=body, content_type="application/json")
    assert answer.status_code == 201, answer.content
    assert coach.listed("log")[0]["rpe"] == 4


def test_it_may_no_more_than_whoever_made_it(coach):
    token = make(coach, "read-people", "read-log")["token"]
    person = coach.person()
    assert by(token, f"people/{person.pk}").status_code == 200
    User.objects.filter(pk=coach.user.pk).update(role=Role.ASSISTANT)
    assert by(token, f"people/{person.pk}").status_code == 403
    assert by(token, "log").status_code == 200


def test_it_ends_on_its_last_day_and_when_it_is_taken_back(coach):
    made = make(coach, "read-log", days=0)
    assert by(made["token"], "log").status_code == 200
    ApiToken.objects.update(last_day=timezone.localdate() - timedelta(days=1))
    assert by(made["token"], "log").status_code == 401
    assert "ended" in by(made["token"], "log").json()["detail"]
    other = make(coach, "read-log")
    assert coach.client.delete(f"/api/tokens/{other['id']}").status_code == 204
    assert by(other["token"], "log").status_code == 401
    assert by("yoi_nonsense", "log").status_code == 401


def test_it_is_shown_once_and_only_its_fingerprint_is_kept(coach):
    made = make(coach, "read-log")
    assert made["token"].startswith("yoi_")
    assert len(made["token"]) > 40
    assert made["token"] not in coach.get("tokens").content.decode()
    assert made["token"] not in str(ApiToken.objects.values())
    by(made["token"], "log")
    (told,) = coach.get("tokens").json()["tokens"]
    assert told["used_on"] == str(timezone.localdate())


def test_tokens_are_ones_own(coach, stranger):
    made = make(coach, "read-log")
    assert stranger.get("tokens").json()["tokens"] == []
    assert stranger.client.delete(f"/api/tokens/{made['id']}").status_code == 404
    assert by(made["token"], "log").status_code == 200


@pytest.mark.parametrize(
    ("wrong", "place"),
    [({"scopes": ["everything"]}, "scopes"), ({"scopes": []}, "scopes"), ({"name": " "}, "name"),
     ({"last_day": "2020-01-01"}, "last_day"), ({"last_day": "2099-01-01"}, "last_day")],
)  # fmt: skip
def test_what_cannot_be_is_refused_with_its_place(coach, wrong, place):
    body = {"name": "Board", "scopes": ["read-log"], "last_day": str(timezone.localdate()), **wrong}
    assert place in fault(coach.post("tokens", body))["loc"]


def test_every_scope_is_told_and_holds_operations_that_are():
    assert list(ABOUT) == list(SCOPES)
    assert set().union(*SCOPES.values()) <= set(ACCESS)
    documented = DOCS.read_text(encoding="utf-8")
    assert all(f"`{scope}`" in documented for scope in SCOPES)


@pytest.mark.django_db(transaction=True)
def test_the_documented_example_reads_the_log(coach, live_server):
    """The very lines of the page, as somebody would paste them."""
    logged(coach)
    script = re.search(r"```sh\n(.*?)```", DOCS.read_text(encoding="utf-8"), re.DOTALL)[1]
    script = script.replace("http://127.0.0.1:8000", live_server.url).replace("yoi_…", make(coach, "read-log")["token"])
    answer = subprocess.run(["bash", "-euc", script], capture_output=True, text=True, check=True, timeout=30)
    assert '"rpe": 9' in answer.stdout or '"rpe":9' in answer.stdout


def test_the_page_about_the_api_is_for_members_and_asks_nothing_from_outside(coach):
    assert Client().get("/api/docs").status_code == 401
    assert Client().get("/api/openapi.json").status_code == 401
    page = coach.get("docs")
    assert page.status_code == 200
    asked = re.findall(r'(?:src|href)="([^"]+)"', page.content.decode())
    assert asked
    assert all(address.startswith("/static/ninja/") for address in asked)
    assert coach.get("openapi.json").json()["info"]["title"] == "Yoisho"
