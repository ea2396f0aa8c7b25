import json

import pytest

from tests.server.conftest import document, fault


def test_a_saved_session_comes_back_as_the_document_it_is(coach):
    saved = coach.session("2 x (30 technique, 30 power) rest 0:15", "3:00 recover")
    again = coach.get(f"sessions/{saved['id']}").json()
    assert again["document"] == document("2 x (30 technique, 30 power) rest 0:15", "3:00 recover")
    assert again["document"]["version"] == 4


RICH = (
    "Warm-up: 10:00 skip, 3:00 shadow\n"
    "Bag (lactic capacity): 6 x (1:00 power bag [1-2 | 3-2 | recall] switch at half, 10-8 reps flow) rest 0:30\n"
    'Core: 1:00 plank call "push-up" every 0:10 @60-75%HR'
)


def test_a_rich_session_is_exported_and_imported_without_loss(coach, stranger):
    parts = coach.post("read", {"text": RICH}).json()["parts"]
    body = {"document": {**document(), "parts": parts}, "target": "lactic-capacity"}
    saved = coach.post("sessions", body).json()
    assert saved["document"]["parts"] == parts
    file = coach.get(f"sessions/{saved['id']}/export")
    assert file.headers["Content-Disposition"] == 'attachment; filename="thursday.json"'
    brought = stranger.post("sessions/import", file.json())
    assert brought.status_code == 201
    assert stranger.get(f"sessions/{brought.json()['id']}").json()["document"] == saved["document"]


def test_a_file_of_an_earlier_version_is_brought_up_to_date_as_it_comes_in(coach):
    first = {"format": "yoisho-session", "version": 1, "title": "Old", "parts": [
        {"name": "Bag", "tree": {"type": "interval", "seconds": 60, "tempo": "power"}}]}  # fmt: skip
    brought = coach.post("sessions/import", first).json()
    part = {"name": "Bag", "purpose": None, "tree": {"type": "interval", "seconds": 60, "tempo": "power"}}
    assert brought["document"] == document("1:00 power", title="Old") | {"parts": [{**part, "gloves": None, "kit": []}]}


@pytest.mark.parametrize(
    ("file", "field", "words"),
    [
        ({"format": "another"}, "format", "not a session"),
        ({**document("1:00 power"), "version": 99}, "version", "versions 1 to 4"),
        ({**document("1:00 power"), "parts": [{"name": "x", "purpose": None, "tree": {"type": "loop"}}]},
         "parts[0].tree.type", "interval, sequence or repeat"),
        ([1, 2], "format", "not a session"),
    ],
)  # fmt: skip
def test_a_wrong_file_is_refused_with_the_path_to_the_fault(coach, file, field, words):
    wrong = fault(coach.post("sessions/import", file))
    assert wrong["ctx"]["path"] == field
    assert words in wrong["msg"]
    assert coach.listed("sessions") == []


def test_the_list_shows_who_for_what_for_how_long_and_the_lines(coach):
    person = coach.person()
    coach.session("8 x (20 all out / 10 rest)", person_id=person.pk)
    (row,) = coach.listed("sessions")
    assert (row["person"], row["target"], row["total_s"]) == ("Runa Velde", "lactic-capacity", 240)
    assert row["text"] == ["8 × (20 all out, 10 rest)"]


def test_the_list_follows_a_save_and_the_clubs_school(coach):
    saved = coach.session("4 x (20 power [1-2] / 10 rest)")
    assert coach.listed("sessions")[0]["total_s"] == 120
    body = {"document": document("6 x (20 power [1-2] / 10 rest)", title="Longer"), "target": "lactic-capacity"}
    coach.put(f"sessions/{saved['id']}", body)
    (row,) = coach.listed("sessions")
    assert (row["title"], row["total_s"], row["text"]) == ("Longer", 180, ["6 × (20 power [1-2], 10 rest)"])
    hooked = coach.session("20 power [4b]")
    coach.put("club", {"school": "body-hooks"})
    told = {row["id"]: row["text"] for row in coach.listed("sessions")}
    assert told[hooked["id"]] != ["20 power [4b]"]


def test_saving_again_counts_the_revision(coach):
    saved = coach.session()
    body = {"document": document("20:00 flow"), "target": "aerobic-base", "revision": 1}
    assert coach.put(f"sessions/{saved['id']}", body).json()["revision"] == 2


def test_a_later_tab_is_told_and_the_earlier_save_stands(coach):
    saved = coach.session()
    path = f"sessions/{saved['id']}"
    first = {"document": document("20:00 flow"), "target": "aerobic-base", "revision": 1}
    late = {"document": document("5:00 flow"), "target": "aerobic-base", "revision": 1}
    coach.put(path, first)
    answer = coach.put(path, late)
    assert answer.status_code == 409
    assert "copy" in answer.json()["detail"]
    assert coach.get(path).json()["document"] == first["document"]


def test_a_deleted_session_is_gone_and_says_so(coach):
    saved = coach.session()
    assert coach.client.delete(f"/api/sessions/{saved['id']}").status_code == 204
    answer = coach.get(f"sessions/{saved['id']}")
    assert answer.status_code == 404
    assert "reload the list" in answer.json()["detail"]


def test_an_empty_session_can_be_saved_while_it_is_being_made(coach):
    answer = coach.post("sessions", {"document": document(), "target": "aerobic-base"})
    assert answer.status_code == 201


def change(path, value):
    made = document("2 x (30 technique, 30 power) rest 0:15")
    at = made
    for key in path[:-1]:
        at = at[key]
    at[path[-1]] = value
    return made


ITEM = ["parts", 0, "tree", "body", "items", 1]


@pytest.mark.parametrize(
    ("path", "value", "field"),
    [
        ([*ITEM, "seconds"], 0, "seconds"),
        ([*ITEM, "seconds"], 99999, "seconds"),
        ([*ITEM, "seconds"], True, "seconds"),
        ([*ITEM, "seconds"], 12.5, "seconds"),
        ([*ITEM, "tempo"], "sped", "tempo"),
        (["parts", 0, "tree", "count"], 0, "count"),
        (["parts", 0, "tree", "between", "tempo"], "power", "between"),
        (["version"], 7, "version"),
        (["title"], "", "title"),
        (["parts", 0, "tree", "body", "items"], [], "items"),
    ],
)
def test_an_impossible_value_is_refused_with_its_field(coach, path, value, field):
    for room in ("evaluate", "sessions"):
        wrong = fault(coach.post(room, {"document": change(path, value), "target": "lactic-capacity"}))
        assert wrong["loc"][-1] == field
        assert wrong["msg"]


def test_a_session_that_is_too_long_is_refused(coach):
    lines = ["30:00 flow"] * 9
    wrong = fault(coach.post("sessions", {"document": document(*lines), "target": "aerobic-base"}))
    assert "4 hours" in wrong["msg"]


def test_what_is_not_json_is_refused(coach):
    answer = coach.client.post("/api/evaluate", '{"document"', content_type="application/json")
    assert answer.status_code == 400


def test_a_document_is_told_in_one_order_however_the_database_has_kept_it(coach):
    """Two sessions are compared part for part, as text: the same part is the same text, from wherever it comes."""
    saved = coach.session("6 x (1:00 power bag [1-2] switch at half) rest 0:30")
    read = coach.post("read", {"text": "6 x (1:00 power bag [1-2] switch at half) rest 0:30"}).json()["parts"][0][
        "tree"
    ]
    again = coach.get(f"sessions/{saved['id']}").json()["document"]["parts"][0]["tree"]
    (version,) = coach.listed(f"sessions/{saved['id']}/versions")
    texts = {json.dumps(tree) for tree in (read, again, version["document"]["parts"][0]["tree"])}
    assert len(texts) == 1
