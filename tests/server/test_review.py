"""Trends, what logs teach, and what to do next time, over the API."""

import uuid
from datetime import timedelta

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.utils import timezone

from server.logbook.models import LogEntry
from server.review import relearn as relearning
from server.review.models import Calibration
from server.review.seen import logs_of, seen_of
from server.review.tasks import learn, learn_person
from tests.server.conftest import fault, run_of

ROUNDS = "3 x (3:00 combination) rest 1:00"
TOTAL_S = 660


def log(coach, saved, person, days_ago=1, **more):
    body = {
        "run": run_of(saved), "person_id": person.pk, "done_s": TOTAL_S, "done_efforts": 3, "rpe": 8,
        "started_at": (timezone.now() - timedelta(days=days_ago)).isoformat(), **more,
    }  # fmt: skip
    answer = coach.put(f"runs/{uuid.uuid4()}/log", body)
    assert answer.status_code == 200, answer.content
    return answer.json()


def record(strikes=None, heart=(), played=((0, TOTAL_S),), **more):
    return {
        "played": [{"from_s": a, "to_s": b} for a, b in played], "strikes": strikes, "heart": list(heart), **more,
    }  # fmt: skip


@pytest.fixture
def runa(coach):
    return coach.person()


@pytest.fixture
def rounds(coach, runa):
    return coach.session(ROUNDS, target="aerobic-power", person_id=runa.pk)


def capacity(learned, name="vo2max_ml_kg_min", side="after"):
    return next(each for each in learned[side] if each["id"] == name)


def test_weeks_add_up_load_and_strikes(coach, runa, rounds):
    log(coach, rounds, runa, days_ago=0, rpe=7, counted_strikes=600)
    log(coach, rounds, runa, days_ago=14, rpe=9)
    found = coach.get(f"trends?person_id={runa.pk}&weeks=4").json()
    assert [week["sessions"] for week in found["weeks"]] == [0, 1, 0, 1]
    assert found["weeks"][-1]["load"] == pytest.approx(7 * TOTAL_S / 60)
    assert sum(found["weeks"][-1]["limbs"].values()) == pytest.approx(600)
    assert found["weeks"][-1]["minutes"]["aerobic"] > 1
    assert [rating["rpe"] for rating in found["ratings"]] == [9, 7]
    assert found["rated"] == 2


def test_sums_of_several_are_a_head_of_those_who_logged(coach, runa, rounds):
    log(coach, rounds, runa, days_ago=0, rpe=6)
    log(coach, rounds, coach.person("Dario Fenn"), days_ago=0, rpe=10)
    coach.person("Somebody who never came")
    found = coach.get("trends").json()
    assert (found["who"], found["people"]) == ("Capstan Hall", 2)
    assert found["weeks"][-1]["load"] == pytest.approx(8 * TOTAL_S / 60)
    assert found["ratings"] == []


def test_a_group_is_its_people(coach, runa, rounds):
    group = coach.post("groups", {"name": "Evening"}).json()
    runa.groups.add(group["id"])
    log(coach, rounds, runa, days_ago=0)
    log(coach, rounds, coach.person("Dario Fenn"), days_ago=0)
    found = coach.get(f"trends?group_id={group['id']}").json()
    assert (found["who"], found["rated"]) == ("Evening", 1)


def test_nobody_sees_the_weeks_of_another_club(coach, stranger, runa, rounds):
    log(coach, rounds, runa)
    for path in (f"trends?person_id={runa.pk}", f"people/{runa.pk}/learned", f"people/{runa.pk}/next"):
        assert stranger.get(path).status_code == 404
    assert stranger.get("trends").json()["rated"] == 0


def test_a_year_asks_no_more_of_the_database_than_a_month(coach, runa, rounds, django_assert_max_num_queries):
    for days_ago in range(1, 40, 3):
        log(coach, rounds, runa, days_ago=days_ago)
    for weeks in (4, 52):
        with django_assert_max_num_queries(16):
            coach.get(f"trends?person_id={runa.pk}&weeks={weeks}")


def test_what_is_learned_is_shown_and_used_until_it_is_switched_off(coach, runa, rounds):
    assert coach.get(f"people/{runa.pk}/learned").json()["logs"] == 0
    log(coach, rounds, runa, record=record(strikes=[at * 0.5 for at in range(1300)]))
    learn_person(runa.pk)
    found = coach.get(f"people/{runa.pk}/learned").json()
    assert found["logs"] == 1
    assert capacity(found)["value"] != capacity(found, side="before")["value"]

    def known():
        return coach.get(f"people/{runa.pk}").json()["person"]["vo2max_ml_kg_min"]

    assert known()["origin"] == "learned"
    assert known()["value"] == pytest.approx(capacity(found)["value"])
    assert coach.put(f"people/{runa.pk}/learned", {"on": False}).json()["on"] is False
    assert known()["origin"] == "default"


def test_a_new_test_sets_what_was_learned_aside_until_it_is_worked_out_anew(coach, runa, rounds):
    log(coach, rounds, runa, counted_strikes=1100)
    learn(runa)
    answer = coach.post(f"people/{runa.pk}/tests", {"kind": "cooper", "on": str(timezone.localdate()), "value": 2900})
    assert answer.status_code in (200, 201), answer.content
    assert coach.get(f"people/{runa.pk}/learned").json()["working"] is True
    assert coach.get(f"people/{runa.pk}").json()["person"]["vo2max_ml_kg_min"]["origin"] == "estimated"
    learn_person(runa.pk)
    assert coach.get(f"people/{runa.pk}/learned").json()["working"] is False


def test_an_entry_that_is_left_out_teaches_nothing(coach, runa, rounds):
    entry = log(coach, rounds, runa, counted_strikes=1100)
    learn(runa)
    assert coach.put(f"log/{entry['id']}/evidence", {"left_out": True}).status_code == 200
    assert coach.get(f"log/{entry['id']}").json()["left_out"] is True
    learn_person(runa.pk)
    assert not Calibration.objects.exists()
    assert coach.get(f"people/{runa.pk}/learned").json()["logs"] == 0


def seen(coach, runa, rounds, **more):
    log(coach, rounds, runa, **more)
    (entry,) = logs_of(runa)
    return seen_of(entry)


def test_strikes_of_a_sensor_are_told_by_effort(coach, runa, rounds):
    strikes = [10.0, 20.0, 200.0, 250.0, 300.0, 490.0]
    assert seen(coach, runa, rounds, record=record(strikes=strikes)).strikes == (2.0, 2.0, 1.0)


def test_simulated_devices_teach_nothing(coach, runa, rounds):
    told = record(strikes=[10.0], heart=[(1.0, 120)], simulated=True)
    found = seen(coach, runa, rounds, record=told)
    assert (found.strikes, found.heart, found.rpe) == ((), (), 8)


def test_the_demos_own_history_does(coach, runa, rounds):
    log(coach, rounds, runa, record=record(strikes=[10.0], heart=[(1.0, 120)], simulated=True))
    LogEntry.objects.update(simulated=True)
    (entry,) = logs_of(runa)
    assert seen_of(entry).strikes == (1.0, 0.0, 0.0)


def test_a_run_with_a_skip_tells_its_rating_of_what_was_done(coach, runa, rounds):
    found = seen(coach, runa, rounds, record=record(played=((0, 180), (480, 660)), heart=[(1.0, 120)]))
    assert found.timeline.total_s == 360
    assert (found.heart, found.rpe) == ((), 8)


def test_a_run_that_was_broken_off_says_how_far_it_came(coach, runa, rounds):
    assert seen(coach, runa, rounds, record=record(played=((0, 330),))).done_frac == pytest.approx(0.5)


def test_two_clean_goes_of_a_session_turn_a_knob(coach, runa, rounds):
    log(coach, rounds, runa, days_ago=9, rpe=6)
    (one,) = coach.get(f"people/{runa.pk}/next").json()
    assert (one["step"], one["name"]) == ("hold", "")
    log(coach, rounds, runa, days_ago=2, rpe=6)
    (two,) = coach.get(f"people/{runa.pk}/next").json()
    assert (two["step"], two["session_id"]) == ("on", rounds["id"])
    assert "rest" in two["name"]
    assert two["document"] != rounds["document"]


def test_a_session_that_was_changed_since_is_left_alone(coach, runa, rounds):
    log(coach, rounds, runa)
    changed = coach.session("4 x (3:00 combination) rest 1:00")["document"]
    coach.put(
        f"sessions/{rounds['id']}",
        {"document": changed, "target": "aerobic-power", "revision": rounds["revision"], "person_id": runa.pk},
    )
    assert coach.get(f"people/{runa.pk}/next").json() == []


def test_pain_is_told_with_its_limb(coach, runa, rounds):
    log(coach, rounds, runa, pain=[{"where": "wrist", "side": "left"}])
    (found,) = coach.get(f"people/{runa.pk}/next").json()
    assert "left wrist" in found["reason"]


def looked(coach, entry, data, name="run.csv"):
    file = SimpleUploadedFile(name, data)
    return coach.client.post(f"/api/log/{entry['id']}/heart/look", {"file": file})


def csv_of(bpm, seconds=TOTAL_S):
    return "\n".join(["time,hr", *(f"{at},{bpm + (at // 30) % 7}" for at in range(0, seconds, 5))]).encode()


def test_a_file_of_heart_rate_is_looked_at_and_then_kept_with_the_entry(coach, runa, rounds):
    entry = log(coach, rounds, runa, record=record(strikes=[10.0, 20.0]))
    found = looked(coach, entry, csv_of(140)).json()
    assert (found["kind"], found["by"], len(found["heart"])) == ("CSV", "match", 132)
    assert coach.get(f"log/{entry['id']}").json()["heart"] == [], "nothing is kept by looking"
    kept = coach.put(f"log/{entry['id']}/heart", {"heart": found["heart"], "shift_s": 60})
    assert kept.status_code == 200, kept.content
    told = coach.get(f"log/{entry['id']}").json()
    assert told["heart"][0] == [60, 140]
    assert max(at for at, _ in told["heart"]) < TOTAL_S
    assert told["done"]["peak_bpm"] == 146
    assert told["done"]["strikes"] == 2, "what the sensor told stays"


def test_an_entry_by_hand_takes_a_file_too(coach, runa, rounds):
    entry = log(coach, rounds, runa)
    found = looked(coach, entry, csv_of(140)).json()
    coach.put(f"log/{entry['id']}/heart", {"heart": found["heart"], "shift_s": 0})
    (row,) = logs_of(runa)
    assert len(seen_of(row).heart) == 132


def test_a_file_that_is_no_heart_rate_is_refused_with_its_line(coach, runa, rounds):
    entry = log(coach, rounds, runa)
    assert fault(looked(coach, entry, b"time,hr\n0,92\nnoon,95\n"))["msg"].startswith("Line 3")
    assert LogEntry.objects.get().result.record is None


def test_laid_beside_the_run_nothing_is_kept(coach, runa, rounds):
    entry = log(coach, rounds, runa)
    answer = coach.put(f"log/{entry['id']}/heart", {"heart": [[0, 120]], "shift_s": 9000})
    assert "Move it" in fault(answer)["msg"]


def test_nobody_lays_a_file_on_the_log_of_another_club(coach, stranger, runa, rounds):
    entry = log(coach, rounds, runa)
    assert looked(stranger, entry, csv_of(140)).status_code == 404
    assert stranger.put(f"log/{entry['id']}/heart", {"heart": [[0, 120]], "shift_s": 0}).status_code == 404


def test_whatever_changes_what_is_known_asks_for_learning_anew(coach, runa, rounds, monkeypatch):
    asked = []
    monkeypatch.setattr(relearning, "later", lambda _task, once, **_: asked.append(once))

    def once_by(act):
        asked.clear()
        act()
        return set(asked) == {f"learn {runa.pk}"}

    assert once_by(lambda: log(coach, rounds, runa))
    entry = LogEntry.objects.get()
    assert once_by(lambda: coach.put(f"log/{entry.pk}/evidence", {"left_out": True}))
    assert once_by(lambda: coach.post(f"people/{runa.pk}/limits", {"kind": "heart-untrusted", "set_by": "Dr A. Holm"}))
    assert once_by(lambda: entry.delete())


def test_a_heart_that_is_not_to_be_trusted_any_more_teaches_nothing_more(coach, runa, rounds):
    log(coach, rounds, runa, record=record(heart=[(float(at), 120) for at in range(0, TOTAL_S, 5)]))
    learn_person(runa.pk)
    assert "heart" in coach.get(f"people/{runa.pk}/learned").json()["forecast_after"]
    coach.post(f"people/{runa.pk}/limits", {"kind": "heart-untrusted", "set_by": "Dr A. Holm"})
    assert coach.get(f"people/{runa.pk}/learned").json()["working"] is True
    learn_person(runa.pk)
    found = coach.get(f"people/{runa.pk}/learned").json()
    assert (found["working"], "heart" in found["forecast_after"]) == (False, False)


def test_logs_from_before_anything_was_learned_are_learned_from_once_somebody_looks(coach, runa, rounds):
    log(coach, rounds, runa)
    assert coach.get(f"people/{runa.pk}/learned").json()["working"] is True


def by_hand(coach, *rated, **more):
    body = {
        "purpose": "aerobic-power", "started_at": (timezone.now() - timedelta(hours=2)).isoformat(),
        "rated": [{"person_id": person.pk, "rpe": rpe} for person, rpe in rated], **more,
    }  # fmt: skip
    return coach.post("by-hand", body)


def test_a_class_that_was_not_planned_here_is_logged_at_once(coach, runa):
    dario = coach.person("Dario Fenn")
    answer = by_hand(coach, (runa, 7), (dario, 9), text=ROUNDS)
    assert (answer.status_code, answer.json()) == (201, {"logged": 2})
    entries = {entry["person"]: entry for entry in coach.listed("log")}
    assert {name: entry["rpe"] for name, entry in entries.items()} == {"Runa Velde": 7, "Dario Fenn": 9}
    assert entries["Runa Velde"]["text"] == ["3 × (3:00 combination) rest 1:00"]
    assert entries["Runa Velde"]["expected_strikes"] > 100
    (row,) = logs_of(runa)
    assert seen_of(row).rpe == 7


def test_of_mere_minutes_load_counts_and_nothing_else(coach, runa):
    assert by_hand(coach, (runa, 6), minutes=45).status_code == 201
    found = coach.get(f"trends?person_id={runa.pk}").json()
    week = next(week for week in found["weeks"] if week["sessions"])
    assert week["load"] == pytest.approx(6 * 45)
    assert sum(week["limbs"].values()) == 0
    assert (found["rated"], found["ratings"]) == (0, []), "nothing was expected of it"
    assert not logs_of(runa).exists()


@pytest.mark.parametrize(
    ("more", "field", "said"),
    [
        ({"text": "3 x (3:00 combinaton)"}, "text", "Character"),
        ({"text": "30 power", "minutes": 20}, "body", "one of them"),
        ({}, "body", "one of them"),
        ({"minutes": 400}, "minutes", "240"),
    ],
)
def test_what_cannot_have_been_done_is_refused_and_nobody_is_logged(coach, runa, more, field, said):
    answer = by_hand(coach, (runa, 6), **more)
    assert said in fault(answer)["msg"]
    assert field in fault(answer)["loc"]
    assert coach.listed("log") == []


def test_somebody_of_another_club_keeps_the_whole_class_from_being_logged(coach, stranger, runa):
    assert by_hand(coach, (runa, 6), (stranger.person("Nell Ostrow"), 7), text=ROUNDS).status_code == 404
    assert coach.listed("log") == []
