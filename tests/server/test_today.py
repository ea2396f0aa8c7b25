"""The day of the hall: planned, minded, brought, done, by the clock of the club."""

import uuid
from datetime import datetime, timedelta
from unittest.mock import patch
from zoneinfo import ZoneInfo

import pytest
from django.utils import timezone

from server.accounts.models import Club, Role, User
from tests.server.conftest import fault, run_of

HARD = ("10:00 flow shadow", "8 x (20 all out bag in 16 oz gloves / 10 rest)")


def day(ahead=0):
    return str(timezone.localdate() + timedelta(days=ahead))


def planned(coach, saved, **more):
    body = {"session_id": saved["id"], "on": day(), "at": "18:20", "people": [], **more}
    return coach.post("planned", body)


def today(coach, **query):
    asked = "&".join(f"{name}={value}" for name, value in query.items())
    return coach.get(f"today?{asked}").json()


def screened(coach, name="Runa Velde", **more):
    return coach.person(name, screened_on=timezone.localdate(), screening_active=True, **more)


def group_of(coach, *people):
    group = coach.post("groups", {"name": "Squad"}).json()
    for person in people:
        person.groups.add(group["id"])
    return group["id"]


def test_a_day_holds_its_sessions_in_order_with_everybody_who_comes(coach):
    runa, ife = screened(coach), screened(coach, "Ife Marlowe")
    saved = coach.session(*HARD)
    planned(coach, saved, at="20:00", people=[runa.pk])
    planned(coach, saved, at="07:30", group_id=group_of(coach, runa, ife), people=[runa.pk])
    planned(coach, saved, on=day(1))
    found = today(coach)
    assert [row["at"][:5] for row in found["planned"]] == ["07:30", "20:00"]
    assert [who["name"] for who in found["planned"][0]["people"]] == ["Ife Marlowe", "Runa Velde"], "nobody twice"
    assert [len(row["blocks"]) > 0 for row in found["planned"]] == [True, True]
    assert len(found["tomorrow"]) == 1
    assert [len(today(coach, on=day(1))["planned"]), len(today(coach, on=day(2))["planned"])] == [1, 0]


def test_whoever_is_archived_does_not_come(coach):
    runa = screened(coach)
    saved = coach.session(*HARD)
    planned(coach, saved, group_id=group_of(coach, runa))
    coach.put(f"people/{runa.pk}/archived?archived=true", {})
    assert today(coach)["planned"][0]["people"] == []


def test_a_session_repeats_every_week_to_its_last_day_and_is_taken_off_with_what_follows(coach):
    saved = coach.session(*HARD)
    rows = planned(coach, saved, until=day(22)).json()
    assert [row["on"] for row in rows] == [day(0), day(7), day(14), day(21)]
    back = coach.client.delete(f"/api/planned/{rows[1]['id']}?following=true").json()
    assert [len(today(coach, on=day(n))["planned"]) for n in (0, 7, 14, 21)] == [1, 0, 0, 0]
    assert coach.post("planned", back).status_code == 201, "undone: planned again as it was"
    assert [len(today(coach, on=day(n))["planned"]) for n in (0, 7, 14, 21)] == [1, 1, 1, 1]


def test_one_of_a_series_is_taken_off_alone(coach):
    rows = planned(coach, coach.session(*HARD), until=day(14)).json()
    coach.client.delete(f"/api/planned/{rows[1]['id']}")
    assert [len(today(coach, on=day(n))["planned"]) for n in (0, 7, 14)] == [1, 0, 1]


@pytest.mark.parametrize(
    ("wrong", "field", "said"),
    [
        ({"until": "2020-01-01"}, "until", "after the first"),
        ({"until": "2199-01-01"}, "until", "A year ahead"),
        ({"on": "2020-01-01"}, "on", "Log what was done"),
        ({"people": [987654]}, "people", "not there any more"),
    ],
)
def test_what_cannot_be_planned_is_refused_at_its_field(coach, wrong, field, said):
    refused = fault(planned(coach, coach.session(*HARD), **wrong))
    assert field in refused["loc"]
    assert said in refused["msg"]
    assert today(coach)["planned"] == []


def mind(coach, **query):
    asked = "&".join(f"{name}={value}" for name, value in query.items())
    return [(each["name"], each["seal"], each["severity"]) for each in coach.get(f"today/mind?{asked}").json()]


def test_what_to_mind_is_of_the_people_who_come_the_stops_first(coach):
    near = screened(coach, "Ife Marlowe", fight_on=timezone.localdate() + timedelta(days=5))
    unasked = coach.person("Nell Ostrow")
    knocked = screened(coach, "Bram Oster")
    coach.put(f"people/{knocked.pk}/knocks/on/{day()}", {})
    limited = screened(coach, "Anton Reel")
    coach.post(f"people/{limited.pk}/limits", {"kind": "no-power", "set_by": "Dr A. Holm"})
    screened(coach, "Not coming").knocks.create(on=timezone.localdate())
    planned(coach, coach.session(*HARD), people=[near.pk, unasked.pk, knocked.pk, limited.pk])
    found = mind(coach)
    assert ("Bram Oster", "Head", "stop") in found
    assert ("Anton Reel", "Limit", "stop") in found
    assert ("Ife Marlowe", "Bout", "stop") in found or ("Ife Marlowe", "Bout", "note") in found
    assert ("Nell Ostrow", "Screen", "note") in found
    assert "Not coming" not in {name for name, _, _ in found}
    order = [severity for _, _, severity in found]
    assert order == sorted(order, key=["stop", "caution", "note"].index)


def test_the_heat_is_minded_once_for_everybody(coach):
    planned(coach, coach.session(*HARD), people=[screened(coach).pk, screened(coach, "Ife").pk])
    assert mind(coach, wbgt_c=28.5) == [("Everybody", "Heat", "stop")]


def test_an_assistant_hears_of_stops_and_not_why_the_screening_says_so(coach):
    unwell = screened(coach, "Unwell", screening_symptoms=True)
    planned(coach, coach.session(*HARD), people=[unwell.pk, coach.person("Unasked").pk])
    assert len(mind(coach)) == 2
    User.objects.filter(pk=coach.user.pk).update(role=Role.ASSISTANT)
    (told,) = coach.get("today/mind").json()
    assert (told["name"], told["text"]) == ("Unwell", "Not today, by the screening.")


def test_what_to_bring_is_counted_where_everybody_has_their_own(coach):
    people = [screened(coach, f"Somebody {n}").pk for n in range(3)]
    planned(coach, coach.session("2:00 skip", "3:00 technique pads in 16 oz gloves"), people=people)
    assert {each["word"]: each["count"] for each in today(coach)["bring"]} == {
        "16 oz gloves": 3, "pads": None, "rope": None,
    }  # fmt: skip


def log(coach, saved, person, rpe, at):
    entry = {"run": run_of(saved), "person_id": person.pk, "started_at": at.isoformat(), "done_s": 600,
             "done_efforts": 1, "rpe": rpe}  # fmt: skip
    assert coach.put(f"runs/{uuid.uuid4()}/log", entry).status_code == 200


def test_what_is_logged_stands_beside_what_was_planned_and_in_the_load_of_the_week(coach):
    runa, ife = screened(coach), screened(coach, "Ife Marlowe")
    saved = coach.session(*HARD)
    planned(coach, saved, people=[runa.pk, ife.pk])
    assert today(coach)["planned"][0]["done"] is None
    now = timezone.now()
    log(coach, saved, runa, 6, now)
    log(coach, saved, ife, 9, now)
    found = today(coach)
    assert (found["planned"][0]["done"]["people"], found["planned"][0]["done"]["rpe"]) == (2, 7.5)
    loads = {each["on"]: each for each in found["week"]}
    assert len(loads) == 7
    assert loads[day()]["done"] == (6 + 9) * 10
    assert loads[day()]["planned"] > 0
    assert sum(each["done"] for each in found["week"]) == 150


def test_the_week_begins_on_the_clubs_day(coach):
    coach.put("club", {"first_weekday": 6})
    first = datetime.fromisoformat(today(coach)["week"][0]["on"])
    assert first.weekday() == 6


def test_the_day_is_the_clubs_and_not_the_servers(coach):
    coach.put("club", {"time_zone": "Pacific/Auckland"})
    late = datetime(2026, 11, 29, 23, 30, tzinfo=ZoneInfo("UTC"))
    with patch("django.utils.timezone.now", return_value=late):
        assert today(coach)["on"] == "2026-11-30"
    assert "Europe/Oslo" in fault(coach.put("club", {"time_zone": "Harbour/Time"}))["msg"]


def test_nothing_of_another_clubs_day_is_told_or_taken_off(coach, stranger):
    (row,) = planned(coach, coach.session(*HARD)).json()
    assert today(stranger)["planned"] == []
    assert stranger.client.delete(f"/api/planned/{row['id']}").status_code == 404
    assert planned(stranger, coach.session(*HARD)).status_code == 404


def test_a_clearance_that_is_about_to_end_is_among_what_is_minded(coach):
    day_of = timezone.localdate()
    ends = {"screening_disease": True, "cleared_on": day_of - timedelta(days=365 - 18), "cleared_by": "Dr A. Holm"}
    mats = screened(coach, "Mats Kroon", **ends)
    planned(coach, coach.session("20:00 flow shadow"), people=[mats.pk])
    told = next(each for each in coach.get("today/mind").json() if each["seal"] == "Ends")
    assert (told["name"], told["severity"]) == ("Mats Kroon", "note")
    assert told["text"].startswith("The physician's clearance ends in ")
    assert coach.get(f"people/{mats.pk}").json()["screening"]["clearance_ends_soon"]


def test_a_full_day_takes_as_many_questions_as_a_quiet_one(coach, django_assert_max_num_queries):
    people = [screened(coach, f"Somebody {n}").pk for n in range(12)]
    for hour in range(7, 13):
        planned(coach, coach.session("10:00 flow"), at=f"{hour:02}:00", people=people)
    with django_assert_max_num_queries(8):
        assert len(today(coach)["planned"]) == 6
    with django_assert_max_num_queries(14):
        mind(coach)


def test_a_planned_session_that_is_deleted_is_off_the_plan(coach):
    saved = coach.session(*HARD)
    planned(coach, saved)
    coach.client.delete(f"/api/sessions/{saved['id']}")
    assert today(coach)["planned"] == []
    assert Club.objects.count() == 1


def noon(ahead=0):
    """The club's clock stands at noon."""
    at = datetime.combine(timezone.localdate() + timedelta(days=ahead), datetime.min.time(), ZoneInfo("UTC"))
    return patch("django.utils.timezone.now", return_value=at + timedelta(hours=12))


def waits(coach):
    return [(row["person"]["name"], row["on"], row["at"][:5]) for row in today(coach)["waiting"]]


def rated(coach, row, person, rpe=7):
    return coach.put(f"planned/{row}/people/{person.pk}/rpe", {"rpe": rpe})


def test_what_is_over_waits_for_a_log_of_everybody_who_was_to_come(coach):
    runa, ife = screened(coach), screened(coach, "Ife Marlowe")
    saved = coach.session(*HARD)
    with noon():
        planned(coach, saved, at="07:30", people=[runa.pk, ife.pk])
        planned(coach, saved, at="11:55", people=[runa.pk])
        planned(coach, saved, on=day(-1), at="20:00", people=[runa.pk])
        planned(coach, saved, on=day(-3), at="20:00", people=[runa.pk])
        assert waits(coach) == [
            ("Runa Velde", day(-1), "20:00"), ("Ife Marlowe", day(), "07:30"), ("Runa Velde", day(), "07:30"),
        ], "not what still runs, nor what is long past"  # fmt: skip
        assert today(coach, on=day(1))["waiting"] == []


def test_one_figure_logs_it_whole_as_planned_and_another_takes_its_place(coach):
    runa = screened(coach)
    saved = coach.session(*HARD)
    with noon():
        row = planned(coach, saved, at="07:30", people=[runa.pk]).json()[0]["id"]
        told = rated(coach, row, runa, 7).json()
        assert rated(coach, row, runa, 8).json()["entry_id"] == told["entry_id"]
        (entry,) = coach.listed("log")
        assert (entry["rpe"], entry["person"], entry["done_s"]) == (8, "Runa Velde", entry["planned_s"])
        assert entry["planned_rpe"] == told["planned_rpe"]
        assert entry["started_at"].startswith(f"{day()}T07:30")
        assert waits(coach) == []
        assert today(coach)["planned"][0]["done"] == {"people": 1, "rpe": 8.0, "expected": entry["planned_rpe"]}
        coach.client.delete(f"/api/planned/{row}/people/{runa.pk}/rpe")
        assert coach.listed("log") == []
        assert len(waits(coach)) == 1, "taken back, it waits again"


def test_a_run_of_that_session_on_that_day_is_its_log(coach):
    runa = screened(coach)
    saved = coach.session(*HARD)
    with noon():
        planned(coach, saved, at="07:30", people=[runa.pk])
        body = {"run": run_of(saved), "person_id": runa.pk, "done_s": 60, "done_efforts": 0, "rpe": 5,
                "started_at": f"{day()}T07:40:00Z"}  # fmt: skip
        assert coach.put(f"runs/{uuid.uuid4()}/log", body).status_code == 200
        assert waits(coach) == []


def test_of_whoever_was_not_there_nothing_waits_until_they_were_after_all(coach):
    runa = screened(coach)
    with noon():
        row = planned(coach, coach.session(*HARD), at="07:30", people=[runa.pk]).json()[0]["id"]
        for away, left in (("true", 0), ("false", 1)):
            assert coach.put(f"planned/{row}/people/{runa.pk}/away?away={away}", {}).status_code == 204
            assert len(waits(coach)) == left


def test_nobody_is_rated_who_was_not_to_come_and_nothing_of_another_club(coach, stranger):
    runa, ife = screened(coach), screened(coach, "Ife Marlowe")
    with noon():
        row = planned(coach, coach.session(*HARD), at="07:30", people=[runa.pk]).json()[0]["id"]
        assert rated(coach, row, ife).status_code == 404
        assert rated(stranger, row, runa).status_code == 404
        assert fault(rated(coach, row, runa, 11))["loc"][-1] == "rpe"
        User.objects.filter(pk=coach.user.pk).update(role=Role.ASSISTANT)
        assert rated(coach, row, runa).status_code == 200, "an assistant logs"
