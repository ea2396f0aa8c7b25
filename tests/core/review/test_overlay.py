"""Where a file of heart rate lies on a run."""

from datetime import UTC, datetime, timedelta

import numpy as np
import pytest

from yoisho.engine.person import person
from yoisho.engine.readout import read
from yoisho.review.overlay import LEAST_OVERLAP_S, lay, on_the_run
from yoisho.session.shorthand import read as line
from yoisho.session.timeline import unroll

BEGUN = datetime(2026, 3, 2, 18, 0, tzinfo=UTC)
RUN = [
    float(bpm)
    for bpm in read(
        person(), unroll(line("5:00 flow, 3 x (2:00 power) rest 1:30, 6 x (20 all out, 10 rest)"))
    ).traces.heart_rate_bpm
]


def worn(shift_s, before_s=0, noise=2.0, offset=8.0, gap=None):
    """A watch that was started `shift_s` after the run began, on somebody whose heart is not the model's."""
    random = np.random.default_rng(5)
    calm = [70.0] * before_s
    course = np.array(calm + RUN)[max(0, shift_s + before_s) :]
    told = course + offset + noise * random.standard_normal(len(course))
    heart = [(float(at), float(bpm)) for at, bpm in enumerate(told)]
    return [pair for pair in heart if gap is None or not gap[0] <= pair[0] < gap[1]]


def test_two_clocks_lay_it_to_the_second():
    laid = lay(worn(30), BEGUN + timedelta(seconds=30), RUN, BEGUN)
    assert (laid.shift_s, laid.by, laid.sureness) == (30.0, "clock", "sure")


@pytest.mark.parametrize("shift_s", [0, 47, 133])
def test_without_a_clock_it_is_laid_where_it_fits(shift_s):
    laid = lay(worn(shift_s), None, RUN, BEGUN)
    assert laid.by == "match"
    assert laid.shift_s == pytest.approx(shift_s, abs=3)
    assert laid.sureness in ("sure", "likely")
    assert laid.correlation > 0.9


def test_a_watch_that_was_started_before_the_run_is_laid_before_it():
    assert lay(worn(-200, before_s=200), None, RUN, None).shift_s == pytest.approx(-200, abs=3)


def test_gaps_do_not_move_it():
    assert lay(worn(47, gap=(100, 220)), None, RUN, None).shift_s == pytest.approx(47, abs=3)


def test_a_clock_of_another_day_is_not_believed():
    laid = lay(worn(47), BEGUN - timedelta(days=3), RUN, BEGUN)
    assert laid.by == "match"
    assert laid.shift_s == pytest.approx(47, abs=3)


def test_an_even_course_is_a_guess():
    even = [(float(at), 120.0 + (at % 2)) for at in range(len(RUN))]
    assert lay(even, None, RUN, None).sureness == "a guess"


def test_only_what_lies_on_the_run_is_kept():
    heart = [(0.0, 90.4), (10.0, 100.0), (20.0, 110.0)]
    assert on_the_run(heart, -10.0, 10.0) == ((0.0, 100),)


def test_a_clock_is_believed_where_two_minutes_of_the_run_are_covered_and_no_sooner():
    """A watch that was put on in the last moments says too little of where it lies."""
    file = [(float(second), 120.0 + second % 7) for second in range(600)]
    least = LEAST_OVERLAP_S
    for covered, by in ((least, "clock"), (least - 1, "match")):
        begun = BEGUN - timedelta(seconds=len(RUN) - covered)
        assert lay(file, BEGUN, RUN, begun).by == by
    for covered, by in ((least, "clock"), (least - 1, "match")):
        begun = BEGUN + timedelta(seconds=file[-1][0] - covered)
        assert lay(file, BEGUN, RUN, begun).by == by
