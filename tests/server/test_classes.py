"""A class in the club: from one line, solved, kept, changed while it runs, and logged for everybody who was there."""

import json
import re
from datetime import timedelta
from itertools import pairwise
from uuid import uuid4

import pytest
from django.utils import timezone

from server.dossier.erase import erase
from server.logbook.models import LogEntry
from server.roster.models import Group, Limit, Person
from server.runs.models import Run
from server.sessions.models import Session
from server.today.models import Planned
from tests.server.conftest import Coach
from tests.server.test_records import archive, bring, content_of, zipped
from tests.server.test_send_out import pages, text, tool

pytestmark = pytest.mark.django_db
LINE = "20/10 for Thursday at 12:10, 14 people, 6 bags, 2 pairs of pads, 25 min with warm-up"


def lines(answer) -> list[dict]:
    assert answer.status_code == 200, answer.content
    told = [json.loads(line) for line in b"".join(answer.streaming_content).splitlines() if line]
    assert all(one["progress"] <= two["progress"] for one, two in pairwise(told))
    return told


def read(coach: Coach, text: str = LINE) -> dict:
    answer = coach.post("classes/line", {"text": text})
    assert answer.status_code == 200, answer.content
    return answer.json()


def solved(coach: Coach, asked: dict, rows: list | None = None) -> dict:
    last = lines(coach.post("classes/solve", {"asked": asked, "rows": rows}))[-1]
    assert last["error"] is None, last
    return last["answer"]


def kept(coach: Coach, asked: dict | None = None) -> dict:
    asked = asked or read(coach)["asked"]
    answer = coach.post("classes", {"asked": asked, "rows": solved(coach, asked)["rows"]})
    assert answer.status_code == 201, answer.content
    return answer.json()


def member(coach: Coach, name: str, **more: object):
    """Somebody screened and clear, so that nothing but what a test says holds for them."""
    return coach.person(name, screened_on=timezone.localdate(), screening_active=True, **more)


@pytest.fixture
def dockers(coach: Coach) -> Group:
    group = Group.objects.create(club=coach.club, name="Dockers")
    for name in ("Abel K.", "Bea R.", "Cormac D.", "Dunja P."):
        member(coach, name).groups.add(group)
    return group


# From one line


def test_one_line_gives_people_gear_minutes_and_the_next_thursday(coach: Coach):
    told = read(coach)
    asked = told["asked"]
    assert (len(asked["people"]), asked["bags"], asked["pad_pairs"], asked["minutes"], asked["warm_up_min"]) == (
        14, 6, 2, 25, 5)  # fmt: skip
    assert asked["pattern"] == "20 power, 10 rest"
    on = timezone.datetime.fromisoformat(asked["on"]).date()
    assert on.weekday() == 3
    assert 0 <= (on - timezone.localdate()).days < 7
    assert asked["at"] == "12:10:00"
    assert told["unread"] == []


def test_what_is_not_read_comes_back_and_a_group_brings_its_people_and_guests_up_to_the_number(coach, dockers):
    told = read(coach, "30/30 for the Dockers, 6 people, 3 bags, glorb wibble, 30 min")
    assert told["unread"] == ["glorb wibble"]
    names = [each["name"] for each in told["asked"]["people"]]
    assert names[:4] == ["Abel K.", "Bea R.", "Cormac D.", "Dunja P."]
    assert len(names) == 6
    assert told["asked"]["group_id"] == dockers.pk


def test_the_gear_of_the_last_class_is_there_the_next_time(coach: Coach):
    kept(coach, {**read(coach)["asked"], "bags": 4})
    assert read(coach, "20/10, 8 people")["asked"]["bags"] == 4


# Proposed and solved


def test_a_line_is_proposed_in_different_schools_each_solved_with_what_sets_it_apart(coach: Coach):
    told = lines(coach.post("classes/propose", {"asked": read(coach)["asked"]}))
    found = [line["proposal"] for line in told if line["proposal"]]
    assert 3 <= len(found) <= 5
    assert len({each["school"] for each in found}) == len(found)
    assert len(told[-1]["tradeoffs"]) == len(found)
    assert all(told[-1]["tradeoffs"])
    for each in found:
        assert each["total_s"] <= 25 * 60
        assert len(each["people"]) == 14
        assert {one["which"] for one in each["trains"]} == {"weakest", "middle", "strongest"}
        assert each["sharing"]["word"] == "Nobody waits"


def test_limits_of_the_roster_hold_who_must_not_hold_and_who_has_no_health_form_goes_easy(coach: Coach):
    gus = member(coach, "Gus T.")
    Limit.objects.create(person=gus, kind="no-holding")
    nell = coach.person("Nell O.")
    people = [{"uid": f"p{who.pk}", "person_id": who.pk, "name": who.name} for who in (gus, nell)]
    people += [{"uid": f"g{number}", "name": f"Guest {number}"} for number in range(4)]
    asked = {**read(coach)["asked"], "people": people, "bags": 2, "pad_pairs": 1, "target": "lactic-capacity"}
    answer = solved(coach, asked)
    told = {each["name"]: each for each in answer["people"]}
    assert (told["Gus T."]["holds"], told["Gus T."]["easy"]) == (False, False)
    assert told["Nell O."]["easy"]
    assert told["Nell O."]["rpe"] < told["Guest 1"]["rpe"]
    assert [(each["name"], each["seal"]) for each in answer["minded"]] == [("Gus T.", "Hold"), ("Nell O.", "Screen")]
    # Pads that nobody holds but the coach are still pads: Gus hits there, and lets himself be relieved.
    assert any(station.startswith("pads") for station in told["Gus T."]["row"])


def test_what_the_gear_costs_the_purpose_is_said_with_what_would_mend_it(coach: Coach):
    asked = {**read(coach)["asked"], "target": "lactic-capacity", "bags": 2, "pad_pairs": 0, "minutes": 20}
    answer = kept(coach, asked)["answer"]
    assert "of hard work" in answer["short"]
    assert answer["cure"] is None or "would keep it" in answer["cure"]


def test_what_might_change_on_the_day_is_solved_ahead_and_can_be_taken_as_it_is(coach: Coach):
    plan = kept(coach)
    answer = coach.post("classes/what-if", {"asked": plan["asked"], "rows": plan["answer"]["rows"]})
    found = {each["name"]: each for each in answer.json()}
    assert {"Two more come", "A bag comes down", "Only 20 minutes", "The coach has to hold"} == set(found)
    for each in found.values():
        assert each["effect"]
        body = {"asked": each["asked"], "rows": each["rows"], "revision": plan["revision"]}
        saved = coach.put(f"classes/{plan['id']}", body)
        assert saved.status_code == 200, saved.content
        plan = saved.json()
    assert len(plan["asked"]["people"]) == 14  # each starts from the class as it was, not from the one before
    assert plan["asked"]["coach_holds"]


# Kept


def test_a_class_is_kept_with_its_session_and_its_day_and_both_follow_it(coach: Coach, dockers: Group):
    asked = read(coach, "20/10 for the Dockers tomorrow at 12:10, 2 bags, 30 min")["asked"]
    plan = kept(coach, asked)
    session = Session.objects.get(pk=plan["session_id"])
    assert not session.in_lists
    assert session.document["parts"][1]["tree"]["count"] == len(plan["answer"]["waves"])
    planned = Planned.objects.get(session=session)
    assert (planned.on, f"{planned.at:%H:%M}", planned.group) == (
        timezone.localdate() + timedelta(days=1), "12:10", dockers)  # fmt: skip
    later = {**plan["asked"], "on": (timezone.localdate() + timedelta(days=3)).isoformat()}
    absent = [{**later["people"][0], "absent_after": 0}, *later["people"][1:]]
    asked = {**later, "people": absent}
    answer = coach.put(
        f"classes/{plan['id']}",
        {"asked": asked, "rows": solved(coach, asked)["rows"], "revision": plan["revision"]},
    )
    assert answer.status_code == 200, answer.content
    planned.refresh_from_db()
    assert (planned.on - timezone.localdate()).days == 3
    assert [who.name for who in planned.away.all()] == ["Abel K."]
    assert coach.client.delete(f"/api/classes/{plan['id']}").status_code == 204
    assert not Planned.objects.exists()
    assert not Session.objects.filter(pk=session.pk).exists()


def test_places_that_cannot_be_are_refused_in_words_and_a_class_changed_elsewhere_is_not_overwritten(coach: Coach):
    plan = kept(coach)
    rows = [list(row) for row in plan["answer"]["rows"]]
    wave, (one, other) = 0, [place for place, row in enumerate(rows) if row[0].startswith("bag")][:2]
    rows[one][wave] = rows[other][wave]
    body = {"asked": plan["asked"], "rows": rows, "revision": plan["revision"]}
    answer = coach.put(f"classes/{plan['id']}", body)
    assert answer.status_code == 422
    assert "2 people are at bag" in answer.json()["detail"][0]["msg"]
    body["rows"] = plan["answer"]["rows"]
    assert coach.put(f"classes/{plan['id']}", body).status_code == 200
    assert coach.put(f"classes/{plan['id']}", body).status_code == 409


def test_somebody_put_somewhere_stays_there_and_what_cannot_all_be_names_the_wave(coach: Coach):
    plan = kept(coach)
    who = plan["asked"]["people"][0]["uid"]
    asked = {**plan["asked"], "put": [{"uid": who, "wave": 2, "at": "bag 6"}]}
    answer = solved(coach, asked, plan["answer"]["rows"])
    assert answer["rows"][0][1] == "bag 6"
    moved = sum(a != b for one, two in zip(plan["answer"]["rows"], answer["rows"], strict=True)
                for a, b in zip(one, two, strict=True))  # fmt: skip
    assert moved <= 20  # of 70
    two = [{"uid": each["uid"], "wave": 2, "at": "bag 6"} for each in plan["asked"]["people"][:2]]
    last = lines(coach.post("classes/solve", {"asked": {**plan["asked"], "put": two}}))[-1]
    assert "both put at bag 6 in wave 2" in last["error"]
    assert last["field"] == "put"


def test_another_club_sees_and_changes_nothing_of_it(coach: Coach):
    plan = kept(coach)
    stranger = Coach("Elsewhere")
    assert stranger.get("classes").json() == []
    body = {"asked": plan["asked"], "rows": plan["answer"]["rows"], "revision": plan["revision"]}
    assert stranger.get(f"classes/{plan['id']}").status_code == 404
    assert stranger.put(f"classes/{plan['id']}", body).status_code == 404
    assert stranger.client.delete(f"/api/classes/{plan['id']}").status_code == 404
    assert stranger.get(f"classes/{plan['id']}/wall").status_code == 404
    asked = {**plan["asked"], "people": [{"uid": "x", "person_id": coach.person().pk, "name": "x"}]}
    assert stranger.post("classes/solve", {"asked": asked}).status_code == 422


# On the floor


def begun(coach: Coach, plan: dict) -> tuple[str, dict, dict]:
    """A run of it that has begun: its id, its plan, and what is told of it."""
    run_plan = coach.get(f"sessions/{plan['session_id']}/run").json()
    board = {
        "part": run_plan["board"]["part"],
        "doing": run_plan["board"]["doing"],
        "people": [{name: each[name] for name in ("name", "person_id", "row", "easy", "holds")}
                   for each in run_plan["board"]["people"]],
    }  # fmt: skip
    run = {"session_id": plan["session_id"], "document": run_plan["document"], "board": board}
    run_id = str(uuid4())
    answer = coach.put(f"runs/{run_id}", run)
    assert answer.status_code == 200, answer.content
    return run_id, run_plan, run


def test_the_plan_of_a_run_has_the_board_and_calls_who_goes_where_before_each_wave(coach: Coach):
    _, plan, _ = begun(coach, kept(coach))
    board = plan["board"]
    moves = [call for call in plan["calls"] if call["kind"] == "move"]
    assert len(moves) == len(board["waves"])
    for wave, call in zip(board["waves"][1:], moves[1:], strict=True):
        assert wave["start_s"] - wave["change_s"] <= call["at_s"] < wave["start_s"]
        assert call["text"].startswith("Change. ")
    labels = {each["label"] for each in board["people"]}
    assert "Blue" in labels
    assert any("Blues" in call["text"] for call in moves)
    swaps = [call["at_s"] for call in plan["calls"] if call["kind"] == "swap"]
    assert [round(at) for at in swaps] == [wave["swap_s"] for wave in board["waves"]]


def test_a_latecomer_joins_a_running_class_what_is_done_stays_and_other_screens_see_it(coach: Coach):
    run_id, _, run = begun(coach, kept(coach))
    body = {"board": run["board"], "wave": 3, "late": {"name": "Milo V."}}
    answer = coach.post("boards/change", body)
    assert answer.status_code == 200, answer.content
    board = answer.json()
    before = [each["row"] for each in run["board"]["people"]]
    after = [each["row"] for each in board["people"]]
    assert [row[:2] for row in after[:14]] == [row[:2] for row in before]
    assert board["people"][14]["name"] == "Milo V."
    assert after[14][:2] == ["away", "away"]
    assert not {"wait", "away"} & set(after[14][2:])
    told = coach.put(f"runs/{run_id}/board", board).json()
    assert told["board"]["revision"] == 1
    assert len(coach.get(f"runs/{run_id}/plan").json()["board"]["people"]) == 15
    twice = coach.post("boards/change", {**body, "board": board})
    assert twice.status_code == 422
    assert "here already" in twice.json()["detail"][0]["msg"]


def test_the_log_takes_the_whole_class_each_with_what_they_did_and_a_retry_makes_no_second(coach, dockers):
    asked = read(coach, "20/10 for the Dockers, 5 people, 1 bag, 1 pair of pads, 30 min")["asked"]
    asked["people"][1]["from_wave"] = 3
    plan = kept(coach, asked)
    run_id, run_plan, run = begun(coach, plan)
    total = run_plan["total_s"]
    started = timezone.now() - timedelta(seconds=total)
    people = [
        {"place": 0, "rpe": 8}, {"place": 1, "rpe": 7}, {"place": 2, "absent": True}, {"place": 3, "rpe": None},
        {"place": 4, "rpe": 6, "note": "first time"},
    ]  # fmt: skip
    body = {
        "run": run, "board": run["board"], "started_at": started.isoformat(), "note": "hot hall",
        "played": [{"from_s": 0, "to_s": total}], "people": people,
    }  # fmt: skip
    answer = coach.put(f"runs/{run_id}/class-log", body)
    assert answer.status_code == 200, answer.content
    assert len(coach.put(f"runs/{run_id}/class-log", body).json()["entries"]) == 3
    entries = {entry.result.place: entry for entry in LogEntry.objects.of(coach.club)}
    assert sorted(entries) == [0, 1, 4]
    assert Run.objects.get().kind == "class"
    whole, late, guest = entries[0], entries[1], entries[4]
    assert whole.result.person.name == "Abel K."
    assert (whole.done_s, whole.planned_s) == (total, total)
    wave = run_plan["board"]["waves"][2]
    assert late.done_s == total - (wave["start_s"] - wave["change_s"])
    assert late.done_s == late.planned_s
    assert whole.volume.strikes > late.volume.strikes > 0
    assert guest.result.person is None
    assert [line in guest.note for line in ("Guest", "first time", "hot hall")] == [True] * 3
    assert whole.done_efforts == whole.planned_efforts
    detail = coach.get(f"log/{whole.pk}").json()
    assert {each["modality"] for each in detail["timeline"]} >= {"pads", "shadow"}
    # Somebody who was there after all is told the next time.
    people[2] = {"place": 2, "rpe": 5}
    people[0] = {"place": 0, "absent": True}
    assert len(coach.put(f"runs/{run_id}/class-log", body).json()["entries"]) == 3
    assert sorted(entry.result.place for entry in LogEntry.objects.of(coach.club)) == [1, 2, 4]


def test_whoever_may_not_train_today_is_told_before_the_class_starts(coach: Coach):
    hurt = member(coach, "Ivo M.")
    well = member(coach, "Jun A.")
    hurt.knocks.create(on=timezone.localdate() - timedelta(days=1))
    people = [{"uid": f"p{who.pk}", "person_id": who.pk, "name": who.name} for who in (hurt, well)]
    plan = kept(coach, {**read(coach)["asked"], "people": people})
    found = coach.get(f"sessions/{plan['session_id']}/class-gate").json()
    assert [(each["name"], each["stops"][0]["rule"]) for each in found] == [("Ivo M.", "concussion")]


def filled(pdf: bytes) -> float:
    """Of the height of its first page, down to where its last word stands."""
    said = tool(pdf, "pdftotext", "-bbox", "-").decode()
    height = float(re.search(r'<page width="[\d.]+" height="([\d.]+)"', said)[1])
    return max(float(low) for low in re.findall(r'yMax="([\d.]+)"', said)) / height


def test_the_sheet_for_the_wall_is_one_page_with_every_name_also_of_forty(coach: Coach):
    for line in (LINE, "20/10, 40 people, 10 bags, 6 pairs of pads, 60 min"):
        plan = kept(coach, read(coach, line)["asked"])
        for paper in ("a4", "letter"):
            answer = coach.get(f"classes/{plan['id']}/wall?paper={paper}")
            assert answer["Content-Type"] == "application/pdf"
            assert pages(answer.content) == 1
            shown = text(answer.content)
            assert all(each["name"] in shown for each in plan["asked"]["people"])
            assert filled(answer.content) > 0.9, "as large as the page holds"


def test_a_class_comes_in_again_with_the_records_of_a_club(coach: Coach):
    kept(coach)
    other = Coach("Quay Hall")
    assert bring(other, zipped(content_of(archive(coach)))).status_code == 200
    (row,) = other.get("classes").json()
    told = other.get(f"classes/{row['id']}").json()
    assert told["broken"] is None
    assert len(told["answer"]["people"]) == 14
    assert other.get(f"sessions/{told['session_id']}/run").json()["board"] is not None


def test_a_name_that_is_erased_stands_in_no_class_and_on_no_board(coach: Coach, dockers: Group):
    plan = kept(coach, read(coach, "20/10 for the Dockers, 2 bags, 30 min")["asked"])
    abel = next(each["person_id"] for each in plan["asked"]["people"] if each["name"] == "Abel K.")
    erase(Person.objects.get(pk=abel))
    told = coach.get(f"classes/{plan['id']}")
    assert "Abel" not in told.content.decode()
    assert "Abel" not in json.dumps(Session.objects.get(pk=plan["session_id"]).board)
