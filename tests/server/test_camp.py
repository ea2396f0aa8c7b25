"""A camp in the club: solved, pushed about by hand, handed to Today and the Bench, followed by a calendar."""

import json
from datetime import timedelta
from itertools import pairwise
from uuid import uuid4

import pytest
from django.test import Client
from django.utils import timezone
from icalendar import Calendar

from server.camp.models import CampSession
from server.roster.models import Group, Knock, Limit
from server.sessions.models import Session
from server.today.models import Planned
from tests.server.calendar_checker import checked
from tests.server.conftest import Coach, document
from tests.server.test_floor_and_log import log
from tests.server.test_records import archive, bring, content_of, zipped

pytestmark = pytest.mark.django_db
MONDAY = timezone.localdate() + timedelta(days=(7 - timezone.localdate().weekday()) % 7 or 7)
DAYS = [{"weekday": day, "at": "18:30", "minutes": 75} for day in ("mon", "tue", "thu", "sat")]
LINE = "10:00 flow shadow, 4 x (3:00 {tempo}) rest 1:30"


@pytest.fixture
def liked(coach: Coach) -> dict:
    """Sessions of two purposes that are liked, so that nothing has to be proposed."""
    return {
        "threshold": coach.session(LINE.format(tempo="combination"), target="threshold")["id"],
        "skill": coach.session("5:00 flow shadow, 5 x (2:00 technique) rest 1:00", target="skill")["id"],
    }


def asked(liked: dict, weeks: int = 4, **said: object) -> dict:
    return {
        "start": MONDAY.isoformat(), "bout_on": (MONDAY + timedelta(7 * weeks - 2)).isoformat(), "weeks": None,
        "rule_set": "muay-thai-amateur", "days": DAYS, "most_a_week": 3, "weights": {"threshold": 2, "skill": 1},
        "bases": liked, **said,
    }  # fmt: skip


def made(coach: Coach, liked: dict, **said: object) -> dict:
    """A camp without a plan."""
    who = {"person_id": said.pop("person_id", None) or coach.person(level="fighter").pk}
    answer = coach.post("camps", {**who, "asked": asked(liked, **said)})
    assert answer.status_code == 201, answer.content
    return answer.json()


def solved(coach: Coach, camp: dict, **body: object) -> dict:
    answer = coach.post(f"camps/{camp['id']}/solve", body)
    assert answer.status_code == 200, answer.content
    lines = [json.loads(line) for line in b"".join(answer.streaming_content).splitlines() if line]
    assert all(one["progress"] <= two["progress"] for one, two in pairwise(lines))
    assert lines[-1]["error"] is None, lines[-1]
    return lines[-1]["solved"]


def plan(camp: dict, placed: list, **said: object) -> dict:
    return {"asked": camp["asked"], "placed": placed, "revision": camp["revision"], **said}


def saved(coach: Coach, camp: dict, placed: list, **said: object) -> dict:
    answer = coach.put(f"camps/{camp['id']}", plan(camp, placed, **said))
    assert answer.status_code == 200, answer.content
    return answer.json()


def told(camp: dict) -> list:
    """Its plan, as it is sent back."""
    names = ("uid", "on", "order", "purpose", "step", "size", "locked", "skipped")
    return [{name: each[name] for name in names} for each in camp["placed"]]


@pytest.fixture
def camp(coach: Coach, liked: dict) -> dict:
    """A camp of four weeks with the plan that was solved."""
    first = made(coach, liked)
    found = solved(coach, first)
    return saved(coach, first, found["placed"], solved=True, bound_gap=found["bound_gap"])


def rules(camp: dict) -> dict:
    return {each["id"]: each for each in camp["rules"]}


def test_a_camp_begins_empty_and_is_solved_with_its_progress_and_bound(coach, liked):
    first = made(coach, liked)
    assert first["placed"] == []
    assert first["bound_gap"] is None
    found = solved(coach, first)
    assert found["status"] in ("optimal", "feasible")
    assert len(found["placed"]) == 12
    assert coach.get(f"camps/{first['id']}").json()["placed"] == []
    kept = saved(coach, first, found["placed"], solved=True, bound_gap=found["bound_gap"])
    assert kept["bound_gap"] == found["bound_gap"]
    assert not [each for each in kept["rules"] if each["hard"] and each["breaches"]]


def test_what_stands_to_choose_from_is_simulated_once(coach, camp, monkeypatch):
    monkeypatch.setattr("server.camp.asked.choices", lambda *args, **more: pytest.fail("simulated again"))
    assert solved(coach, camp)["status"] != "impossible"


def test_days_land_in_today_at_their_hour_and_open_as_sessions_that_know_their_camp(coach, camp):
    first = camp["placed"][0]
    day = coach.get(f"today?on={first['on']}").json()
    (due,) = [each for each in day["planned"] if each["session_id"] == first["session_id"]]
    assert due["at"] == "18:30:00"
    assert [who["name"] for who in due["people"]] == ["Runa Velde"]
    session = coach.get(f"sessions/{first['session_id']}").json()
    assert first["knob"] in session["document"]["title"]
    where = coach.get(f"sessions/{first['session_id']}/camp").json()
    assert where["camp_id"] == camp["id"]
    assert (where["week"], where["weeks"], where["knob"]) == (1, 4, first["knob"])


def test_the_sessions_of_a_camp_do_not_crowd_the_clubs_own(coach, camp, liked):
    assert {each["id"] for each in coach.listed("sessions")} == set(liked.values())
    assert coach.get(f"sessions/{liked['skill']}/camp").json() is None


def test_a_session_that_is_moved_moves_in_today_and_keeps_its_id_and_session(coach, camp):
    placed = told(camp)
    free = {each["on"] for each in placed}
    days = [(MONDAY + timedelta(by)).isoformat() for by in (0, 1, 3, 5)]
    to = next(day for day in days if day not in free)
    before = camp["placed"][0]
    placed[0]["on"] = to
    after = saved(coach, camp, placed)
    now = next(each for each in after["placed"] if each["uid"] == before["uid"])
    assert now["session_id"] == before["session_id"]
    assert Planned.objects.get(pk=before["planned_id"]).on.isoformat() == to
    assert CampSession.objects.get(uid=before["uid"]).sequence == 1
    assert after["bound_gap"] is None


def test_rules_speak_of_what_is_put_there_by_hand_and_let_it_stand(coach, camp):
    wednesday = (MONDAY + timedelta(2)).isoformat()
    placed = told(camp)
    placed[0]["on"] = wednesday
    after = saved(coach, camp, placed)
    breach = rules(after)["available"]["breaches"][0]
    assert "no day of training" in breach["text"]
    assert breach["days"] == [wednesday]
    assert after["rules"][0]["breaches"]


def test_another_step_makes_another_session_and_what_was_changed_on_the_bench_is_left_alone(coach, camp):
    mine = next(each for each in camp["placed"] if each["purpose"] == "threshold")
    placed = told(camp)
    chosen = next(each for each in placed if each["uid"] == mine["uid"])
    chosen["step"], chosen["size"] = 1, "half"
    after = saved(coach, camp, placed)
    now = next(each for each in after["placed"] if each["uid"] == mine["uid"])
    assert now["load"] < mine["load"]
    session = coach.get(f"sessions/{mine['session_id']}").json()
    assert session["revision"] == 1
    # The title says what is in it, and not what the whole would be.
    assert session["document"]["title"] == "Threshold, 2 × 3:00, rest 1:15"

    body = {"document": document("3 x (2:00 flow) rest 1:00"), "target": "threshold", "revision": 1}
    assert coach.put(f"sessions/{mine['session_id']}", body).status_code == 200
    changed = coach.get(f"camps/{camp['id']}").json()
    own = next(each for each in changed["placed"] if each["uid"] == mine["uid"])
    assert own["edited"]
    assert own["knob"] == "changed on the Bench"
    assert own["load"] != now["load"]
    again = told(changed)
    next(each for each in again if each["uid"] == mine["uid"])["step"] = 0
    saved(coach, changed, again)
    assert coach.get(f"sessions/{mine['session_id']}").json()["document"]["title"] == "Thursday"


def test_a_session_of_the_coachs_own_is_put_in_and_costs_what_it_costs(coach, camp):
    own = coach.session("6 x (3:00 power) rest 1:00", target="threshold")
    new = {"uid": str(uuid4()), "on": (MONDAY + timedelta(8)).isoformat(), "purpose": "threshold",
           "session_id": own["id"]}  # fmt: skip
    after = saved(coach, camp, [*told(camp), new])
    put = next(each for each in after["placed"] if each["uid"] == new["uid"])
    assert put["knob"] == "a session of its own"
    assert put["load"] > 0
    assert put["session_id"] != own["id"]
    bare = {**new, "uid": str(uuid4()), "session_id": None}
    answer = coach.put(f"camps/{camp['id']}", plan(after, [*told(after), bare]))
    assert answer.status_code == 422
    assert answer.json()["detail"][0]["loc"][-1] == "session_id"


def test_what_is_taken_out_goes_off_today_and_comes_back_with_undo(coach, camp):
    gone, *rest = told(camp)
    out = saved(coach, camp, rest)
    assert not Planned.objects.filter(pk=camp["placed"][0]["planned_id"]).exists()
    assert not Session.objects.filter(pk=camp["placed"][0]["session_id"]).exists()
    back = saved(coach, out, [gone, *told(out)])
    assert gone["uid"] in {each["uid"] for each in back["placed"]}
    assert Planned.objects.filter(camp_session__uid=gone["uid"]).exists()


def test_solving_the_rest_keeps_what_is_locked_and_gives_the_others_their_old_ids(coach, camp):
    placed = told(camp)
    wednesday = (MONDAY + timedelta(2)).isoformat()
    placed[0] |= {"on": wednesday, "locked": True}
    locked = saved(coach, camp, placed)
    found = solved(coach, locked)
    mine = next(each for each in found["placed"] if each["uid"] == placed[0]["uid"])
    assert (mine["on"], mine["locked"]) == (wednesday, True)
    before = {each["uid"] for each in placed}
    assert len(before & {each["uid"] for each in found["placed"]}) >= len(before) - 2


def test_moving_the_bout_is_shown_before_it_is_taken(coach, camp, liked):
    later = {**camp["asked"], "bout_on": (MONDAY + timedelta(33)).isoformat()}
    found = solved(coach, camp, asked=later)
    assert max(each["on"] for each in found["placed"]) > max(each["on"] for each in camp["placed"])
    assert coach.get(f"camps/{camp['id']}").json()["asked"]["bout_on"] == camp["asked"]["bout_on"]


def test_a_clash_names_the_rules_and_which_of_them_alone_would_do(coach, liked):
    days = [(MONDAY + timedelta(by)).isoformat() for by in (0, 1)]
    camp = made(coach, liked, most_a_week=1, fixed=[{"purpose": "threshold", "on": day} for day in days])
    found = solved(coach, camp)
    assert found["status"] == "impossible"
    assert found["placed"] == []
    clash = {each["rule"]: each for each in found["clash"]}
    assert set(clash) == {"most-a-week", "fixed"}
    assert all(each["may_give"] and each["then_fits"] for each in clash.values())
    gave = solved(coach, camp, asked={**camp["asked"], "softened": ["most-a-week"]})
    assert gave["status"] != "impossible"


def test_after_a_knock_nothing_is_planned_and_nobody_can_give_way_on_it(coach, liked):
    who = coach.person(level="fighter")
    Knock.objects.create(person=who, on=timezone.localdate(), noted_by=coach.user)
    found = solved(coach, made(coach, liked, person_id=who.pk))
    clash = {each["rule"]: each for each in found["clash"]}
    assert set(clash) == {"knock", "trains"}
    assert not clash["knock"]["may_give"]


def test_a_limit_of_the_roster_keeps_sessions_out_until_it_ends(coach, liked):
    who = coach.person(level="fighter")
    power = coach.session("10:00 flow shadow, 4 x (3:00 power) rest 1:30", target="threshold")["id"]
    until = MONDAY + timedelta(13)
    Limit.objects.create(person=who, kind="no-power", until=until, set_by="Dr A. Holm")
    first = made(coach, {**liked, "threshold": power}, person_id=who.pk)
    placed = solved(coach, first)["placed"]
    hard = [each["on"] for each in placed if each["purpose"] == "threshold"]
    assert hard
    assert min(hard) > until.isoformat()


def ran(coach: Coach, session_id: int, **said: object) -> None:
    answer = log(
        coach, coach.get(f"sessions/{session_id}").json(), **{"done_s": 1500, "done_efforts": 5, "rpe": 6, **said}
    )
    assert answer.status_code == 200, answer.content


@pytest.fixture
def begun(coach: Coach, liked: dict) -> dict:
    """A camp whose first week is over: it began seven days ago."""
    start = timezone.localdate() - timedelta(days=8)
    first = made(coach, liked, start=start.isoformat(), bout_on=(start + timedelta(40)).isoformat())
    solved(coach, first)
    day = {"purpose": "skill", "step": 0}
    placed = [{"uid": str(uuid4()), "on": (start + timedelta(by)).isoformat(), **day} for by in (1, 3, 12, 15)]
    return saved(coach, first, placed)


def test_what_is_logged_is_ink_and_stays_where_it_was_done(coach, begun):
    first = begun["placed"][0]
    assert first["missed"]
    ran(coach, first["session_id"], done_efforts=2, rpe=9, done_s=1200)
    after = coach.get(f"camps/{begun['id']}").json()
    now = after["placed"][0]
    assert now["done"]["rpe"] == 9
    assert now["load"] == now["done"]["load"] == 9 * 1200 / 60
    assert now["done"]["too_hard"]
    assert not now["missed"]
    assert sum(week["done_load"] for week in after["weeks"]) == now["load"]
    moved = told(after)
    moved[0]["on"] = (timezone.localdate() + timedelta(3)).isoformat()
    answer = coach.put(f"camps/{begun['id']}", plan(after, moved))
    assert answer.status_code == 422
    assert "stays on its day" in answer.json()["detail"][0]["msg"]
    answer = coach.put(f"camps/{begun['id']}", plan(after, told(after)[1:]))
    assert "stays in the plan" in answer.json()["detail"][0]["msg"]


def test_what_was_missed_costs_nothing_and_can_be_skipped_or_shifted(coach, begun):
    weeks = begun["weeks"]
    assert sum(week["load"] for week in weeks) == sum(e["load"] for e in begun["placed"] if not e["missed"])
    placed = told(begun)
    placed[0]["skipped"] = True
    placed[1]["on"] = (timezone.localdate() + timedelta(2)).isoformat()
    after = saved(coach, begun, placed)
    skipped, shifted = (
        next(each for each in after["placed"] if each["uid"] == placed[number]["uid"]) for number in (0, 1)
    )
    assert (skipped["skipped"], skipped["missed"]) == (True, False)
    assert not shifted["missed"]


def test_nothing_is_solved_onto_days_that_are_over_and_a_held_knob_is_not_turned(coach, begun):
    hold = [{"purpose": purpose, "week": week} for purpose in ("skill", "threshold") for week in range(1, 8)]
    found = solved(coach, begun, hold=hold)
    over = {each["uid"] for each in begun["placed"] if each["on"] < timezone.localdate().isoformat()}
    new = [each for each in found["placed"] if each["uid"] not in over]
    assert min(each["on"] for each in new) >= timezone.localdate().isoformat()
    assert {each["step"] for each in new} == {0}


def test_two_coaches_do_not_overwrite_each_other(coach, camp):
    saved(coach, camp, told(camp)[1:])
    answer = coach.put(f"camps/{camp['id']}", plan(camp, told(camp)))
    assert answer.status_code == 409
    assert "changed elsewhere" in answer.json()["detail"]


def test_nudges_mend_what_is_broken_and_break_nothing(coach, camp):
    placed = told(camp)
    placed[0]["on"] = (MONDAY + timedelta(2)).isoformat()
    after = saved(coach, camp, placed)
    nudges = coach.get(f"camps/{camp['id']}/nudges").json()
    assert nudges
    mended = saved(coach, after, nudges[0]["placed"])
    assert not rules(mended)["available"]["breaches"]
    assert {each["id"] for each in mended["rules"] if each["breaches"]} < {
        each["id"] for each in after["rules"] if each["breaches"]
    }


def test_a_group_has_a_camp_and_everybody_of_it_is_expected(coach, liked):
    group = Group.objects.create(club=coach.club, name="Squad")
    for name in ("Ada Holm", "Bo Lind"):
        coach.person(name, level="fighter").groups.add(group)
    answer = coach.post("camps", {"group_id": group.pk, "asked": asked(liked, weeks=2)})
    camp = answer.json()
    assert camp["who"] == "Squad"
    after = saved(coach, camp, solved(coach, camp)["placed"])
    day = coach.get(f"today?on={after['placed'][0]['on']}").json()
    assert [who["name"] for who in day["planned"][0]["people"]] == ["Ada Holm", "Bo Lind"]


def test_a_deleted_camp_leaves_today_and_what_was_done_stays_in_the_log(coach, begun):
    ran(coach, begun["placed"][0]["session_id"])
    assert coach.client.delete(f"/api/camps/{begun['id']}").status_code == 204
    assert not Planned.objects.filter(on__gte=timezone.localdate()).exists()
    assert len(coach.listed("log")) == 1
    assert coach.get("camps").json() == []


@pytest.mark.parametrize(
    ("said", "field"),
    [
        ({"bout_on": None}, "bout_on"),
        ({"bout_on": MONDAY.isoformat()}, "bout_on"),
        ({"rule_set": "chess"}, "rule_set"),
        ({"lactic_cutoff_days": 6}, "lactic_cutoff_days"),
        ({"fixed": [{"purpose": "boxing", "on": MONDAY.isoformat()}]}, "fixed"),
        ({"softened": ["knock"]}, "softened"),
        ({"days": []}, "days"),
        ({"start": "0001-01-01"}, "start"),
    ],
)
def test_what_cannot_be_asked_is_said_with_its_field(coach, liked, said, field):
    answer = coach.post("camps", {"person_id": coach.person().pk, "asked": asked(liked, **said)})
    assert answer.status_code == 422
    assert field in answer.json()["detail"][0]["loc"]


def test_a_camp_is_for_somebody_and_of_one_club_alone(coach, camp, liked):
    assert coach.post("camps", {"asked": asked(liked)}).status_code == 422
    other = Coach("Slack Water")
    for path in ("", "/nudges", "/feeds", "/file"):
        assert other.get(f"camps/{camp['id']}{path}").status_code == 404
    assert other.post(f"camps/{camp['id']}/solve").status_code == 404
    assert other.put(f"camps/{camp['id']}", plan(camp, [])).status_code == 404


def test_a_camp_goes_out_and_into_another_club_with_its_days(coach, camp):
    files = archive(coach)
    other = Coach("Slack Water")
    assert bring(other, files.fp.getvalue()).status_code == 200
    (row,) = other.get("camps").json()
    there = other.get(f"camps/{row['id']}").json()
    assert [(e["on"], e["knob"], e["load"]) for e in there["placed"]] == [
        (e["on"], e["knob"], e["load"]) for e in camp["placed"]
    ]
    assert there["asked"]["bases"] == {}
    day = other.get(f"today?on={camp['placed'][0]['on']}").json()
    assert len(day["planned"]) == len([e for e in camp["placed"] if e["on"] == camp["placed"][0]["on"]])


@pytest.mark.parametrize(
    ("table", "field", "value"),
    [
        ("camp_sessions", "cost", {"load": "much"}),
        ("camps", "asked", {"start": "soon"}),
        ("camps", "choices", {"a": 1}),
    ],
)
def test_a_camp_that_is_not_whole_does_not_come_in(coach, camp, table, field, value):
    content = content_of(archive(coach))
    rows = content[f"{table}.jsonl"].splitlines()
    rows[0] = json.dumps({**json.loads(rows[0]), field: value}).encode()
    content[f"{table}.jsonl"] = b"\n".join(rows)
    answer = bring(Coach("Slack Water"), zipped(content))
    assert answer.status_code == 422
    assert f"{table}.jsonl, line 1" in answer.json()["detail"][0]["msg"]


def test_a_day_that_is_taken_off_in_today_is_let_go_in_the_camp_and_undo_brings_it_back(coach, camp):
    first = camp["placed"][0]
    back = coach.client.delete(f"/api/planned/{first['planned_id']}").json()
    gone = coach.get(f"camps/{camp['id']}").json()["placed"][0]
    assert (gone["skipped"], gone["planned_id"]) == (True, None)
    assert coach.post("planned", back).status_code == 201
    again = coach.get(f"camps/{camp['id']}").json()["placed"][0]
    assert (again["skipped"], again["on"]) == (False, first["on"])
    assert again["planned_id"] is not None


def test_what_is_let_go_in_the_camp_is_off_today_and_on_it_again_when_that_is_taken_back(coach, camp):
    first = camp["placed"][0]
    placed = told(camp)
    placed[0]["skipped"] = True
    after = saved(coach, camp, placed)
    assert after["placed"][0]["planned_id"] is None
    day = coach.get(f"today?on={first['on']}").json()
    assert first["session_id"] not in {each["session_id"] for each in day["planned"]}
    again = saved(coach, after, [{**each, "skipped": False} for each in told(after)])
    day = coach.get(f"today?on={first['on']}").json()
    assert first["session_id"] in {each["session_id"] for each in day["planned"]}
    assert again["placed"][0]["planned_id"] is not None
    assert Planned.objects.filter(session=first["session_id"]).count() == 1


# The calendar


def events(coach: Coach, address: str) -> dict[str, dict]:
    content = Client().get(address.split("testserver")[1]).content
    assert len(Calendar.from_ical(content).walk("VEVENT")) == len(checked(content))
    return {each["UID"]: each for each in checked(content)}


@pytest.fixture
def feed(coach: Coach, camp: dict) -> dict:
    coach.club.time_zone = "Europe/Oslo"
    coach.club.save()
    answer = coach.post(f"camps/{camp['id']}/feeds")
    assert answer.status_code == 201
    return answer.json()


def test_a_calendar_follows_the_camp_by_a_secret_address(coach, camp, feed):
    found = events(coach, feed["address"])
    assert set(found) == {f"camp-{each['uid']}@yoisho" for each in camp["placed"]}
    first = found[f"camp-{camp['placed'][0]['uid']}@yoisho"]
    assert first["DTSTART"].endswith("T183000")
    assert first["STATUS"] == "CONFIRMED"
    assert first["DESCRIPTION"].replace("\\", "") == camp["placed"][0]["knob"]


def test_a_change_counts_up_and_what_is_taken_out_is_cancelled_under_the_same_id(coach, camp, feed):
    before = events(coach, feed["address"])
    gone, moved, *rest = told(camp)
    moved["on"] = (MONDAY + timedelta(2)).isoformat()
    saved(coach, camp, [moved, *rest])
    after = events(coach, feed["address"])
    assert set(after) == set(before)
    assert after[f"camp-{gone['uid']}@yoisho"]["STATUS"] == "CANCELLED"
    assert int(after[f"camp-{gone['uid']}@yoisho"]["SEQUENCE"]) == 1
    assert int(after[f"camp-{moved['uid']}@yoisho"]["SEQUENCE"]) == 1
    assert all(after[uid]["SEQUENCE"] == before[uid]["SEQUENCE"] for uid in before if uid[5:41] not in
               (gone["uid"], moved["uid"]))  # fmt: skip


def test_no_name_and_nothing_of_health_is_in_the_calendar(coach, liked):
    who = coach.person("Ingrid Sund", level="fighter", sex="female")
    Limit.objects.create(person=who, kind="no-kicks", set_by="Dr A. Holm")
    camp = made(coach, liked, person_id=who.pk)
    camp = saved(coach, camp, solved(coach, camp)["placed"])
    feed = coach.post(f"camps/{camp['id']}/feeds").json()
    text = Client().get(feed["address"].split("testserver")[1]).content.decode()
    for word in ("Ingrid", "Sund", "Holm", "limit", "kicks", "mass", "heart"):
        assert word not in text


def test_an_address_that_is_taken_back_tells_nothing_more(coach, feed):
    path = feed["address"].split("testserver")[1]
    (where,) = coach.get("camps").json()
    ours = f"/api/camps/{where['id']}/feeds/{feed['id']}"
    assert Coach("Slack Water").client.delete(ours).status_code == 404
    assert coach.client.delete(ours).status_code == 200
    assert coach.client.delete(ours + "0").status_code == 404
    assert Client().get(path).status_code == 410
    assert Client().get("/api/camp-feeds/nothing.ics").status_code == 404


def test_the_camp_as_a_table_has_a_row_for_each_session(coach, camp):
    rows = coach.get(f"camps/{camp['id']}/file?form=csv").content.decode().splitlines()
    assert len(rows) == 1 + len(camp["placed"])
    assert rows[0].startswith("date,weekday,time,week")
    assert f"{camp['placed'][0]['on']},{DAYS[0]['weekday']},18:30,1" in "\n".join(rows) or "18:30" in rows[1]
    assert checked(coach.get(f"camps/{camp['id']}/file?form=ics").content)
