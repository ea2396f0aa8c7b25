"""People are entered in a moment, changed, put away and brought back; groups hold them."""

from datetime import timedelta

import pytest
from django.utils import timezone

from server.roster.models import Person
from tests.server.conftest import document, fault

FOUR = {"name": "Nell Ostrow", "birth_year": 1990, "mass_kg": 66.5, "level": "beginner"}


def added(coach, **more):
    answer = coach.post("people", {**FOUR, **more})
    assert answer.status_code == 201, answer.content
    return answer.json()


def page(coach, person):
    return coach.get(f"people/{person['id']}").json()


def test_name_year_mass_and_level_are_enough_for_a_first_evaluated_session(coach):
    person = added(coach)
    assert person["vo2max_ml_kg_min"]["origin"] == "default"
    assert "sex not said" in person["vo2max_ml_kg_min"]["source"]
    body = {"document": document("20:00 flow"), "target": "aerobic-base", "person_id": person["id"]}
    assert coach.post("evaluate", body).json()["reading"]["figures"]["kcal"]["value"] > 0


def test_where_sex_is_not_said_the_default_lies_between(coach):
    low, high = (added(coach, sex=sex)["vo2max_ml_kg_min"]["value"] for sex in ("female", "male"))
    assert low < added(coach)["vo2max_ml_kg_min"]["value"] < high


@pytest.mark.parametrize(
    ("wrong", "field", "said"),
    [
        ({"name": "   "}, "name", "character"),
        ({"birth_year": 2024}, "birth_year", "ages from 8 to 95"),
        ({"birth_year": 1905}, "birth_year", "ages from 8 to 95"),
        ({"mass_kg": 12}, "mass_kg", "25"),
        ({"level": "champion"}, "level", "beginner"),
        ({"vo2max_ml_kg_min": 120}, "vo2max_ml_kg_min", "95"),
        ({"rule_set": "street"}, "rule_set", "boxing"),
        ({"groups": [987654]}, "groups", "not there any more"),
    ],
)
def test_what_cannot_be_is_refused_at_its_field_and_nobody_is_added(coach, wrong, field, said):
    refused = fault(coach.post("people", {**FOUR, **wrong}))
    assert field in refused["loc"]
    assert said in refused["msg"]
    assert coach.listed("people") == []


def test_somebody_added_twice_by_a_lost_answer_is_there_once(coach):
    for _ in range(2):
        answer = coach.client.post(
            "/api/people", FOUR, content_type="application/json", headers={"Idempotency-Key": "one and the same"}
        )
        assert answer.status_code == 201
    assert len(coach.listed("people")) == 1


def test_a_change_is_kept_whole(coach):
    person = added(coach)
    change = {**FOUR, "name": "Nell Ostrow-Lund", "stance": "southpaw", "rule_set": "boxing-amateur", "mass_kg": 64}
    assert coach.put(f"people/{person['id']}", change).status_code == 200
    (found,) = coach.listed("people")
    assert (found["name"], found["stance"], found["rule_set_id"], found["mass_kg"]) == (
        "Nell Ostrow-Lund", "southpaw", "boxing-amateur", 64,
    )  # fmt: skip


def test_who_is_archived_is_out_of_the_list_and_comes_back_whole(coach):
    person = added(coach)
    path = f"people/{person['id']}/archived"
    assert coach.put(f"{path}?archived=true", {}).json()["archived"]
    assert coach.listed("people") == []
    assert [each["id"] for each in coach.get("people?archived=true").json()["items"]] == [person["id"]]
    assert coach.put(f"{path}?archived=false", {}).status_code == 200
    assert coach.listed("people") == [person]


def test_somebody_may_be_in_several_groups_and_a_group_may_go(coach):
    squad, class_ = (coach.post("groups", {"name": name}).json() for name in ("Capstan squad", "Slack water"))
    person = added(coach, groups=[squad["id"], class_["id"]])
    assert sorted(person["groups"]) == sorted([squad["id"], class_["id"]])
    assert [(each["name"], each["people"]) for each in coach.listed("groups")] == [
        ("Capstan squad", 1), ("Slack water", 1),
    ]  # fmt: skip
    assert "already" in fault(coach.post("groups", {"name": "capstan SQUAD"}))["msg"]
    assert coach.put(f"groups/{class_['id']}", {"name": "Low water"}).json()["people"] == 1
    assert coach.client.delete(f"/api/groups/{squad['id']}").status_code == 204
    assert coach.listed("people")[0]["groups"] == [class_["id"]]


def test_an_archived_person_does_not_count_in_a_group(coach):
    squad = coach.post("groups", {"name": "Capstan squad"}).json()
    person = added(coach, groups=[squad["id"]])
    coach.put(f"people/{person['id']}/archived?archived=true", {})
    assert coach.listed("groups")[0]["people"] == 0


@pytest.mark.parametrize(
    ("method", "path"),
    [
        ("get", "people/{id}"), ("put", "people/{id}"), ("put", "people/{id}/archived?archived=true"),
        ("post", "people/{id}/limits"), ("put", "people/{id}/knocks/on/2026-01-01"), ("put", "people/{id}/screening"),
        ("put", "people/{id}/clearance"), ("post", "people/{id}/tests"),
    ],
)  # fmt: skip
def test_nobody_of_another_club_is_read_or_changed(coach, stranger, method, path):
    person, today = added(coach), str(timezone.localdate())
    bodies = {
        "limits": {"kind": "no-kicks", "set_by": "X"}, "clearance": {"on": today, "by": "X"},
        "screening": {"on": today, "regularly_active": True, "known_disease": False, "symptoms": False},
        "tests": {"kind": "hr-rest", "on": today, "value": 60},
    }  # fmt: skip
    body = bodies.get(path.split("/")[-1], FOUR)
    answer = getattr(stranger.client, method)(
        f"/api/{path.format(**person)}",
        **({} if method == "get" else {"data": body, "content_type": "application/json"}),
    )
    assert answer.status_code == 404
    assert page(coach, person)["person"] == person


def test_a_group_of_another_club_cannot_be_joined_renamed_or_deleted(coach, stranger):
    theirs = stranger.post("groups", {"name": "Theirs"}).json()
    assert "not there" in fault(coach.post("people", {**FOUR, "groups": [theirs["id"]]}))["msg"]
    assert coach.put(f"groups/{theirs['id']}", {"name": "Ours"}).status_code == 404
    assert coach.client.delete(f"/api/groups/{theirs['id']}").status_code == 404


def test_five_hundred_people_take_as_many_questions_as_one(coach, django_assert_max_num_queries):
    squad = coach.post("groups", {"name": "Squad"}).json()
    people = Person.objects.bulk_create(
        Person(club=coach.club, name=f"Somebody {n}", birth_year=1990, mass_kg=70, level="club") for n in range(60)
    )
    for person in people[:20]:
        person.groups.add(squad["id"])
        coach.post(f"people/{person.pk}/limits", {"kind": "no-kicks", "set_by": "Odd Lind"})
    with django_assert_max_num_queries(8):
        assert len(coach.listed("people")) == 60


def test_the_page_tells_what_somebody_has_with_ranges_and_where_it_came_from(coach):
    person = added(coach)
    found = page(coach, person)
    assert [each["id"] for each in found["capacities"]] == [
        "top-rate", "sprint-store", "lactic-store", "vo2max", "hr-rest", "hr-max",
    ]  # fmt: skip
    assert all(each["low"] < each["value"] < each["high"] and each["source"] for each in found["capacities"])


def test_where_the_heart_says_nothing_the_page_tells_nothing_of_it(coach):
    found = page(coach, added(coach, heart_rate_lowering_medication=True))
    assert not [each for each in found["capacities"] if each["store"] == "heart"]


def test_the_squad_beside_somebody_is_their_groups_and_not_themselves(coach):
    squad = coach.post("groups", {"name": "Squad"}).json()
    person = added(coach, groups=[squad["id"]])
    other = added(coach, name="Other", vo2max_ml_kg_min=61, groups=[squad["id"]])
    added(coach, name="Outside", vo2max_ml_kg_min=30)
    assert page(coach, person)["squad"]["vo2max"] == [61]
    assert page(coach, other)["squad"]["vo2max"] == [round(person["vo2max_ml_kg_min"]["value"], 2)]


def test_the_bout_tells_the_days_to_it_and_the_last_lactic_day(coach):
    fight_on = timezone.localdate() + timedelta(days=12)
    found = page(coach, added(coach, fight_on=str(fight_on)))["fight"]
    assert found == {"on": str(fight_on), "days": 12, "last_lactic_on": str(fight_on - timedelta(days=9))}
    gone = added(coach, fight_on=str(timezone.localdate() - timedelta(days=1)))
    assert page(coach, gone)["fight"] is None
