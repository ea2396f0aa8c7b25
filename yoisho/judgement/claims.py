"""Claims that are made for a session, held against the numbers: so many kcal, "this is Tabata", "this is threshold"."""

from dataclasses import dataclass
from itertools import pairwise
from math import erf, log, sqrt

import numpy as np

from yoisho.engine.readout import Reading
from yoisho.judgement.targets import TARGETS
from yoisho.judgement.verdict import judge
from yoisho.session.clock import clock
from yoisho.session.tempo import TEMPOS

TABATA_DEMAND_FRAC = 1.55
"""Demand from which 20/10 is the research protocol (about 170 % of VO2max) and not only its clock. Own setting."""


class ClaimError(ValueError):
    """A claim that cannot be checked: why, and what can."""


@dataclass(frozen=True)
class Claim:
    claim: str
    chance: float
    """That it is true for this person and session, 0.01 to 0.99: the model is never surer than that."""
    answer: str
    text: str
    source: str


def _answer(chance: float) -> str:
    words = ((0.9, "very likely true"), (0.65, "likely true"), (0.35, "may be true"), (0.1, "unlikely"))
    return next((word for least, word in words if chance >= least), "very unlikely")


def _percent(chance: float) -> str:
    if chance <= 0.01:
        return "under 1 %"
    return "over 99 %" if chance >= 0.99 else f"about {100 * chance:.0f} %"


def kcal(reading: Reading, claimed: float) -> Claim:
    """Whether a session spends at least so many kcal: the chance over the draws, taken as lognormal.

    Raises `ClaimError` for a claim of nothing, or a reading without its draws.
    """
    if not 1 <= claimed <= 20_000:
        raise ClaimError(f"a claim is from 1 to 20000 kcal, not {claimed:g}")
    if reading.spread is None:
        raise ClaimError("a claim needs the ranges: read the session with them")
    drawn = np.log(np.maximum(reading.spread.figures["kcal"], 1.0))
    score = (log(claimed) - float(drawn.mean())) / max(float(drawn.std()), 0.02)
    chance = min(0.99, max(0.01, 0.5 * (1 - erf(score / sqrt(2)))))
    figure, tables = reading.figures["kcal"], reading.figures["kcal_met"]
    text = (
        f"{claimed:.0f} kcal in {clock(reading.timeline.total_s)}: {_percent(chance)}. The model gives "
        f"{figure.low:.0f} to {figure.high:.0f} kcal for this person, the ten minutes after counted in; tables of "
        f"whole sessions give {tables.low:.0f} to {tables.high:.0f}."
    )
    source = "three-store model at 5.0 kcal/L; 2011 Compendium, bag 5.5 to sparring 7.8 MET, from memory"
    return Claim(f"{claimed:.0f} kcal", chance, _answer(chance), text, source)


def tabata(reading: Reading) -> Claim:
    """Whether a session holds the research protocol, only its clock, or neither."""
    source = "Tabata et al. 1996 and 1997: 7 to 8 sets of 20 s at about 170 % of VO2max, 10 s rest, from memory"
    intervals = reading.timeline.intervals
    clocked = [
        a for a, b in pairwise(intervals)
        if a.kind == "work" and (a.seconds, b.seconds) == (20, 10) and b.kind != "work"
    ]  # fmt: skip
    if len(clocked) < 6:
        return Claim("Tabata", 0.01, "very unlikely", "There are not six efforts of 0:20 with rests of 0:10.", source)
    demand = min(TEMPOS[i.tempo].demand_frac for i in clocked)
    ends = reading.exhausted_at_s
    if demand < TABATA_DEMAND_FRAC:
        text = f"This is the 20/10 format at {100 * demand:.0f} % of VO2max, not the research protocol at 170 %."
        return Claim("Tabata", 0.05, "very unlikely", text, source)
    if ends is None or len(clocked) > 9:
        text = "The effort is asked for, but the model does not see it end in exhaustion in 7 or 8 sets."
        return Claim("Tabata", 0.3, "unlikely", text, source)
    text = f"This is the research protocol: about {clock(ends)} the effort can no longer be held, as in the study."
    return Claim("Tabata", 0.9, "very likely true", text, source)


def trains(reading: Reading, target_id: str) -> Claim:
    """Whether a session trains a purpose: the verdict, as an answer to a claim. Raises `ClaimError` for no purpose."""
    if target_id not in TARGETS:
        raise ClaimError(f"no purpose is called '{target_id}'; there are {', '.join(TARGETS)}")
    verdict = judge(reading, target_id)
    chance = min(0.99, max(0.01, verdict.score))
    return Claim(TARGETS[target_id].name, chance, _answer(chance), verdict.sentence, "the verdict's measures")
