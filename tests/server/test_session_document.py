"""The open document: its published JSON Schema, and what was stored in an earlier version."""

import json
from copy import deepcopy
from pathlib import Path

import pytest
from django.db import connection
from django.db.migrations.executor import MigrationExecutor
from django.utils import timezone
from hypothesis import given, settings
from jsonschema import Draft202012Validator

from server.sessions.documents import core_session
from tests.core.trees import trees
from yoisho.protocols import PROTOCOLS
from yoisho.session.document import DocumentError, Part, Session, from_document, to_document
from yoisho.session.shorthand import read

DOCS = Path(__file__).resolve().parents[2] / "docs"
SCHEMA = json.loads((DOCS / "session.schema.json").read_text(encoding="utf-8"))
ACCEPTS = Draft202012Validator(SCHEMA)


def test_the_schema_is_one_by_the_standard():
    Draft202012Validator.check_schema(SCHEMA)


@pytest.mark.parametrize("protocol", PROTOCOLS.values(), ids=lambda protocol: protocol.id)
def test_every_protocol_is_a_document_by_the_schema(protocol):
    for version in protocol.versions:
        ACCEPTS.validate(to_document(protocol.session(version)))


@given(trees)
@settings(max_examples=60)
def test_whatever_is_written_passes_the_schema_and_the_edge_and_comes_back(tree):
    session = Session("Any", (Part("Main set", tree, "skill"),))
    document = json.loads(json.dumps(to_document(session)))
    ACCEPTS.validate(document)
    assert core_session(document) == from_document(document) == session


def test_the_document_of_the_page_is_one():
    page = (DOCS / "session-format.md").read_text(encoding="utf-8")
    document = json.loads(page.split("```json\n")[1].split("\n```")[0])
    ACCEPTS.validate(document)
    assert from_document(document).parts[0].purpose == "lactic-capacity"


INTERVAL = ("parts", 0, "tree", "body")
ACTION = (*INTERVAL, "drill", "combinations", 0, 0, 0)
WRONG = [
    ((*INTERVAL, "tempo"), "sped", "parts[0].tree.body.tempo"),
    ((*INTERVAL, "modality"), "trampoline", "parts[0].tree.body.modality"),
    ((*INTERVAL, "seconds"), 0, "parts[0].tree.body.seconds"),
    ((*INTERVAL, "speed"), 3, "parts[0].tree.body.speed"),
    ((*INTERVAL, "band"), {"low": 20, "high": 90}, "parts[0].tree.body.band"),
    ((*INTERVAL, "drill", "order"), "random", "parts[0].tree.body.drill.order"),
    ((*ACTION, "technique"), "slap", "parts[0].tree.body.drill.combinations[0][0][0].technique"),
    (("parts", 0, "purpose"), "fun", "parts[0].purpose"),
    (("parts", 0, "tree", "count"), 999, "parts[0].tree.count"),
    (("title",), "", "title"),
]


@pytest.mark.parametrize(("path", "value", "place"), WRONG, ids=[place for *_, place in WRONG])
def test_the_schema_and_the_reader_refuse_the_same_faults_and_the_reader_says_where(path, value, place):
    document = to_document(Session("Any", (Part("Main set", read("3 x (1:00 power bag [1-2])"), "skill"),)))
    wrong = deepcopy(document)
    at = wrong
    for key in path[:-1]:
        at = at[key]
    at[path[-1]] = value
    assert ACCEPTS.is_valid(document)
    assert not ACCEPTS.is_valid(wrong)
    with pytest.raises(DocumentError) as refused:
        from_document(wrong)
    assert refused.value.path == place


@pytest.mark.django_db(transaction=True)
def test_what_was_stored_in_version_1_is_brought_up_to_date_with_the_database():
    old = {"format": "yoisho-session", "version": 1, "title": "Old", "parts": [
        {"name": "Bag", "tree": {"type": "interval", "seconds": 60, "tempo": "power"}}]}  # fmt: skip
    before = [("training", "0001_initial"), ("logbook", "0002_engine_whole"), ("accounts", "0002_languages")]
    executor = MigrationExecutor(connection)
    latest = executor.loader.graph.leaf_nodes()
    executor.migrate(before)
    apps = executor.loader.project_state(before).apps
    club = apps.get_model("accounts", "Club").objects.create(name="Capstan Hall")
    apps.get_model("training", "Session").objects.create(club=club, target="bout-rehearsal", document=old)
    apps.get_model("logbook", "LogEntry").objects.create(
        club=club, run_id="00000000-0000-0000-0000-000000000001", title="Old", document=old, expected_strikes=40,
        started_at=timezone.now(), planned_s=60, planned_efforts=1, planned_rpe=8, done_s=60, done_efforts=1, rpe=8,
    )  # fmt: skip
    executor = MigrationExecutor(connection)
    executor.migrate(latest)
    apps = executor.loader.project_state(latest).apps
    saved = apps.get_model("training", "Session").objects.get()
    entry = apps.get_model("logbook", "LogEntry").objects.get()
    run = apps.get_model("runs", "Run").objects.get()
    assert saved.target == "fight-rehearsal"
    assert (run.title, run.session, entry.result.run) == ("Old", None, run)
    for document in (saved.document, run.document):
        assert ACCEPTS.is_valid(document)
        assert from_document(document).parts[0].tree == read("1:00 power")
    assert entry.result.expected_limbs == {"left hand": 20, "right hand": 20}
    assert entry.counted_strikes is None
