"""The compiled inner loop of the three-store model: see `stores` for what it computes.

Everything is a fraction of VO2max. The loop over people is free of branches and of mixed precision, so that the
compiler runs several people abreast; every number it uses comes in through `Numbers`, in the precision of the run.
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
SLOW_TAU_S = 150.0
SLOW_CEILING = 0.25
CLEARANCE_HALF = 0.2
"""Glycolysis at which the clearance of the lactic store has halved [x VO2max]."""


class Numbers(NamedTuple):
    """The parameters and the step, all of the run's precision."""

    step_s: np.floating
    shortfall: np.floating
    """A demand is out of reach when it exceeds what can be delivered by more than this [x VO2max]."""
    sprint_flow: np.floating
    lactic_flow: np.floating
    sprint_floor: np.floating
    uptake_per_s: np.floating
    burst_threshold: np.floating
    burst_width: np.floating
    burst_power: np.floating
    clearance_per_s: np.floating
    acidosis_drag: np.floating
    sprint_shape: np.floating
    slow_gain: np.floating
    slow_threshold: np.floating
    steady_glycolysis: np.floating


def numbers(p: Parameters, step_s: float, precision: type[np.floating]) -> Numbers:
    tolerance = 1e-9 if precision is np.float64 else 1e-5
    return Numbers(*(precision(value) for value in (
        step_s, tolerance, p.sprint_flow, p.lactic_flow, p.sprint_floor, 1 / p.uptake_tau_s, p.burst_threshold,
        p.burst_width, p.burst_power, p.clearance_per_s, p.acidosis_drag, p.sprint_shape, p.slow_gain,
        p.slow_threshold, p.steady_glycolysis,
    )))  # fmt: skip


_FAST = {"contract", "arcp", "nsz", "nnan"}


@njit(fastmath=_FAST, error_model="numpy", inline="always")
def _flows(F, L, v, W, D, per_CF, per_CL, alactic_top, lactic_top, heavy, slow_target, n, real):  # type: ignore[no-untyped-def]
    """Rates of change of the state, and the flows behind them."""
    empty = real(1.0) - F
    reserve = real(1.0) - L
    held = n.acidosis_drag * L
    keep = real(1.0) - n.sprint_floor - held
    share = F + n.sprint_shape
    over = real(1.0) / (keep * share)  # one division serves two quotients: divisions are what this loop waits for
    drive = min(max((empty - held) * share * over, real(0.0)), real(1.0))
    sustained = heavy * n.steady_glycolysis * empty * empty * empty * reserve
    alactic_limit = alactic_top * F * keep * over
    lactic_limit = lactic_top * reserve
    limits = alactic_limit + lactic_limit + real(1e-12)
    slow = heavy * W
    capability = v + limits + sustained - slow
    delivered = min(D, capability)
    need = delivered + slow - v
    lactic_by_limits = sustained * limits + max(need - sustained, real(0.0)) * lactic_limit
    steady = real(CLEARANCE_HALF) * limits
    under = real(1.0) / (limits * (lactic_by_limits + steady))
    lactic = lactic_by_limits * (lactic_by_limits + steady) * under
    dF = (lactic - need) * per_CF
    dL = lactic * per_CL - n.clearance_per_s * L * steady * limits * under
    dv = (drive - v) * n.uptake_per_s
    dW = (slow_target - W) * real(1.0 / SLOW_TAU_S)
    return dF, dL, dv, dW, delivered, slow, lactic, capability


@njit(fastmath=_FAST, error_model="numpy", boundscheck=False)
def _advance(steps, times, F, L, v, W, energy, exhausted, D, per_CF, per_CL, alactic_top,  # type: ignore[no-untyped-def]
             lactic_top, heavy, slow_target, n):  # fmt: skip
    """Some steps of Heun's method at one demand, in place."""
    real = F.dtype.type
    h = n.step_s
    half = real(0.5) * n.step_s
    for step in range(steps):
        now = times[step]
        for k in range(F.shape[0]):
            dF, dL, dv, dW, d1, s1, g1, capability = _flows(
                F[k], L[k], v[k], W[k], D[k], per_CF[k], per_CL[k], alactic_top[k], lactic_top[k], heavy[k],
                slow_target[k], n, real)  # fmt: skip
            eF, eL, ev, eW, d2, s2, g2, _c = _flows(
                F[k] + h * dF, L[k] + h * dL, v[k] + h * dv, W[k] + h * dW, D[k], per_CF[k], per_CL[k],
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


@njit(cache=True, fastmath=_FAST, error_model="numpy", boundscheck=False)
def integrate(demand, stretch_segment, stretch_steps, times, CF_s, CL_s, flow_scale, resting, n, out, exhausted):  # type: ignore[no-untyped-def]
    """Fill `out` (rows, samples, people) and `exhausted` (people).

    Rows: sprint left, lactic used, uptake, then energy delivered, slow, aerobic and lactic so far [s x VO2max].
    A stretch is so many steps within one segment, with a sample at its end; `times` are the steps' starts [s].
    """
    people = CF_s.shape[0]
    real = CF_s.dtype.type
    F = real(1.0) - resting * (real(1.0) - n.sprint_floor)
    L = np.zeros_like(F)
    v = resting.copy()
    W = np.zeros_like(F)
    energy = np.zeros((4, people), F.dtype)
    per_CF = real(1.0) / CF_s
    per_CL = real(1.0) / CL_s
    alactic_top = n.sprint_flow * (real(1.0) + n.sprint_shape) * flow_scale
    lactic_top = np.zeros_like(F)
    heavy = np.zeros_like(F)
    slow_target = np.zeros_like(F)
    D = np.zeros_like(F)
    out[0, 0] = F
    out[1, 0] = L
    out[2, 0] = v
    done = 0
    for stretch in range(stretch_steps.shape[0]):
        if stretch == 0 or stretch_segment[stretch] != stretch_segment[stretch - 1]:
            for k in range(people):
                D[k] = demand[stretch_segment[stretch], k]
                heavy[k] = real(1.0) if D[k] > real(HEAVY) else real(0.0)
                readiness = min(max((D[k] - n.burst_threshold) / n.burst_width, real(0.0)), real(1.0))
                lactic_top[k] = n.lactic_flow * flow_scale[k] * readiness**n.burst_power
                slow_target[k] = heavy[k] * min(
                    max(n.slow_gain * (D[k] - n.slow_threshold), real(0.0)), real(SLOW_CEILING)
                )
        _advance(stretch_steps[stretch], times[done:], F, L, v, W, energy, exhausted, D, per_CF, per_CL, alactic_top,
                 lactic_top, heavy, slow_target, n)  # fmt: skip
        done += stretch_steps[stretch]
        out[0, stretch + 1] = F
        out[1, stretch + 1] = L
        out[2, stretch + 1] = v
        for row in range(4):
            out[3 + row, stretch + 1] = energy[row]
