"""The protocols of the studies, as demand profiles for the reference person of the fit (VO2max 57 mL/kg/min)."""

import numpy as np

from yoisho.engine.stores import People, Run, simulate

VO2MAX = 57.0
REST = 0.1


def run(profile: list[tuple[float, float]]) -> Run:
    seconds, demand = np.array(profile, dtype=float).T
    return simulate(seconds, demand, People.one(VO2MAX))


def aerobic_share(done: Run) -> float:
    aerobic, alactic, lactic = (
        energy.sum() for energy in (done.energy_aerobic, done.energy_alactic, done.energy_lactic)
    )
    return float(aerobic / (aerobic + alactic + lactic))


def exhausting_demand(seconds: float) -> float:
    """The constant demand that can just be held for so long, by bisection."""
    low, high = 0.5, 5.0
    for _ in range(40):
        middle = (low + high) / 2
        exhausted = run([(seconds + 1, middle)]).exhausted_at_s[0]
        low, high = (middle, high) if np.isnan(exhausted) or exhausted > seconds else (low, middle)
    return low


def bouts_until_exhausted(work_s: float, rest_s: float, demand: float) -> float:
    """How many bouts are done before the demand can no longer be delivered, the last in part."""
    exhausted = float(run([(work_s, demand), (rest_s, REST)] * 30).exhausted_at_s[0])
    whole, inside = divmod(exhausted, work_s + rest_s)
    return whole + min(1.0, inside / work_s)


def until(profile: list[tuple[float, float]], end_s: float) -> list[tuple[float, float]]:
    cut, clock = [], 0.0
    for seconds, demand in profile:
        if clock + 0.2 > end_s:
            break
        cut.append((min(seconds, end_s - clock), demand))
        clock += seconds
    return cut
