"""The protocols of the studies, for the reference person of the fit (VO2max 57 mL/kg/min)."""

import numpy as np

from yoisho.engine import studies
from yoisho.engine.parameters import REFERENCE_VO2MAX_ML_KG_MIN
from yoisho.engine.stores import Run
from yoisho.engine.studies import CADENCE, STUDY_SCALE, Model

VO2MAX = REFERENCE_VO2MAX_ML_KG_MIN
REST = studies.REST


def run(profile: list[tuple[float, float]]) -> Run:
    return Model().run(*profile, sample_s=1.0)


def aerobic_share(done: Run) -> float:
    return studies.shares(done)[0]


def exhausting_demand(seconds: float) -> float:
    """The constant demand that can just be held for so long, by bisection: a check of the fit's interpolation."""
    low, high = 0.5, 5.0
    for _ in range(40):
        middle = (low + high) / 2
        exhausted = run([(seconds + 1, middle)]).exhausted_at_s[0]
        low, high = (middle, high) if np.isnan(exhausted) or exhausted > seconds else (low, middle)
    return low


def bouts_until_exhausted(work_s: float, rest_s: float, demand: float) -> float:
    """How many bouts Tabata's people do before their cadence falls, the last in part."""
    return studies.bouts_until_exhausted(Model(anaerobic_scale=STUDY_SCALE), work_s, rest_s, demand, CADENCE)[0]


def until_exhausted(work_s: float, rest_s: float, demand: float) -> Run:
    """The bouts and rests until then."""
    return studies.bouts_until_exhausted(Model(anaerobic_scale=STUDY_SCALE), work_s, rest_s, demand, CADENCE)[1]
