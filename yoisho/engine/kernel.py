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
    burst_resistance: np.floating
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
        p.acidosis_drag, p.lactic_flow, p.burst_threshold, p.burst_width, p.burst_power, p.burst_resistance,
        p.steady_glycolysis, p.glycolysis_gain, p.clearance_per_s, p.clearance_cost, p.slow_gain, p.slow_threshold,
        p.slow_ceiling, 1 / p.slow_tau_s, p.fatigue_threshold, p.fatigue_ceiling, 1 / p.fatigue_capacity_s,
        p.fatigue_recovery_per_s, p.fatigue_recovery_drag,
    )))  # fmt: skip


_FAST = {"contract", "arcp", "nsz", "nnan"}


@njit(fastmath=_FAST, error_model="numpy", inline="always")
def _flows(F, L, v, W, X, least, span, c, cs, per_CF, per_CL, CL, per_CX, uptake_per_s, called, fading, n, real):  # type: ignore[no-untyped-def]
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
    # Two resistances in series: what an emptying store gives, and how far it is called upon.
    resisted = reserve + n.burst_resistance * called + real(1e-12)
    over = one / (level * share * resisted)  # one division serves three quotients: they are what this loop waits for
    drive = min(max((level - F) * n.drive_gain * share * resisted * over, real(0.0)), one)
    driven = drive * drive
    sustained = heavy * n.steady_glycolysis * c * driven * driven * drive * reserve
    rested = cs * n.sprint_flow * (one + n.sprint_shape) * squared * level * resisted * over
    alactic_limit = rested * fresh
    lactic_limit = cs * n.lactic_flow * (one + n.burst_resistance) * called * reserve * level * share * over
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


FINE_STEPS, MIDDLE_STEPS = 8, 80
"""A demand that has stood for so many steps is followed in steps twice, and then four times, as long."""


@njit(inline="always")
def _size(stood, left):  # type: ignore[no-untyped-def]
    """Length of the next step, in steps of the run: the longer the demand has stood, and at most what is left."""
    size = 1 if stood < FINE_STEPS else 2 if stood < MIDDLE_STEPS else 4
    while size > left:
        size //= 2
    return size


ABREAST = 32
"""People side by side in one buffer, each number of theirs at a fixed distance: so the compiler sees that none of them
overlap, and runs several people in one instruction."""
_ROWS = 32
# Rows of that buffer: the state, the energies so far, what the segment gives, when the demand was out of reach and by
# how much it was at the step before, then the rates of that step, of the state and of the energies.
_F, _L, _V, _W, _X = (row * ABREAST for row in range(5))
_DELIVERED, _SLOW, _AEROBIC, _LACTIC = (row * ABREAST for row in range(5, 9))
_LEAST, _SPAN, _C, _CS, _PER_CF, _PER_CL, _CL, _PER_CX, _QUICK, _CALLED, _FADING, _PACED = (
    row * ABREAST for row in range(9, 21)
)
_FAILED, _LACKED = 21 * ABREAST, 22 * ABREAST
_WAS_F, _WAS_L, _WAS_V, _WAS_W, _WAS_X = (row * ABREAST for row in range(23, 28))
_WAS_DELIVERED, _WAS_SLOW, _WAS_AEROBIC, _WAS_LACTIC = (row * ABREAST for row in range(28, 32))


@njit(fastmath=_FAST, error_model="numpy", boundscheck=False)
def _advance_block(steps, begun, stood, before, b, n):  # type: ignore[no-untyped-def]
    """Some steps at one demand that has `stood` for so many, in place, for people abreast.

    By the second-order method of Adams and Bashforth, one look at the flows a step, begun after every change of demand
    by a short step of Euler's. Bound by how much is computed. Gives the length of the last step; `before` is that of
    the one before.
    """
    real = b.dtype.type
    done = 0
    while done < steps:
        size = _size(stood + done, steps - done)
        begins = stood + done == 0
        h = n.step_s * real(size)
        then = real(0.0) if begins else real(-0.5) * h * real(size) / real(before)
        now = h - then
        at = real(begun + done) * n.step_s
        back = real(0.0) if begins else real(before) * n.step_s
        for k in range(ABREAST):
            F, L, v, W, X = b[_F + k], b[_L + k], b[_V + k], b[_W + k], b[_X + k]
            dF, dL, dv, dW, dX, delivered, slow, lactic, lacking = _flows(
                F, L, v, W, X, b[_LEAST + k], b[_SPAN + k], b[_C + k], b[_CS + k], b[_PER_CF + k], b[_PER_CL + k],
                b[_CL + k], b[_PER_CX + k], b[_QUICK + k], b[_CALLED + k], b[_FADING + k], n, real)  # fmt: skip
            short = (lacking > n.shortfall) & (b[_PACED + k] > real(0.0))
            # The demand went out of reach where the line from the step before to this one crosses nothing.
            ago = back * lacking / max(lacking - b[_LACKED + k], max(lacking, n.shortfall))
            b[_FAILED + k] = min(b[_FAILED + k], at - ago if short else real(NEVER))
            b[_LACKED + k] = lacking
            b[_DELIVERED + k] += now * delivered + then * b[_WAS_DELIVERED + k]
            b[_SLOW + k] += now * slow + then * b[_WAS_SLOW + k]
            b[_AEROBIC + k] += now * v + then * b[_WAS_AEROBIC + k]
            b[_LACTIC + k] += now * lactic + then * b[_WAS_LACTIC + k]
            b[_F + k] = F + now * dF + then * b[_WAS_F + k]
            b[_L + k] = L + now * dL + then * b[_WAS_L + k]
            b[_V + k] = v + now * dv + then * b[_WAS_V + k]
            b[_W + k] = W + now * dW + then * b[_WAS_W + k]
            b[_X + k] = min(X + now * dX + then * b[_WAS_X + k], real(1.0))
            b[_WAS_F + k], b[_WAS_L + k], b[_WAS_V + k], b[_WAS_W + k], b[_WAS_X + k] = dF, dL, dv, dW, dX
            b[_WAS_DELIVERED + k], b[_WAS_SLOW + k], b[_WAS_AEROBIC + k], b[_WAS_LACTIC + k] = (
                delivered, slow, v, lactic)  # fmt: skip
        done += size
        before = size
    return before


@njit(fastmath=_FAST, error_model="numpy", boundscheck=False)
def _advance_one(steps, begun, stood, before, b, n):  # type: ignore[no-untyped-def]
    """The same for one person alone, bound by waiting for one number after the other: so all of them are at hand."""
    real = b.dtype.type
    F, L, v, W, X = b[_F], b[_L], b[_V], b[_W], b[_X]
    delivered, slow, aerobic, lactic = b[_DELIVERED], b[_SLOW], b[_AEROBIC], b[_LACTIC]
    least, span, c, cs, per_CF, per_CL, CL = b[_LEAST], b[_SPAN], b[_C], b[_CS], b[_PER_CF], b[_PER_CL], b[_CL]
    per_CX, quick, called, fading = b[_PER_CX], b[_QUICK], b[_CALLED], b[_FADING]
    paced = b[_PACED] > real(0.0)
    failed, lacked = b[_FAILED], b[_LACKED]
    pF, pL, pv, pW, pX = b[_WAS_F], b[_WAS_L], b[_WAS_V], b[_WAS_W], b[_WAS_X]
    pd, ps, pa, pg = b[_WAS_DELIVERED], b[_WAS_SLOW], b[_WAS_AEROBIC], b[_WAS_LACTIC]
    done = 0
    while done < steps:
        size = _size(stood + done, steps - done)
        begins = stood + done == 0
        h = n.step_s * real(size)
        then = real(0.0) if begins else real(-0.5) * h * real(size) / real(before)
        now = h - then
        dF, dL, dv, dW, dX, d, s, g, lacking = _flows(
            F, L, v, W, X, least, span, c, cs, per_CF, per_CL, CL, per_CX, quick, called, fading, n, real
        )
        if paced and lacking > n.shortfall and failed >= real(NEVER):
            failed = real(begun + done) * n.step_s
            if lacked < real(0.0) and not begins:
                failed -= real(before) * n.step_s * lacking / (lacking - lacked)
        lacked = lacking
        delivered, slow = delivered + now * d + then * pd, slow + now * s + then * ps
        aerobic, lactic = aerobic + now * v + then * pa, lactic + now * g + then * pg
        pd, ps, pa, pg = d, s, v, g
        F, L = F + now * dF + then * pF, L + now * dL + then * pL
        v, W = v + now * dv + then * pv, W + now * dW + then * pW
        X = min(X + now * dX + then * pX, real(1.0))
        pF, pL, pv, pW, pX = dF, dL, dv, dW, dX
        done += size
        before = size
    b[_F], b[_L], b[_V], b[_W], b[_X] = F, L, v, W, X
    b[_DELIVERED], b[_SLOW], b[_AEROBIC], b[_LACTIC] = delivered, slow, aerobic, lactic
    b[_FAILED], b[_LACKED] = failed, lacked
    b[_WAS_F], b[_WAS_L], b[_WAS_V], b[_WAS_W], b[_WAS_X] = pF, pL, pv, pW, pX
    b[_WAS_DELIVERED], b[_WAS_SLOW], b[_WAS_AEROBIC], b[_WAS_LACTIC] = pd, ps, pa, pg
    return before


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
        done, stood, before = 0, 0, 1
        for stretch in range(stretch_steps.shape[0]):
            segment = stretch_segment[stretch]
            changed = stretch == 0 or segment != stretch_segment[stretch - 1]
            stood = 0 if changed else stood
            for k in range(width if changed else 0):
                who = first + min(k, count - 1)
                c, low, high = ceiling[segment, who], least[segment, who], most[segment, who]
                b[_LEAST + k], b[_SPAN + k] = low, high - low
                b[_C + k], b[_CS + k] = c, c * scale[who]
                b[_PER_CX + k] = n.fatigue_per_s / (c * scale[who])
                ready = min(max((high / c - n.burst_threshold) / n.burst_width, real(0.0)), real(1.0))
                b[_CALLED + k] = ready**n.burst_power
                b[_FADING + k] = n.fatigue_recovery * np.exp(-n.fatigue_recovery_drag * low / c)
                b[_PACED + k] = real(1.0) if high == low and low < real(ALL_OUT) else real(0.0)
            steps = stretch_steps[stretch]
            if people == 1:
                before = _advance_one(steps, done, stood, before, b, n)
            else:
                before = _advance_block(steps, done, stood, before, b, n)
            done += steps
            stood += steps
            for k in range(count):
                at = first + k
                out[0, stretch + 1, at], out[1, stretch + 1, at] = b[_F + k], b[_L + k]
                out[2, stretch + 1, at], out[3, stretch + 1, at] = b[_V + k], b[_X + k]
                out[4, stretch + 1, at], out[5, stretch + 1, at] = b[_DELIVERED + k], b[_SLOW + k]
                out[6, stretch + 1, at], out[7, stretch + 1, at] = b[_AEROBIC + k], b[_LACTIC + k]
        for k in range(count):
            exhausted[first + k] = b[_FAILED + k]
