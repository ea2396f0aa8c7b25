"""What stands beside the verdict: bands, the heart's target, the levels of a part, and claims."""

import pytest

from tests.server.conftest import document, fault


def evaluated(coach, *lines: str, target: str = "threshold", **more: object) -> dict:
    return coach.post("evaluate", {"document": document(*lines), "target": target, **more}).json()


def test_the_heart_rate_has_the_band_of_the_purpose(coach):
    found = evaluated(coach, "20:00 technique")["reading"]
    [band] = found["heart_targets"]
    assert (band["start_s"], band["end_s"]) == (0, 1200)
    assert band["low_bpm"] == pytest.approx(0.8 * found["hr_max_bpm"], abs=0.6)
    assert evaluated(coach, "20:00 technique", target="lactic-power")["reading"]["heart_targets"] == []


def test_the_bands_that_intervals_ask_for_go_before_the_purposes(coach):
    found = evaluated(coach, "5:00 flow, 5:00 technique @60-75%HR")["reading"]
    [band] = found["heart_targets"]
    assert (band["start_s"], band["end_s"]) == (300, 600)
    assert band["high_bpm"] == pytest.approx(0.75 * found["hr_max_bpm"], abs=0.6)


def test_on_heart_rate_lowering_medication_there_is_no_band_of_the_heart(coach):
    person = coach.person(heart_rate_lowering_medication=True)
    found = evaluated(coach, "20:00 technique", person_id=person.pk)["reading"]
    assert found["heart_targets"] == []
    assert found["bands"]["heart_rate_bpm"] is None


def test_every_level_of_a_part_has_its_line_and_its_way(coach):
    [part] = evaluated(coach, "2 x (30 technique [1-2], 3 x 20 power rest 0:10) rest 1:00")["parts"]
    levels = {tuple(level["path"]): level["text"] for level in part["levels"]}
    assert levels["body",] == "30 technique [1-2], 3 × (20 power) rest 0:10"
    assert levels["body", "items", 0] == "30 technique [1-2]"
    assert levels["body", "items", 1, "body"] == "20 power"
    for text in levels.values():
        assert coach.post("read", {"text": text}).status_code == 200


def test_a_claim_of_kcal_is_answered_with_its_probability(coach):
    body = {"document": document("20:00 flow"), "person_id": coach.person().pk}
    much = coach.post("claim", {**body, "kcal": 500}).json()
    assert much["probability"] < 0.2
    assert "unlikely" in much["answer"]
    assert coach.post("claim", {**body, "kcal": 60}).json()["probability"] > 0.9


def test_tabata_and_a_purpose_are_claims_too(coach):
    body = {"document": document("8 x (20 power / 10 rest)")}
    assert coach.post("claim", {**body, "tabata": True}).json()["answer"] == "not true"
    assert coach.post("claim", {**body, "trains": "aerobic-base"}).json()["answer"] == "not true"


def test_a_claim_that_says_nothing_is_asked_what_it_claims(coach, stranger):
    body = {"document": document("8 x (20 power / 10 rest)")}
    assert "say what is claimed" in fault(coach.post("claim", body))["msg"]
    assert fault(coach.post("claim", {**body, "kcal": 0}))["loc"][-1] == "kcal"
    assert "no work" in fault(coach.post("claim", {**body, "document": document("1:00 rest"), "tabata": True}))["msg"]
    assert stranger.post("claim", {**body, "tabata": True, "person_id": coach.person().pk}).status_code == 404


def test_the_cure_of_a_caution_is_among_the_nudges(coach):
    body = {"document": document("6 x (30 power) rest 1:00"), "target": "lactic-power"}
    rules = {caution["rule"] for caution in evaluated(coach, "6 x (30 power) rest 1:00")["reading"]["cautions"]}
    assert "warm-up" in rules
    assert "warm-up" in coach.post("nudges", body).json()[0]["cures"]
