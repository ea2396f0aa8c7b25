"""Blood lactate, estimated: fed by glycolysis, appearing late, cleared slowly.

References (from memory): di Prampero PE, Ferretti G (1999) Respir Physiol 118:103-115 for 3.0 mL O2/kg per mmol/L;
half-times of removal within the bands that several studies give (15-25 min at rest, 8-13 min moving).
"""

import numpy as np
from numba import njit
from numpy.typing import NDArray

Floats = NDArray[np.float64]

O2_EQUIVALENT_ML_KG_PER_MMOL = 3.0
RESTING_MMOL = 1.0
PEAK_LOOK_AHEAD_S = 900


APPEARANCE_TAU_S = 180.0
REST_HALF_TIME_S = 1200.0
ACTIVE_HALF_TIME_S = 720.0


@njit(cache=True)
def _blood(fed, staying, kept_resting, kept_active, uptake_frac, out, muscle):  # type: ignore[no-untyped-def]
    out[0] = 1.0
    for t in range(1, out.shape[0]):
        for k in range(out.shape[1]):
            waiting = muscle[k] + fed[t, k]
            leaving = waiting * (1.0 - staying[t])
            muscle[k] = waiting - leaving
            moving = 0.3 <= uptake_frac[t, k] <= 0.6
            kept = kept_active[t] if moving else kept_resting[t]
            out[t, k] = 1.0 + (out[t - 1, k] - 1.0) * kept + leaving


def blood_lactate(seconds: Floats, lactic_energy: Floats, uptake_frac: Floats) -> tuple[Floats, Floats]:
    """Blood lactate [mmol/L] of shape (t, k), and its peak (k,), looked for until 15 minutes after the end.

    `lactic_energy` (t, k) is the energy drawn from the lactic store so far [mL O2/kg]. Valid as an accumulation
    over rest, not as a steady-state reading; an estimate, to be shown with its range.
    """
    span = np.diff(seconds, prepend=0.0)
    fed = np.diff(lactic_energy, axis=0, prepend=0.0) / O2_EQUIVALENT_ML_KG_PER_MMOL
    out = np.empty_like(uptake_frac)
    muscle = np.zeros(uptake_frac.shape[1])
    _blood(
        fed,
        np.exp(-span / APPEARANCE_TAU_S),
        np.exp2(-span / REST_HALF_TIME_S),
        np.exp2(-span / ACTIVE_HALF_TIME_S),
        uptake_frac,
        out,
        muscle,
    )
    after = np.linspace(0.0, PEAK_LOOK_AHEAD_S, 46)[:, None]
    appear, clear = 1 / APPEARANCE_TAU_S, np.log(2) / REST_HALF_TIME_S
    risen = muscle * appear / (appear - clear) * (np.exp(-clear * after) - np.exp(-appear * after))
    later = RESTING_MMOL + (out[-1] - RESTING_MMOL) * np.exp(-clear * after) + risen
    return out, np.maximum(out.max(axis=0), later.max(axis=0))
