"""What the club knows of a person reaches the cautions: screening, bout, the last days' log, heat, injuries."""

import uuid
from datetime import timedelta

import pytest
from django.utils import timezone

from tests.server.conftest import document, fault, run_of

HARD = ("10:00 flow", "2 x (8 x (30 all out / 30 recover)) rest 2:00")


def cautions(coach, person, *lines, **more):
    body = {"document": document(*(lines or HARD)), "target": "lactic-capacity", "person_id": person and person.pk}
    answer = coach.post("evaluate", {**body, **more})
    assert answer.status_code == 200, answer.content
    return {caution["rule"]: caution for caution in answer.json()["reading"]["cautions"]}


def screened(coach, **more):
    return coach.person(screened_on=timezone.localdate(), screening_active=True, **more)


def logged(coach, person, days_ago, done_s=1000, line=HARD[1]):
    saved = coach.session(line, person_id=person.pk)
    began = timezone.now() - timedelta(days=days_ago)
    entry = {"run": run_of(saved), "person_id": person.pk, "started_at": began.isoformat(), "done_s": done_s,
             "done_efforts": 1, "rpe": 9}  # fmt: skip
    assert coach.put(f"runs/{uuid.uuid4()}/log", entry).status_code == 200


def test_a_bout_in_six_days_closes_the_lactic_work(coach):
    person = screened(coach, fight_on=timezone.localdate() + timedelta(days=6))
    assert cautions(coach, person)["bout-cut-off"]["severity"] == "stop"
    assert cautions(coach, person, "20:00 flow")["bout-cut-off"]["severity"] == "note", "told, and nothing is closed"


def test_a_missing_screening_is_said_for_a_person_but_not_for_nobody(coach):
    assert "screening" in cautions(coach, coach.person())
    assert "screening" not in cautions(coach, screened(coach))
    assert "screening" not in cautions(coach, None)


def test_a_clearance_holds_for_a_year(coach):
    disease = {"screening_disease": True}
    today = timezone.localdate()
    assert "screening" in cautions(coach, screened(coach, **disease))
    assert "screening" not in cautions(coach, screened(coach, cleared_on=today - timedelta(days=300), **disease))
    assert "screening" in cautions(coach, screened(coach, cleared_on=today - timedelta(days=400), **disease))


def test_a_lactic_session_yesterday_is_remembered_from_the_log(coach):
    person = screened(coach)
    assert "lactic-gap" not in cautions(coach, person)
    logged(coach, person, days_ago=1)
    assert "lactic-gap" in cautions(coach, person)


def test_one_that_was_broken_off_at_once_is_not_a_lactic_day(coach):
    person = screened(coach)
    logged(coach, person, days_ago=1, done_s=60)
    assert "lactic-gap" not in cautions(coach, person)


def test_somebody_elses_log_says_nothing_of_this_person(coach):
    logged(coach, coach.person("Other"), days_ago=1)
    assert "lactic-gap" not in cautions(coach, screened(coach))


def test_the_strikes_of_seven_days_add_up(coach):
    person = screened(coach, level="beginner")
    for days in (1, 2, 3):
        logged(coach, person, days, 1200, "8 x (2:00 flow) rest 0:30")
    assert "seven days" in cautions(coach, person, "6:00 flow")["strike-ceiling"]["text"]


def test_heat_in_the_hall_is_part_of_the_question(coach):
    found = cautions(coach, None, wbgt_c=28.2)
    assert found["heat"]["severity"] == "stop"
    wrong = coach.post("evaluate", {"document": document(*HARD), "target": "lactic-capacity", "wbgt_c": 400})
    assert fault(wrong)["loc"][-1] == "wbgt_c"


def test_a_concussion_that_is_not_cleared_stops_everything(coach):
    person = screened(coach)
    person.knocks.create(on=timezone.localdate())
    found = cautions(coach, person, "20:00 flow")
    assert found["concussion"]["severity"] == "stop"


@pytest.mark.parametrize("severity", ["note", "caution", "stop"])
def test_cautions_come_with_a_level_a_cure_and_a_source(coach, severity):
    found = cautions(coach, coach.person(fight_on=timezone.localdate() + timedelta(days=3)), wbgt_c=26)
    assert any(caution["severity"] == severity for caution in found.values())
    assert all(caution["cure"] and caution["source"] for caution in found.values())


def test_a_person_says_where_every_number_came_from(coach):
    coach.person(cooper_m=2450, strike_test=[64, 172, 166, 150, 122, 104, 94, 88], rule_set="mma-amateur")
    (found,) = coach.listed("people")
    assert found["vo2max_ml_kg_min"]["origin"] == "estimated"
    assert "Cooper" in found["vo2max_ml_kg_min"]["source"]
    assert "strike test" in found["anaerobic_scale"]["source"]
    assert found["rule_set"] == "amateur mixed martial arts"
    assert found["screening"] is None


def test_a_reading_says_where_the_fade_starts_and_every_effort(coach):
    body = {"document": document("10:00 flow", "12 x (20 all out / 10 rest)"), "target": "lactic-capacity"}
    reading = coach.post("evaluate", body).json()["reading"]
    assert len(reading["efforts"]) == 12
    assert reading["efforts"][0]["start_s"] == 600
    assert reading["efforts"][0]["fade"]["value"] <= reading["efforts"][-1]["fade"]["value"]
    assert 1 < reading["fade_onset"]["bout"] <= 12
    assert 0 < reading["fade_onset"]["probability"] <= 1


def test_on_medication_no_heart_figure_is_given(coach):
    person = screened(coach, heart_rate_lowering_medication=True)
    body = {"document": document(*HARD), "target": "threshold", "person_id": person.pk}
    reading = coach.post("evaluate", body).json()["reading"]
    assert not [name for name in reading["figures"] if name.startswith(("heart", "hr_"))]
    assert reading["traces"]["heart_rate_bpm"] is None


def test_the_method_is_served_whole(coach):
    found = coach.get("method").json()
    assert {section["id"] for section in found["sections"]} >= {"stores", "parameters", "fit", "purposes", "limits"}
    assert len(found["fit"]) == 79
    assert any(not row["within"] for row in found["fit"])


def test_a_long_log_takes_as_many_questions_as_a_short_one(coach, django_assert_max_num_queries):
    person = screened(coach)
    for days in range(1, 7):
        logged(coach, person, days)
    with django_assert_max_num_queries(8):
        cautions(coach, person)
