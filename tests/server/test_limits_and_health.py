"""Limits, knocks to the head, screening and field tests: entered on a page, and obeyed wherever somebody trains."""

import json
import re
from datetime import timedelta

import pytest
from django.utils import timezone

from tests.server.conftest import document, fault

KICKS = ("10:00 flow shadow", "3 x (2:00 technique bag [1-2, rk-l]) rest 1:00")


def day(ago: int) -> str:
    return str(timezone.localdate() - timedelta(days=ago))


def screened(coach, **more):
    return coach.person(screened_on=timezone.localdate(), screening_active=True, **more)


def cautions(coach, person, *lines):
    body = {"document": document(*lines), "target": "skill", "person_id": person.pk}
    return {each["rule"]: each for each in coach.post("evaluate", body).json()["reading"]["cautions"]}


def limit(coach, person, **said):
    return coach.post(f"people/{person.pk}/limits", {"set_by": "Dr Ansa Holm", **said})


def test_a_limit_stops_what_goes_against_it_until_it_is_lifted(coach):
    person = screened(coach)
    assert "limit" not in cautions(coach, person, *KICKS)
    (found,) = limit(coach, person, kind="no-kicks").json()["limits"]
    assert (found["words"], found["set_by"], found["holds"]) == ("no kicks or knees", "Dr Ansa Holm", True)
    assert cautions(coach, person, *KICKS)["limit"]["severity"] == "stop"
    path = f"people/{person.pk}/limits/{found['id']}/lifted"
    (lifted,) = coach.put(f"{path}?lifted=true", {}).json()["limits"]
    assert (lifted["holds"], lifted["lifted_on"]) == (False, day(0)), "it stays on record"
    assert "limit" not in cautions(coach, person, *KICKS)
    coach.put(f"{path}?lifted=false", {})
    assert "limit" in cautions(coach, person, *KICKS)


def test_a_limit_ends_with_its_last_day(coach):
    person = screened(coach)
    limit(coach, person, kind="no-kicks", until=day(0))
    assert "limit" in cautions(coach, person, *KICKS)
    person.limits.update(until=timezone.localdate() - timedelta(days=1))
    assert "limit" not in cautions(coach, person, *KICKS)


def test_a_heart_that_is_not_to_be_trusted_gives_no_figures(coach):
    person = screened(coach)
    limit(coach, person, kind="heart-untrusted")
    body = {"document": document("20:00 flow"), "target": "aerobic-base", "person_id": person.pk}
    assert coach.post("evaluate", body).json()["reading"]["traces"]["heart_rate_bpm"] is None


@pytest.mark.parametrize(
    ("said", "field"),
    [
        ({"kind": "no-limb"}, "limb"),
        ({"kind": "heart-rate", "most": 20}, "most"),
        ({"kind": "most-strikes", "limb": "left leg", "most": 40}, "period"),
        ({"kind": "no-kicks", "until": "2020-01-01"}, "until"),
        ({"kind": "no-fun"}, "kind"),
    ],
)
def test_a_limit_that_says_too_little_is_refused_at_its_field(coach, said, field):
    person = coach.person()
    assert field in fault(limit(coach, person, **said))["loc"]
    assert person.limits.count() == 0


def test_no_proposal_for_somebody_with_a_limit_goes_against_it(coach):
    person = screened(coach)
    limit(coach, person, kind="no-power")
    asked = {"target": "aerobic-power", "minutes": 40, "person_id": person.pk}
    found = coach.post("propose", asked).json()["proposals"]
    assert found
    for proposal in found:
        tempos = re.findall(r'"tempo": "([^"]+)"', json.dumps(proposal["document"]))
        assert tempos
        assert not {"power", "all-out"} & set(tempos), proposal["document"]["title"]


def knock_on(coach, person, day):
    answer = coach.put(f"people/{person.pk}/knocks/on/{day}", {})
    return coach.get(f"people/{person.pk}") if answer.status_code == 200 else answer


def test_a_knock_to_the_head_stops_everything_until_a_physician_clears_it(coach):
    person = screened(coach)
    (knock,) = knock_on(coach, person, day(2)).json()["knocks"]
    assert (knock["on"], knock["noted_by"], knock["cleared_on"]) == (day(2), "Odd Lind", None)
    assert cautions(coach, person, "20:00 flow")["concussion"]["severity"] == "stop"
    path = f"people/{person.pk}/knocks/{knock['id']}/clearance"
    assert "after the knock" in fault(coach.put(path, {"on": day(3), "by": "Dr Ansa Holm"}))["msg"]
    assert "name" not in coach.put(path, {"on": day(0), "by": "  "}).json(), "who cleared it is asked for"
    assert "concussion" in cautions(coach, person, "20:00 flow")
    (cleared,) = coach.put(path, {"on": day(0), "by": "Dr Ansa Holm"}).json()["knocks"]
    assert (cleared["cleared_on"], cleared["cleared_by"]) == (day(0), "Dr Ansa Holm")
    assert "concussion" not in cautions(coach, person, "20:00 flow")


def test_a_second_knock_stops_everything_again(coach):
    person = screened(coach)
    (first,) = knock_on(coach, person, day(30)).json()["knocks"]
    coach.put(f"people/{person.pk}/knocks/{first['id']}/clearance", {"on": day(9), "by": "Dr Ansa Holm"})
    knock_on(coach, person, day(0))
    assert "concussion" in cautions(coach, person, "20:00 flow")


def test_a_knock_that_is_told_twice_is_one(coach):
    person = coach.person()
    for _ in range(2):
        (knock,) = knock_on(coach, person, day(0)).json()["knocks"]
    assert knock["on"] == day(0)


def gate(coach, saved, *people):
    return coach.get(f"sessions/{saved['id']}/gate?" + "&".join(f"person={each.pk}" for each in people)).json()


def test_the_gate_names_who_may_not_do_the_session_and_what_no_coach_goes_past(coach):
    well, limited, knocked = screened(coach), screened(coach), screened(coach, name="Bram Oster")
    limit(coach, limited, kind="no-kicks")
    knock_on(coach, knocked, day(1))
    saved = coach.session(*KICKS)
    assert gate(coach, saved, well) == []
    stopped = gate(coach, saved, well, limited, knocked)
    assert [each["person_id"] for each in stopped] == [limited.pk, knocked.pk]
    told = [[(stop["rule"], stop["final"]) for stop in each["stops"]] for each in stopped]
    assert told == [[("limit", False)], [("concussion", True)]]
    assert gate(coach, coach.session("10:00 flow shadow"), limited) == []


def test_the_gate_knows_nobody_of_another_club(coach, stranger):
    saved = coach.session(*KICKS)
    theirs = stranger.person()
    assert coach.get(f"sessions/{saved['id']}/gate?person={theirs.pk}").status_code == 404
    assert stranger.get(f"sessions/{saved['id']}/gate").status_code == 404


def test_what_happened_was_not_tomorrow(coach):
    person = coach.person()
    assert "still to come" in fault(knock_on(coach, person, day(-1)))["msg"]


@pytest.mark.parametrize(
    ("active", "disease", "symptoms", "outcome"),
    [
        (True, False, False, "clear"), (False, False, False, "gradual"),
        (True, True, False, "clearance before vigorous"), (False, True, False, "clearance"),
        (True, False, True, "stop"), (False, False, True, "clearance"),
    ],
)  # fmt: skip
def test_a_screening_says_what_it_comes_to(coach, active, disease, symptoms, outcome):
    """Riebe et al. 2015, MSSE 47:2473-2479, from memory."""
    person = coach.person()
    body = {"on": day(0), "regularly_active": active, "known_disease": disease, "symptoms": symptoms}
    found = coach.put(f"people/{person.pk}/screening", body).json()["screening"]
    assert found["outcome"] == outcome
    assert found["says"]


def test_a_clearance_holds_for_a_year_or_to_the_day_the_physician_gave(coach):
    person = coach.person()
    path = f"people/{person.pk}/clearance"
    assert "screening first" in fault(coach.put(path, {"on": day(0), "by": "Dr Ansa Holm"}))["msg"]
    coach.put(f"people/{person.pk}/screening",
              {"on": day(60), "regularly_active": False, "known_disease": True, "symptoms": False})  # fmt: skip
    found = coach.put(path, {"on": day(5), "by": "Dr Ansa Holm"}).json()["screening"]
    assert (found["outcome"], found["clearance_days_left"]) == ("clear", 360)
    found = coach.put(path, {"on": day(5), "by": "Dr Ansa Holm", "until": day(-10)}).json()["screening"]
    assert (found["clearance_ends"], found["clearance_days_left"]) == (day(-10), 10)
    found = coach.put(path, {"on": day(5), "by": "Dr Ansa Holm", "until": day(1)}).json()["screening"]
    assert (found["outcome"], found["clearance_days_left"]) == ("clearance", -1), "it is over"


def test_new_symptoms_end_a_clearance(coach):
    person = screened(coach, screening_disease=True, cleared_on=timezone.localdate())
    body = {"on": day(0), "regularly_active": True, "known_disease": True, "symptoms": True}
    found = coach.put(f"people/{person.pk}/screening", body).json()["screening"]
    assert (found["outcome"], found["cleared_on"]) == ("stop", None)


COUNTS = [60, 154, 152, 126, 106, 95, 90, 87]


def enter(coach, person, **said):
    return coach.post(f"people/{person.pk}/tests", {"on": day(0), **said})


def test_a_strike_test_changes_what_the_engine_reads_and_shows_the_hold(coach):
    person = coach.person()
    before = coach.get(f"people/{person.pk}").json()["person"]["speed_scale"]
    found = enter(coach, person, kind="strikes", counts=COUNTS, where="bag 4", counted_by="video").json()
    assert before["origin"] == "default"
    assert found["person"]["speed_scale"]["origin"] == "measured"
    assert found["strikes"] == {"top_per_s": 6.0, "hold_per_s": 2.9, "reserve": sum(n - 87 for n in COUNTS[2:])}
    assert (found["tests"][0]["where"], found["tests"][0]["counted_by"]) == ("bag 4", "video")


def test_the_engine_reads_the_last_test_and_goes_back_when_it_is_taken_out(coach):
    person = coach.person()
    enter(coach, person, kind="hr-rest", value=58, on=day(1))
    enter(coach, person, kind="hr-rest", value=66, on=day(40))
    found = coach.get(f"people/{person.pk}").json()
    assert found["person"]["hr_rest_bpm"]["value"] == 58, "by its day, not by when it was entered"
    last = found["tests"][0]
    back = coach.client.delete(f"/api/people/{person.pk}/tests/{last['id']}").json()
    assert back["person"]["hr_rest_bpm"]["value"] == 66


def test_of_the_highest_heart_rates_the_highest_counts(coach):
    person = coach.person()
    enter(coach, person, kind="hr-max", value=193, on=day(50))
    found = enter(coach, person, kind="hr-max", value=188).json()
    assert found["person"]["hr_max_bpm"]["value"] == 193


def test_a_change_is_real_only_past_what_the_test_repeats_to(coach):
    person = coach.person()
    enter(coach, person, kind="cooper", value=2400, on=day(90))
    within = enter(coach, person, kind="cooper", value=2450, on=day(45)).json()["tests"][0]["change"]
    assert (within["by"], within["real"]) == (50, False)
    real = enter(coach, person, kind="cooper", value=2750).json()["tests"][0]["change"]
    assert (real["by"], real["real"]) == (300, True)
    assert "own setting" in real["source"]


def test_a_clubs_own_repeats_say_what_a_test_repeats_to(coach):
    for number, by in enumerate((2, -2, 4, -4, 6)):
        person = coach.person(f"Somebody {number}")
        enter(coach, person, kind="hr-rest", value=60, on=day(5))
        found = enter(coach, person, kind="hr-rest", value=60 + by)
    assert found.json()["tests"][0]["change"]["source"] == "the club's 5 repeats"


@pytest.mark.parametrize(
    ("said", "field"),
    [
        ({"kind": "strikes"}, "counts"),
        ({"kind": "strikes", "counts": COUNTS[:7]}, "counts"),
        ({"kind": "strikes", "counts": [60, 20, *COUNTS[2:]]}, "counts"),
        ({"kind": "cooper"}, "value"),
        ({"kind": "cooper", "value": 24}, "value"),
        ({"kind": "hr-rest", "value": 160}, "value"),
        ({"kind": "hr-rest", "value": 60, "on": "2999-01-01"}, "on"),
    ],
)
def test_a_result_that_cannot_be_is_refused_at_its_field_and_changes_nothing(coach, said, field):
    person = coach.person()
    assert field in fault(enter(coach, person, **said))["loc"]
    assert person.tests.count() == 0


def test_a_heart_that_rests_as_high_as_it_rises_is_refused_whole(coach):
    person = coach.person()
    enter(coach, person, kind="hr-max", value=120)
    assert "30 bpm" in fault(enter(coach, person, kind="hr-rest", value=105))["msg"]
    assert [test.kind for test in person.tests.all()] == ["hr-max"]
