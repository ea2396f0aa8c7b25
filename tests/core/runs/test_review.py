"""Planned against done. What a coach would write down by hand: common practice, no source."""

import pytest

from yoisho.engine.person import person
from yoisho.engine.readout import try_reading
from yoisho.runs.record import Record, Stood, Stretch, done_timeline, lived
from yoisho.runs.review import fade, review
from yoisho.session.shorthand import read
from yoisho.session.timeline import unroll

TABATA = unroll(read("8 x (20 all-out) rest 0:10"))
PAIRS = unroll(read("6 x (30 power pairs)"))


def reviewed(timeline, record):
    return review(try_reading(person(), lived(timeline, record)), timeline, record)


def done(timeline, *played, **more):
    return reviewed(timeline, Record(tuple(Stretch(*each) for each in played), **more))


def test_a_session_that_was_run_through_is_done_round_for_round():
    whole = done(TABATA, (-10, TABATA.total_s))
    assert len(whole.rounds) == 8
    assert all(one.done for one in whole.rounds)
    assert whole.work_s == 160
    assert whole.rest_s == 70


def test_the_last_round_cut_short_says_how_long_it_was():
    cut = done(TABATA, (-10, 226))
    assert [one.done for one in cut.rounds] == [True] * 7 + [False]
    assert cut.rounds[-1].done_s == pytest.approx(16)


def test_a_round_that_was_skipped_is_not_done():
    skipped = done(TABATA, (-10, 30), (60, 230))
    assert [one.done for one in skipped.rounds] == [True, False, *[True] * 6]


def test_what_was_done_twice_is_work_twice_but_one_round():
    twice = done(TABATA, (0, 20), (0, 230))
    assert twice.work_s == 180
    assert twice.rounds[0].done_s == 20


def test_time_added_to_a_rest_is_rest():
    more = done(TABATA, (0, 230), stood=(Stood(25.0, 10.0),))
    assert more.rest_s == 80
    assert more.work_s == 160


def test_reps_that_were_counted_to_the_last_are_done_however_soon():
    reps = unroll(read("2 x (50 reps power bag [1-2]) rest 0:30"))
    first, _, second = reps.intervals
    quick = done(reps, (0, 5), (first.end_s, second.start_s + 5), counted=((first.start_s, first.end_s),))
    assert [one.done for one in quick.rounds] == [True, False]


def test_each_of_a_pair_has_their_own_work_and_rest():
    shares = [done(PAIRS, (0, 360), place=place, of=2) for place in range(2)]
    assert [(one.work_s, one.rest_s) for one in shares] == [(180, 180), (180, 180)]
    assert {(one.planned_work_s, one.planned_rest_s) for one in shares} == {(180, 180)}


def test_three_at_a_bag_that_stop_early_have_worked_unequally():
    """Seven turns of thirty seconds: the first had three, the others two."""
    shares = [done(PAIRS, (0, 210), place=place, of=3) for place in range(3)]
    assert [one.work_s for one in shares] == [90, 60, 60]
    assert [one.rest_s for one in shares] == [120, 150, 150]


def test_a_swap_by_hand_moves_the_work_to_the_other():
    """A works 30, B works 30, then they swap: B works again at once."""
    first = done(PAIRS, (0, 60, 0), (60, 120, 1), place=0, of=2)
    second = done(PAIRS, (0, 60, 0), (60, 120, 1), place=1, of=2)
    assert first.work_s == second.work_s == 60
    assert [one.start_s for one in first.rounds[:2]] == [0, 90]
    assert second.rounds[0].end_s == 90, "sixty seconds without a pause"


def test_a_turn_that_is_swapped_half_way_is_half_of_it():
    """A works ten of the first thirty seconds, then B has the other twenty."""
    shares = [done(PAIRS, (0, 10, 0), (10, 30, 1), place=place, of=2) for place in range(2)]
    assert [(one.work_s, one.rest_s) for one in shares] == [(10, 20), (20, 10)]


def test_fade_is_the_last_third_against_the_first():
    """Worked by hand: eight rounds, the last two (18 + 17) against the first two (26 + 25)."""
    assert fade([26, 25, 24, 23, 21, 20, 18, 17]) == pytest.approx(1 - 35 / 51)
    assert fade([10, 10]) is None
    assert fade([0, 5, 5]) is None


def test_counted_strikes_give_each_round_its_count_and_the_part_its_fade():
    strikes = []
    for index, count in enumerate([26, 25, 24, 23, 21, 20, 18, 17]):
        strikes += [30 * index + 20 * (n + 0.5) / count for n in range(count)]
    counted = done(TABATA, (0, 230), strikes=tuple(strikes))
    assert [one.strikes for one in counted.rounds] == [26, 25, 24, 23, 21, 20, 18, 17]
    assert counted.strikes == 174
    (over,) = counted.fades
    assert over.measured == pytest.approx(0.3137, abs=1e-3)
    assert 0 <= over.expected < 1


def test_a_round_that_was_not_done_counts_for_no_fade():
    strikes = tuple(30 * index + 1 + n for index in range(7) for n in range(10))
    (over,) = done(TABATA, (0, 215), strikes=strikes).fades
    assert over.rounds == 7
    assert over.measured == pytest.approx(0)


def test_within_a_long_bout_the_strikes_slow():
    minute = unroll(read("1:00 speed"))
    thirds = (0, 0.5, 40), (20, 1.0, 20), (40, 2.0, 10)
    strikes = tuple(start + every * n for start, every, count in thirds for n in range(count))
    (one,) = done(minute, (0, 60), strikes=strikes).rounds
    assert one.fade == pytest.approx(0.75)
    later = unroll(read("2:00 flow; then 1:00, 1:00 speed"))
    one = done(later, (0, 240), strikes=tuple(180 + at for at in strikes)).rounds[-1]
    assert one.fade == pytest.approx(0.75), "wherever in the session it stands"


def test_without_a_sensor_nothing_is_said_of_strikes():
    plain = done(TABATA, (0, 230))
    assert plain.strikes is None
    assert plain.fades[0].measured is None
    assert {one.strikes for one in plain.rounds} == {None}


def test_the_highest_heart_of_a_round_may_come_after_its_bell():
    heart = ((10.0, 150.0), (24.0, 171.0), (45.0, 160.0))
    rounds = done(TABATA, (0, 230), heart=heart).rounds
    assert rounds[0].peak_bpm == 171
    assert rounds[1].peak_bpm == 160
    assert rounds[4].peak_bpm is None


def test_a_strap_that_was_off_says_for_how_long():
    heart = tuple((float(second), 150.0) for second in range(230) if not 100 <= second < 140)
    assert done(TABATA, (0, 230), heart=heart).strap_off_s == pytest.approx(40)
    assert done(TABATA, (0, 230)).strap_off_s is None


def test_a_session_of_rest_alone_has_no_rounds():
    rest = done(unroll(read("2:00 rest")), (0, 120))
    assert rest.rounds == ()
    assert rest.rest_s == 120


def test_a_turn_that_was_not_played_keeps_the_swap_of_the_turns_before_it():
    """Swapped before the second turn, and the clock moved past the third: it would have been B's... and so A's rest."""
    skipped = lived(PAIRS, Record((Stretch(0, 30, 0), Stretch(30, 60, 1), Stretch(90, 120, 1)), of=2))
    assert [one.kind for one in skipped.intervals[:4]] == ["work", "work", "rest", "work"]


def test_the_most_that_hands_can_do_goes_by_the_work_that_was_done():
    assert done(TABATA, (0, 30)).most_strikes == 200
    assert done(TABATA, (0, 0)).most_strikes == 0


def test_open_ended_work_tells_how_long_it_became_beside_what_was_stated():
    lesson = unroll(read("open 4:00 technique bag [1-2b], 1:00 rest, 2:00 flow"))
    ended = Record((Stretch(0, 239.99), Stretch(240, 420)), stood=(Stood(239.99, 95.0),), counted=((0, 240),))
    first, second = reviewed(lesson, ended).rounds
    assert (first.took_s, first.stated_s, first.done) == (pytest.approx(335, abs=0.1), 240, True)
    assert second.stated_s is None
    sooner = reviewed(lesson, Record((Stretch(0, 100), Stretch(240, 420)), counted=((0, 240),)))
    assert (sooner.rounds[0].took_s, sooner.rounds[0].done, sooner.efforts_done) == (100, True, 2)
    assert done_timeline(lesson, ended).intervals[0].seconds == 335, "strikes are those of the time it took"


def test_every_round_of_reps_tells_its_own_time():
    rounds = unroll(read("2 x (20 reps power bag [1-2]) rest 0:30"))
    first, _, second = rounds.intervals
    # The first was done four seconds early; in the second the clock stood seven seconds until the last rep.
    played = ((0, first.end_s - 4), (first.end_s, second.end_s))
    found = done(rounds, *played, stood=(Stood(second.end_s - 0.05, 7.0),)).rounds
    assert [one.took_s for one in found] == pytest.approx([first.seconds - 4, second.seconds + 7])
