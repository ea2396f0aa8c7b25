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
"""The slow component and sustained glycolysis count only above this share of the ceiling."""
CLEARANCE_HALF = 0.2
"""Glycolysis at which the clearance of the lactic store has halved [x VO2max]."""
WASTE = 0.6
"""Of what tiredness takes from the flows, the share that is spent for nothing while the demand still asks for it. Own
setting, not fitted."""
TIRING = 0.85
"""Of what freshness is left (1 - X), the share under which the top rate of all out begins to fall. Own setting."""


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
    glycolysis_gain: np.floating
    clearance_per_s: np.floating
    clearance_cost: np.floating
    slow_gain: np.floating
    slow_threshold: np.floating
    slow_ceiling: np.floating
    slow_per_s: np.floating
    fatigue_threshold: np.floating
    fatigue_ceiling: np.floating
    fatigue_per_s: np.floating
    """One over the fatigue that exhausts [1/s]."""
    fatigue_recovery: np.floating
    fatigue_recovery_drag: np.floating


def numbers(p: Parameters, step_s: float, precision: type[np.floating]) -> Numbers:
    tolerance = 1e-9 if precision is np.float64 else 1e-5
    return Numbers(*(precision(value) for value in (
        step_s, tolerance, p.sprint_flow, p.sprint_shape, 1 / (1 - p.sprint_floor), 1 / p.uptake_tau_s,
        p.acidosis_drag, p.lactic_flow, p.burst_threshold, p.burst_width, p.burst_power, p.burst_inhibition,
        p.steady_glycolysis, p.glycolysis_gain, p.clearance_per_s, p.clearance_cost, p.slow_gain, p.slow_threshold,
        p.slow_ceiling, 1 / p.slow_tau_s, p.fatigue_threshold, p.fatigue_ceiling, 1 / p.fatigue_capacity_s,
        p.fatigue_recovery_per_s, p.fatigue_recovery_drag,
    )))  # fmt: skip


_FAST = {"contract", "arcp", "nsz", "nnan"}


@njit(fastmath=_FAST, error_model="numpy", inline="always")
def _flows(F, L, v, W, X, least, span, c, cs, per_CF, per_CL, CL, per_CX, uptake_per_s, lactic_top, fading, n, real):  # type: ignore[no-untyped-def]
    """Rates of change of the state, and the flows behind them. `cs` is the ceiling times the anaerobic scale."""
    one = real(1.0)
    reserve = one - L
    level = one - n.acidosis_drag * L
    fourth = X * X
    fourth = fourth * fourth
    fresh = one - fourth * fourth
    rate = min((one - X) * real(1.0 / TIRING), one)
    D = least + span * rate * rate
    heavy = real(1.0) if real(HEAVY) * c < D else real(0.0)
    squared = F * F
    share = squared + n.sprint_shape
    over = one / (level * share)  # one division serves two quotients: divisions are what this loop waits for
    drive = min(max((level - F) * n.drive_gain * share * over, real(0.0)), one)
    driven = drive * drive
    sustained = heavy * n.steady_glycolysis * c * driven * driven * drive * reserve
    rested = cs * n.sprint_flow * (one + n.sprint_shape) * squared * level * over
    alactic_limit = rested * fresh
    lactic_limit = lactic_top * reserve * (one - n.burst_inhibition * L)
    limits = alactic_limit + lactic_limit + real(1e-12)
    clearing = n.clearance_per_s * L
    drag = W + n.clearance_cost * clearing * CL
    others = v + sustained - drag
    capability = others + alactic_limit + lactic_limit * fresh
    delivered = min(D, capability)
    wasted = real(WASTE) * (min(D, others + rested + lactic_limit) - delivered)
    slow = drag + wasted
    need = delivered + slow - v
    burst = min(n.glycolysis_gain * max(need - sustained, real(0.0)), limits)
    lactic_by_limits = sustained * limits + burst * lactic_limit
    steady = real(CLEARANCE_HALF) * limits
    under = one / (limits * (lactic_by_limits + steady))
    lactic = lactic_by_limits * (lactic_by_limits + steady) * under
    dF = (lactic - need) * per_CF
    dL = lactic * per_CL - clearing * steady * limits * under
    dv = (c * drive - v) * uptake_per_s
    slow_target = heavy * min(max(n.slow_gain * (D - n.slow_threshold * c), real(0.0)), n.slow_ceiling * c)
    dW = (slow_target - W) * n.slow_per_s
    tiring = min(max(delivered - n.fatigue_threshold * c, real(0.0)), n.fatigue_ceiling * c)
    dX = tiring * per_CX - fading * X
    return dF, dL, dv, dW, dX, delivered, slow, lactic, D - capability


ABREAST = 32
"""People side by side in one buffer, each number of theirs at a fixed distance: so the compiler sees that none of them
overlap, and runs several people in one instruction."""
_ROWS = 22
# Rows of that buffer: the state, the energies so far, what the segment gives, and when the demand was out of reach.
_F, _L, _V, _W, _X = (row * ABREAST for row in range(5))
_DELIVERED, _SLOW, _AEROBIC, _LACTIC = (row * ABREAST for row in range(5, 9))
_LEAST, _SPAN, _C, _CS, _PER_CF, _PER_CL, _CL, _PER_CX, _QUICK, _TOP, _FADING, _PACED = (
    row * ABREAST for row in range(9, 21)
)
_FAILED = 21 * ABREAST


@njit(fastmath=_FAST, error_model="numpy", boundscheck=False)
def _advance_block(steps, begun, b, n):  # type: ignore[no-untyped-def]
    """Some steps of Heun's method at one demand, in place, for people abreast: bound by how much is computed."""
    real = b.dtype.type
    h = n.step_s
    half = real(0.5) * n.step_s
    for step in range(steps):
        now = real(begun + step) * h
        for k in range(ABREAST):
            F, L, v, W, X = b[_F + k], b[_L + k], b[_V + k], b[_W + k], b[_X + k]
            least, span, c, cs = b[_LEAST + k], b[_SPAN + k], b[_C + k], b[_CS + k]
            per_CF, per_CL, CL, per_CX = b[_PER_CF + k], b[_PER_CL + k], b[_CL + k], b[_PER_CX + k]
            quick, top, fading = b[_QUICK + k], b[_TOP + k], b[_FADING + k]
            dF, dL, dv, dW, dX, d1, s1, g1, lacking = _flows(
                F, L, v, W, X, least, span, c, cs, per_CF, per_CL, CL, per_CX, quick, top, fading, n, real)  # fmt: skip
            eF, eL, ev, eW, eX, d2, s2, g2, _l = _flows(
                F + h * dF, L + h * dL, v + h * dv, W + h * dW, X + h * dX, least, span, c, cs, per_CF, per_CL, CL,
                per_CX, quick, top, fading, n, real)  # fmt: skip
            short = (lacking > n.shortfall) & (b[_PACED + k] > real(0.0))
            b[_FAILED + k] = min(b[_FAILED + k], now if short else real(NEVER))
            b[_DELIVERED + k] += half * (d1 + d2)
            b[_SLOW + k] += half * (s1 + s2)
            b[_AEROBIC + k] += half * (real(2.0) * v + h * dv)
            b[_LACTIC + k] += half * (g1 + g2)
            b[_F + k] = F + half * (dF + eF)
            b[_L + k] = L + half * (dL + eL)
            b[_V + k] = v + half * (dv + ev)
            b[_W + k] = W + half * (dW + eW)
            b[_X + k] = min(X + half * (dX + eX), real(1.0))


@njit(fastmath=_FAST, error_model="numpy", boundscheck=False)
def _advance_one(steps, fresh, begun, b, last, n):  # type: ignore[no-untyped-def]
    """The same for one person alone, bound by waiting for one number after the other.

    So by the second-order Adams-Bashforth method, one look at the flows a step, begun anew by a step of Heun's after
    every change of demand (`fresh`); `last` holds the rates of the step before.
    """
    real = b.dtype.type
    h = n.step_s
    F, L, v, W, X = b[_F], b[_L], b[_V], b[_W], b[_X]
    delivered, slow, aerobic, lactic = b[_DELIVERED], b[_SLOW], b[_AEROBIC], b[_LACTIC]
    least, span, c, cs, per_CF, per_CL, CL = b[_LEAST], b[_SPAN], b[_C], b[_CS], b[_PER_CF], b[_PER_CL], b[_CL]
    per_CX, quick, top, fading = b[_PER_CX], b[_QUICK], b[_TOP], b[_FADING]
    pF, pL, pv, pW, pX, pd, ps, pa, pg = (
        last[0], last[1], last[2], last[3], last[4], last[5], last[6], last[7], last[8])  # fmt: skip
    paced = b[_PACED] > real(0.0)
    failed = b[_FAILED]
    for step in range(steps):
        dF, dL, dv, dW, dX, d, s, g, lacking = _flows(
            F, L, v, W, X, least, span, c, cs, per_CF, per_CL, CL, per_CX, quick, top, fading, n, real
        )
        short = (lacking > n.shortfall) & paced
        failed = min(failed, real(begun + step) * h if short else real(NEVER))
        a = v
        now_h, then_h = h * real(1.5), h * real(-0.5)
        if step == 0 and fresh:
            pF, pL, pv, pW, pX, pd, ps, pg, lacking = _flows(
                F + h * dF, L + h * dL, v + h * dv, W + h * dW, X + h * dX, least, span, c, cs, per_CF, per_CL, CL,
                per_CX, quick, top, fading, n, real)  # fmt: skip
            pa = v + h * dv
            now_h, then_h = h * real(0.5), h * real(0.5)
        F, L = F + now_h * dF + then_h * pF, L + now_h * dL + then_h * pL
        v, W = v + now_h * dv + then_h * pv, W + now_h * dW + then_h * pW
        X = min(X + now_h * dX + then_h * pX, real(1.0))
        delivered, slow = delivered + now_h * d + then_h * pd, slow + now_h * s + then_h * ps
        aerobic, lactic = aerobic + now_h * a + then_h * pa, lactic + now_h * g + then_h * pg
        pF, pL, pv, pW, pX, pd, ps, pa, pg = dF, dL, dv, dW, dX, d, s, a, g
    b[_F], b[_L], b[_V], b[_W], b[_X] = F, L, v, W, X
    b[_DELIVERED], b[_SLOW], b[_AEROBIC], b[_LACTIC] = delivered, slow, aerobic, lactic
    for row, value in enumerate((pF, pL, pv, pW, pX, pd, ps, pa, pg)):
        last[row] = value
    b[_FAILED] = failed


@njit(cache=True, nogil=True, fastmath=_FAST, error_model="numpy", boundscheck=False)
def integrate(least, most, ceiling, stretch_segment, stretch_steps, CF_s, CL_s, scale, quickness, resting, n, out,  # type: ignore[no-untyped-def]
              exhausted):  # fmt: skip
    """Fill `out` (rows, samples, people) and `exhausted` (people).

    Rows: sprint left, lactic used, uptake, fatigue, then energy delivered, slow, aerobic and lactic so far
    [s x VO2max]. A stretch is so many steps within one segment, with a sample at its end.
    """
    people = CF_s.shape[0]
    real = CF_s.dtype.type
    b = np.zeros(_ROWS * ABREAST, CF_s.dtype)
    last = np.zeros(9, CF_s.dtype)
    width = 1 if people == 1 else ABREAST
    for first in range(0, people, ABREAST):
        count = min(ABREAST, people - first)
        b[:] = real(0.0)
        for k in range(width):
            # Places left over in the last block are filled with its last person, and not read.
            who = first + min(k, count - 1)
            b[_F + k] = real(1.0) - resting[who] / (ceiling[0, who] * n.drive_gain)
            b[_V + k] = resting[who]
            b[_PER_CF + k], b[_PER_CL + k], b[_CL + k] = real(1.0) / CF_s[who], real(1.0) / CL_s[who], CL_s[who]
            b[_QUICK + k] = n.uptake_per_s * quickness[who]
            b[_FAILED + k] = real(NEVER)
        for k in range(count):
            out[0, 0, first + k], out[2, 0, first + k] = b[_F + k], b[_V + k]
        done = 0
        for stretch in range(stretch_steps.shape[0]):
            segment = stretch_segment[stretch]
            fresh = stretch == 0 or segment != stretch_segment[stretch - 1]
            for k in range(width if fresh else 0):
                who = first + min(k, count - 1)
                c, low, high = ceiling[segment, who], least[segment, who], most[segment, who]
                b[_LEAST + k], b[_SPAN + k] = low, high - low
                b[_C + k], b[_CS + k] = c, c * scale[who]
                b[_PER_CX + k] = n.fatigue_per_s / (c * scale[who])
                ready = min(max((high / c - n.burst_threshold) / n.burst_width, real(0.0)), real(1.0))
                b[_TOP + k] = c * scale[who] * n.lactic_flow * ready**n.burst_power
                b[_FADING + k] = n.fatigue_recovery * np.exp(-n.fatigue_recovery_drag * low / c)
                b[_PACED + k] = real(1.0) if high == low and low < real(ALL_OUT) else real(0.0)
            steps = stretch_steps[stretch]
            if people == 1:
                _advance_one(steps, fresh, done, b, last, n)
            else:
                _advance_block(steps, done, b, n)
            done += steps
            for k in range(count):
                at = first + k
                out[0, stretch + 1, at], out[1, stretch + 1, at] = b[_F + k], b[_L + k]
                out[2, stretch + 1, at], out[3, stretch + 1, at] = b[_V + k], b[_X + k]
                out[4, stretch + 1, at], out[5, stretch + 1, at] = b[_DELIVERED + k], b[_SLOW + k]
                out[6, stretch + 1, at], out[7, stretch + 1, at] = b[_AEROBIC + k], b[_LACTIC + k]
        for k in range(count):
            exhausted[first + k] = b[_FAILED + k]
