"""Scaling and converting at the edge, and the limits of proposals that came with them."""

import json

from tests.server.conftest import document, fault

THIRTIES = ("10:00 flow; then 1:00", "6 x (30 technique, 30 speed, 30 power) rest 1:00")


def asked(**more: object) -> dict:
    return {"document": document(*THIRTIES), "target": "lactic-capacity", **more}


def test_who_cannot_do_it_is_named_and_the_others_get_theirs(coach):
    """One with a limit does not keep a whole class from it."""
    able = [coach.person(name, vo2max_ml_kg_min=vo2max) for name, vo2max in (("Able", 48), ("Strong", 58))]
    limited = coach.person("Limited", vo2max_ml_kg_min=30)
    coach.post(f"people/{limited.pk}/limits", {"kind": "breaks", "set_by": "Dr A. Holm"})
    found = coach.post("scale", asked(to=[limited.pk, *(each.pk for each in able)])).json()
    assert [column["name"] for column in found["columns"]] == ["Able", "Strong"]
    assert len(found["not_for"]) == 1
    assert "Limited" in found["not_for"][0]
    assert "reaks whenever wanted" in found["not_for"][0]


def test_a_group_gets_three_versions_the_weakest_first(coach):
    people = [
        coach.person(name, level=level, birth_year=1994, vo2max_ml_kg_min=vo2max)
        for name, level, vo2max in (
            ("Strong", "fighter", 62), ("Middling", "club", 48), ("Unfit", "beginner", 30), ("Fair", "club", 44),
        )
    ]  # fmt: skip
    found = coach.post("scale", asked(person_id=people[0].pk, to=[person.pk for person in people])).json()["columns"]
    assert [each["role"] for each in found] == ["weakest", "middle", "strongest"]
    assert found[0]["name"] == "Unfit"
    for each in found:
        assert {"name", "before", "after", "kept"} == set(each["effect"][0])
        assert coach.post("evaluate", {**asked(), "document": each["document"]}).status_code == 200


def test_scaling_never_hides_the_cautions_of_the_person_it_is_for(coach):
    older = coach.person("Older", birth_year=1960, screened_on="2026-11-01", heart_rate_lowering_medication=True)
    [found] = coach.post("scale", asked(to=[older.pk])).json()["columns"]
    told = {caution["rule"]: caution["severity"] for caution in found["cautions"]}
    assert told["medication"] == "caution"
    assert "stop" not in told.values()


def test_nothing_is_scaled_for_somebody_whom_a_stop_keeps_from_training(coach):
    unwell = coach.person("Unwell", birth_year=1960, screened_on="2026-11-01", screening_symptoms=True)
    said = fault(coach.post("scale", asked(to=[unwell.pk])))["msg"]
    assert "Unwell" in said
    assert "physician" in said


def test_a_session_is_converted_to_other_rules(coach):
    [found] = coach.post("scale", asked(rule_set="kickboxing-amateur")).json()["columns"]
    assert found["name"] == "amateur kickboxing"
    assert "rest 1:00" in found["text"]
    assert found["document"]["parts"][1]["tree"]["between"]["seconds"] == 60


def test_what_cannot_be_scaled_says_why(coach, stranger):
    flat = {**asked(rule_set="mma-pro"), "document": document("20:00 flow")}
    assert "There are no rounds here" in fault(coach.post("scale", flat))["msg"]
    assert "say whom" in fault(coach.post("scale", asked()))["msg"].lower()
    assert stranger.post("scale", asked(to=[coach.person().pk])).status_code == 404
    assert fault(coach.post("scale", asked(rule_set="pillow-fight")))["loc"][-1] == "rule_set"


def test_proposals_leave_out_what_is_missing_and_what_is_to_be_avoided(coach):
    body = {"target": "threshold", "minutes": 40}
    free = coach.post("propose", {**body, "target": "aerobic-base"}).json()["proposals"]
    assert any("skip" in json.dumps(each["document"]) for each in free)
    roped = coach.post("propose", {**body, "target": "aerobic-base", "missing": ["skip"]}).json()["proposals"]
    assert not any("skip" in json.dumps(each["document"]) for each in roped)
    without = coach.post("propose", {**body, "avoid": ["power", "speed"]}).json()["proposals"]
    assert without
    for each in without:
        assert not {"power", "speed"} & set(each["text"].replace(",", " ").replace(")", " ").split())


def test_rounds_of_the_rules_that_are_asked_for_are_rehearsed(coach):
    body = {"target": "fight-rehearsal", "minutes": 45, "rule_set": "mma-pro", "level": "fighter"}
    best = coach.post("propose", body).json()["proposals"][0]
    assert best["name"] == "The bout's rounds"
    assert best["text"].endswith("rest 1:00")
    main = next(part for part in best["document"]["parts"] if part["purpose"] == "fight-rehearsal")
    items = main["tree"]["body"]["items"]
    assert sum(item["seconds"] for item in items) == 300


def test_the_vocabulary_names_the_rules_and_the_kit(coach):
    found = coach.get("vocabulary").json()
    assert {"id": "mma-pro", "name": "professional mixed martial arts", "text": "3 × 5:00, rest 1:00"} in found["rules"]
    assert {each["id"] for each in found["kit"]} == {"carry", "skip"}
