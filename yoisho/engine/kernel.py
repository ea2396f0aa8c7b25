"""The compiled inner loop of the three-store model: see `stores` for what it computes.

Everything is a fraction of VO2max. The loops over people are free of branches and of mixed precision, so that the
compiler runs several people abreast; every number they use comes in through `Numbers`, in the precision of the run.
"""

from typing import NamedTuple

import numpy as np
from numba import njit

from yoisho.engine.parameters import Parameters

NEVER = 1e9
ALL_OUT = 9.0 - 1e-6
"""A demand from here on asks for all that can be delivered [x VO2max]."""
HEAVY = 0.5
"""The slow component and sustained glycolysis count only above this demand [x VO2max]."""
CLEARANCE_HALF = 0.2
"""Glycolysis at which the clearance of the lactic store has halved [x VO2max]."""


class Numbers(NamedTuple):
    """The parameters and the step, all of the run's precision."""

    step_s: np.floating
    shortfall: np.floating
    """A demand is out of reach when it exceeds what can be delivered by more than this [x VO2max]."""
    sprint_flow: np.floating
    sprint_shape: np.floating
    drive_gain: np.floating
    uptake_per_s: np.floating
    acidosis_drag: np.floating
    lactic_flow: np.floating
    burst_threshold: np.floating
    burst_width: np.floating
    burst_power: np.floating
    burst_inhibition: np.floating
    steady_glycolysis: np.floating
    clearance_per_s: np.floating
    clearance_cost: np.floating
    slow_gain: np.floating
    slow_threshold: np.floating
    slow_ceiling: np.floating
    slow_per_s: np.floating


def numbers(p: Parameters, step_s: float, precision: type[np.floating]) -> Numbers:
    tolerance = 1e-9 if precision is np.float64 else 1e-5
    return Numbers(*(precision(value) for value in (
        step_s, tolerance, p.sprint_flow, p.sprint_shape, 1 / (1 - p.sprint_floor), 1 / p.uptake_tau_s,
        p.acidosis_drag, p.lactic_flow, p.burst_threshold, p.burst_width, p.burst_power, p.burst_inhibition,
        p.steady_glycolysis, p.clearance_per_s, p.clearance_cost, p.slow_gain, p.slow_threshold, p.slow_ceiling,
        1 / p.slow_tau_s,
    )))  # fmt: skip


_FAST = {"contract", "arcp", "nsz", "nnan"}


@njit(fastmath=_FAST, error_model="numpy", inline="always")
def _flows(F, L, v, W, D, per_CF, per_CL, CL, alactic_top, lactic_top, heavy, slow_target, n, real):  # type: ignore[no-untyped-def]
    """Rates of change of the state, and the flows behind them."""
    empty = real(1.0) - F
    reserve = real(1.0) - L
    level = real(1.0) - n.acidosis_drag * L
    squared = F * F
    share = squared + n.sprint_shape
    over = real(1.0) / (level * share)  # one division serves two quotients: divisions are what this loop waits for
    drive = min(max((level - F) * n.drive_gain * share * over, real(0.0)), real(1.0))
    sustained = heavy * n.steady_glycolysis * empty * empty * empty * reserve
    alactic_limit = alactic_top * squared * level * over
    lactic_limit = lactic_top * reserve * (real(1.0) - n.burst_inhibition * L)
    limits = alactic_limit + lactic_limit + real(1e-12)
    clearing = n.clearance_per_s * L
    slow = W + n.clearance_cost * clearing * CL
    capability = v + limits + sustained - slow
    delivered = min(D, capability)
    need = delivered + slow - v
    lactic_by_limits = sustained * limits + max(need - sustained, real(0.0)) * lactic_limit
    steady = real(CLEARANCE_HALF) * limits
    under = real(1.0) / (limits * (lactic_by_limits + steady))
    lactic = lactic_by_limits * (lactic_by_limits + steady) * under
    dF = (lactic - need) * per_CF
    dL = lactic * per_CL - clearing * steady * limits * under
    dv = (drive - v) * n.uptake_per_s
    dW = (slow_target - W) * n.slow_per_s
    return dF, dL, dv, dW, delivered, slow, lactic, capability


@njit(fastmath=_FAST, error_model="numpy", boundscheck=False)
def _advance_many(steps, begun, F, L, v, W, energy, exhausted, D, per_CF, per_CL, CL, alactic_top,  # type: ignore[no-untyped-def]
                  lactic_top, heavy, slow_target, n):  # fmt: skip
    """Some steps of Heun's method at one demand, in place, for people side by side: bound by how much is computed."""
    real = F.dtype.type
    h = n.step_s
    half = real(0.5) * n.step_s
    for step in range(steps):
        now = real(begun + step) * h
        for k in range(F.shape[0]):
            dF, dL, dv, dW, d1, s1, g1, capability = _flows(
                F[k], L[k], v[k], W[k], D[k], per_CF[k], per_CL[k], CL[k], alactic_top[k], lactic_top[k], heavy[k],
                slow_target[k], n, real)  # fmt: skip
            eF, eL, ev, eW, d2, s2, g2, _c = _flows(
                F[k] + h * dF, L[k] + h * dL, v[k] + h * dv, W[k] + h * dW, D[k], per_CF[k], per_CL[k], CL[k],
                alactic_top[k], lactic_top[k], heavy[k], slow_target[k], n, real)  # fmt: skip
            short = (D[k] - capability > n.shortfall) & (D[k] < real(ALL_OUT))
            exhausted[k] = min(exhausted[k], now if short else real(NEVER))
            energy[0, k] += half * (d1 + d2)
            energy[1, k] += half * (s1 + s2)
            energy[2, k] += half * (real(2.0) * v[k] + h * dv)
            energy[3, k] += half * (g1 + g2)
            F[k] += half * (dF + eF)
            L[k] += half * (dL + eL)
            v[k] += half * (dv + ev)
            W[k] += half * (dW + eW)


@njit(inline="always")
def _alone(rows):  # type: ignore[no-untyped-def]
    return rows[0, 0], rows[1, 0], rows[2, 0], rows[3, 0], rows[4, 0], rows[5, 0], rows[6, 0], rows[7, 0]


@njit(fastmath=_FAST, error_model="numpy", boundscheck=False)
def _advance_one(steps, fresh, begun, state, last, exhausted, D, per_CF, per_CL, CL, alactic_top,  # type: ignore[no-untyped-def]
                 lactic_top, heavy, slow_target, n):  # fmt: skip
    """The same for one person alone, bound by waiting for one number after the other.

    So by the second-order Adams-Bashforth method, one look at the flows a step, begun anew by a step of Heun's after
    every change of demand (`fresh`); `last` holds the rates of the step before.
    """
    real = state.dtype.type
    h = n.step_s
    F, L, v, W, delivered, slow, aerobic, lactic = _alone(state)
    pF, pL, pv, pW, pd, ps, pa, pg = _alone(last)
    failed = exhausted[0]
    for step in range(steps):
        dF, dL, dv, dW, d, s, g, capability = _flows(
            F, L, v, W, D[0], per_CF[0], per_CL[0], CL[0], alactic_top[0], lactic_top[0], heavy[0], slow_target[0],
            n, real)  # fmt: skip
        short = (D[0] - capability > n.shortfall) & (D[0] < real(ALL_OUT))
        failed = min(failed, real(begun + step) * h if short else real(NEVER))
        a = v
        now_h, then_h = h * real(1.5), h * real(-0.5)
        if step == 0 and fresh:
            pF, pL, pv, pW, pd, ps, pg, capability = _flows(
                F + h * dF, L + h * dL, v + h * dv, W + h * dW, D[0], per_CF[0], per_CL[0], CL[0], alactic_top[0],
                lactic_top[0], heavy[0], slow_target[0], n, real)  # fmt: skip
            pa = v + h * dv
            now_h, then_h = h * real(0.5), h * real(0.5)
        F, L = F + now_h * dF + then_h * pF, L + now_h * dL + then_h * pL
        v, W = v + now_h * dv + then_h * pv, W + now_h * dW + then_h * pW
        delivered, slow = delivered + now_h * d + then_h * pd, slow + now_h * s + then_h * ps
        aerobic, lactic = aerobic + now_h * a + then_h * pa, lactic + now_h * g + then_h * pg
        pF, pL, pv, pW, pd, ps, pa, pg = dF, dL, dv, dW, d, s, a, g
    for row, value in enumerate((F, L, v, W, delivered, slow, aerobic, lactic)):
        state[row, 0] = value
    for row, value in enumerate((pF, pL, pv, pW, pd, ps, pa, pg)):
        last[row, 0] = value
    exhausted[0] = failed


@njit(cache=True, nogil=True, fastmath=_FAST, error_model="numpy", boundscheck=False)
def integrate(demand, stretch_segment, stretch_steps, CF_s, CL_s, flow_scale, resting, n, out, exhausted):  # type: ignore[no-untyped-def]
    """Fill `out` (rows, samples, people) and `exhausted` (people).

    Rows: sprint left, lactic used, uptake, then energy delivered, slow, aerobic and lactic so far
    [s x VO2max]. A stretch is so many steps within one segment, with a sample at its end.
    """
    people = CF_s.shape[0]
    real = CF_s.dtype.type
    state = np.zeros((8, people), CF_s.dtype)
    state[0] = real(1.0) - resting / n.drive_gain
    state[2] = resting
    last = np.zeros((8, people), CF_s.dtype)
    D, heavy, lactic_top, slow_target = (
        np.zeros_like(CF_s),
        np.zeros_like(CF_s),
        np.zeros_like(CF_s),
        np.zeros_like(CF_s),
    )
    alactic_top = n.sprint_flow * (real(1.0) + n.sprint_shape) * flow_scale
    per_CF, per_CL = real(1.0) / CF_s, real(1.0) / CL_s
    out[:3, 0] = state[:3]
    done = 0
    for stretch in range(stretch_steps.shape[0]):
        fresh = stretch == 0 or stretch_segment[stretch] != stretch_segment[stretch - 1]
        for k in range(people if fresh else 0):
            D[k] = demand[stretch_segment[stretch], k]
            heavy[k] = real(1.0) if D[k] > real(HEAVY) else real(0.0)
            ready = min(max((D[k] - n.burst_threshold) / n.burst_width, real(0.0)), real(1.0))
            lactic_top[k] = n.lactic_flow * flow_scale[k] * ready**n.burst_power
            slow_target[k] = heavy[k] * min(max(n.slow_gain * (D[k] - n.slow_threshold), real(0.0)), n.slow_ceiling)
        steps = stretch_steps[stretch]
        if people == 1:
            _advance_one(steps, fresh, done, state, last, exhausted, D, per_CF, per_CL, CL_s, alactic_top,
                         lactic_top, heavy, slow_target, n)  # fmt: skip
        else:
            _advance_many(steps, done, state[0], state[1], state[2], state[3], state[4:], exhausted, D, per_CF, per_CL,
                          CL_s, alactic_top, lactic_top, heavy, slow_target, n)  # fmt: skip
        done += steps
        out[:3, stretch + 1] = state[:3]
        out[3:, stretch + 1] = state[4:]
