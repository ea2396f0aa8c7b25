"""The simulated strap and strike sensor: what the engine expects, as a device would tell it."""

from itertools import pairwise
from statistics import fmean

import numpy as np
import pytest

from yoisho.engine.person import person
from yoisho.engine.readout import read as read_engine
from yoisho.runs.simulated import LATE_S, MISSED, UNKNOWN, felt, hidden, kept_of, simulate
from yoisho.session.shorthand import read
from yoisho.session.timeline import unroll

LONG = unroll(read("10:00 flow; then 2:00, 8 x (20 all-out) rest 0:10; then 30:00 flow"))
WHO = person(hr_max_bpm=190, hr_rest_bpm=55)


def test_the_strap_wakes_late_and_loses_the_heart_now_and_then():
    heart = simulate(WHO, LONG, 1).heart
    assert len(heart) == LONG.total_s
    first = next(second for second, bpm in enumerate(heart) if bpm is not None)
    assert LATE_S[0] <= first < LATE_S[1]
    lost = [second for second, bpm in enumerate(heart) if bpm is None and second > first]
    assert 10 <= len(lost) <= 0.1 * LONG.total_s


def test_the_strap_follows_the_heart_that_the_engine_expects():
    traces = read_engine(WHO, LONG, ranges=False).traces
    expected = np.interp(np.arange(LONG.total_s), traces.seconds, traces.heart_rate_bpm)
    errors = [bpm - at for bpm, at in zip(simulate(WHO, LONG, 2).heart, expected, strict=True) if bpm is not None]
    assert abs(fmean(errors)) < 0.5
    assert 0.5 < np.std(errors) < 2.5, "it is noisy, and not beyond a strap"


def test_the_sensor_misses_a_few_of_the_strikes_the_engine_expects():
    expected = read_engine(WHO, LONG, ranges=False).measured.strikes.sum()
    found = simulate(WHO, LONG, 3).strikes
    assert len(found) == pytest.approx((1 - MISSED) * expected, rel=0.02)
    assert all(a < b for a, b in pairwise(found))


def test_nobody_strikes_in_a_rest():
    rest = [(i.start_s, i.end_s) for i in LONG.intervals if i.kind == "rest"]
    assert not [at for at in simulate(WHO, LONG, 4).strikes if any(start <= at < end for start, end in rest)]


def test_the_same_seed_tells_the_same_and_another_another():
    assert simulate(WHO, LONG, 5) == simulate(WHO, LONG, 5)
    assert simulate(WHO, LONG, 5) != simulate(WHO, LONG, 6)


def test_of_nothing_but_rest_there_is_nothing_to_tell():
    told = simulate(WHO, unroll(read("1:00 rest")), 1)
    assert told.heart == (None,) * 60
    assert told.strikes == ()


def test_who_somebody_really_is_lies_within_what_is_not_known_of_them_and_is_the_same_every_time():
    many = [hidden(WHO, seed) for seed in range(200)]
    assert many[3] == hidden(WHO, 3)
    for name in UNKNOWN:
        entered = getattr(WHO, name)
        found = [getattr(one, name).value for one in many]
        assert all(abs(value - entered.value) <= 2 * entered.sd + 1e-9 for value in found), name
        assert np.mean(found) == pytest.approx(entered.value, abs=0.25 * entered.sd), name
        assert np.std(found) == pytest.approx(0.88 * entered.sd, rel=0.2), "as far apart as people are, less the tails"
        assert {getattr(one, name).sd for one in many} == {0.0}, "and is known"
    assert (many[0].mass_kg, many[0].level) == (WHO.mass_kg, WHO.level)


def test_what_is_felt_lies_about_what_is_expected_and_on_the_scale():
    said = [felt(6.4, seed) for seed in range(300)]
    assert fmean(said) == pytest.approx(6.4, abs=0.15)
    assert len(set(said)) >= 4
    assert {felt(10.0, seed) for seed in range(50)} <= set(range(8, 11))
    assert min(felt(0.0, seed) for seed in range(50)) == 0


def test_only_what_the_worn_devices_noticed_until_the_end_is_kept():
    both = kept_of(WHO, LONG, 600, 1, ("strap", "sensor"))
    assert (both.played[0].from_s, both.played[0].to_s) == (0, 600)
    assert both.heart
    assert max(at for at, _ in both.heart) < 600
    assert both.strikes
    assert max(both.strikes) < 600
    alone = kept_of(WHO, LONG, 600, 1, ("strap",))
    assert (alone.heart, alone.strikes) == (both.heart, None)
    assert kept_of(WHO, LONG, 600, 1, ()).heart == ()


def test_the_noise_of_a_strap_goes_five_beats_below_rest_and_no_further():
    calm = unroll(read("30:00 rest, 10 flow"))
    assert min(bpm for seed in range(8) for bpm in simulate(WHO, calm, seed).heart if bpm is not None) == 55 - 5
