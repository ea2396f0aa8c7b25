"""Claims that are made for a session, held against the numbers: so many kcal, "this is Tabata", "this is threshold"."""

from dataclasses import dataclass
from itertools import pairwise
from math import erf, log, sqrt

import numpy as np

from yoisho.engine.measures import Measured
from yoisho.engine.readout import Reading
from yoisho.engine.studies import CADENCE
from yoisho.judgement.cautions import cautions
from yoisho.judgement.circumstances import Circumstances
from yoisho.judgement.targets import TARGETS
from yoisho.judgement.verdict import judge
from yoisho.session.clock import clock
from yoisho.session.timeline import Timeline, TimelineInterval

TABATA_DEMAND_FRAC = 1.55
"""Demand from which 20/10 is the research protocol (about 170 % of VO2max) and not only its clock. Own setting."""
TABATA_SETS = (6, 9)
"""The study's 7 to 8 sets to exhaustion, one to each side."""
_TABATA = "Tabata et al. 1996 and 1997: 7 to 8 sets of 20 s at about 170 % of VO2max, 10 s rest, from memory"


class ClaimError(ValueError):
    """A claim that cannot be checked: why, and what can."""


@dataclass(frozen=True)
class Claim:
    claim: str
    probability: float | None
    """That it is true for this person and session, 0.01 to 0.99: the model is never surer than that. None where the
    answer follows from the session's own clock and effort, or from the verdict."""
    answer: str
    text: str
    source: str


def _answer(probability: float) -> str:
    words = ((0.9, "very likely true"), (0.65, "likely true"), (0.35, "may be true"), (0.1, "unlikely"))
    return next((word for least, word in words if probability >= least), "very unlikely")


def _percent(probability: float) -> str:
    if probability <= 0.01:
        return "under 1 %"
    return "over 99 %" if probability >= 0.99 else f"about {100 * probability:.0f} %"


def _held_back(probability: float) -> float:
    return min(0.99, max(0.01, probability))


def _draws(reading: Reading) -> Measured:
    if reading.spread is None:
        raise ClaimError("a claim needs the ranges: read the session with them")
    return reading.spread


def kcal(reading: Reading, claimed: float) -> Claim:
    """Whether a session spends at least so many kcal: the probability over the draws, taken as lognormal.

    Raises `ClaimError` for a claim of nothing, or a reading without its draws.
    """
    if not 1 <= claimed <= 20_000:
        raise ClaimError(f"a claim is from 1 to 20000 kcal, not {claimed:g}")
    drawn = np.log(np.maximum(_draws(reading).figures["kcal"], 1.0))
    score = (log(claimed) - float(drawn.mean())) / max(float(drawn.std()), 0.02)
    probability = _held_back(0.5 * (1 - erf(score / sqrt(2))))
    figure, tables = reading.figures["kcal"], reading.figures["kcal_met"]
    text = (
        f"{claimed:.0f} kcal in {clock(reading.timeline.total_s)}: {_percent(probability)}. The model gives "
        f"{figure.low:.0f} to {figure.high:.0f} kcal for this person, the ten minutes after counted in; tables of "
        f"whole sessions give {tables.low:.0f} to {tables.high:.0f}."
    )
    source = "three-store model at 5.0 kcal/L; 2011 Compendium, bag 5.5 to sparring 7.8 MET, from memory"
    return Claim(f"{claimed:.0f} kcal", probability, _answer(probability), text, source)


def _sets(timeline: Timeline) -> list[TimelineInterval]:
    """The longest row of efforts of 20 s with 10 s of rest between."""
    rows: list[list[TimelineInterval]] = [[]]
    for work, rest in pairwise(timeline.intervals):
        if work.kind != "work" or (work.seconds, rest.seconds) != (20, 10) or rest.kind == "work":
            continue
        if rows[-1] and work.start_s != rows[-1][-1].start_s + 30:
            rows.append([])
        rows[-1].append(work)
    return max(rows, key=len)


def tabata(reading: Reading) -> Claim:
    """Whether a session is the research protocol, only its clock, or neither: where clock and effort are right, the
    share of the draws that end in exhaustion where the study's people did."""
    sets = _sets(reading.timeline)
    first, last = TABATA_SETS
    if len(sets) < first:
        return Claim("Tabata", None, "not true", f"There are not {first} efforts of 0:20 with rests of 0:10.", _TABATA)
    demand = min(i.demand_frac for i in sets)
    if demand < TABATA_DEMAND_FRAC:
        text = f"This is the 20/10 format at {100 * demand:.0f} % of VO2max, not the research protocol at 170 %."
        return Claim("Tabata", None, "not true", text, _TABATA)
    if not all(i.source.demand_percent for i in sets):
        text = (
            "The clock is that of the research protocol, the effort is not: there 170 % of VO2max was paced until it "
            "could no longer be held, and all out begins harder and ends lighter. Write 20 at 170 % to ask how that "
            "would end."
        )
        return Claim("Tabata", None, "not true", text, _TABATA)
    # As there: it ends where 85 turns a minute can no longer be held in the place of 90.
    at = [index for index, each in enumerate(reading.timeline.intervals) if each in sets]
    short = _draws(reading).intervals["fade"][at] > 1 - CADENCE
    ends = np.where(short.any(axis=0), np.argmax(short, axis=0) + 1, len(sets) + 1)
    probability = _held_back(float(((ends >= first) & (ends <= last)).mean()))
    text = (
        f"The clock and the effort are those of the research protocol. That it ends in exhaustion in sets {first} to "
        f"{last} for this person, as it did there: {_percent(probability)}."
    )
    return Claim("Tabata", probability, _answer(probability), text, _TABATA)


def trains(reading: Reading, target_id: str, circumstances: Circumstances | None = None) -> Claim:
    """Whether a session trains a purpose: the verdict, as an answer to a claim. Raises `ClaimError` for no purpose."""
    if target_id not in TARGETS:
        raise ClaimError(f"no purpose is called '{target_id}'; there are {', '.join(TARGETS)}")
    verdict = judge(reading, target_id, cautions(reading, circumstances))
    answer = "true" if verdict.strokes >= 4 else "true in part" if verdict.strokes == 3 else "not true"
    return Claim(TARGETS[target_id].name, None, answer, verdict.sentence, "the verdict's measures")
