"""A class: what each of the people really gets of a session, and whether that is still what was designed."""

from dataclasses import replace
from datetime import date, time
from itertools import pairwise

import pytest

from yoisho.answers.classes import class_answer
from yoisho.classes.asked import Asked, Comer
from yoisho.classes.board import board_from_dict, board_to_dict, lived, present, present_s, waves_of
from yoisho.classes.calls import LONGEST_CALL_WORDS, board_calls, moving
from yoisho.classes.changes import swapped, with_late, without
from yoisho.classes.line import read_line
from yoisho.classes.made import aim_of, hard_s, kept, make
from yoisho.classes.schools import SCHOOLS
from yoisho.classes.weighed import sharing, short, tradeoffs, what_ifs
from yoisho.engine.person import person
from yoisho.engine.readout import read as simulate
from yoisho.judgement.verdict import judge
from yoisho.plain import PlainError
from yoisho.rotation.faults import faults
from yoisho.rotation.group import ClassError
from yoisho.runs.calls import Settings
from yoisho.runs.plan import Plan
from yoisho.session.shorthand import read
from yoisho.session.timeline import unroll
from yoisho.session.volume import volume

CLUB = person()
TWENTY_TEN = read("20 power, 10 rest")


def asked(count: int = 14, **said: object) -> Asked:
    people = tuple(Comer(f"p{number}", CLUB) for number in range(1, count + 1))
    usual = {"people": people, "pattern": TWENTY_TEN, "minutes": 40, "bags": 6, "pad_pairs": 2, "waves": 7}
    return Asked(**{**usual, **said})  # type: ignore[arg-type]


def of(made, name: str):
    """Somebody's place, and the session as they have it."""
    place = next(at for at, each in enumerate(made.board.people) if each.name == name)
    return place, lived(made.timeline, made.board, place)


# Schools


@pytest.mark.parametrize("school", SCHOOLS)
def test_every_school_keeps_to_the_minutes_gives_everybody_as_much_and_lets_nobody_wait(school):
    made = make(asked(school=school, waves=None))
    assert made.timeline.total_s <= 40 * 60
    assert list(faults(made.plan.group, made.rotation.rows)) == []
    assert made.rotation.against.waiting == 0
    moving = {share.moving_s for share in made.shares}
    assert len(moving) == 1
    work = [share.work_s for share in made.shares]
    assert max(work) <= 1.35 * min(work)


def test_twos_share_a_bag_each_works_while_the_other_rests():
    made = make(asked(12, school="pairs", bags=6, pad_pairs=0))
    wave = waves_of(made.timeline, made.plan.part)[0]
    one, other = (
        next(place for place, each in enumerate(made.board.people) if each.row[0] == station)
        for station in ("bag 1 A", "bag 1 B")
    )
    lives = (lived(made.timeline, made.board, place).intervals for place in (one, other))
    both = [[each.kind for each in own if wave.start_s <= each.start_s < wave.end_s] for own in lives]
    assert {frozenset(pair) for pair in zip(*both, strict=True)} == {frozenset({"work", "rest"})}


def test_two_on_two_off_takes_no_more_gear_than_half_of_them_needs():
    made = make(asked(14, school="halves", bags=12, pad_pairs=4, waves=None))
    assert made.plan.group.bags == 7
    assert made.plan.group.pad_pairs == 0
    assert len(waves_of(made.timeline, made.plan.part)) % 2 == 0
    for row in made.rotation.rows.values():
        assert all((one == "floor") != (two == "floor") for one, two in pairwise(row))


def test_to_the_beat_eights_are_whole_seconds_and_both_sides_get_as_many_strikes_within_one():
    for beats in (96, 100, 112, 120, 128, 140):
        made = make(asked(9, school="beat", beats=beats, waves=1))
        inside = [each for each in made.timeline.intervals if each.part == made.plan.part]
        for each in inside:
            assert (each.seconds * beats) % (8 * 60) == 0
        limbs = volume(inside).limbs
        left = sum(count for limb, count in limbs.items() if limb.startswith("left"))
        right = sum(count for limb, count in limbs.items() if limb.startswith("right"))
        assert left > 100
        assert abs(left - right) <= 1
    with pytest.raises(ClassError, match=r"125 beats .* take 12[0-9]"):
        make(asked(9, school="beat", beats=125))


def test_work_to_the_beat_is_called_a_bar_ahead_and_not_counted_in():
    made = make(asked(9, school="beat", waves=1))
    calls = Plan(made.plan.session).calls(Settings())
    ahead = [call for call in calls if call.text.startswith("in four")]
    assert [call.text for call in ahead] == [
        "in four: other side", "in four: add cross", "in four: other side", "in four: add lead hook",
        "in four: other side",
    ]  # fmt: skip
    starts = [each.start_s for each in made.timeline.intervals if each.part == made.plan.part][1:]
    assert [call.at_s + 4 * 60 / 120 for call in ahead] == starts
    counts = [cue.at_s for cue in Plan(made.plan.session).cues if cue.kind == "count"]
    assert not any(start - 3 <= at < start for start in starts for at in counts)


def test_a_circuit_shows_the_combination_before_each_set_and_nobody_is_at_one_station_twice_running():
    made = make(asked(12, school="circuit", bags=4, pad_pairs=0, waves=None, stations=("skip", "squats", "plank")))
    first = waves_of(made.timeline, made.plan.part)[0]
    shown = next(each for each in made.timeline.intervals if each.start_s == first.start_s)
    assert shown.tempo == "show"
    assert {"skip", "squats", "plank"} <= {station for row in made.rotation.rows.values() for station in row}
    assert not any(one == two for row in made.rotation.rows.values() for one, two in pairwise(row))
    place = next(at for at, each in enumerate(made.board.people) if each.row[0] == "plank")
    own = lived(made.timeline, made.board, place).intervals
    inside = [each for each in own if first.start_s <= each.start_s < first.end_s and each.kind == "work"]
    assert {(each.source.modality, each.tempo) for each in inside} == {("plank", "hold")}


def test_a_class_without_room_for_a_wave_says_what_would_make_room():
    with pytest.raises(ClassError, match="no room for a wave of 3:00") as fault:
        make(asked(minutes=10, waves=None, warm_up_min=5, cool_down_min=3))
    assert fault.value.field == "minutes"
    for field, said in (("minutes", 3), ("floor_does", "tea"), ("stations", ("x",)), ("rounds", 0)):
        with pytest.raises(ClassError) as fault:
            asked(**{field: said})
        assert fault.value.field == field


# What each gets


def test_at_the_pads_one_hits_to_half_of_the_wave_and_the_other_after_it():
    made = make(asked())
    wave = waves_of(made.timeline, made.plan.part)[0]
    hits, holds = (
        lived(made.timeline, made.board, next(p for p, each in enumerate(made.board.people) if each.row[0] == at))
        for at in ("pads 1 hit", "pads 1 hold")
    )

    def struck(timeline, start_s, end_s):
        return sum(each.strikes for each in timeline.intervals if start_s <= each.start_s < end_s)

    assert wave.swap_s == wave.start_s + 90
    assert struck(hits, wave.start_s, wave.swap_s) == pytest.approx(struck(holds, wave.swap_s, wave.end_s))
    assert struck(hits, wave.start_s, wave.swap_s) > 20
    assert struck(hits, wave.swap_s, wave.end_s) == struck(holds, wave.start_s, wave.swap_s) == 0


def test_whoever_must_not_hold_shadows_while_the_coach_holds_and_whoever_must_not_go_hard_does_not():
    people = tuple(
        Comer(f"p{number}", CLUB, ("hold",) if number == 1 else (), easy=number == 2) for number in range(1, 15)
    )
    made = make(asked(people=people))
    place, gus = of(made, "p1")
    at_pads = next(wave for wave, at in enumerate(made.board.people[place].row) if at.startswith("pads"))
    wave = waves_of(made.timeline, made.plan.part)[at_pads]
    inside = [each for each in gus.intervals if wave.start_s <= each.start_s < wave.end_s and each.kind != "rest"]
    assert {each.source.modality for each in inside} == {"pads", "shadow"}
    _, nell = of(made, "p2")
    assert hard_s(nell) == 0
    assert hard_s(gus) > 0


def test_somebody_late_has_what_is_left_and_their_load_is_of_that_alone():
    whole = make(asked())
    made = make(asked(from_wave={"p3": 4}, absent_after={"p4": 2, "p5": 0}))
    waves = waves_of(made.timeline, made.plan.part)
    late, early, absent = (of(made, name)[0] for name in ("p3", "p4", "p5"))
    assert present_s(made.timeline, made.board, late) == (waves[3].start_s - waves[3].change_s, made.timeline.total_s)
    assert present_s(made.timeline, made.board, early) == (0, waves[1].end_s)
    assert present_s(made.timeline, made.board, absent) == (0, 0)
    assert present(made.timeline, made.board, late).intervals[0].start_s == 0
    shares = made.shares
    assert shares[late].total_s == made.timeline.total_s - (waves[3].start_s - waves[3].change_s)
    assert shares[late].load < whole.shares[0].load
    assert (shares[absent].load, shares[absent].strikes, shares[absent].moving_s) == (0, 0, 0)
    assert shares[early].moving_s == 2 * (waves[0].end_s - waves[0].start_s)


def test_waves_changes_and_stations_add_up_for_everybody():
    made = make(asked())
    waves = waves_of(made.timeline, made.plan.part)
    for place, share in enumerate(made.shares):
        assert share.work_s + share.rest_s == share.moving_s == 7 * 180
        assert share.idle_s == 6 * 30
        assert sum(share.turns.values()) == len(waves)
        reading = simulate(CLUB, made.of(place), ranges=False)
        assert share.load == pytest.approx(reading.figures["rpe"].value * made.timeline.total_s / 60)
        assert share.strikes == pytest.approx(reading.volume.strikes)


# What is said


def test_the_purpose_is_what_the_work_trains_best_and_whatever_gear_there_is():
    made = make(asked(bags=2))
    best = judge(simulate(CLUB, made.timeline, ranges=False)).trains_best
    assert aim_of(made.asked) == made.target == best
    assert aim_of(asked(target="skill")) == "skill"
    answer = class_answer(make(asked(target="lactic-capacity")), "overhands")
    assert [each.which for each in answer.trains] == ["weakest", "middle", "strongest"]


def test_what_the_gear_takes_from_the_purpose_is_said_with_the_least_that_would_mend_it():
    enough = make(asked(6, bags=6, pad_pairs=0, target="lactic-capacity"))
    assert short(enough) is None
    few = make(asked(14, bags=2, pad_pairs=0, target="lactic-capacity", minutes=25, waves=None))
    lacks = short(few)
    place, _ = few.middle
    got, designed = hard_s(few.of(place)), hard_s(few.timeline)
    assert f"{got // 60}:{got % 60:02d} of hard work of the {designed // 60}:{designed % 60:02d}" in lacks.sentence
    if lacks.cure:
        words = lacks.cure.split(" would")[0].lower().split(" or ")
        assert 1 <= len(words) <= 3


def test_sharing_says_who_waits_why_and_how_much_more_would_do():
    made = make(asked(10, bags=4, pad_pairs=0, floor=3))
    told = sharing(made)
    assert (told.word, told.strokes) == ("Somebody waits", 1)
    assert "10 people and 7 places: 3 more would do" in told.sentence
    good = sharing(make(asked()))
    assert (good.word, good.strokes) == ("Nobody waits", 5)
    assert "Seven waves give all 14 three on a bag, two on pads and two on the floor" in good.sentence


def test_classes_beside_each_other_say_what_each_costs():
    several = [make(asked(school=school, waves=None, target="lactic-capacity")) for school in SCHOOLS]
    said = tradeoffs(several)
    work = [max(share.work_s for share in made.shares) for made in several]
    assert "The most work" in said[work.index(max(work))]
    assert all(said)


def test_what_might_change_is_solved_ahead_for_two_more_a_bag_less_less_time_and_a_coach_who_holds():
    made = make(asked(waves=None))
    found = {each.name: each for each in what_ifs(made)}
    assert list(found) == ["Two more come", "A bag comes down", "Only 35 minutes", "The coach has to hold"]
    assert len(found["Two more come"].made.board.people) == 16
    assert found["A bag comes down"].made.plan.group.bags == 5
    assert found["Only 35 minutes"].made.timeline.total_s <= 35 * 60
    rows = found["The coach has to hold"].made.rotation.rows
    assert all([row[wave] for row in rows.values()].count("coach") == 1 for wave in range(len(rows["p1"])))
    one = {each.name: each for each in what_ifs(make(asked(1, bags=1, pad_pairs=0, minutes=14, waves=None)))}
    assert "Only 9 minutes" not in one


def test_a_class_is_the_same_when_it_is_kept_and_read_again():
    made = make(asked(from_wave={"p3": 4}))
    again = kept(made.asked, [list(made.rotation.rows[each.name]) for each in made.asked.people])
    assert again.shares == made.shares
    assert again.rotation.against == made.rotation.against
    assert board_from_dict(board_to_dict(made.board)) == made.board
    for rows, words in (([[]], "1 to 40 waves"), ([["floor"], ["floor", "floor"]], "as many waves"), ([], "1 to 60")):
        people = [{"name": f"p{number}", "row": row} for number, row in enumerate(rows)]
        with pytest.raises(PlainError, match=words):
            board_from_dict({"part": 1, "people": people})


# On the floor


def test_teams_who_move_together_are_called_by_their_colour_few_by_name_and_others_by_letter():
    teams = make(asked())
    assert {label for label in teams.board.labels} == {"Blue", "Red", "Green", "Yellow", "White", "Black", "Orange"}
    for wave in range(1, 8):
        text = moving(teams.board, wave)
        assert len(text.split()) <= LONGEST_CALL_WORDS
        for who, label in zip(teams.board.people, teams.board.labels, strict=True):
            kind = {"bag": "bags", "pads": "pads", "floor": "floor"}[who.row[wave - 1].split(" ")[0]]
            sentence = next(each for each in text.split(". ") if kind in each)
            assert f"{label}s" in sentence
    few = make(asked(5, bags=2, pad_pairs=1))
    assert few.board.labels == ("p1", "p2", "p3", "p4", "p5")
    odd = make(asked(13, from_wave={"p2": 3}))
    assert odd.board.labels[:3] == ("A", "B", "C")
    many = make(asked(40, bags=10, pad_pairs=0))
    if not many.board.teams:
        assert moving(many.board, 2) == "Change. Look at the board"


def test_who_goes_where_is_said_in_the_change_before_each_wave_and_the_swap_at_half_of_it():
    made = make(asked())
    waves = waves_of(made.timeline, made.plan.part)
    plan = Plan(made.plan.session, beside=tuple(board_calls(made.timeline, made.board)))
    calls = plan.calls(Settings())
    moves = [call for call in calls if call.kind == "move"]
    assert len(moves) == 7
    assert moves[0].at_s < waves[0].start_s
    for wave, call in zip(waves[1:], moves[1:], strict=True):
        assert wave.start_s - wave.change_s <= call.at_s
        assert call.at_s + call.seconds <= wave.start_s - 3
    assert [call.at_s for call in calls if call.kind == "swap"] == [wave.swap_s + 0.2 for wave in waves]
    quiet = plan.calls(Settings(frozenset({"move"})))
    assert not [call for call in quiet if call.kind == "move"]


@pytest.mark.parametrize("wave", [1, 3, 7])
def test_somebody_late_joins_a_running_class_and_what_is_done_stays(wave):
    board = make(asked()).board
    now = with_late(board, "Milo V.", wave)
    assert [each.row[: wave - 1] for each in now.people[:-1]] == [each.row[: wave - 1] for each in board.people]
    assert now.people[-1].row[: wave - 1] == ("away",) * (wave - 1)
    assert "wait" not in {at for each in now.people for at in each.row}
    for number in range(7):
        at = [each.row[number] for each in now.people]
        taken = [station for station in at if station.startswith(("bag", "pads"))]
        assert len(taken) == len(set(taken))
        assert at.count("pads 1 hit") == at.count("pads 1 hold")
    with pytest.raises(ClassError, match="here already"):
        with_late(now, "Milo V.", wave)
    with pytest.raises(ClassError, match="waves 1 to 7"):
        with_late(board, "Kit", 8)


def test_somebody_leaves_two_change_places_and_few_others_go_elsewhere():
    board = make(asked()).board
    gone = without(board, 2, 4)
    assert gone.people[2].row == (*board.people[2].row[:3], *("away",) * 4)
    other = next(at for at, each in enumerate(board.people) if each.row[3] != board.people[0].row[3])
    now = swapped(board, 0, other, 4)
    assert (now.people[0].row[3], now.people[other].row[3]) == (board.people[other].row[3], board.people[0].row[3])
    assert [each.row[:3] for each in now.people] == [each.row[:3] for each in board.people]
    with pytest.raises(ClassError, match="not there"):
        swapped(gone, 2, 0, 5)


# Shown


def test_what_is_shown_costs_rest_strikes_nothing_and_is_called_strike_by_strike():
    shown, rest = (unroll(read(f"0:15 {what}, 1:00 power bag [1-2-3b]")) for what in ("show [1-2-3b]", "rest"))
    assert shown.strikes == rest.strikes
    assert volume(shown.intervals).limbs == volume(rest.intervals).limbs
    one, two = (simulate(CLUB, timeline, ranges=False).figures for timeline in (shown, rest))
    assert {name: figure.value for name, figure in one.items()} == {name: figure.value for name, figure in two.items()}
    calls = Plan(replace(make(asked(5)).plan.session, parts=()), own=shown).calls(Settings())
    said = [call for call in calls if call.kind == "combination" and call.at_s < 15]
    assert [call.text for call in said][:3] == ["jab", "cross", "lead hook to the body"]
    assert all(two.at_s >= one.at_s + one.seconds for one, two in pairwise(said))
    assert said[-1].at_s + said[-1].seconds <= 15
    assert next(call.text for call in calls if call.kind == "effort") == "watch"


# From a line


@pytest.mark.parametrize(
    ("line", "fields"),
    [
        (
            "20/10 for Thursday, 14 people, 6 bags, 25 min with warm-up",
            {"count": 14, "bags": 6, "minutes": 25, "warm_up_min": 5},
        ),
        (
            "Tabata for Thursday's class, 14 people, 6 bags, 25 minutes with warm-up.",
            {"count": 14, "bags": 6, "minutes": 25, "warm_up_min": 5},
        ),
        (
            "40 minutes, 2-on/2-off, 9 boxers, 3 heavy bags, 2 pairs of pads, 10 min warm-up, no cool-down",
            {"school": "halves", "count": 9, "bags": 3, "pad_pairs": 2, "minutes": 40, "warm_up_min": 10,
             "cool_down_min": 0},
        ),
        (
            "circuit, 12 people, 4 bags, skip, squats, plank, the coach holds",
            {"school": "circuit", "count": 12, "bags": 4, "stations": ("skip", "squats", "plank"), "coach_holds": True},
        ),
        ("to the beat, 128 bpm, 20 people, 45 min, for aerobic base",
         {"school": "beat", "beats": 128, "count": 20, "minutes": 45, "target": "aerobic-base"}),
        ("3:00 technique for skill, 8 people, 4 bags", {"target": "skill", "count": 8, "bags": 4}),
    ],
)  # fmt: skip
def test_a_line_is_read_as_a_coach_says_it(line, fields):
    found = read_line(line, date(2026, 11, 30))
    assert {name: value for name, value in found.fields.items() if name not in ("pattern", "combination")} == fields
    assert found.unread == []


def test_days_hours_groups_patterns_and_what_is_not_read():
    monday = date(2026, 11, 30)
    found = read_line("30/30 all out for the dockers at 12:10 on Thursday, 6 people, wibble", monday, ("Dockers",))
    assert (found.group, found.on, found.at) == ("Dockers", date(2026, 12, 3), time(12, 10))
    assert found.fields["pattern"] == read("30 all out, 30s rest")
    assert found.unread == ["wibble"]
    assert read_line("20/10 today, 8 people", monday).on == monday
    assert read_line("20/10 monday, 8 people", monday).on == monday
    assert read_line("tabata", monday).fields["pattern"] == read("20 power, 10s rest")
    whole = read_line("30 technique 30 speed 30 power, 12 people", monday).fields["pattern"]
    assert whole == read("30 technique, 30 speed, 30 power")
    wrong = {
        "": "say what the class is", "20/10 on 2026-02-31": "calendar", "20/0, 5 people": "1 to 3600",
        "20/10 at 27:90": "no hour", "x" * 400: "at most 300", "20/10 [1-99]": "combination",
    }  # fmt: skip
    for line, words in wrong.items():
        with pytest.raises(ClassError, match=words):
            read_line(line, monday)
