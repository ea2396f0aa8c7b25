"""The club's book of combinations."""

import pytest

from server.combinations.models import BookEntry
from tests.server.conftest import fault


def read(coach, text, **more):
    answer = coach.post("combinations/read", {"text": text, **more})
    assert answer.status_code == 200, answer.content
    return answer.json()["whole"]


def entry(coach, **more):
    body = {"name": "Harbour wall", "text": "1-2-3b, slip, 2", "tags": ["Defence", "defence"], **more}
    answer = coach.post("combinations", body)
    assert answer.status_code == 201, answer.content
    return answer.json()


def make(coach, kind, text, *counts):
    return coach.post("combinations/make", {"kind": kind, "text": text, "counts": counts})


def test_a_line_is_counted_timed_mirrored_and_spelled_out(coach):
    found = read(coach, "1-2-3b, slip, 2", stance="southpaw", tempo="combination", seconds=30)
    assert found["limbs"] == {"right hand": 2, "left hand": 2}
    assert found["heights"] == {"head": 3, "body": 1}
    assert (found["strikes"], found["defences"], found["steps"]) == (4, 1, 0)
    assert found["calls"] == ["jab", "cross", "lead hook to the body", "slip", "cross"]
    assert found["passes"] == int(30 / found["pass_s"])
    assert read(coach, found["mirrored"])["mirrored"] == found["text"]


def test_an_uppercut_to_the_head_is_warned_of_on_straight_bags_only(coach):
    found = read(coach, "1-6")
    assert {each["bag"] for each in found["against"]} == {"bag", "stationary bag"}
    assert "pads" in found["suits"]
    assert read(coach, "1-6b")["against"] == []


def test_a_wrong_line_says_where_and_suggests(coach):
    wrong = fault(coach.post("combinations/read", {"text": "1-2, slpi"}))
    assert (wrong["loc"][-1], wrong["ctx"]["character"], wrong["ctx"]["suggestion"]) == ("text", 6, "slip")
    assert fault(coach.post("combinations/read", {"text": "1-2", "tempo": "rest"}))["loc"][-1] == "tempo"


@pytest.mark.parametrize(
    ("kind", "text", "counts", "made"),
    [
        ("pyramid", "1-2-3b", (), "pyramid 1-2-3b"),
        ("pyramid", "1-2-3b | 2-3", (), "pyramid 1-2-3b | 2-3"),
        ("adding", "5-2-4 | 1-3-2", (), "adding 5-2-4 | 1-3-2"),
        ("draw", "1-2 | 3-2", (), "draw 1-2 | 3-2 | recall"),
        ("ladder", "4b", (9, 7, 5, 4), "9x 4b | 7x 4b | 5x 4b | 4x 4b"),
        ("alternating", "lk-m | rk-m", (4, 4, 2), "4x lk-m, 4x rk-m, 4x lk-m, 4x rk-m"),
        ("alternating", "2 | 1", (3, 5), "2-2-2, 5x 1"),
        ("medley", "2 | 3", (15,), "15x 2 then 15x 3"),
        ("mirrored", "1-3 | rk-m", (), "2-4 | lk-m"),
    ],
)
def test_work_is_made_from_a_combination(coach, kind, text, counts, made):
    assert make(coach, kind, text, *counts).json()["text"] == made


def test_what_cannot_be_made_says_what_is_missing(coach):
    assert "one technique" in fault(make(coach, "ladder", "1-2", 4))["msg"]
    assert "two combinations" in fault(make(coach, "alternating", "1-2", 4))["msg"]
    assert "9, 7, 5, 3" in fault(make(coach, "ladder", "3"))["msg"]
    assert "200 techniques" in fault(make(coach, "medley", "1-2-3", 150))["msg"]


def test_an_entry_is_kept_as_techniques_and_shown_in_the_clubs_school(coach):
    saved = entry(coach, text="1-7")
    assert saved["drill"]["text"] == "1-7"
    coach.put("club", {"school": "body-hooks"})
    (shown,) = coach.listed("combinations")
    assert shown["drill"]["text"] == "1, lead overhand"
    assert BookEntry.objects.get().drill["combinations"][0][0][1]["technique"] == "overhand"


def test_tags_are_told_once_and_an_entry_can_be_changed_and_deleted(coach):
    saved = entry(coach)
    assert saved["tags"] == ["defence"]
    path = f"combinations/{saved['id']}"
    changed = coach.put(path, {"name": "Wall", "text": "draw 1-2 | 3-2 | recall", "tags": [], "note": "x"}).json()
    assert (changed["name"], changed["drill"]["order"], changed["drill"]["recall"]) == ("Wall", "draw", True)
    assert coach.client.delete(f"/api/{path}").status_code == 204
    assert coach.listed("combinations") == []
    assert coach.client.delete(f"/api/{path}").status_code == 404


def test_another_clubs_book_cannot_be_read_or_changed(coach, stranger):
    saved = entry(coach)
    assert stranger.listed("combinations") == []
    body = {"name": "Mine", "text": "1"}
    assert stranger.put(f"combinations/{saved['id']}", body).status_code == 404
    assert stranger.client.delete(f"/api/combinations/{saved['id']}").status_code == 404
    assert coach.listed("combinations")[0]["name"] == "Harbour wall"
