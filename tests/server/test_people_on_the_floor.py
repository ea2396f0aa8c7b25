"""Several people on one clock: what the session is for each, and what is kept of each."""

import uuid
from datetime import timedelta

import pytest
from django.utils import timezone

from server.logbook.models import LogEntry
from tests.server.conftest import fault, run_of

PAIRS = "6 x (30 power pairs)"


def on_floor(coach, saved, **asked):
    query = "&".join(f"{name}={value}" for name, value in asked.items())
    return coach.get(f"sessions/{saved['id']}/on-floor?{query}")


def record(place=0, of=2, played=((0, 360, 0),), **more):
    stretches = [{"from_s": a, "to_s": b, "shift": shift} for a, b, shift in played]
    return {"played": stretches, "place": place, "of": of, **more}


def log(coach, saved, run_id, **more):
    began = (timezone.now() - timedelta(minutes=20)).isoformat()
    body = {"run": run_of(saved), "started_at": began, "done_s": 360, "done_efforts": 6, "rpe": 8, **more}
    return coach.put(f"runs/{run_id}/log", body)


def test_a_partners_turn_is_work_on_the_floor_and_says_whose_it_is(coach):
    plan = coach.get(f"sessions/{coach.session(PAIRS)['id']}/run").json()
    assert [piece["turn"] for piece in plan["timeline"]] == list(range(12))
    assert {piece["kind"] for piece in plan["timeline"]} == {"work"}
    assert [piece["partner"] for piece in plan["timeline"][:2]] == [False, True]
    assert len(plan["efforts"]) == 6, "the efforts counted are one person's"


def test_each_on_the_floor_has_their_own_work_and_band(coach):
    saved = coach.session(PAIRS, person_id=coach.person().pk, target="aerobic-power")
    shares = [on_floor(coach, saved, place=place, of=3, person_id=coach.person().pk).json() for place in range(3)]
    assert [(one["work_s"], one["rest_s"]) for one in shares] == [(180, 360)] * 3, "each does all of it"
    assert len(shares[0]["simulated"]["heart"]) == 540
    assert shares[0]["simulated"] != shares[1]["simulated"]


def test_the_swap_of_the_pads_is_a_turn_and_in_the_log(coach):
    saved = coach.session("4:00 combination pads")
    alone = coach.get(f"sessions/{saved['id']}/run").json()["timeline"][0]
    two = coach.get(f"sessions/{saved['id']}/run?people=2").json()["timeline"][0]
    assert (alone["held"], alone["turn"], two["held"], two["turn"]) == (False, None, True, 0)
    shares = [on_floor(coach, saved, place=place, of=2).json() for place in (0, 1)]
    assert [one["work_s"] for one in shares] == [240, 0]
    played = ((0, 150, 0), (150, 240, 1))
    entries = [
        log(coach, saved, uuid.uuid4(), run={**run_of(saved), "people": 2}, done_s=240, done_efforts=1,
            record=record(place=place, played=played)).json()
        for place in (0, 1)
    ]  # fmt: skip
    own = [entry["done"]["work_s"] for entry in entries]
    assert own == [150, 90], "each what they struck; meanwhile the other held"
    first, second = (entry["expected_strikes"] for entry in entries)
    assert first / second == pytest.approx(150 / 90, rel=0.1)


def test_the_holder_who_was_never_swapped_is_logged_with_no_work(coach):
    saved = coach.session("4:00 combination pads")
    answer = log(coach, saved, uuid.uuid4(), run={**run_of(saved), "people": 2}, done_s=240, done_efforts=0,
                 record=record(place=1, played=((0, 240, 0),)))  # fmt: skip
    assert answer.json()["done"]["work_s"] == 0
    assert answer.json()["expected_strikes"] == 0


def test_the_plan_of_three_is_three_times_as_long_and_the_log_goes_by_it(coach):
    saved = coach.session(PAIRS)
    plan = coach.get(f"sessions/{saved['id']}/run?people=3").json()
    assert (plan["people"], plan["total_s"], len(plan["efforts"])) == (3, 540, 6)
    assert len({tuple(piece["calls"]) for piece in plan["timeline"]}) == 1, "the third strikes what the first does"
    body = {"run": {**run_of(saved), "people": 3}, "started_at": timezone.now().isoformat(), "done_s": 540,
            "done_efforts": 6, "rpe": 8, "record": record(place=2, of=3, played=((0, 540, 0),))}  # fmt: skip
    entry = coach.put(f"runs/{uuid.uuid4()}/log", body).json()
    assert entry["planned_s"] == 540
    too_long = coach.session("4 x (15:00 flow bag pairs)")
    begun = fault(coach.put(f"runs/{uuid.uuid4()}", {**run_of(too_long), "people": 6}))
    assert begun["loc"][-1] == "people", "refused with its reason, and never a log that no server can take"
    assert "with 6 at one bag" in fault(coach.get(f"sessions/{too_long['id']}/run?people=6"))["msg"].lower()


def test_heart_bands_give_way_where_medication_lowers_the_heart(coach):
    who = coach.person(heart_rate_lowering_medication=True)
    saved = coach.session(PAIRS, person_id=who.pk, target="aerobic-power")
    told = on_floor(coach, saved, of=1, person_id=who.pk).json()
    assert told["heart_holds"] is False
    assert told["targets"] == []


@pytest.mark.parametrize("asked", [{"place": 2, "of": 2}, {"place": 0, "of": 0}, {"place": 0, "of": 9}])
def test_a_place_that_is_not_there_is_refused_with_a_reason(coach, asked):
    assert on_floor(coach, coach.session(PAIRS), **asked).status_code == 422


def test_another_clubs_person_is_not_on_the_floor(coach, stranger):
    answer = on_floor(coach, coach.session(PAIRS), of=1, person_id=stranger.person().pk)
    assert answer.status_code == 404


def test_a_run_is_reviewed_round_by_round_before_it_is_logged(coach):
    saved = coach.session("8 x (20 all out) rest 0:10")
    strikes = [30 * n + 1 + m for n in range(8) for m in range(10 - n)]
    body = {
        "run": run_of(saved),
        "record": record(of=1, played=((-10, 226, 0),), heart=[[20, 170], [25, 176]], strikes=strikes),
    }
    done = coach.post("review", body).json()
    assert [one["done"] for one in done["rounds"]] == [True] * 7 + [False]
    assert done["rounds"][0]["strikes"] == 10
    assert done["rounds"][0]["peak_bpm"] == 176
    assert (done["efforts"], done["efforts_done"]) == (8, 7)
    assert done["fades"][0]["measured"] > 0.3


def test_two_are_logged_from_one_run_each_with_their_own_work_and_rest(coach):
    saved, run_id = coach.session(PAIRS), uuid.uuid4()
    first, second = coach.person(name="Runa Velde"), coach.person(name="Ife Brook")
    for place, who in enumerate((first, second)):
        played = ((0, 90, 0),)
        answer = log(coach, saved, run_id, person_id=who.pk, done_efforts=1, record=record(place, played=played))
        assert answer.status_code == 200, answer.json()
    shares = {entry["person"]: entry["done"] for entry in coach.listed("log")}
    assert (shares["Runa Velde"]["work_s"], shares["Runa Velde"]["rest_s"]) == (60, 30)
    assert (shares["Ife Brook"]["work_s"], shares["Ife Brook"]["rest_s"]) == (30, 60)


def test_the_entry_keeps_the_trace_the_flags_and_says_what_was_simulated(coach):
    saved = coach.session("8 x (20 all out) rest 0:10")
    kept = record(of=1, heart=[[1, 120], [2, 121]], simulated=True)
    pain = [{"where": "wrist", "side": "left"}, {"where": "back"}]
    made = log(coach, saved, uuid.uuid4(), record=kept, pain=pain).json()
    whole = coach.get(f"log/{made['id']}").json()
    assert whole["heart"] == [[1, 120], [2, 121]]
    assert [flag["text"] for flag in whole["pain"]] == ["left wrist", "back"]
    assert whole["devices_simulated"] is True
    assert whole["simulated"] is False, "the run itself was real"
    assert len(whole["timeline"]) == 15
    assert len(whole["done"]["rounds"]) == 8


def test_counting_entries_reads_no_traces(coach):
    """The cautions of every evaluation look at the week's entries; a trace of an hour is left where it is."""
    made = log(coach, coach.session(), uuid.uuid4(), record=record(of=1, heart=[[1, 120]])).json()
    entry = LogEntry.objects.get(pk=made["id"])
    assert entry.result.get_deferred_fields() == {"record"}
    assert entry.result.record["heart"] == [[1, 120]], "and it is there where it is asked for"


def test_an_entry_written_by_hand_has_no_rounds(coach):
    saved = coach.session("8 x (20 all out) rest 0:10")
    assert log(coach, saved, uuid.uuid4()).json()["done"] is None


@pytest.mark.parametrize(
    ("wrong", "at"),
    [
        (record(place=1, of=1), "record"),
        (record(of=1, heart=[[1, 999]]), "record"),
        (record(of=1, strikes=[99_999]), "record"),
    ],
)
def test_a_record_that_cannot_be_is_refused_where_it_is_wrong(coach, wrong, at):
    answer = log(coach, coach.session(), uuid.uuid4(), record=wrong)
    assert answer.status_code == 422
    assert at in fault(answer)["loc"]


def test_pain_in_a_place_that_is_not_there_is_refused(coach):
    answer = log(coach, coach.session(), uuid.uuid4(), pain=[{"where": "tail"}])
    assert answer.status_code == 422
    assert "pain" in fault(answer)["loc"]


def test_bells_are_muted_for_a_session_as_calls_are(coach):
    saved = coach.session()
    assert coach.put(f"sessions/{saved['id']}/calls", {"muted": ["clack", "half"]}).status_code == 200
    assert coach.get(f"sessions/{saved['id']}/run").json()["call_settings"]["muted"] == ["half", "clack"]


def test_hard_work_says_how_much_easy_work_it_wants_before(coach):
    plan = coach.get(f"sessions/{coach.session('10:00 flow; then 1:00, 3 x (30 power) rest 0:30')['id']}/run").json()
    assert plan["warmth"] == {"from_s": 660, "needed_s": 300}
    assert plan["cold"] is None
