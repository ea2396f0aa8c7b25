"""Who may do what: every operation of the API, every role, another club, and nobody."""

import json
import re
from pathlib import Path

import pytest
from django.test import Client

from server.accounts.access import ACCESS, EVERYBODY, OPEN, TRAINING
from server.accounts.models import Role, User
from tests.server.conftest import Coach

SCHEMA = json.loads((Path(__file__).resolve().parents[2] / "server/openapi.json").read_text(encoding="utf-8"))
"""As it is written down: another test holds that to the server, and to make it anew takes a second or two."""
OPERATIONS = [
    (method, path, operation["operationId"])
    for path, methods in SCHEMA["paths"].items()
    for method, operation in methods.items()
]
UUID = "6d7a2f6e-0000-4000-8000-000000000001"
FILLED = {"run_id": UUID, "on": "2026-01-01", "phrase": "0" * 24, "code": "no-such-code", "name": "0" * 24}


def filled(path: str) -> str:
    """The path with something in every place: nothing that is there."""
    return re.sub(r"{(\w+)}", lambda found: FILLED.get(found[1], "987654"), path)


def ask(client: Client, method: str, path: str) -> int:
    answer = client.generic(method.upper(), filled(path), b"{}", content_type="application/json")
    if answer.streaming:
        answer.close()
    return answer.status_code


def test_every_operation_stands_in_the_table_once_and_nothing_else_does():
    told = [operation for _, _, operation in OPERATIONS]
    assert len(told) == len(set(told))
    assert set(told) == set(ACCESS) | OPEN
    assert not set(ACCESS) & OPEN


def test_the_document_says_how_somebody_is_refused_and_what_comes_in_lines():
    for methods in SCHEMA["paths"].values():
        for operation in methods.values():
            told = {str(status) for status in operation["responses"]}
            assert {"401", "403"} <= told, operation["operationId"]
    solved = SCHEMA["paths"]["/api/classes/solve"]["post"]["responses"]["200"]["content"]
    assert set(solved) == {"application/x-ndjson"}
    assert "$shape" not in str(SCHEMA)


@pytest.mark.parametrize(("method", "path", "operation"), OPERATIONS, ids=lambda value: str(value))
def test_whoever_may_not_is_refused_and_whoever_may_is_not(db, method, path, operation):
    if operation in OPEN:
        assert ask(Client(), method, path) not in (401, 403)
        return
    assert ask(Client(), method, path) == 401, "nobody"
    for role in Role:
        member = Coach(f"Hall of the {role}")
        User.objects.filter(pk=member.user.pk).update(role=role)
        refused = ask(member.client, method, path) == 403
        assert refused == (role not in ACCESS[operation]), role


def test_an_assistant_runs_and_logs_and_learns_nothing_of_anybodys_health(coach):
    person = coach.person(screened_on="2026-11-01", screening_disease=True, heart_rate_lowering_medication=True)
    coach.post(f"people/{person.pk}/limits", {"kind": "no-kicks", "set_by": "Dr A. Holm"})
    User.objects.filter(pk=coach.user.pk).update(role=Role.ASSISTANT)
    (told,) = coach.listed("people")
    assert told["limits"] == ["no kicks or knees"]
    assert (told["screening"], told["heart_rate_lowering_medication"]) == (None, False)
    assert coach.get(f"people/{person.pk}").status_code == 403
    assert "owner" in coach.get(f"people/{person.pk}").json()["detail"]
    noted = coach.put(f"people/{person.pk}/knocks/on/2026-01-02", {}).json()
    assert (noted["knocked"], noted["screening"]) == (True, None)


def test_nothing_of_health_is_among_what_everybody_may():
    for word in ("screening", "clearance", "test", "person"):
        assert not [op for op in ACCESS if word in op.split("_") and ACCESS[op] == EVERYBODY], word
    assert ACCESS["person"] == TRAINING
