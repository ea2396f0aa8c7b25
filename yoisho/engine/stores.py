"""The three-store model: sprint store, lactic store and aerobic uptake under a changing demand.

State of one person: `F` sprint store left (1 to 0), `L` lactic store used (0 to 1), `v` aerobic uptake and `W`
slow component, both in mL O2/kg/s. The first-order link between the sprint store and uptake follows the
phosphocreatine picture of Meyer (1988); with the lactic store it is a relation of the hydraulic models of
Margaria and Morton. Fitted to cycling and running; for striking it is an assumption.

Everything is integrated by Heun's method on a fixed step, for many people (or draws of one person) at once.
"""

from dataclasses import dataclass

import numpy as np
from numba import njit
from numpy.typing import NDArray

from yoisho.engine.parameters import (
    REFERENCE,
    REST_DEMAND_ML_KG_MIN,
    Parameters,
)

Floats = NDArray[np.float64]

STEP_S = 0.2
_NEVER = 1e9


@dataclass(frozen=True)
class People:
    """Columns of `k` people (or draws of one person), each of shape (k,)."""

    vo2max_ml_kg_s: Floats
    sprint_capacity_ml_kg: Floats
    lactic_capacity_ml_kg: Floats
    flow_scale: Floats
    """Multiplies both anaerobic flows [-]."""

    @staticmethod
    def one(vo2max_ml_kg_min: float, parameters: Parameters = REFERENCE) -> "People":
        return People(
            np.array([vo2max_ml_kg_min / 60.0]),
            np.array([parameters.sprint_capacity_ml_kg]),
            np.array([parameters.lactic_capacity_ml_kg]),
            np.ones(1),
        )

    def __len__(self) -> int:
        return len(self.vo2max_ml_kg_s)


@dataclass(frozen=True)
class Run:
    """What `simulate` gives for `s` segments, `t` samples and `k` people.

    Traces have shape (t, k) and are sampled at `seconds` (t,), the first before anything was done, every
    `sample_s` and at the end of every segment; `segment_end` (s,) finds those. Energies have shape (s, k), in
    mL O2/kg: `delivered + slow = aerobic + alactic + lactic` to rounding.
    """

    seconds: Floats
    segment_end: NDArray[np.int64]
    sprint_left: Floats
    lactic_used: Floats
    uptake_frac: Floats
    energy_to_here: Floats
    """Delivered, slow, aerobic, lactic and alactic energy so far, shape (5, t, k) [mL O2/kg]."""
    exhausted_at_s: Floats
    """First moment at which the demand cannot be delivered, per person; NaN if never. Shape (k,)."""

    def _per_segment(self, row: int) -> Floats:
        return np.diff(self.energy_to_here[row][self.segment_end], axis=0, prepend=0.0)

    @property
    def energy_delivered(self) -> Floats:
        return self._per_segment(0)

    @property
    def energy_slow(self) -> Floats:
        return self._per_segment(1)

    @property
    def energy_aerobic(self) -> Floats:
        return self._per_segment(2)

    @property
    def energy_alactic(self) -> Floats:
        return self._per_segment(4)

    @property
    def energy_lactic(self) -> Floats:
        return self._per_segment(3)

    def over_segments(self, trace: Floats, reduce: np.ufunc) -> Floats:
        """`reduce` (`np.minimum`, `np.maximum`) of a trace over each segment, both ends counted. Shape (s, k)."""
        starts = np.concatenate(([0], self.segment_end[:-1]))
        return np.asarray(reduce(reduce.reduceat(trace, starts, axis=0), trace[self.segment_end]))


class ProfileError(ValueError):
    """A demand profile that cannot be simulated."""


_FAST = {"contract", "arcp", "nsz", "nnan"}


@njit(fastmath=_FAST, error_model="numpy", inline="always")  # type: ignore[untyped-decorator]
def _flows(F, L, v, W, D, V, per_CF, per_CL, alactic_top, lactic_top, sustained_top, heavy, slow_target,  # type: ignore[no-untyped-def]
           phi, per_tau, a, kf, rl):  # fmt: skip
    """Rates of change of the state, and the flows behind them, at demand `D` [mL/kg/s]."""
    keep = 1.0 - phi - a * L
    share = F + kf
    over = 1.0 / (keep * share)  # one division serves two quotients: divisions are what this loop waits for
    drive = min(max((1.0 - F - a * L) * share * over, 0.0), 1.0)
    empty = 1.0 - F
    reserve = 1.0 - L
    sustained = sustained_top * empty * empty * empty * reserve
    alactic_limit = alactic_top * F * keep * over
    lactic_limit = lactic_top * reserve
    limits = alactic_limit + lactic_limit + 1e-12
    slow = heavy * W
    capability = v + limits + sustained - slow
    delivered = min(D, capability)
    need = delivered + slow - v
    lactic_by_limits = sustained * limits + max(need - sustained, 0.0) * lactic_limit
    steady = 0.2 * V * limits
    under = 1.0 / (limits * (lactic_by_limits + steady))
    lactic = lactic_by_limits * (lactic_by_limits + steady) * under
    dL = lactic * per_CL - rl * L * steady * limits * under
    dv = (V * drive - v) * per_tau
    dW = (slow_target - W) * (1.0 / 150.0)
    return (lactic - need) * per_CF, dL, dv, dW, delivered, slow, lactic, capability


@njit(fastmath=_FAST, error_model="numpy", boundscheck=False)  # type: ignore[untyped-decorator]
def _advance(steps, h, at_s, F, L, v, W, energy, exhausted, D, limit, V, per_CF, per_CL,  # type: ignore[no-untyped-def]
             alactic_top, lactic_top, sustained_top, heavy, slow_target, phi, per_tau, a, kf, rl):  # fmt: skip
    """Some steps at one demand, in place. The inner loop has no branch, so that it runs several people abreast."""
    half = 0.5 * h
    for step in range(steps):
        now = at_s + step * h
        for k in range(F.shape[0]):
            dF, dL, dv, dW, d1, s1, g1, capability = _flows(
                F[k], L[k], v[k], W[k], D[k], V[k], per_CF[k], per_CL[k], alactic_top[k], lactic_top[k],
                sustained_top[k], heavy[k], slow_target[k], phi, per_tau, a, kf, rl)  # fmt: skip
            eF, eL, ev, eW, d2, s2, g2, _c = _flows(
                F[k] + h * dF, L[k] + h * dL, v[k] + h * dv, W[k] + h * dW, D[k], V[k], per_CF[k], per_CL[k],
                alactic_top[k], lactic_top[k], sustained_top[k], heavy[k], slow_target[k],
                phi, per_tau, a, kf, rl)  # fmt: skip
            exhausted[k] = min(exhausted[k], now if limit[k] > capability else 1e9)
            energy[0, k] += half * (d1 + d2)
            energy[1, k] += half * (s1 + s2)
            energy[2, k] += half * (2.0 * v[k] + h * dv)
            energy[3, k] += half * (g1 + g2)
            F[k] += half * (dF + eF)
            L[k] += half * (dL + eL)
            v[k] += half * (dv + ev)
            W[k] += half * (dW + eW)


@njit(cache=True, fastmath=_FAST, error_model="numpy", boundscheck=False)  # type: ignore[untyped-decorator]
def _integrate(demand, stretch_segment, stretch_steps, h, V, CF, CL, flow_scale, rest_demand,  # type: ignore[no-untyped-def]
               cF, cL, phi, uptake_tau, Dc, w, m, rl, a, kf, kap, Ds, cs, out, exhausted):  # fmt: skip
    """Fill `out` (rows, samples, people) and `exhausted` (people). The inner loop over people is branch-free."""
    people = V.shape[0]
    resting = np.minimum(rest_demand, 0.6 * V)
    F = 1.0 - resting / V * (1.0 - phi)
    L = np.zeros(people)
    v = resting.copy()
    W = np.zeros(people)
    energy = np.zeros((4, people))
    per_CF = 1.0 / CF
    per_CL = 1.0 / CL
    per_tau = 1.0 / uptake_tau
    alactic_top = cF * V * flow_scale
    lactic_top = np.empty(people)
    sustained_top = np.empty(people)
    heavy = np.empty(people)
    slow_target = np.empty(people)
    D = np.empty(people)
    limit = np.empty(people)
    at_s = 0.0
    out[0, 0] = F
    out[1, 0] = L
    out[2, 0] = v
    for stretch in range(stretch_steps.shape[0]):
        for k in range(people):
            D[k] = demand[stretch_segment[stretch], k]
            asked = D[k] / V[k]
            readiness = min(max((asked - Dc) / w, 0.0), 1.0)
            heavy[k] = 1.0 if asked > 0.5 else 0.0
            lactic_top[k] = cL * V[k] * flow_scale[k] * readiness**m
            sustained_top[k] = heavy[k] * cs * V[k]
            slow_target[k] = heavy[k] * min(max(kap * (asked - Ds), 0.0), 0.25) * V[k]
            limit[k] = D[k] - 1e-9 if asked < 9.0 - 1e-9 else -1.0
        _advance(stretch_steps[stretch], h, at_s, F, L, v, W, energy, exhausted, D, limit, V, per_CF, per_CL,
                 alactic_top, lactic_top, sustained_top, heavy, slow_target, phi, per_tau, a, kf, rl)  # fmt: skip
        at_s += stretch_steps[stretch] * h
        out[0, stretch + 1] = F
        out[1, stretch + 1] = L
        out[2, stretch + 1] = v
        for row in range(4):
            out[3 + row, stretch + 1] = energy[row]


def simulate(
    seconds: Floats,
    demand_frac: Floats,
    people: People,
    *,
    parameters: Parameters = REFERENCE,
    step_s: float = STEP_S,
    sample_s: float = 1.0,
) -> Run:
    """Run a demand profile through the three stores, going on at what can be delivered after a shortfall.

    `seconds` has shape (s,): the length of each segment [s], taken to the nearest `step_s`. `demand_frac` has
    shape (s,) or (s, k): the demand of each segment [x VO2max]; 9 or more means all that can be delivered.
    Raises `ProfileError` for an empty profile, or a length or a demand that is negative or not a finite number.
    """
    seconds = np.asarray(seconds, dtype=np.float64)
    demand_frac = np.asarray(demand_frac, dtype=np.float64)
    if seconds.size == 0:
        raise ProfileError("the profile has no segments: give at least one")
    if not (np.isfinite(seconds).all() and (seconds > 0).all()):
        raise ProfileError("every segment needs a length of more than 0 seconds")
    if not (np.isfinite(demand_frac).all() and (demand_frac >= 0).all()):
        raise ProfileError("every demand must be 0 or more, as a fraction of VO2max")
    ends = np.rint(np.cumsum(seconds) / step_s).astype(np.int64)
    if (np.diff(ends, prepend=0) < 1).any():
        raise ProfileError(f"a segment shorter than {step_s} s cannot be simulated")
    every = max(1, round(sample_s / step_s))
    stops = np.union1d(np.arange(every, ends[-1], every), ends)
    V = people.vo2max_ml_kg_s
    by_person = demand_frac[:, None] if demand_frac.ndim == 1 else demand_frac
    demand = np.ascontiguousarray(np.broadcast_to(by_person, (len(seconds), len(people))) * V)
    out = np.zeros((7, len(stops) + 1, len(people)))
    exhausted = np.full(len(people), _NEVER)
    p = parameters
    _integrate(
        demand, np.searchsorted(ends, stops), np.diff(stops, prepend=0), step_s, V, people.sprint_capacity_ml_kg,
        people.lactic_capacity_ml_kg, people.flow_scale, REST_DEMAND_ML_KG_MIN / 60.0, p.sprint_flow, p.lactic_flow,
        p.sprint_floor, p.uptake_tau_s, p.burst_threshold, p.burst_width, p.burst_power, p.clearance_per_s,
        p.acidosis_drag, p.sprint_shape, p.slow_gain, p.slow_threshold, p.steady_glycolysis, out, exhausted,
    )  # fmt: skip
    return Run(
        seconds=np.concatenate(([0], stops)) * step_s,
        segment_end=np.searchsorted(stops, ends) + 1,
        sprint_left=out[0],
        lactic_used=out[1],
        uptake_frac=out[2] / V,
        energy_to_here=np.concatenate((out[3:], (people.sprint_capacity_ml_kg * (out[0, 0] - out[0]))[None])),
        exhausted_at_s=np.where(exhausted >= _NEVER, np.nan, exhausted),
    )
