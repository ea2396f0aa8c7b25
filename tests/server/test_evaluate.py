import pytest

from tests.server.conftest import TWENTY_TENS, document, fault


def evaluate(coach, *lines, target="lactic-capacity", **more):
    answer = coach.post("evaluate", {"document": document(*lines), "target": target, **more})
    assert answer.status_code == 200, answer.content
    return answer.json()


def test_a_line_is_read_into_a_tree_with_its_canonical_form(coach):
    answer = coach.post("read", {"text": "8x20/10 all out"}).json()
    assert answer["text"] == "8 × (20 all out) rest 0:10"
    (part,) = answer["parts"]
    assert part["tree"]["between"] == {"type": "interval", "seconds": 10, "tempo": "rest"}
    assert answer["named"] is False
    assert "8 times" in answer["meaning"][0]
    assert "In all 3:50" in answer["meaning"][0]


def test_several_named_lines_are_several_parts_each_with_its_meaning(coach):
    lines = "Warm-up: 10:00 skip\nMain set (lactic capacity): 8 x (30 power / 30 flow) on the bag"
    answer = coach.post("read", {"text": lines}).json()
    assert [(part["name"], part["purpose"]) for part in answer["parts"]] == [
        ("Warm-up", "warm-up"), ("Main set", "lactic-capacity"),
    ]  # fmt: skip
    assert len(answer["meaning"]) == 2
    assert coach.post("read", {"text": answer["text"]}).json()["parts"] == answer["parts"]


def test_every_word_is_told_apart_and_what_could_come_next_is_offered(coach):
    kinds = {
        span["kind"] for span in coach.post("read", {"text": "3 x (2:00 power bag [1-2]) rest 1:00"}).json()["spans"]
    }
    assert {"dose", "effort", "modality", "strikes", "pause"} <= kinds
    offered = coach.post("complete", {"text": "3:00 pow"}).json()
    assert offered == {"start": 5, "options": [{"text": "power", "meaning": "as hard as possible, fewer"}]}


def test_the_clubs_school_says_which_punches_seven_and_eight_are(coach):
    read = {"text": "1:00 power [7-8]"}
    overhand = coach.post("read", read).json()["parts"][0]["tree"]["drill"]["combinations"][0][0][0]
    assert coach.put("club", {"school": "body-hooks"}).json()["school"] == "body-hooks"
    hook = coach.post("read", read).json()["parts"][0]["tree"]["drill"]["combinations"][0][0][0]
    assert (overhand["technique"], hook["technique"], hook["height"]) == ("overhand", "hook", "body")
    assert fault(coach.put("club", {"school": "none"}))["loc"][-1] == "school"


def test_a_wrong_line_says_at_which_character_and_suggests(coach):
    wrong = fault(coach.post("read", {"text": "8 x (20 sped)"}))
    assert wrong["loc"] == ["body", "text"]
    assert (wrong["ctx"]["character"], wrong["ctx"]["suggestion"]) == (9, "speed")
    assert wrong["ctx"]["example"]


def test_an_evaluation_draws_simulates_and_judges(coach):
    found = evaluate(coach, TWENTY_TENS)
    assert (found["total_s"], found["work_s"], found["rest_s"]) == (240, 160, 80)
    reading = found["reading"]
    strikes = found["volume"]["strikes"]
    assert strikes == pytest.approx(reading["figures"]["strikes"]["value"])
    assert 300 < strikes < 0.9 * 8 * 20 * 288 / 60, "it fades"
    assert len(reading["traces"]["seconds"]) == len(reading["traces"]["lactic_left"])
    assert reading["verdict"]["target"] == "lactic-capacity"
    assert reading["figures"]["lactate_peak_mmol"]["low"] < reading["figures"]["lactate_peak_mmol"]["high"]


def test_parts_are_summed_and_written_in_their_canonical_form(coach):
    first, second = evaluate(coach, "5:00 flow; then 1:00", "2x(30 power)r0:30")["parts"]
    assert (first["start_s"], first["total_s"], first["rest_s"]) == (0, 360, 60)
    assert (second["start_s"], second["text"]) == (360, "2 × (30 power) rest 0:30")


def test_a_session_without_work_is_drawn_but_not_judged(coach):
    assert evaluate(coach)["reading"] is None
    found = evaluate(coach, "5:00 rest")
    assert found["total_s"] == 300
    assert found["reading"] is None


def test_the_verdict_is_for_this_person(coach):
    fit = coach.person("Fit", vo2max_ml_kg_min=68)
    unfit = coach.person("Unfit", vo2max_ml_kg_min=28)
    scores = {who.name: evaluate(coach, "10:00 flow", "6 x (3:00 combination) rest 1:00", person_id=who.pk,
                                 target="aerobic-power")["reading"]["figures"]["kcal"]["value"]
              for who in (fit, unfit)}  # fmt: skip
    assert scores["Fit"] > scores["Unfit"]


def test_on_heart_rate_medication_no_heart_rate_is_shown(coach):
    who = coach.person("Hedda Quill", birth_year=1968, heart_rate_lowering_medication=True)
    reading = evaluate(coach, "20:00 flow", target="aerobic-base", person_id=who.pk)["reading"]
    assert reading["traces"]["heart_rate_bpm"] is None
    assert "heart_rate_peak_bpm" not in reading["figures"]
    assert [caution["seal"] for caution in reading["cautions"]] == ["RPE"]


def test_a_long_session_is_thinned_for_the_wire_and_keeps_its_end(coach):
    seconds = evaluate(coach, "90:00 flow", target="aerobic-base")["reading"]["traces"]["seconds"]
    assert len(seconds) <= 482
    assert seconds[-1] == 5400


def test_people_show_where_each_number_came_from(coach):
    coach.person(vo2max_ml_kg_min=50)
    (who,) = coach.listed("people")
    assert who["vo2max_ml_kg_min"]["origin"] == "measured"
    assert who["hr_max_bpm"]["origin"] == "estimated"
    assert "Gulati" in who["hr_max_bpm"]["source"]


@pytest.mark.parametrize("target", ["sprint-power", "lactic-capacity", "aerobic-power", "aerobic-base"])
def test_a_proposal_can_be_saved_and_run_as_it_comes(coach, target):
    found = coach.post("propose", {"target": target, "minutes": 30}).json()["proposals"]
    assert 3 <= len(found) <= 5
    for proposal in found:
        saved = coach.post("sessions", {"document": proposal["document"], "target": target}).json()
        plan = coach.get(f"sessions/{saved['id']}/run").json()
        assert 0 < plan["total_s"] == proposal["total_s"] <= 1800
        assert sum(block["seconds"] for block in proposal["blocks"]) == proposal["total_s"]
        assert proposal["why"]
        assert proposal["source"]


def test_proposals_keep_the_limits_and_say_when_there_is_none(coach):
    body = {"target": "aerobic-power", "minutes": 30, "most_strikes": 1200, "modality": "pads", "kicks": False}
    found = coach.post("propose", body).json()["proposals"]
    assert all(proposal["figures"]["strikes"]["value"] <= 1210 for proposal in found)
    assert all("pads" in proposal["text"] or "shadow" in proposal["text"] for proposal in found)
    assert fault(coach.post("propose", {**body, "modality": "skip"}))["loc"][-1] == "modality"
    assert "give more minutes" in fault(coach.post("propose", {**body, "most_strikes": 3}))["msg"]


def test_a_proposal_for_no_time_is_refused_with_its_field(coach):
    assert fault(coach.post("propose", {"target": "aerobic-base", "minutes": 2}))["loc"][-1] == "minutes"
    wrong = fault(coach.post("propose", {"target": "sprint-power", "minutes": 4}))
    assert "Give more minutes" in wrong["msg"]


def test_the_vocabulary_is_the_cores(coach):
    found = coach.get("vocabulary").json()
    assert {tempo["id"] for tempo in found["tempos"]} >= {"flow", "technique", "speed", "power", "all-out", "rest"}
    for example in found["examples"]:
        assert coach.post("read", {"text": example}).status_code == 200


def test_strikes_are_told_by_limb_and_height_for_every_interval_part_and_session(coach):
    southpaw = coach.person("Lefty", stance="southpaw")
    found = evaluate(coach, "4 x (100 reps technique bag [1-2b]) rest 0:30", person_id=southpaw.pk)
    assert found["volume"]["limbs"] == {"right hand": 400, "left hand": 400}, "the jab of a southpaw is the right hand"
    assert found["volume"]["heights"] == {"head": 400, "body": 400}
    assert found["volume"]["counted"] == 800, "rep rounds are exact"
    assert found["parts"][0]["volume"] == found["volume"]
    first = found["timeline"][0]
    assert (first["limbs"], first["reps"], first["modality"]) == ({"right hand": 100, "left hand": 100}, 100, "bag")
    assert first["calls"] == ["jab", "cross to the body"]


NEARLY = ("10:00 flow; then 1:00", "10 x (20 all out) rest 0:30")


def test_nudges_come_with_their_effect_and_a_document_that_can_be_laid_at_once(coach):
    body = {"document": document(*NEARLY), "target": "sprint-power"}
    found = coach.post("nudges", body).json()
    assert "all out" in found[0]["name"]
    assert found[0]["changes"][0]["before"] != found[0]["changes"][0]["after"]
    assert coach.post("evaluate", {**body, "document": found[0]["document"]}).status_code == 200
    series = coach.post("make-it-so", body).json()
    assert series["reached"]
    assert series["steps"]
    judged = coach.post("evaluate", {**body, "document": series["document"]}).json()["reading"]["verdict"]
    assert judged["strokes"] == series["strokes"] >= 4


def test_a_nudge_for_somebody_elses_person_is_refused(coach, stranger):
    body = {"document": document(*NEARLY), "target": "sprint-power", "person_id": coach.person().pk}
    assert coach.post("nudges", body).status_code == 200
    assert stranger.post("nudges", body).status_code == 404
    assert stranger.post("make-it-so", body).status_code == 404
