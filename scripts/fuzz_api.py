"""Ask every operation of the API for so many seconds, right and wrong, as schemathesis makes it of its document:
`fuzz_api.py SECONDS [SEED]`.

Each is asked by nobody, by every role of a hall, and by the owner of another: no answer may be undocumented, of another
shape than is documented, or broken, and nobody outside the hall may read a name of it. What was written is taken back
after each request, so that all of them find the hall as it was.
"""

import json
import os
import sys
import time
import warnings
from collections import Counter
from pathlib import Path
from random import Random
from typing import Any

import django

sys.path.insert(0, str(Path(__file__).resolve().parent.parent))
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "server.settings")
django.setup()

import hypothesis  # noqa: E402
import schemathesis  # noqa: E402
from django.apps import apps  # noqa: E402
from django.core.management import call_command  # noqa: E402
from django.core.signals import request_finished, request_started  # noqa: E402
from django.db import close_old_connections, transaction  # noqa: E402
from django.test import Client  # noqa: E402
from hypothesis import HealthCheck, Phase, given, settings  # noqa: E402
from schemathesis.checks import not_a_server_error  # noqa: E402
from schemathesis.core.failures import FailureGroup  # noqa: E402
from schemathesis.core.result import Ok  # noqa: E402
from schemathesis.specs.openapi.checks import (  # noqa: E402
    content_type_conformance,
    response_schema_conformance,
    status_code_conformance,
)

from server.accounts.models import Club, Role, User  # noqa: E402
from server.openapi import dump  # noqa: E402
from server.wsgi import application  # noqa: E402

CHECKS = [not_a_server_error, status_code_conformance, content_type_conformance, response_schema_conformance]
AT_A_TIME = 12
"""Requests to one operation, then the next has its turn."""
ENDLESS = {"follow_live", "follow_track", "follow_camp", "follow_class"}
OWN_ID = 0.7
"""So often an id is one of the hall's own, where it would else be any number."""
TOKEN = "f" * 32


def halls() -> tuple[dict[str, dict[str, str]], list[str]]:
    """Who asks, each with the headers of a browser that is signed in; and the names that only the hall may read."""
    call_command("load_demo", weeks=1)
    home = Club.objects.get()
    elsewhere = Club.objects.create(name="Another hall")
    who: dict[str, dict[str, str]] = {"nobody": {}}
    for club in (home, elsewhere):
        for role in Role:
            name = f"{role} of {club.name}"
            user = User.objects.create(username=name, first_name=role, last_name=str(club.pk), club=club, role=role)
            client = Client()
            client.force_login(user, backend="server.accounts.backend.CoachBackend")
            who[name] = {"sessionid": client.cookies["sessionid"].value}
    return who, [person.name for person in home.people.all()]


def own_ids() -> dict[str, list[object]]:
    """By the name of a parameter, such as session_id, what there is in the hall."""
    found: dict[str, list[object]] = {}
    for model in apps.get_models():
        if model.__module__.startswith("server."):
            keys = list(model.objects.values_list("pk", flat=True)[:20])  # type: ignore[attr-defined]
            if keys:
                found[f"{model.__name__.lower()}_id"] = keys
    runs = apps.get_model("runs", "Run").objects.values_list("run_id", flat=True)
    found["run_id"] = [str(each) for each in runs[:20]]
    found["entry_id"] = found.get("logentry_id", [1])
    found["class_id"] = found.get("classplan_id", [1])
    return found


class Asked:
    def __init__(self, seed: int):
        self.random = Random(seed)
        self.who, self.names = halls()
        self.ids = own_ids()
        self.answers: Counter[int] = Counter()
        self.faults: dict[tuple[str, str], str] = {}

    def _own(self, held: dict[str, Any]) -> None:
        for name in held:
            if name in self.ids and self.random.random() < OWN_ID:
                held[name] = self.random.choice(self.ids[name])

    def one(self, case: schemathesis.Case[Any]) -> None:
        name = case.operation.definition.raw.get("operationId", case.operation.label)
        asker = self.random.choice(list(self.who))
        self._own(case.path_parameters)
        if isinstance(case.body, dict):
            self._own(case.body)
        # Who asks is told by us, and not made up with the rest.
        case.cookies.clear()
        case.headers.pop("Authorization", None)
        with transaction.atomic():
            answer = case.call(cookies={"csrftoken": TOKEN, **self.who[asker]}, headers={"X-CSRFToken": TOKEN})
            transaction.set_rollback(True)
        self.answers[answer.status_code] += 1
        told = answer.content.decode("utf-8", "replace")
        if "Another hall" in asker or asker == "nobody":
            leaked = [each for each in self.names if each in told and each not in json.dumps(case.body, default=str)]
            if leaked:
                self.faults[name, "leak"] = f"{asker} reads {leaked[0]}\n{case.as_curl_command()}"
        try:
            case.validate_response(answer, checks=CHECKS)
        except FailureGroup as error:
            for found in error.exceptions:
                kind = f"{type(found).__name__} {answer.status_code}"
                self.faults.setdefault((name, kind), f"{name}, asked by {asker}: {str(found)[:700]}\n{told[:300]}")


def main(seconds: float, seed: int) -> int:
    warnings.filterwarnings("ignore")
    # All is asked within this process: the connection that takes it back stays open.
    for signal in (request_started, request_finished):
        signal.disconnect(close_old_connections)
    asked = Asked(seed)
    schema = schemathesis.openapi.from_dict(json.loads(dump()))
    schema.app = application
    operations = [found.ok() for found in schema.get_all_operations() if isinstance(found, Ok)]
    operations = [each for each in operations if each.definition.raw.get("operationId") not in ENDLESS]
    until = time.monotonic() + seconds
    rounds = 0
    while time.monotonic() < until:
        rounds += 1
        for operation in operations:
            if time.monotonic() > until:
                break

            @hypothesis.seed(seed * 1000 + rounds)
            @settings(max_examples=AT_A_TIME, deadline=None, database=None, phases=[Phase.generate],
                      suppress_health_check=list(HealthCheck))  # fmt: skip
            @given(case=operation.as_strategy())
            def several(case: schemathesis.Case[Any]) -> None:
                asked.one(case)

            several()
    for words in asked.faults.values():
        print(f"FAULT {words}\n")
    print(f"{sum(asked.answers.values())} requests to {len(operations)} operations, {rounds} rounds, seed {seed}: "
          f"{dict(sorted(asked.answers.items()))}; {len(asked.faults)} faults")  # fmt: skip
    return int(bool(asked.faults))


if __name__ == "__main__":
    raise SystemExit(main(float(sys.argv[1]), int(sys.argv[2]) if len(sys.argv) > 2 else int(time.time())))
