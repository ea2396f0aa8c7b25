import json
import subprocess
import sys
from pathlib import Path

import pytest

from yoisho.cli import main

ROOT = Path(__file__).resolve().parents[2]


def command(capsys, *arguments, fails=False):
    assert main(arguments) == (2 if fails else 0)
    said = capsys.readouterr()
    return said.out, said.err


def answer(capsys, *arguments):
    return json.loads(command(capsys, *arguments, "--json")[0])


def profile(tmp_path, rows, head="seconds,demand_frac"):
    path = tmp_path / "profile.csv"
    path.write_text("\n".join([head, *rows]) + "\n")
    return str(path)


def test_parse_gives_tree_timeline_times_and_the_canonical_form(capsys):
    found = answer(capsys, "parse", "8x(20 all-out / 10 rest)")
    assert {key: found[key] for key in ("total_s", "work_s", "rest_s", "text")} == {
        "total_s": 240, "work_s": 160, "rest_s": 80, "text": "8 × (20 all out, 10 rest)",
    }  # fmt: skip
    assert found["tree"]["type"] == "repeat"
    assert len(found["timeline"]) == 16


def test_evaluate_gives_figures_stores_and_the_verdict_for_the_purpose(capsys):
    found = answer(capsys, "evaluate", "2 x (8 x (30 all out, 30 recover)) rest 2:00", "--target", "lactic-capacity",
                   "--vo2max", "50", "--hr-max", "188", "--hr-rest", "60", "--mass", "70")  # fmt: skip
    assert found["verdict"]["target"] == found["verdict"]["trains_best"] == "lactic-capacity"
    assert len(found["stores"]["sprint_left"]) == len(found["stores"]["seconds"]) == 1081
    assert found["figures"]["kcal"]["low"] < found["figures"]["kcal"]["high"]


def test_people_read_words_not_json(capsys):
    out, _ = command(capsys, "evaluate", "20:00 flow")
    assert "total: 20:00" in out
    assert "This trains aerobic base" in out


def test_simulate_stops_at_the_first_shortfall_and_hold_goes_on(capsys, tmp_path):
    path = profile(tmp_path, ["20,1.7", "10,0.1"] * 10)
    stopped = answer(capsys, "simulate", path, "--vo2max", "57")
    held = answer(capsys, "simulate", path, "--vo2max", "57", "--hold")
    assert stopped["exhausted_at_s"] == held["exhausted_at_s"]
    assert sum(s["seconds"] for s in stopped["segments"]) == pytest.approx(stopped["exhausted_at_s"])
    assert len(held["segments"]) == 20
    assert held["segments"][-2]["delivered_frac"] < 1.7


def test_simulate_reports_shares_that_make_the_whole_and_null_where_nothing_fails(capsys, tmp_path):
    found = answer(capsys, "simulate", profile(tmp_path, ["600,0.6"]), "--vo2max", "57")
    assert found["exhausted_at_s"] is None
    assert found["aerobic_share"] + found["alactic_share"] + found["lactic_share"] == pytest.approx(1)
    assert found["o2_deficit_ml_kg"] > 0
    assert 0 <= found["segments"][0]["fatigue_end"] <= found["fatigue_peak"] <= 1
    assert found["segments"][0]["vo2_frac_end"] == pytest.approx(found["peak_vo2_frac"], rel=0.05)


def test_all_out_is_delivered_as_far_as_it_goes_and_never_stops_the_run(capsys, tmp_path):
    found = answer(capsys, "simulate", profile(tmp_path, ["30,9"]), "--vo2max", "57")
    assert found["exhausted_at_s"] is None
    assert 1.5 < found["segments"][0]["delivered_frac"] < 4


@pytest.mark.parametrize(
    ("rows", "head", "said"),
    [
        (["20,1.7"], "time,power", "the first line must be seconds,demand_frac"),
        (["20,1.7", "ten,0.1"], "seconds,demand_frac", "line 3"),
        ([], "seconds,demand_frac", "no segments"),
        (["-5,1"], "seconds,demand_frac", "more than 0 seconds"),
        (["20,-1"], "seconds,demand_frac", "0 or more"),
        (["20"], "seconds,demand_frac", "line 2"),
    ],
)
def test_a_wrong_profile_says_where_and_what_was_expected(capsys, tmp_path, rows, head, said):
    _, error = command(capsys, "simulate", profile(tmp_path, rows, head), fails=True)
    assert said in error


def test_a_missing_file_is_a_plain_error(capsys):
    assert "cannot be read" in command(capsys, "simulate", "nowhere.csv", fails=True)[1]


def test_a_wrong_line_is_pointed_at(capsys):
    _, error = command(capsys, "parse", "8x(20 sped)", fails=True)
    text, pointer, message = error.splitlines()
    assert text[pointer.index("^")] == "s"
    assert message.startswith("Character 7: ")


def test_a_wrong_line_in_json_is_json(capsys):
    out, _ = command(capsys, "parse", "8x(20 sped)", "--json", fails=True)
    assert json.loads(out)["error"]["suggestion"] == "speed"


def test_an_impossible_person_is_refused(capsys):
    assert "VO2max is between" in command(capsys, "evaluate", "20:00 flow", "--vo2max", "500", fails=True)[1]


def test_rest_alone_is_refused_with_what_to_add(capsys):
    assert "30 power" in command(capsys, "evaluate", "5:00 rest", fails=True)[1]


def test_it_runs_as_a_module():
    done = subprocess.run(
        [sys.executable, "-m", "yoisho", "parse", "20:00 flow", "--json"], cwd=ROOT, capture_output=True, text=True
    )
    assert json.loads(done.stdout)["total_s"] == 1200


def test_a_claim_is_answered_with_its_probability(capsys):
    found = answer(capsys, "claim", "20:00 flow", "--kcal", "500", "--tabata", "--trains", "aerobic-base")
    kcal, tabata, base = found["claims"]
    assert kcal["probability"] <= 0.02
    assert tabata["answer"] == "not true"
    assert base["answer"] == "true"


def test_a_claim_of_nothing_says_what_can_be_claimed(capsys):
    _, said = command(capsys, "claim", "20:00 flow", fails=True)
    assert "--kcal 500" in said


def test_a_person_can_be_described_by_field_tests(capsys):
    counts = ["64", "172", "166", "150", "122", "104", "94", "88"]
    found = answer(capsys, "evaluate", "20:00 flow", "--cooper", "2600", "--strike-test", *counts)
    assert found["person"]["vo2max_ml_kg_min"]["origin"] == "estimated"
    assert "strike test" in found["person"]["anaerobic_scale"]["source"]


def test_a_miscounted_test_is_refused_with_what_is_possible(capsys):
    _, said = command(capsys, "evaluate", "20:00 flow", "--cooper", "90", fails=True)
    assert "1200 to 4600 m" in said


def test_on_a_beta_blocker_no_heart_rate_is_given(capsys):
    found = answer(capsys, "evaluate", "20:00 flow", "--beta-blocker")
    assert "heart_rate_bpm" not in found["stores"]
    assert not [name for name in found["figures"] if name.startswith(("heart", "hr_"))]
    assert all("heart_rate_end_bpm" not in interval for interval in found["intervals"])


def test_every_interval_and_bout_is_read_with_its_range(capsys):
    found = answer(capsys, "evaluate", "4 x (20 all out, 10 rest)")
    assert len(found["intervals"]) == 8
    assert len(found["bouts"]) == 4
    for interval in found["intervals"]:
        for figure in interval.values():
            assert figure["low"] <= figure["value"] <= figure["high"]
    shares = found["intervals"][0]
    assert sum(shares[f"{store}_share"]["value"] for store in ("aerobic", "alactic", "lactic")) == pytest.approx(
        1, abs=1e-3
    )


def test_days_to_the_bout_and_heat_reach_the_cautions(capsys):
    text = "10:00 flow, 2 x (8 x (30 all out / 30 recover)) rest 2:00"
    found = answer(capsys, "evaluate", text, "--days-to-fight", "5", "--wbgt", "29")
    assert {"bout-cut-off", "heat"} <= {caution["rule"] for caution in found["cautions"]}


def test_the_method_is_printed_as_markdown_and_as_json(capsys):
    written, _ = command(capsys, "method")
    assert written.startswith("# How Yoisho works it out")
    assert len(answer(capsys, "method")["fit"]) == 79


def test_a_line_is_counted_by_limb_and_explained_in_the_school_asked_for(capsys):
    found = answer(capsys, "parse", "2 x (10 reps power [1-7]) rest 0:30", "--school", "body-hooks")
    assert found["volume"]["limbs"] == {"left hand": 40}
    assert found["volume"]["counted"] == 40
    assert "10 reps" in found["meaning"]
    assert found["timeline"][0]["calls"] == ["jab", "lead hook to the body"]


def test_a_combination_is_read_counted_and_spelled_out(capsys):
    found = answer(capsys, "combination", "1-2-3b, slip, 2", "--stance", "southpaw", "--seconds", "30")
    assert found["limbs"] == {"right hand": 2, "left hand": 2}
    assert found["calls"][2] == "lead hook to the body"
    assert found["strikes_in_all"] == found["passes"] * 4


def test_a_wrong_combination_is_pointed_at(capsys):
    _, said = command(capsys, "combination", "1-2, slpi", fails=True)
    assert "Did you mean slip?" in said
    assert "       ^" in said


def written(tmp_path, name, what):
    path = tmp_path / name
    path.write_text(what if isinstance(what, str) else json.dumps(what))
    return str(path)


LOGS = [
    {"text": "8 x (20 all-out, 10 rest)", "rpe": 9, "strikes": [92, 80, 60, None, 37, 32, 29, 27]},
    {"text": "3 x (3:00 combination) rest 1:00", "rpe": 8, "heart": [
        [30 * n + at, bpm]
        for n, bpm in enumerate([78, 118, 150, 164, 170, 172, 171, 146, 124, 138, 158, 169, 172, 174, 172, 146])
        for at in range(0, 30, 5)
    ]},
]  # fmt: skip


def test_calibrate_tells_before_and_after_and_how_well_both_forecast(capsys, tmp_path):
    who = written(tmp_path, "person.json", {"age_years": 28, "mass_kg": 61, "sex": None, "hr_max_bpm": 190})
    found = answer(capsys, "calibrate", who, written(tmp_path, "logs.json", LOGS))
    assert found["logs"] == 2
    before, after = (found[side]["lactic_capacity_ml_kg"] for side in ("before", "after"))
    assert before["low"] < before["value"] < before["high"]
    assert after["high"] - after["low"] < before["high"] - before["low"]
    assert set(found["forecast_after"]) == {"strikes", "heart", "rpe"}
    assert found["forecast_after"]["strikes"]["crps"] < found["forecast_before"]["strikes"]["crps"]
    assert found["forecast_before"]["strikes"]["numbers"] == 7
    assert found["effective_draws"] > 20


def test_calibrate_without_logs_changes_nothing(capsys, tmp_path):
    found = answer(capsys, "calibrate", written(tmp_path, "p.json", {}), written(tmp_path, "l.json", []))
    assert found["before"] == found["after"]
    assert found["forecast_after"] == {}


@pytest.mark.parametrize(
    ("who", "logs", "said"),
    [
        ({"vo2max": 50}, [], "there is no 'vo2max'; there are vo2max_ml_kg_min"),
        ({"age_years": "young"}, [], 'age_years: a number is wanted, not "young"'),
        ({"level": "pro"}, [], "level: one of beginner, club, fighter is wanted"),
        ({"age_years": 4}, [], "age is between 8 and 95"),
        ({"strike_test": [60, 160]}, [], "eight counts are wanted"),
        ({}, {}, "a list such as [] is wanted"),
        ({}, [{"rpe": 5}], "log 1: 'text' is missing"),
        ({}, [LOGS[0], {"text": "8 x (20 sprinting)"}], "log 2, text, character"),
        ({}, [{"text": "30 power", "rpe": 12}], "log 1, rpe: a number from 0 to 10"),
        (
            {},
            [{"text": "8 x (20 all-out, 10 rest)", "strikes": [10, 12]}],
            "log 1: strikes are counted for each effort",
        ),
        ({}, [{"text": "30 power", "heart": [[1, 2, 3]]}], "pairs of second and bpm"),
        ("{", [], "line 1: this is not JSON"),
    ],
)
def test_calibrate_says_what_is_wrong_and_where(capsys, tmp_path, who, logs, said):
    paths = written(tmp_path, "person.json", who), written(tmp_path, "logs.json", logs)
    assert said in command(capsys, "calibrate", *paths, fails=True)[1]


def test_a_strike_test_may_stand_in_a_file_of_the_person(capsys, tmp_path):
    counts = [60, 160, 158, 140, 122, 110, 104, 100]
    ways = counts, {"ten_s": 60, "thirty_s": 160, "splits": counts[2:]}
    logs = written(tmp_path, "l.json", [])
    one, other = (
        answer(capsys, "calibrate", written(tmp_path, "p.json", {"strike_test": way}), logs)["before"] for way in ways
    )
    assert one == other
    assert one["speed_scale"]["value"] != 1.0


CAMP = {
    "start": "2027-01-04", "bout_on": "2027-02-06", "rule_set": "muay-thai-amateur",
    "days": ["mon", "tue", "thu", "sat"], "most_a_week": 4, "person": {"level": "fighter", "mass_kg": 63},
    "fixed": [{"on": "2027-01-16", "purpose": "sparring"}], "ease_every": 3, "lactic_cutoff_days": 10,
    "weights": {"threshold": 2, "skill": 1},
}  # fmt: skip


def test_camp_gives_days_weeks_and_rules_and_each_line_costs_what_it_says(capsys, tmp_path):
    found = answer(capsys, "camp", written(tmp_path, "camp.json", CAMP))
    assert found["status"] in ("optimal", "feasible")
    assert found["bound_gap"] <= 0.02
    assert len(found["weeks"]) == 5
    assert all(rule["held"] for rule in found["rules"] if rule["hard"])
    assert {"on": "2027-01-16", "purpose": "sparring"}.items() <= next(
        day for day in found["days"] if day["purpose"] == "sparring"
    ).items()
    assert sum(day["load"] for day in found["days"]) == sum(week["load"] for week in found["weeks"])
    first = found["days"][0]
    told = answer(capsys, "evaluate", first["text"], "--level", "fighter", "--mass", "63")
    minutes = told["figures"]["total_s"] / 60
    assert first["load"] == pytest.approx(told["figures"]["rpe"]["value"] * minutes, rel=0.02)
    assert first["knob"]


def test_camp_says_which_rules_clash_where_nothing_fits(capsys, tmp_path):
    late = {**CAMP, "fixed": [{"on": "2027-02-04", "purpose": "test"}]}
    found = answer(capsys, "camp", written(tmp_path, "camp.json", late))
    assert found["status"] == "impossible"
    assert found["clash"] == ["lactic-cutoff", "fixed"]
    assert "test day on Thu 4 February" in found["clash_sentences"][1]
    assert found["days"] == []


@pytest.mark.parametrize(
    ("said", "words"),
    [
        ({"bout_on": None}, "give the day of the bout"),
        ({"bout_on": "soon"}, "bout_on: a date such as"),
        ({"days": "mon"}, "days: a list"),
        ({"days": ["monday"]}, "one of mon, tue"),
        ({"fixed": [{"on": "2027-01-16"}]}, "fixed, 1: 'purpose' is missing"),
        ({"fixed": [{"on": "2027-01-16", "purpose": "boxing"}]}, "nothing is called 'boxing'"),
        ({"most_a_week": "four"}, "most_a_week: a whole number"),
        ({"minutes": {"mon": 3}}, "15 to 180 minutes"),
        ({"person": {"level": "king"}}, "person, level: one of"),
        ({"weights": [1]}, "weights: an object"),
        ({"coach": "me"}, "there is no 'coach'"),
    ],
)
def test_camp_says_what_is_wrong_and_where(capsys, tmp_path, said, words):
    path = written(tmp_path, "camp.json", {**CAMP, **said})
    assert words in command(capsys, "camp", path, fails=True)[1]
