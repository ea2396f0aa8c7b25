"""What hangs on the wall: enough to train by without a screen, and nothing of anybody's health."""

import dataclasses

from yoisho.answers.wall_sheet import wall_sheet
from yoisho.engine.person import person
from yoisho.session.document import Session
from yoisho.session.shorthand import read_parts

LINES = """Warm-up: 3:00 skip; then 3:00 flow shadow
Main: 6 x (30 power bag [1-2-7]) rest 1:00
Finisher: 8 x (20 all out bag) rest 0:10
Cool-down: 4:00 flow shadow"""
SESSION = Session("Sevens", read_parts(LINES))


def sheet(**more):
    return wall_sheet(SESSION, "lactic-capacity", "overhands", **more)


def test_every_part_says_when_it_starts_how_long_it_is_and_what_is_struck():
    main, finisher = sheet().parts[1:3]
    assert (main.name, main.starts, main.lasts, main.efforts) == ("Main", "6:00", "8:00", 6)
    assert (main.work, main.rest) == ("3:00", "5:00")
    assert "jab, cross, lead overhand" in main.meaning
    assert (finisher.efforts, finisher.work, finisher.rest) == (8, "2:40", "1:10")


def test_efforts_that_run_on_from_one_part_into_the_next_are_counted_in_both():
    on_and_on = Session("Stations", read_parts("One: 3 x (1:00 power) rest 0:30\nTwo: 2 x (1:00 power) rest 0:30"))
    assert [part.efforts for part in wall_sheet(on_and_on, "threshold", "overhands").parts] == [3, 2]


def test_the_numbers_are_those_of_the_clubs_school():
    assert dict(sheet().numbers)[7] == "lead overhand"
    assert dict(wall_sheet(SESSION, "lactic-capacity", "body-hooks").numbers)[7] == "lead hook to the body"


def test_strikes_are_told_for_whom_it_is_with_their_range_and_by_limb():
    club = sheet(who=person(level="club", vo2max_ml_kg_min=40))
    fighter = sheet(who=person(level="fighter", vo2max_ml_kg_min=60))
    assert club.strikes != fighter.strikes
    value, low, high = (int(word.strip("()")) for word in fighter.strikes.replace(" to", "").split())
    assert low < value < high
    assert abs(sum(count for _, count in fighter.limbs) - value) <= 0.03 * value
    assert not wall_sheet(Session("Rope", read_parts("Rope: 5:00 skip")), "aerobic-base", "overhands").strikes


def test_nothing_of_anybodys_health_hangs_on_the_wall():
    """Whoever it is printed for: what is known of them changes no caution, and no word but their name."""
    known = person(age_years=61, level="beginner", heart_rate_lowering_medication=True, mass_kg=108)
    own, anybody = sheet(who=known, for_whom="Hedda Quill"), sheet()
    assert own.cautions == anybody.cautions
    told = str(dataclasses.asdict(own)).lower()
    for word in ("medication", "beta", "61", "108", "bmi", "screening"):
        assert word not in told, word


def test_what_the_session_itself_warns_of_and_the_signs_to_stop_at_stand_there():
    cold = wall_sheet(Session("Cold", read_parts("Main: 8 x (20 all out) rest 0:10")), "lactic-capacity", "overhands")
    assert [seal for seal, _ in cold.cautions][:1] == ["Cold"]
    assert cold.stop_signs.startswith("Chest pain")
