"""The three stores against scipy's solver, and the orders that must hold whatever the parameters."""

import numpy as np
import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st
from scipy.integrate import solve_ivp

from yoisho.engine import kernel
from yoisho.engine.cohort import draws
from yoisho.engine.parameters import REFERENCE
from yoisho.engine.person import person
from yoisho.engine.stores import People, ProfileError, simulate

profiles = st.lists(st.tuples(st.integers(5, 120), st.floats(0, 2.2)), min_size=1, max_size=6)
vo2max = st.floats(18, 85)


def run(profile, vo2max_ml_kg_min=57.0, **more):
    seconds, demand = (np.array(column, dtype=float) for column in zip(*profile, strict=True))
    return simulate(seconds, demand, People.one(vo2max_ml_kg_min), **more)


def by_scipy(profile, V, c=1.0, scale=1.0):
    """The equations of `docs/method.md`, written down plainly and solved at tight tolerance.

    `profile` holds seconds, least demand and top demand [x VO2max].
    """
    p = REFERENCE
    CF, CL = p.sprint_capacity_ml_kg / 0.95 * scale, p.lactic_capacity_ml_kg / 0.95 * scale
    CX = p.fatigue_capacity_s * scale

    def rates(_t, state, low, high):
        F, L, v, W, X = state
        D = low + (high - low) * min((1 - X) / 0.85, 1) ** 2
        heavy = 0.5 * c < D
        h = np.clip((1 - F / (1 - p.acidosis_drag * L)) / (1 - p.sprint_floor), 0, 1)
        MS = p.steady_glycolysis * c * h**5 * (1 - L) if heavy else 0.0
        rested = c * scale * p.sprint_flow * (1 + p.sprint_shape) * F**2 / (F**2 + p.sprint_shape)
        MF = rested * (1 - X**8)
        ready = np.clip((high / c - p.burst_threshold) / p.burst_width, 0, 1) ** p.burst_power
        held = p.burst_resistance
        ML = c * scale * p.lactic_flow * (1 + held) * ready * (1 - L) / (1 - L + held * ready)
        S = W + p.clearance_cost * p.clearance_per_s * L * CL
        delivered = min(D, v + MF + ML * (1 - X**8) + MS - S)
        S += 0.6 * (min(D, v + rested + ML + MS - S) - delivered)
        need = delivered + S - v
        most = MF + ML
        g = MS + (min(p.glycolysis_gain * max(need - MS, 0), most) * ML / most if most > 0 else 0.0)
        creep = np.clip(p.slow_gain * (D - p.slow_threshold * c), 0, p.slow_ceiling * c) if heavy else 0.0
        tiring = np.clip(delivered - p.fatigue_threshold * c, 0, p.fatigue_ceiling * c) / (CX * c)
        fading = p.fatigue_recovery_per_s * np.exp(-p.fatigue_recovery_drag * low / c)
        return [
            -(need - g) / CF,
            g / CL - p.clearance_per_s * L * 0.2 / (g + 0.2),
            (c * h - v) / p.uptake_tau_s,
            (creep - W) / p.slow_tau_s,
            tiring - fading * X if X < 1 or tiring < fading * X else 0.0,
        ]

    resting = 0.1 / V
    state = [1 - resting / c * (1 - p.sprint_floor), 0.0, resting, 0.0, 0.0]
    ends = []
    for seconds, low, high in profile:
        asked = (max(low, resting), max(high, resting))
        solved = solve_ivp(rates, (0, seconds), state, args=asked, rtol=1e-7, atol=1e-9, max_step=0.5, method="RK45")
        state = solved.y[:, -1]
        ends.append(state)
    return np.array(ends)


@pytest.mark.parametrize(
    "profile",
    [
        [(20, 1.7, 1.7), (10, 0.1, 0.1)] * 8,
        [(180, 0.92, 0.92), (120, 0.4, 0.4)] * 3,
        [(30, 1.2, 1.2), (30, 0.58, 0.58)] * 8,
        [(6, 9.0, 9.0), (30, 0.1, 0.1)] * 10,
        [(30, 0.85, 1.9), (90, 0.1, 0.1)] * 5,
        [(600, 0.7, 0.7)],
    ],
    ids=["twenty-tens", "long intervals", "thirty thirty", "six-second sprints", "all out", "ten minutes steady"],
)
@pytest.mark.parametrize(("ceiling", "scale"), [(1.0, 1.0), (0.8, 1.2)], ids=["legs", "arms"])
def test_every_store_agrees_with_scipys_solver(profile, ceiling, scale):
    V = 57.0 / 60
    theirs = by_scipy(profile, V, ceiling, scale)
    seconds, low, high = (np.array(column, dtype=float) for column in zip(*profile, strict=True))
    alone, side_by_side = People.one(57.0, anaerobic_scale=scale), People.of(np.full(3, 57.0), np.full(3, scale))
    for people in (alone, side_by_side):
        ours = simulate(seconds, low, people, top_frac=high, ceiling_frac=np.full(len(seconds), ceiling))
        ends = ours.segment_end
        for column, trace in enumerate((ours.sprint_left, ours.lactic_used, ours.uptake_frac)):
            assert np.abs(trace[ends, 0] - theirs[:, column]).max() < 0.005
        assert np.abs(ours.fatigue[ends, 0] - theirs[:, 4]).max() < 0.005


@given(profiles, vo2max, st.floats(0.6, 1.5))
def test_energy_balances_and_stores_stay_within_their_bounds(profile, V, scale):
    seconds, demand = (np.array(column, dtype=float) for column in zip(*profile, strict=True))
    for people in (People.one(V, anaerobic_scale=scale), People.of(np.full(2, V), np.full(2, scale))):
        ours = simulate(seconds, demand, people)
        paid = ours.energy_aerobic + ours.energy_alactic + ours.energy_lactic
        owed = ours.energy_delivered + ours.energy_slow
        assert np.abs(paid - owed).max() < 1e-6 * max(1.0, owed.max())
        for store in (ours.sprint_left, ours.lactic_used, ours.fatigue):
            assert store.min() > -1e-6
            assert store.max() < 1 + 1e-6


@pytest.mark.parametrize(
    "profile", [[(300, 1.2)], [(60, 1.3), (30, 0.5)] * 8, [(20, 1.7), (10, 0.1)] * 12, [(600, 1.02)]]
)
def test_the_moment_of_exhaustion_is_between_two_steps_also_where_steps_are_long(profile):
    seconds, demand = (np.array(column, dtype=float) for column in zip(*profile, strict=True))
    exact = simulate(seconds, demand, People.one(57.0), step_s=1 / 128).exhausted_at_s[0]
    assert exact > 0
    for people in (People.one(57.0), People.of(np.full(40, 57.0), np.ones(40))):
        for sample_s in (1.0, 1e4):
            found = simulate(seconds, demand, people, sample_s=sample_s).exhausted_at_s
            assert np.abs(found - exact).max() < 0.15


@given(profiles, vo2max)
@settings(max_examples=30)
def test_a_person_alone_and_among_others_is_the_same_person(profile, V):
    seconds, demand = (np.array(column, dtype=float) for column in zip(*profile, strict=True))
    alone, among = (simulate(seconds, demand, People.of(np.full(count, V), np.ones(count))) for count in (1, 33))
    for name in ("sprint_left", "lactic_used", "uptake_frac", "fatigue"):
        assert np.abs(getattr(alone, name) - getattr(among, name)).max() < 1e-9
    assert np.allclose(alone.exhausted_at_s, among.exhausted_at_s, atol=1e-6, equal_nan=True)


@given(st.floats(1.05, 2.2), st.floats(0.01, 0.4), vo2max)
def test_higher_demand_never_exhausts_later(demand, more, V):
    lower, higher = (run([(600, d)], V).exhausted_at_s[0] for d in (demand, demand + more))
    assert np.isnan(lower) or higher <= lower + 1e-9


@given(st.integers(10, 60), st.integers(5, 100), st.integers(1, 60), st.floats(1.1, 2.2), vo2max)
def test_more_rest_never_gives_more_fade(work, rest, more, demand, V):
    def delivered(pause):
        return run([(work, demand), (pause, 6 / V)] * 6, V).energy_delivered[::2].sum()

    # To within a twentieth, and that for the unfit: an uptake that is up already when work begins is worth that much.
    assert delivered(rest + more) >= delivered(rest) * 0.95


@given(st.floats(0.12, 0.5), st.floats(0.02, 0.3), st.integers(20, 90), st.integers(10, 60), st.floats(1.02, 1.8))
def test_less_intense_recovery_never_shortens_how_long_hard_work_lasts(recovery, more, work, pause, demand):
    """To within a hundredth of the demand: an uptake that is up already when work begins is worth that much."""

    def lasts(intensity, hard):
        exhausted = run([(work, hard), (pause, intensity)] * 12).exhausted_at_s[0]
        return 1e9 if np.isnan(exhausted) else exhausted

    assert lasts(recovery, 0.99 * demand) >= lasts(recovery + more, demand) - 1e-6


@given(st.integers(15, 60), st.integers(2, 4), st.floats(0.85, 0.97))
def test_at_equal_ratio_longer_bouts_use_more_of_the_lactic_store(bout, times, demand):
    """Of what can be done: who is exhausted delivers less, and uses less."""
    short, long = (run([(b, demand), (b, 0.1)] * (1800 // b)) for b in (bout, bout * times))
    assume(np.isnan(long.exhausted_at_s[0]))
    assert long.lactic_used.max() >= 0.98 * short.lactic_used.max()


def test_people_with_a_low_vo2max_are_slower_to_reach_it():
    def risen(V):
        uptake = run([(25, 0.7)], V).uptake_frac[:, 0]
        return (uptake[-1] - uptake[0]) / (0.7 - uptake[0])

    at_25_s = [risen(V) for V in (25, 40, 57, 80)]
    assert at_25_s == sorted(at_25_s)


def test_a_demand_of_nine_takes_all_there_is_and_is_never_a_failure():
    all_out = run([(30, 9.0)])
    assert np.isnan(all_out.exhausted_at_s[0])
    assert all_out.sprint_left[-1, 0] < 0.1


def test_single_precision_draws_tell_the_same_story_as_double():
    crowd = draws(person(vo2max_ml_kg_min=50)).people
    seconds, demand = np.tile([20.0, 10.0], 8), np.tile([1.7, 0.1], 8)
    double = simulate(seconds, demand, crowd)
    single = simulate(seconds, demand, crowd, precision=np.float32)
    assert np.abs(double.sprint_left - single.sprint_left).max() < 1e-3
    assert np.abs(double.lactic_used - single.lactic_used).max() < 1e-3


@pytest.mark.parametrize("precision", [np.float64, np.float32])
def test_the_loop_is_compiled_once_for_one_person_a_few_and_a_crowd(precision):
    crowd = draws(person(vo2max_ml_kg_min=50)).people
    for count in (1, 5, len(crowd)):
        some = People(*(column[:count] for column in vars(crowd).values()))
        simulate(np.array([60.0, 30.0]), np.array([1.3, 0.1]), some, precision=precision)
        simulate(np.array([60.0]), np.full((1, count), 1.3), some, precision=precision, ceiling_frac=np.array([0.8]))
    of_this = [each for each in kernel.integrate.signatures if each[0].dtype.name == np.dtype(precision).name]
    assert len(of_this) == 1, "each layout of the arrays is compiled for itself, for ten seconds on every new machine"


def test_many_people_at_once_come_out_as_each_alone():
    crowd = draws(person(vo2max_ml_kg_min=50), count=5).people
    together = simulate(np.array([60.0, 30.0]), np.array([1.3, 0.1]), crowd)
    for k in range(5):
        alone = People(*(column[k : k + 1] for column in vars(crowd).values()))
        one = simulate(np.array([60.0, 30.0]), np.array([1.3, 0.1]), alone)
        for trace in ("sprint_left", "lactic_used", "uptake_frac"):
            apart = np.abs(getattr(one, trace)[:, 0] - getattr(together, trace)[:, k]).max()
            assert apart < 1e-3, "the two methods of integration must tell one story"


def test_people_side_by_side_do_not_touch_each_other():
    crowd = draws(person(vo2max_ml_kg_min=50), count=150).people
    few = People(*(column[90:120] for column in vars(crowd).values()))
    all_of_them, some = (simulate(np.array([60.0, 30.0]), np.array([1.3, 0.1]), each) for each in (crowd, few))
    assert np.array_equal(all_of_them.lactic_used[:, 90:120], some.lactic_used)


@pytest.mark.parametrize(
    ("seconds", "demand"), [([], []), ([0], [1]), ([-3], [1]), ([10], [-0.1]), ([10], [np.nan]), ([0.01], [1])]
)
def test_an_impossible_profile_is_refused(seconds, demand):
    with pytest.raises(ProfileError):
        simulate(np.array(seconds, float), np.array(demand, float), People.one(50))
