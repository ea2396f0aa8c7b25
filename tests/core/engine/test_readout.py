import numpy as np
import pytest

from tests.core.people import club_boxer
from yoisho.engine.lactate import blood_lactate
from yoisho.engine.readout import NoWorkError, fade_onset_of, read
from yoisho.engine.work_bouts import find_work_bouts
from yoisho.session.shorthand import read as line
from yoisho.session.timeline import unroll


def reading(text, **more):
    return read(club_boxer(), unroll(line(text)), **more)


def test_every_figure_is_a_best_guess_inside_its_range():
    for name, figure in reading("2 x (30 technique, 30 speed, 30 power) rest 0:15").figures.items():
        assert figure.low <= figure.value <= figure.high, name


def test_thirty_hard_thirty_light_twice_eight_minutes_has_sixteen_hard_efforts():
    # common practice, no source
    assert len(find_work_bouts(unroll(line("2 x (8 x (30 power / 30 flow)) rest 2:00")))) == 16


def test_neighbouring_hard_intervals_are_one_effort():
    bouts = find_work_bouts(unroll(line("2 x (30 technique, 30 speed, 30 power) rest 0:15")))
    assert [bout.seconds for bout in bouts] == [60, 60]


def test_a_session_without_hard_work_counts_its_brisk_or_its_easy_work():
    assert len(find_work_bouts(unroll(line("10:00 flow; then 1:00, 4 x (4:00 combination) recover 3:00")))) == 4
    assert len(find_work_bouts(unroll(line("3 x (5:00 flow) recover 1:00")))) == 3


def test_rest_alone_cannot_be_judged():
    with pytest.raises(NoWorkError, match="30 power"):
        reading("5:00 rest")


def test_shares_of_energy_make_the_whole():
    figures = reading("8 x (20 all out / 10 rest)").figures
    assert sum(figures[f"{store}_share"].value for store in ("aerobic", "alactic", "lactic")) == pytest.approx(1)


def test_blood_lactate_peaks_minutes_after_the_bell_not_at_it():
    hard = reading("1:00 all out")
    assert hard.figures["lactate_peak_mmol"].value > hard.traces.lactate_mmol[-1] + 0.5


def test_lactate_at_rest_stays_where_it_is():
    seconds = np.arange(0.0, 600.0)
    nothing, resting = np.zeros((600, 1)), np.full((600, 1), 0.1)
    course, peak = blood_lactate(seconds, nothing, resting)
    assert course[-1, 0] == peak[0] == 1.0


def test_a_harder_session_is_expected_to_feel_harder():
    ratings = [
        reading(text).figures["rpe"].value
        for text in (
            "20:00 flow",
            "3 x 3:00 technique rest 1:00",
            "3 x 3:00 power rest 1:00",
            "8 x 20/10 all out",
        )
    ]
    assert ratings == sorted(ratings)
    assert ratings[0] == pytest.approx(3, abs=1)
    assert ratings[-1] >= 9.5


def test_what_cannot_be_finished_is_rated_nine_or_ten():
    done = reading("12 x (1:00 fight pace) rest 0:10")
    assert done.exhausted_at_s is not None
    assert done.figures["rpe"].value >= 9


def test_load_is_rating_times_minutes():
    figures = reading("20:00 flow").figures
    rpe = figures["rpe"].value
    assert figures["load"].value == pytest.approx(rpe * 20)
    assert (figures["load"].low, figures["load"].high) == (pytest.approx(20 * rpe - 20), pytest.approx(20 * rpe + 20))


def test_a_search_reads_the_same_best_guess_without_ranges():
    quick, full = (reading("8 x (20 power / 10 rest)", ranges=ranges) for ranges in (False, True))
    assert {n: f.value for n, f in quick.figures.items()} == {n: f.value for n, f in full.figures.items()}


def test_a_heavier_person_spends_more():
    from yoisho.engine.person import person

    light, heavy = (
        read(person(vo2max_ml_kg_min=50, mass_kg=mass), unroll(line("20:00 flow"))).figures["kcal"].value
        for mass in (60, 90)
    )
    assert heavy == pytest.approx(1.5 * light)


def test_the_soft_band_of_every_course_holds_the_draws_and_narrows_to_where_all_begin():
    found = read(club_boxer(), unroll(line("6 x (30 all out) rest 0:30")))
    bands = found.bands
    assert bands is not None
    assert bands.seconds[-1] == found.timeline.total_s
    run = found.spread.run
    at = np.searchsorted(run.seconds, bands.seconds)
    low, high = bands.sprint_left
    inside = (run.sprint_left[at] >= low[:, None]) & (run.sprint_left[at] <= high[:, None])
    assert 0.78 <= inside.mean() <= 0.84, "an 80 % range"
    assert high[0] - low[0] < 0.02 < (high - low).max()
    assert (bands.lactic_left[0] >= 0).all()
    assert (bands.lactic_left[1] <= 1).all()


def test_without_ranges_there_is_no_band():
    assert read(club_boxer(), unroll(line("30 power")), ranges=False).bands is None


def test_kcal_hold_the_oxygen_that_is_breathed_after_the_bell():
    found = read(club_boxer(), unroll(line("8 x (20 all-out / 10 rest)")), ranges=False)
    measured = found.measured
    after = float(measured.oxygen_after_ml_kg[0]) * measured.to_kcal
    inside = float(measured.run.energy_aerobic.sum()) * measured.to_kcal
    assert after > 0.08 * inside, "a short hard set is paid for afterwards, too"
    assert found.figures["kcal"].value >= inside + after


def test_a_fade_starts_at_the_first_bout_that_falls_short_and_is_as_likely_as_its_draws():
    best = np.array([[False], [False], [True], [True]])
    drawn = np.array([[0, 0, 0, 0], [0, 0, 0, 1], [0, 1, 1, 1], [0, 1, 1, 1]], dtype=bool)
    onset = fade_onset_of(best, drawn)
    assert (onset.bout, onset.probability) == (3, 0.75)
    assert (onset.earliest, onset.latest) == (2, None)
    assert fade_onset_of(best[:2], None).bout is None
