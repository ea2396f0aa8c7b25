"""What was seen of a session, and how well a forecast of it fits; the sums against scipy's."""

from dataclasses import replace

import numpy as np
import pytest
from scipy import stats

from yoisho.engine.cohort import best_guess, draws
from yoisho.engine.person import person
from yoisho.engine.readout import read as read_engine
from yoisho.review.evidence import (
    NOISE,
    EvidenceError,
    Seen,
    cut,
    evidence,
    forecasts,
    log_likelihood,
    misfit,
)
from yoisho.review.forecasts import crps, scores
from yoisho.session.shorthand import read
from yoisho.session.timeline import unroll

WHO = person()
TABATA = unroll(read("8 x (20 all out, 10 rest)"))
ROUNDS = unroll(read("3 x (3:00 combination) rest 1:00"))
COUNTS = (92, 80, 60, 45, 37, 32, 29, 27)


def steady(bpm, until_s, every_s=5):
    return tuple((float(at), float(bpm)) for at in range(0, until_s, every_s))


def prepared(seen, who=WHO):
    found = evidence(who, seen)
    assert found is not None
    return found


def test_a_count_for_each_effort_is_held_against_that_effort():
    log = prepared(Seen(TABATA, strikes=COUNTS))
    forecast = next(forecasts(WHO, [log], best_guess(WHO)))
    assert len(log.values["strikes"]) == len(forecast.values["strikes"]) == 8
    falling = forecast.values["strikes"][:, 0]
    assert falling[0] > falling[3] > falling[7]


def test_where_nobody_counted_nothing_is_said():
    log = prepared(Seen(TABATA, strikes=(None, 96, *(None,) * 6)))
    assert log.values["strikes"].tolist() == [96]
    assert log.counts == ((2, 2),)


def test_a_count_of_the_whole_is_held_against_the_whole():
    one = prepared(Seen(TABATA, counted=660))
    each = prepared(Seen(TABATA, strikes=COUNTS))
    whole, parts = (next(forecasts(WHO, [log], best_guess(WHO))).values["strikes"] for log in (one, each))
    assert whole[0, 0] == pytest.approx(parts.sum())


def test_a_half_minute_that_was_heard_for_less_than_half_says_nothing():
    """A strap that found the heart late: 14 s of the first half minute, and half of the second."""
    late = tuple((float(at), 150.0) for at in (*range(16, 30), *range(45, 60), *range(60, 240)))
    assert prepared(Seen(TABATA, heart=late)).windows.tolist() == [45, 75, 105, 135, 165, 195, 225]


def test_of_what_was_stopped_only_what_was_done_counts():
    log = prepared(Seen(TABATA, done_frac=0.5, strikes=COUNTS, heart=steady(160, 240)))
    assert log.done.total_s == 120
    assert log.values["strikes"].tolist() == list(COUNTS[:4])
    assert log.windows.tolist() == [15, 45, 75, 105]
    torn = prepared(Seen(TABATA, done_frac=110 / 240, strikes=COUNTS))
    assert torn.values["strikes"].tolist() == list(COUNTS[:4]), "the fourth was whole, the rest after it was not"
    short = prepared(Seen(TABATA, done_frac=100 / 240, strikes=COUNTS))
    assert short.values["strikes"].tolist() == list(COUNTS[:3]), "the fourth was broken off"


def test_a_strap_that_was_off_leaves_a_gap():
    heard = tuple(pair for pair in steady(150, 660) if not 100 <= pair[0] < 220)
    log = prepared(Seen(ROUNDS, heart=heard))
    assert not [at for at in log.windows if 120 <= at < 210]
    assert {15, 45, 75, 225} <= set(log.windows)
    assert set(log.values["heart"]) == {150}


def test_a_heart_that_says_nothing_teaches_nothing():
    lowered = person(heart_rate_lowering_medication=True)
    assert len(prepared(Seen(ROUNDS, rpe=6, heart=steady(150, 660)), lowered).values["heart"]) == 0


@pytest.mark.parametrize(
    ("wrong", "said"),
    [
        ({"done_frac": 1.2}, "from 0 to 1"),
        ({"rpe": 11}, "from 0 to 10"),
        ({"strikes": (10, 20)}, "8 efforts, and 2 counts"),
        ({"strikes": (-1,) * 8}, "a number from 0"),
        ({"heart": ((1.0, 300.0), (2.0, 300.0))}, "20 to 250 bpm"),
    ],
)
def test_what_cannot_be_is_refused_with_its_reason(wrong, said):
    with pytest.raises(EvidenceError, match=said):
        evidence(WHO, Seen(TABATA, **wrong))


def test_nothing_done_teaches_nothing():
    assert evidence(WHO, Seen(TABATA, done_frac=0.0, rpe=3)) is None


def test_a_timeline_is_cut_where_it_was_stopped():
    assert [each.seconds for each in cut(TABATA, 65).intervals] == [20, 10, 20, 10, 5]
    assert cut(TABATA, 240) == TABATA


def _covariance(kind, expected):
    noise = NOISE[kind]
    scale = expected if kind == "strikes" else np.ones_like(expected)
    return np.diag((noise.own * scale) ** 2) + np.outer(noise.day * scale, noise.day * scale)


def test_how_well_it_fits_is_the_density_that_scipy_gives():
    log = prepared(Seen(TABATA, rpe=8, strikes=COUNTS, heart=steady(165, 240)))
    forecast = next(forecasts(WHO, [log], draws(WHO, count=3)))
    for k in range(3):
        said = 0.0
        for kind, values in log.values.items():
            expected = forecast.values[kind][:, k]
            said += stats.multivariate_normal(expected, _covariance(kind, expected)).logpdf(values)
            said += 0.5 * len(values) * np.log(2 * np.pi)
        blind = (replace(each, values={kind: v[:0] for kind, v in each.values.items()}) for each in (log, forecast))
        came = log_likelihood(*blind)
        assert log_likelihood(log, forecast)[k] - came[k] == pytest.approx(said)


def test_a_misfit_has_the_length_that_the_covariance_gives_it():
    log = prepared(Seen(TABATA, rpe=8, strikes=COUNTS, heart=steady(165, 240)))
    forecast = next(forecasts(WHO, [log], best_guess(WHO)))
    length = 0.0
    for kind, values in log.values.items():
        expected = forecast.values[kind][:, 0]
        off = values - expected
        length += off @ np.linalg.solve(_covariance(kind, expected), off)
    assert float(np.square(misfit(log, forecast)).sum()) == pytest.approx(length)


def test_who_gives_out_early_seldom_finishes_and_often_stops():
    hard = unroll(read("20 x (30 flow at 140%) rest 0:15"))
    frail, strong = (best_guess(person(vo2max_ml_kg_min=50, training=how)) for how in ("untrained", "sprint-trained"))
    said = {}
    for done in (1.0, 0.35):
        log = prepared(Seen(hard, done_frac=done))
        said[done] = [float(log_likelihood(log, next(forecasts(WHO, [log], who)))[0]) for who in (frail, strong)]
    assert said[0.35][0] > said[0.35][1]
    assert said[1.0][0] <= said[1.0][1]


def test_the_score_of_a_forecast_is_the_published_one_of_the_normal():
    """Gneiting and Raftery 2007, from memory: sigma (z (2 Phi(z) - 1) + 2 phi(z) - 1 / root pi)."""
    told = stats.norm.ppf((np.arange(4000) + 0.5) / 4000, loc=100, scale=8)[None, :]
    for seen in (88.0, 100.0, 121.0):
        z = (seen - 100) / 8
        published = 8 * (z * (2 * stats.norm.cdf(z) - 1) + 2 * stats.norm.pdf(z) - 1 / np.sqrt(np.pi))
        assert crps(told, np.array([seen]))[0] == pytest.approx(published, rel=0.01)


def test_of_what_the_person_would_do_about_eight_in_ten_lie_in_the_range():
    forecast = next(forecasts(WHO, [prepared(Seen(ROUNDS, heart=steady(100, 660)))], best_guess(WHO)))
    course = enumerate(forecast.values["heart"][:, 0])
    like = tuple((15.0 + 30 * n + s, float(bpm)) for n, bpm in course for s in (-10, 0, 10))
    near = scores(WHO, [Seen(ROUNDS, heart=like)])["heart"]
    far = scores(WHO, [Seen(ROUNDS, heart=tuple((at, bpm + 45) for at, bpm in like))])["heart"]
    assert near.inside == 1.0
    assert far.inside < 0.3
    assert near.crps < far.crps / 3


def test_a_rating_at_either_end_of_its_range_is_within_it():
    """Technique is a four, and people differ by about a point and a half to both sides: whole numbers."""
    easy = unroll(read("3:00 technique"))
    within = [rpe for rpe in range(11) if scores(WHO, [Seen(easy, rpe=rpe)])["rpe"].inside]
    assert within == [3, 4, 5, 6]


@pytest.mark.parametrize(("bpm", "read"), [(19, False), (20, True), (250, True), (251, False)])
def test_hearts_from_twenty_to_two_hundred_and_fifty_are_believed(bpm, read):
    seen = Seen(TABATA, heart=((0.0, bpm), *steady(150, 240)[1:]))
    if read:
        assert prepared(seen).windows[0] == 15
    else:
        with pytest.raises(EvidenceError, match="from 20 to 250"):
            prepared(seen)


def test_the_first_reading_counts_and_what_was_told_before_the_bell_or_after_the_end_does_not():
    whole = prepared(Seen(TABATA, heart=steady(150, 240)))
    more = prepared(Seen(TABATA, heart=((-5.0, 60.0), *steady(150, 240), (240.0, 60.0))))
    assert whole.values["heart"].tolist() == more.values["heart"].tolist() == [150] * 8
    higher = prepared(Seen(TABATA, heart=((0.0, 240.0), *steady(150, 240)[1:])))
    assert higher.values["heart"][0] == pytest.approx(150 + 90 / 6)


def test_a_forecast_of_the_heart_is_read_between_the_samples_up_to_the_end():
    """Half minutes are told at their middle, where the engine's own course stands."""
    log = prepared(Seen(TABATA, heart=steady(150, 240)))
    told = next(forecasts(WHO, [log], best_guess(WHO))).values["heart"][:, 0]
    traces = read_engine(WHO, TABATA, ranges=False).traces
    assert told == pytest.approx(np.interp(log.windows, traces.seconds, traces.heart_rate_bpm), abs=1.0)


def test_two_readings_are_enough_to_tell_how_often_a_strap_tells():
    sparse = Seen(TABATA, heart=((0.0, 150.0), (20.0, 156.0)))
    assert prepared(sparse).values["heart"].tolist() == [153]
    assert prepared(Seen(TABATA, rpe=7, heart=((0.0, 150.0),))).windows.size == 0
