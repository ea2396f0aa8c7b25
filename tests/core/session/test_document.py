import json
from pathlib import Path

import pytest
from hypothesis import given

from tests.core.trees import trees
from yoisho.session.document import (
    VERSION,
    DocumentError,
    Part,
    Session,
    from_document,
    json_schema,
    to_document,
    tree_from_dict,
    tree_to_dict,
)
from yoisho.session.shorthand import read


def a_document():
    return to_document(Session("Thirties", (Part("Main set", read("2 x (30 technique, 30 power) rest 0:15")),)))


def test_the_schema_in_the_tree_is_the_one_the_software_writes():
    schema = Path(__file__).resolve().parents[3] / "docs/session.schema.json"
    assert json_schema() == json.loads(schema.read_text(encoding="utf-8")), "run make docs"


@given(trees)
def test_a_tree_survives_being_stored(tree):
    assert tree_from_dict(json.loads(json.dumps(tree_to_dict(tree)))) == tree


def test_a_session_survives_being_stored():
    document = a_document()
    assert to_document(from_document(json.loads(json.dumps(document)))) == document


def broken(change):
    document = a_document()
    change(document)
    return document


@pytest.mark.parametrize(
    ("change", "path"),
    [
        (lambda d: d.update(format="other"), "format"),
        (lambda d: d.update(version=5), "version"),
        (lambda d: d.update(version="2"), "version"),
        (lambda d: d.update(note="mine"), "document.note"),
        (lambda d: d.update(title=None), "title"),
        (lambda d: d.update(parts="none"), "parts"),
        (lambda d: d["parts"][0].pop("name"), "parts[0].name"),
        (lambda d: d["parts"][0].update(tree=7), "parts[0].tree"),
        (lambda d: d["parts"][0]["tree"].update(type="loop"), "parts[0].tree.type"),
        (lambda d: d["parts"][0]["tree"].update(count=0), "parts[0].tree.count"),
        (lambda d: d["parts"][0]["tree"]["body"].update(items=1), "parts[0].tree.body.items"),
        (lambda d: d["parts"][0]["tree"]["body"]["items"][1].update(seconds=0), "parts[0].tree.body.items[1].seconds"),
        (lambda d: d["parts"][0]["tree"]["between"].update(tempo="power"), "parts[0].tree.between"),
        (lambda d: d["parts"][0]["tree"].update(between={"type": "sequence", "items": []}), "parts[0].tree.between"),
    ],
)
def test_a_wrong_document_is_refused_with_the_path_to_the_fault(change, path):
    with pytest.raises(DocumentError) as caught:
        from_document(broken(change))
    assert caught.value.path == path


def test_a_bottomless_document_is_refused():
    tree = {"type": "interval", "seconds": 1, "tempo": "flow"}
    for _ in range(40):
        tree = {"type": "repeat", "count": 1, "body": tree, "between": None}
    with pytest.raises(DocumentError, match="deep"):
        tree_from_dict(tree)


def test_a_rehearsal_of_version_3_rehearses_a_fight():
    tree = {"type": "interval", "seconds": 60, "tempo": "flow"}
    parts = [{"name": "A", "purpose": "bout-rehearsal", "tree": tree}, {"name": "B", "purpose": "skill", "tree": tree}]
    old = {"format": "yoisho-session", "version": 3, "title": "Old", "parts": parts}
    assert [part.purpose for part in from_document(old).parts] == ["fight-rehearsal", "skill"]


def test_a_document_of_version_1_is_read_though_it_states_no_purpose():
    part = {"name": "A", "tree": {"type": "interval", "seconds": 60, "tempo": "power"}}
    (found,) = from_document({"format": "yoisho-session", "version": 1, "title": "Old", "parts": [part]}).parts
    assert (found.purpose, found.tree) == (None, read("1:00 power"))


def test_a_document_of_version_2_is_read_with_the_names_of_today():
    action = {"technique": "hook", "side": "lead", "level": "body"}
    drill = {"order": "turns", "recall": False, "combinations": [[[action]]]}
    tree = {"type": "interval", "seconds": 60, "tempo": "power", "means": "bag", "drill": drill}
    old = {"format": "yoisho-session", "version": 2, "title": "Old", "parts": [{"name": "A", "tree": tree}]}
    (part,) = from_document(old).parts
    assert part.tree == read("1:00 power bag [3b]")
    told = to_document(from_document(old))
    assert told["version"] == VERSION
    assert from_document(told) == from_document(old)
