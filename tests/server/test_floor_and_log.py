import uuid
from datetime import timedelta

import pytest
from django.core.management import call_command
from django.utils import timezone

from server.accounts.models import User
from server.logbook.models import LogEntry
from server.sessions.models import Session
from tests.server.conftest import fault, run_of


def entry_of(saved, **more):
    began = (timezone.now() - timedelta(minutes=5)).isoformat()
    return {"run": run_of(saved), "started_at": began, "done_s": 240, "done_efforts": 8, "rpe": 9, **more}


def log(coach, saved, run_id=None, **more):
    return coach.put(f"runs/{run_id or uuid.uuid4()}/log", entry_of(saved, **more))


def test_a_run_plan_holds_the_timeline_and_every_sound(coach):
    saved = coach.session("8 x (20 all out / 10 rest)", person_id=coach.person().pk)
    plan = coach.get(f"sessions/{saved['id']}/run").json()
    assert plan["total_s"] == 240
    assert plan["efforts"][0] == {"start_s": 0, "end_s": 20}
    assert len(plan["efforts"]) == 8
    assert plan["timeline"][0]["rounds"] == [{"turn": 1, "of": 8}]
    assert plan["cues"][-1] == {"at_s": 240, "kind": "end"}
    assert plan["person"] == "Runa Velde"


def test_the_log_stands_planned_against_done(coach):
    saved = coach.session()
    log(coach, saved, done_s=200, done_efforts=6, note="Stopped at six.")
    (found,) = coach.listed("log")
    assert (found["planned_s"], found["done_s"]) == (240, 200)
    assert (found["planned_efforts"], found["done_efforts"]) == (8, 6)
    assert found["load"] == pytest.approx(9 * 200 / 60)
    assert found["note"] == "Stopped at six."
    assert found["text"] == ["8 × (20 all out, 10 rest)"]


def test_a_log_sent_twice_is_kept_once(coach):
    saved, run_id = coach.session(), uuid.uuid4()
    log(coach, saved, run_id)
    log(coach, saved, run_id, rpe=8)
    assert [found["rpe"] for found in coach.listed("log")] == [8]


def test_the_log_keeps_the_plan_as_it_was_run(coach):
    saved = coach.session("8 x (20 all out / 10 rest)")
    log(coach, saved)
    coach.client.delete(f"/api/sessions/{saved['id']}")
    (found,) = coach.listed("log")
    assert found["session_id"] is None
    assert found["text"] == ["8 × (20 all out, 10 rest)"]
    assert coach.get(f"log/{found['id']}").json().items() >= found.items()


def test_strikes_counted_on_the_floor_take_the_place_of_the_expected(coach):
    saved = coach.session("4 x (100 reps technique [1-3-2])", person_id=coach.person().pk)
    done = {"person_id": coach.listed("people")[0]["id"], "done_s": 2000, "done_efforts": 1}
    expected = log(coach, saved, **done).json()
    assert (expected["expected_strikes"], expected["counted_strikes"]) == (1200, None)
    assert expected["limbs"] == {"left hand": 800, "right hand": 400}
    counted = log(coach, saved, counted_strikes=900, **done).json()
    assert counted["limbs"] == {"left hand": 600, "right hand": 300}, "shared out as the plan is"


@pytest.mark.parametrize(
    ("more", "field"),
    [
        ({"rpe": 11}, "rpe"),
        ({"rpe": -1}, "rpe"),
        ({"done_efforts": 9}, "done_efforts"),
        ({"done_s": -1}, "done_s"),
        ({"counted_strikes": -1}, "counted_strikes"),
        ({"started_at": "2999-01-01T00:00:00Z"}, "started_at"),
        ({"started_at": "2026-01-01T00:00:00"}, "started_at"),
        ({"note": "x" * 5000}, "note"),
    ],
)
def test_an_impossible_log_is_refused_with_its_field(coach, more, field):
    assert fault(log(coach, coach.session(), **more))["loc"][-1] == field
    assert coach.listed("log") == []


def test_the_demo_loads_once_and_loses_nothing(db, settings):
    call_command("load_demo", weeks=0)
    kept = Session.objects.first()
    kept.document["title"] = "Changed by a visitor"
    kept.save()
    call_command("load_demo", weeks=0)
    assert User.objects.filter(username="demo-coach").count() == 1
    assert Session.objects.get(pk=kept.pk).document["title"] == "Changed by a visitor"


def test_the_demos_history_is_marked_as_simulated_lies_in_the_past_and_grows_harder(db):
    call_command("load_demo")
    entries = LogEntry.objects.select_related("result__run", "result__person")
    assert entries.count() > 200
    assert all(entry.simulated and entry.started_at < timezone.now() for entry in entries)
    assert all(entry.done_efforts <= entry.planned_efforts for entry in entries)
    assert (timezone.now() - min(entry.started_at for entry in entries)).days in range(70, 92), "twelve weeks"
    tens = [entry for entry in reversed(entries) if entry.run.title == "Thursday twenty-tens"]
    efforts = [entry.planned_efforts for entry in tens]
    assert efforts == sorted(efforts)
    assert (efforts[0], efforts[-1]) == (6, 8)
    assert not {entry.result.person.name for entry in tens} & {"Sef Arden", "Nell Ostrow"}
    bram = max(entry.started_at for entry in entries if entry.result.person.name == "Bram Oster")
    assert (timezone.now() - bram).days >= 3, "nothing since the knock"
    sensed = [entry for entry in tens if entry.result.done["strikes"] is not None]
    apart = [abs(entry.result.done["strikes"] / entry.result.done["expected_strikes"] - 1) for entry in sensed]
    assert max(apart) > 0.1, "somebody is not whom they were entered as"
