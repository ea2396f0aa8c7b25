"""Blood lactate, estimated: fed by glycolysis, appearing late, leaving the quicker the harder the heart works.

References (from memory): di Prampero PE, Ferretti G (1999) Respir Physiol 118:103-115 for about 3 mL O2/kg per mmol/L;
half-times of removal 15-25 min at rest, shorter moving (several studies). That it goes on leaving so quickly up to the
highest uptakes is our own assumption: without it steady work would gather lactate without end. The half-time, the
lag and the equivalent are fitted with the model.
"""

import numpy as np
from numba import njit
from numpy.typing import NDArray

from yoisho.engine.parameters import REFERENCE, Parameters

Floats = NDArray[np.float64]

RESTING_MMOL = 1.0
PEAK_LOOK_AHEAD_S = 900
REST_HALF_TIME_S = 1200.0
RESTING_UPTAKE_FRAC = 0.1
"""Uptake up to which the half-time is that at rest [x VO2max]."""


@njit(cache=True)
def _blood(fed, staying, span, uptake_frac, slowest, quickest, least, most, out, muscle):  # type: ignore[no-untyped-def]
    out[0] = 1.0
    for t in range(1, out.shape[0]):
        for k in range(out.shape[1]):
            waiting = muscle[k] + fed[t, k]
            leaving = waiting * (1.0 - staying[t])
            muscle[k] = waiting - leaving
            moving = min(max((uptake_frac[t, k] - least) / (most - least), 0.0), 1.0)
            gone = span[t] * (slowest + (quickest - slowest) * moving)
            # As good as exp(-gone) for these steps, and many times as quick.
            kept = (1.0 - 0.5 * gone) / (1.0 + 0.5 * gone)
            out[t, k] = 1.0 + (out[t - 1, k] - 1.0) * kept + leaving


def blood_lactate(
    seconds: Floats, lactic_energy: Floats, uptake_frac: Floats, parameters: Parameters = REFERENCE
) -> tuple[Floats, Floats]:
    """Blood lactate [mmol/L] of shape (t, k), and its peak (k,), looked for until 15 minutes of rest after the end.

    `lactic_energy` (t, k) is the energy drawn from the lactic store so far [mL O2/kg]. An estimate, to be shown with
    its range. Samples stand at most a minute apart.
    """
    span = np.diff(seconds, prepend=0.0)
    fed = np.diff(lactic_energy, axis=0, prepend=0.0) / parameters.lactate_ml_kg_per_mmol
    out = np.empty_like(uptake_frac)
    muscle = np.zeros(uptake_frac.shape[1])
    clear = np.log(2) / REST_HALF_TIME_S
    _blood(
        fed,
        np.exp(-span / parameters.lactate_appearance_s),
        span,
        uptake_frac,
        clear,
        np.log(2) / parameters.lactate_half_time_s,
        RESTING_UPTAKE_FRAC,
        parameters.lactate_quickest_at,
        out,
        muscle,
    )
    after = np.linspace(0.0, PEAK_LOOK_AHEAD_S, 46)[:, None]
    appear = 1 / parameters.lactate_appearance_s
    risen = muscle * appear / (appear - clear) * (np.exp(-clear * after) - np.exp(-appear * after))
    later = RESTING_MMOL + (out[-1] - RESTING_MMOL) * np.exp(-clear * after) + risen
    return out, np.maximum(out.max(axis=0), later.max(axis=0))
