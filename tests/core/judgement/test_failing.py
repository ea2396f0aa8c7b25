"""The effort in which what is asked can no longer be given. Against published endurance, from memory."""

import pytest

from yoisho.engine.person import person
from yoisho.engine.readout import read
from yoisho.judgement.fade import failing
from yoisho.session.shorthand import read as line
from yoisho.session.timeline import unroll


def fails(text, who=None, **more):
    return failing(read(who or person(), unroll(line(text)), **more))


def test_supramaximal_work_with_rest_fails_in_an_effort_with_a_range():
    """15 s at 120 % with 15 s of rest was held for about a quarter of an hour (Dupont et al. 2003, from memory)."""
    found = fails("60 x (15 flow at 120%) rest 0:15")
    assert found.earliest < found.bout < (found.latest or 61)
    assert 20 <= found.bout <= 40
    assert found.probability > 0.7


def test_easy_work_and_all_out_work_fail_nowhere():
    """All out asks for whatever is left: it fades, and does not fail."""
    for text in ("12 x (30 combination bag [1-2]) rest 0:30", "8 x (20 all out / 10 rest)", "30:00 flow"):
        assert (fails(text).bout, fails(text).earliest) == (None, None), text


@pytest.mark.parametrize(("easier", "harder"), [(110, 120), (120, 140)])
def test_what_is_harder_fails_sooner(easier, harder):
    sooner, later = (fails(f"60 x (15 flow at {share}%) rest 0:15").bout for share in (harder, easier))
    assert sooner < (later or 61)


def test_more_rest_and_a_fitter_person_fail_later():
    base = fails("40 x (30 flow at 120%) rest 0:30").bout
    assert (fails("40 x (30 flow at 120%) rest 1:00").bout or 41) > base
    strong = person(vo2max_ml_kg_min=60)
    weak = person(vo2max_ml_kg_min=40)
    fixed = "20 x (1:00 flow bag [1-2] 140 a minute) rest 0:30"
    assert (fails(fixed, weak).bout or 21) < (fails(fixed, strong).bout or 21)


def test_without_draws_it_is_the_best_guess_alone():
    found = fails("60 x (15 flow at 120%) rest 0:15", ranges=False)
    assert found.bout == found.earliest == found.latest
