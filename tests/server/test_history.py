"""Who changed a session and when; two edits of one session; tags."""

from datetime import timedelta

from django.utils import timezone

from server.sessions.models import Version
from tests.server.conftest import document, fault

LINES = ("10:00 flow", "3 x 3:00 technique rest 1:00")


def save(coach, saved: dict, *lines: str, **more: object):
    body = {"document": document(*lines), "target": saved["target"], "revision": saved["revision"], **more}
    return coach.put(f"sessions/{saved['id']}", body)


def history(coach, saved: dict) -> list[dict]:
    return coach.listed(f"sessions/{saved['id']}/versions")


def test_every_save_is_a_version_with_who_and_when(coach):
    saved = coach.session(*LINES)
    assert save(coach, saved, "12:00 flow").status_code == 200
    latest, first = history(coach, saved)
    assert latest["text"] == ["12:00 flow"]
    assert first["text"] == ["10:00 flow", "3 × (3:00 technique) rest 1:00"]
    assert (latest["saved_by"], latest["revision"], first["revision"]) == ("Odd Lind", 2, 1)
    assert first["document"] == document(*LINES)


def test_what_the_app_saves_by_itself_in_one_sitting_is_one_version(coach):
    saved = coach.session(*LINES)
    for minutes in (11, 12, 13):
        saved = save(coach, saved, f"{minutes}:00 flow", by_itself=True).json()
    latest, first = history(coach, saved)
    assert (latest["text"], latest["revision"]) == (["13:00 flow"], 4)
    assert first["revision"] == 1
    Version.objects.filter(revision=4).update(begun_at=timezone.now() - timedelta(minutes=6))
    save(coach, saved, "14:00 flow", by_itself=True)
    assert [version["revision"] for version in history(coach, saved)] == [5, 4, 1]


def test_a_key_makes_a_version_of_its_own_in_the_same_sitting(coach):
    saved = save(coach, coach.session(*LINES), "11:00 flow", by_itself=True).json()
    save(coach, saved, "12:00 flow")
    assert [version["by_itself"] for version in history(coach, saved)] == [False, True, False]


def test_an_earlier_version_is_restored_by_saving_it_again(coach):
    saved = coach.session(*LINES)
    later = save(coach, saved, "1:00 power").json()
    first = history(coach, saved)[-1]
    restored = coach.put(f"sessions/{saved['id']}", {"document": first["document"], "target": first["target"],
                                                     "revision": later["revision"]})  # fmt: skip
    assert restored.json()["document"] == document(*LINES)
    assert len(history(coach, saved)) == 3


def test_the_history_is_the_clubs_own(coach, stranger):
    saved = coach.session(*LINES)
    assert stranger.get(f"sessions/{saved['id']}/versions").status_code == 404


def test_the_later_save_is_refused_with_the_name_of_who_was_first_and_keeps_nothing(coach):
    saved = coach.session(*LINES)
    save(coach, saved, "12:00 flow")
    refused = save(coach, saved, "13:00 flow")
    assert refused.status_code == 409
    assert "saved elsewhere" in refused.json()["detail"]
    assert "Odd Lind" in refused.json()["detail"]
    assert len(history(coach, saved)) == 2


def side(*lines: str, **more: object) -> dict:
    return {"document": document(*lines), "target": "lactic-capacity", **more}


def test_two_edits_come_together_with_a_word_on_what_both_changed(coach):
    merged = coach.post("merge", {
        "base": side(*LINES, tags=["bag"]),
        "mine": side("12:00 flow", LINES[1], tags=["bag", "kicks"]),
        "theirs": side(LINES[0], "5 x 3:00 technique rest 1:00", tags=["bag"]) | {"target": "skill"},
    }).json()  # fmt: skip
    assert merged["document"] == document("12:00 flow", "5 x 3:00 technique rest 1:00")
    assert (merged["target"], merged["tags"], merged["notes"]) == ("skill", ["bag", "kicks"], [])
    both = coach.post("merge", {"base": side(*LINES), "mine": side("12:00 flow", LINES[1], tags=["a"]),
                                "theirs": side("14:00 flow", LINES[1], tags=["b"])}).json()  # fmt: skip
    assert [part["name"] for part in both["document"]["parts"]] == ["Part 1", "Part 1 (saved elsewhere)", "Part 2"]
    assert len(both["notes"]) == 2


def test_tags_come_back_once_each_and_an_endless_one_is_refused(coach):
    saved = coach.session(*LINES, tags=["kicks", "Thursday", "kicks"])
    assert saved["tags"] == ["kicks", "Thursday"]
    row = coach.listed("sessions")[0]
    assert row["tags"] == ["kicks", "Thursday"]
    refused = fault(coach.post("sessions", side(*LINES, tags=["x" * 31])))
    assert refused["loc"][-2:] == ["tags", 0]
    assert "30" in refused["msg"]
