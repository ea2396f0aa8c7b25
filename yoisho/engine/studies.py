"""The published studies that the three-store model is fitted to and checked against, each as a run of the model.

One function a study, named after it, registered with what it publishes: it gives one number for every row. All
figures are recalled from memory, without the documents at hand; `confidence` says how sure we are of each. The
protocols are cycling and running, for trained young adults (VO2max 57 mL/kg/min).
"""

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from functools import cached_property
from math import log
from typing import Literal

import numpy as np

from yoisho.engine.lactate import blood_lactate
from yoisho.engine.parameters import (
    ALL_THAT_CAN_BE_DELIVERED_FRAC,
    REFERENCE,
    REFERENCE_VO2MAX_ML_KG_MIN,
    REST_DEMAND_ML_KG_MIN,
    Parameters,
)
from yoisho.engine.stores import STEP_S, Floats, People, Run, simulate

REST = REST_DEMAND_ML_KG_MIN / REFERENCE_VO2MAX_ML_KG_MIN
LIGHT, MODERATE, HEAVY = 0.22, 0.45, 0.75
"""What the studies call 20 W, moderate and heavy recovery [x VO2max]: our reading of them."""
ALL_OUT = ALL_THAT_CAN_BE_DELIVERED_FRAC
ENGINE_TABLE = "our own target"
NEVER_S = 3600.0
"""A protocol that is still going after so long is called endless."""
STUDY_SCALE = 1.25
"""Anaerobic scale of Tabata's people, who trained for sports that live by it: 69 mL/kg of deficit inside their bouts is
more than the reference person has. Own reading."""
CADENCE = 85 / 90
"""Tabata's bouts ended when 85 turns a minute could not be held in the place of 90, at one brake."""
_DEMANDS = np.geomspace(0.82, 4.5, 128)
_LONGEST_S = 1500.0


class Model:
    """The model with one set of parameters, in the hands of an experimenter."""

    def __init__(self, parameters: Parameters = REFERENCE, anaerobic_scale: float = 1.0):
        self.parameters = parameters
        self.anaerobic_scale = anaerobic_scale

    def run(self, *segments: tuple[float, float], sample_s: float = 1e4) -> Run:
        """Segments of (seconds, demand as a fraction of VO2max), for the reference person."""
        seconds, demand = np.array(segments, dtype=float).T
        return self.run_many(seconds, demand[:, None], sample_s)

    def run_many(self, seconds: Floats, demand: Floats, sample_s: float = 1e4) -> Run:
        """Segments at many demands side by side, of shape (segments, demands)."""
        count = demand.shape[1]
        scale = np.full(count, self.anaerobic_scale)
        people = People.of(np.full(count, REFERENCE_VO2MAX_ML_KG_MIN), scale, self.parameters)
        return simulate(seconds, demand, people, parameters=self.parameters, sample_s=sample_s)

    @cached_property
    def _lasting_s(self) -> Floats:
        """How long each of `_DEMANDS` can be delivered [s]."""
        run = self.run_many(np.array([_LONGEST_S]), _DEMANDS[None])
        return np.maximum(np.nan_to_num(run.exhausted_at_s, nan=_LONGEST_S), 0.1)

    def exhausting(self, *seconds: float) -> list[float]:
        """The constant demands that can just be held for so long."""
        found = np.interp(-np.log(seconds), -np.log(self._lasting_s), np.log(_DEMANDS))
        return [float(demand) for demand in np.exp(found)]

    def lactate(self, *segments: tuple[float, float], sample_s: float = 5.0) -> tuple[float, float]:
        """Blood lactate at the end of the work, and its peak within the rest after it [mmol/L]."""
        done = self.run(*segments, sample_s=sample_s)
        course, peak = blood_lactate(done.seconds, done.energy_to_here[3], done.uptake_frac, self.parameters)
        return float(course[-1, 0]), float(peak[0])

    def lasts(self, work: tuple[float, float], rest: tuple[float, float], most_s: float = NEVER_S) -> float:
        """Seconds that work and rest in turn last; `most_s` where they go on longer."""
        turns = int(most_s / (work[0] + rest[0])) + 1
        at = float(self.run(*[work, rest] * turns).exhausted_at_s[0])
        return most_s if np.isnan(at) else min(at, most_s)


@dataclass(frozen=True)
class Row:
    what: str
    published: float
    tolerance: float
    """How far off a good fit may be: in the row's unit; for a `ratio`, the largest factor."""
    unit: str = ""
    confidence: int = 90
    """That this is the published figure [%]."""
    weight: float = 1.0
    """In the fit; 0 for a figure that is only checked."""
    ratio: bool = False
    note: str = ""
    bound: Literal["both", "least", "most"] = "both"
    """`most`: only more than published is a miss; `least`: only less."""

    def residual(self, value: float) -> float:
        """Difference in tolerances: within 1 is a hit."""
        if self.ratio:
            missed = log(max(value, 1e-6) / self.published) / log(self.tolerance)
        else:
            missed = (value - self.published) / self.tolerance
        on_the_good_side = missed < 0 if self.bound == "most" else missed > 0 if self.bound == "least" else False
        return 0.0 if on_the_good_side else missed


@dataclass(frozen=True)
class Study:
    id: str
    citation: str
    protocol: str
    rows: tuple[Row, ...]
    run: Callable[[Model], list[float]]


STUDIES: dict[str, Study] = {}


def _study(citation: str, protocol: str, *rows: Row) -> Callable[[Callable[[Model], list[float]]], object]:
    def register(run: Callable[[Model], list[float]]) -> Callable[[Model], list[float]]:
        STUDIES[run.__name__] = Study(run.__name__, citation, protocol, rows, run)
        return run

    return register


def compare(parameters: Parameters = REFERENCE) -> Iterator[tuple[Study, Row, float]]:
    """Every row with what the model gives for it."""
    model = Model(parameters)
    for study in STUDIES.values():
        for row, value in zip(study.rows, study.run(model), strict=True):
            yield study, row, float(value)


def shares(done: Run, segment: int | None = None) -> tuple[float, float, float]:
    """Aerobic, alactic and lactic share of the energy of a run, or of one of its segments."""
    parts = [
        float(energy[:, 0].sum() if segment is None else energy[segment, 0])
        for energy in (done.energy_aerobic, done.energy_alactic, done.energy_lactic)
    ]
    whole = sum(parts)
    return parts[0] / whole, parts[1] / whole, parts[2] / whole


def deficit(done: Run) -> float:
    """Accumulated oxygen deficit [mL/kg]."""
    return float((done.energy_alactic + done.energy_lactic).sum())


def _rows(
    template: str, unit: str, tolerance: float, confidence: int, published: dict[int, float], weight: float = 1.0,
    note: str = "",
) -> list[Row]:  # fmt: skip
    return [
        Row(template.format(at), value, tolerance, unit, confidence, weight, note=note)
        for at, value in published.items()
    ]


_SPRINTS = {10: 0.06, 15: 0.12, 20: 0.18, 30: 0.27}


@_study("Gastin PB (2001) Sports Med 31:725-741", "one all-out effort",
        *_rows("aerobic share, {} s", "", 0.04, 94, _SPRINTS))  # fmt: skip
def gastin_2001_all_out(model: Model) -> list[float]:
    return [shares(model.run((seconds, ALL_OUT)))[0] for seconds in _SPRINTS]


_EXHAUSTING = {45: 0.37, 60: 0.45, 75: 0.51, 90: 0.56, 120: 0.63, 180: 0.73, 240: 0.79}


@_study("Gastin PB (2001) Sports Med 31:725-741", "the demand that can just be held for so long",
        *_rows("aerobic share, {} s", "", 0.04, 94, _EXHAUSTING))  # fmt: skip
def gastin_2001_exhausting(model: Model) -> list[float]:
    demands = model.exhausting(*_EXHAUSTING)
    return [shares(model.run((t, d)))[0] for t, d in zip(_EXHAUSTING, demands, strict=True)]


def stops_at(run: Run, seconds: Floats, demand: Floats, held: float) -> Floats:
    """When less than the share `held` of a demand is delivered over a second [s], NaN if never; shape (k,).

    `demand` has shape (s, k) for segments of `seconds`; the run is sampled every second.
    """
    power = np.diff(run.energy_to_here[0], axis=0) / np.diff(run.seconds)[:, None] / (REFERENCE_VO2MAX_ML_KG_MIN / 60)
    asked = demand[np.searchsorted(np.cumsum(seconds), run.seconds[1:] - 1e-6)]
    short = power < held * asked
    return np.where(short.any(axis=0), run.seconds[np.argmax(short, axis=0)], np.nan)


def bouts_until_exhausted(
    model: Model, work_s: float, rest_s: float, demand: float, held: float = 1.0
) -> tuple[float, Run]:
    """Bouts until the demand can no longer be delivered, the last in part, and the run until then.

    With `held`, until less than that share of it is delivered.
    """
    protocol = [(work_s, demand), (rest_s, REST)] * 20
    if held < 1.0:
        run = model.run(*protocol, sample_s=1.0)
        seconds, demands = np.array(protocol).T
        exhausted = float(stops_at(run, seconds, demands[:, None], held)[0])
    else:
        exhausted = float(model.run(*protocol).exhausted_at_s[0])
    if np.isnan(exhausted):
        return 20.0, model.run(*protocol)
    whole, inside = divmod(exhausted, work_s + rest_s)
    cut = [*protocol[: 2 * int(whole)], (max(STEP_S, min(inside, work_s)), demand)]
    return whole + min(1.0, inside / work_s), model.run(*cut)


def _tabata(model: Model, work_s: float, rest_s: float, demand: float) -> list[float]:
    study = Model(model.parameters, STUDY_SCALE)
    bouts, done = bouts_until_exhausted(study, work_s, rest_s, demand, CADENCE)
    return [bouts, deficit(done), float(done.uptake_frac[-1, 0]) * REFERENCE_VO2MAX_ML_KG_MIN]


@_study("Tabata I et al. (1997) Med Sci Sports Exerc 29:390-395, IE1", "20 s at 170 % of VO2max, 10 s rest",
        Row("bouts", 6.5, 0.5, "", 96), Row("oxygen deficit", 69, 8, "mL/kg", 94),
        Row("last uptake", 55, 6, "mL/kg/min", 93))  # fmt: skip
def tabata_1997_ie1(model: Model) -> list[float]:
    return _tabata(model, 20, 10, 1.7)


_BOOKS = "the paper's way of counting uptake in the rests is not remembered: a direction only"


@_study("Tabata I et al. (1997) Med Sci Sports Exerc 29:390-395, IE2", "30 s at 200 % of VO2max, 2 min rest",
        Row("bouts", 4.5, 0.5, "", 96), Row("oxygen deficit", 46, 12, "mL/kg", 94, weight=0.5, note=_BOOKS),
        Row("last uptake", 47, 8, "mL/kg/min", 93, weight=0.5))  # fmt: skip
def tabata_1997_ie2(model: Model) -> list[float]:
    return _tabata(model, 30, 120, 2.0)


@_study(
    "Medbø JI et al. (1988) J Appl Physiol 64:50-60",
    "exhausting efforts of 2 and 3 min",
    Row("oxygen deficit, 3 min", 69, 10, "mL/kg", 90),
    Row("deficit of 2 min against 3", 1.0, 0.08, "", 95),
)
def medbo_1988(model: Model) -> list[float]:  # fmt: skip
    two, three = (deficit(model.run((t, model.exhausting(t)[0]))) for t in (120.0, 180.0))
    return [three, two / three]


_OTHER_TASK = "a constant power, where Gastin's means are all-out: both are right for their task"
_CONSTANT = {30: 0.40, 60: 0.50, 120: 0.65}


@_study("Medbø JI, Tabata I (1989) J Appl Physiol 67:1881-1886", "the power that can just be held for so long",
        *(Row(f"aerobic share, {at} s", share, 0.08, "", 90, weight=0.3 if at == 30 else 1.0, note=_OTHER_TASK)
          for at, share in _CONSTANT.items()))  # fmt: skip
def medbo_tabata_1989(model: Model) -> list[float]:
    demands = model.exhausting(*_CONSTANT)
    return [shares(model.run((t, d)))[0] for t, d in zip(_CONSTANT, demands, strict=True)]


@_study("Gaitanos GC et al. (1993) J Appl Physiol 75:712-719", "10 sprints of 6 s, 30 s rest",
        Row("work of sprint 10 against 1", 0.73, 0.05, "", 93),
        Row("lactic part of sprint 1, anaerobic energy", 0.44, 0.08, "", 82),
        Row("lactic part of sprint 10, anaerobic energy", 0.16, 0.08, "", 82),
        Row("sprint store left after sprint 1", 0.43, 0.10, "", 93))  # fmt: skip
def gaitanos_1993(model: Model) -> list[float]:
    done = model.run(*[(6, ALL_OUT), (30, REST)] * 10)
    work = done.energy_delivered[::2, 0]
    lactic = (done.energy_lactic / (done.energy_lactic + done.energy_alactic))[::2, 0]
    return [work[-1] / work[0], lactic[0], lactic[-1], float(done.sprint_left[done.segment_end[0], 0])]


_USABLE = "measured as phosphocreatine; our store is the part that can be used, and counts from nothing"


@_study(
    "Bogdanis GC et al. (1995) J Physiol 482:467-480",
    "a 30 s sprint, then rest",
    Row("sprint store at its end", 0.197, 0.12, "", 93, weight=0.5, note=_USABLE),
    Row("sprint store, 90 s later", 0.65, 0.08, "", 93, weight=1.5),
    Row("sprint store, 6 min later", 0.855, 0.08, "", 93),
)
def bogdanis_1995(model: Model) -> list[float]:  # fmt: skip
    done = model.run((30, ALL_OUT), (90, REST), (270, REST))
    return [float(store) for store in done.sprint_left[done.segment_end, 0]]


_LATER_SPRINTS = "with a first sprint as Gastin has it, a later one is less aerobic in this model"


@_study("Bogdanis GC et al. (1996) J Appl Physiol 80:876-884", "two 30 s sprints, 4 min apart",
        Row("work of the second against the first", 0.82, 0.05, "", 92),
        Row("aerobic share of the second", 0.49, 0.10, "", 92, note=_LATER_SPRINTS),
        Row("glycolysis of the second against the first", 0.55, 0.12, "", 92))  # fmt: skip
def bogdanis_1996(model: Model) -> list[float]:
    done = model.run((30, ALL_OUT), (240, REST), (30, ALL_OUT))
    work, lactic = done.energy_delivered[:, 0], done.energy_lactic[:, 0]
    return [work[2] / work[0], shares(done, 2)[0], lactic[2] / lactic[0]]


@_study("Beneke R et al. (2002) Eur J Appl Physiol 87:388-392", "30 s all-out",
        Row("aerobic share", 0.186, 0.08, "", 88), Row("alactic share", 0.311, 0.08, "", 88),
        Row("lactic share", 0.503, 0.08, "", 88, weight=1.5))  # fmt: skip
def beneke_2002(model: Model) -> list[float]:
    return list(shares(model.run((30, ALL_OUT))))


def lasts_after(model: Model, before: list[tuple[float, float]], demand: float, most_s: float = 600.0) -> float:
    """Seconds that a demand lasts after other work."""
    began = sum(seconds for seconds, _ in before)
    at = float(model.run(*before, (most_s, demand)).exhausted_at_s[0])
    return most_s if np.isnan(at) else max(0.0, at - began)


_JUST_UNDER = 0.998
"""Of an exhausting demand: so that the bout ends by the clock, and the next begins from it."""


@_study("Ferguson C et al. (2010) J Appl Physiol 108:866-874", "exhausted in 6 min, then 20 W",
        *_rows("work capacity back, {} min", "", 0.09, 92, {2: 0.37, 6: 0.65, 15: 0.86}),
        Row("half-time of uptake", 74, 25, "s", 92, weight=0.5,
            note="uptake is driven by the sprint store, which is back before that"))  # fmt: skip
def ferguson_2010(model: Model) -> list[float]:
    """Work capacity as the time that two hard demands last, against fresh."""
    first, *demands = model.exhausting(360, 240, 150)
    hard = (360.0, first * _JUST_UNDER)
    back = []
    for pause in (120.0, 360.0, 900.0):
        lasted = [lasts_after(model, [hard, (pause, LIGHT)], demand) for demand in demands]
        back.append(float(np.mean(np.array(lasted) / (240.0, 150.0))))
    off = model.run(hard, (300, LIGHT), sample_s=1.0)
    tail = off.uptake_frac[off.segment_end[0] :, 0]
    return [*back, float(np.argmax(tail <= (tail[0] + tail[-1]) / 2))]


@_study("Chidnok W et al. (2012) Med Sci Sports Exerc 44:966-976",
        "60 s of the work that lasts 384 s unbroken, 30 s recovery, until exhausted",
        Row("heavy recovery", 516, 1.4, "s", 85, ratio=True),
        Row("moderate recovery", 759, 1.4, "s", 85, ratio=True),
        Row("light recovery", 1224, 1.4, "s", 85, ratio=True))  # fmt: skip
def chidnok_2012(model: Model) -> list[float]:
    (demand,) = model.exhausting(384)
    return [model.lasts((60, demand), (30, recovery)) for recovery in (HEAVY, MODERATE, LIGHT)]


@_study("Dupont G, Blondel N, Berthoin S (2003) Eur J Appl Physiol 89:548-554",
        "15 s at 120 % of VO2max's speed, 15 s recovery, until exhausted",
        Row("passive recovery", 962, 1.35, "s", 85, ratio=True),
        Row("recovery at 50 %", 427, 1.35, "s", 85, ratio=True))  # fmt: skip
def dupont_2003(model: Model) -> list[float]:
    return [model.lasts((15, 1.2), (15, recovery)) for recovery in (REST, 0.5)]


@_study("Thevenet D et al. (2007) Eur J Appl Physiol 99:133-142",
        "30 s at 105 % of VO2max's speed, 30 s recovery, until exhausted",
        Row("recovery at 50 %", 845, 1.35, "s", 80, ratio=True),
        Row("passive recovery", 2145, 1.6, "s", 75, weight=0.3, ratio=True,
            note="in this model bouts as mild as these tire nobody out with passive rest"))  # fmt: skip
def thevenet_2007(model: Model) -> list[float]:
    return [model.lasts((30, 1.05), (30, recovery)) for recovery in (0.5, REST)]


@_study("Chidnok W et al. (2013) Am J Physiol Regul 305:R1085-R1092", "60 s bouts of one leg, passive rest between",
        Row("lasts with 30 s rest, against 18 s", 1.70, 1.25, "", 80, weight=0.3, ratio=True),
        Row("lasts with 48 s rest, against 18 s", 2.79, 1.4, "", 80, weight=0.3, ratio=True))  # fmt: skip
def chidnok_2013(model: Model) -> list[float]:
    """The demand is what makes the 18 s rests last the published 304 s."""
    demands = np.geomspace(1.0, 1.6, 25)
    turns = int(304 / 78) + 3
    profile = np.full((2 * turns, len(demands)), REST)
    profile[::2] = demands
    lasted = model.run_many(np.tile([60.0, 18.0], turns), profile).exhausted_at_s
    demand = float(np.interp(-304.0, -np.maximum.accumulate(np.nan_to_num(lasted, nan=1e4)[::-1])[::-1], demands))
    short, *longer = (model.lasts((60, demand), (rest, REST)) for rest in (18, 30, 48))
    return [each / short for each in longer]


def _tolerated(model: Model, turns: int, *segments: tuple[float, float]) -> float:
    """The share of a protocol that is done before it exhausts."""
    at = float(model.run(*list(segments) * turns).exhausted_at_s[0])
    whole = turns * sum(seconds for seconds, _ in segments)
    return 1.0 if np.isnan(at) else min(1.0, at / whole)


def _done(what: str, confidence: int) -> Row:
    return Row(f"{what}, the share that is done", 1.0, 0.05, "", confidence, bound="least")


@_study("Essén B, Hagenfeldt L, Kaijser L (1977) J Physiol 265:489-506", "15 s at 100 %, 15 s rest",
        _done("an hour", 85))  # fmt: skip
def essen_1977(model: Model) -> list[float]:
    return [_tolerated(model, 120, (15, 1.0), (15, REST))]


@_study("Vuorimaa T, Vasankari T, Rusko H (2000) Int J Sports Med 21:96-101",
        "runs at 100 % of VO2max's speed, rest as long",
        _done("14 x 60 s", 80), _done("7 x 120 s", 80))  # fmt: skip
def vuorimaa_2000(model: Model) -> list[float]:
    return [_tolerated(model, 14, (60, 1.0), (60, REST)), _tolerated(model, 7, (120, 1.0), (120, REST))]


_TABATA_ASKS = "Tabata's bouts, which are surer, ask for more of all that is anaerobic"
_SIZES = "how large all out is: Gastin 2001, Medbø 1988 and Beneke 2002 together, our reading"


@_study(_SIZES, "all out on a cycle",
        Row("mean turnover of 30 s", 2.2, 0.7, "x VO2max", 75,
            note=f"{_TABATA_ASKS}: up to 2.9 is allowed"),
        Row("oxygen deficit of 30 s", 47.5, 10, "mL/kg", 75, note=_TABATA_ASKS),
        Row("oxygen deficit of 60 s", 69, 8, "mL/kg", 80, bound="most"),
        Row("highest turnover", 3.15, 0.65, "x VO2max", 75, note=_TABATA_ASKS))  # fmt: skip
def all_out_sizes(model: Model) -> list[float]:
    V = REFERENCE_VO2MAX_ML_KG_MIN / 60
    thirty, sixty = model.run((30, ALL_OUT), sample_s=STEP_S), model.run((60, ALL_OUT))
    power = np.diff(thirty.energy_to_here[0][:, 0]) / np.diff(thirty.seconds) / V
    return [float(thirty.energy_delivered[0, 0]) / 30 / V, deficit(thirty), deficit(sixty), float(power.max())]


@_study("Osnes JB, Hermansen L (1972) J Appl Physiol 32:59-63 and others", "exhausting efforts",
        Row("highest blood lactate, 2 min", 14, 3, "mmol/L", 80),
        Row("highest blood lactate, 3 min", 14.5, 3, "mmol/L", 80))  # fmt: skip
def lactate_after_exhaustion(model: Model) -> list[float]:
    return [model.lactate((t, model.exhausting(t)[0]))[1] for t in (120.0, 180.0)]


@_study("common practice, no source", "30 min steady",
        Row("blood lactate at 70 %", 3, 1.5, "mmol/L", 75),
        Row("blood lactate at 80 %", 5, 2, "mmol/L", 75))  # fmt: skip
def steady_lactate(model: Model) -> list[float]:
    return [model.lactate((1800, demand))[0] for demand in (0.7, 0.8)]


@_study("Gaitanos GC et al. (1993) J Appl Physiol 75:712-719", "10 sprints of 6 s, 30 s rest",
        Row("highest blood lactate", 12.6, 2.5, "mmol/L", 85))  # fmt: skip
def gaitanos_lactate(model: Model) -> list[float]:
    return [model.lactate(*[(6, ALL_OUT), (30, REST)] * 10)[1]]


_BALSOM = {30: 17.2, 60: 13.9, 120: 12.1}


@_study("Balsom PD et al. (1992) Int J Sports Med 13:528-533", "15 runs of 40 m (6 s)",
        *_rows("highest blood lactate, {} s rest", "mmol/L", 3, 80, _BALSOM))  # fmt: skip
def balsom_1992(model: Model) -> list[float]:
    return [model.lactate(*[(6, ALL_OUT), (rest, REST)] * 15)[1] for rest in _BALSOM]


@_study("common practice, no source", "12 x 3:00 at 120 %, 1:00 rest, as far as it goes",
        Row("highest blood lactate", 23, 2, "mmol/L", 70, bound="most"))  # fmt: skip
def long_day(model: Model) -> list[float]:
    return [model.lactate(*[(180, 1.2), (60, REST)] * 12)[1]]


@_study("Medbø JI et al. (1988) J Appl Physiol 64:50-60", "a step from rest to 120 % of VO2max",
        Row("uptake at 60 s", 0.925, 0.045, "x VO2max", 75,
            note="Tabata's bouts and Gastin's means want uptake quick"))  # fmt: skip
def step_to_120_percent(model: Model) -> list[float]:
    return [float(model.run((60, 1.2)).uptake_frac[-1, 0])]


@_study("McCartney N et al. (1986), Trump ME et al. (1996) J Appl Physiol 80:1562-1568", "4 x 30 s all out, 4 min rest",
        Row("work of the third against the first", 0.66, 0.06, "", 80),
        Row("aerobic share of the third", 0.65, 0.05, "", 70, weight=0.0, note=_LATER_SPRINTS))  # fmt: skip
def four_sprints(model: Model) -> list[float]:
    done = model.run(*[(30, ALL_OUT), (240, REST)] * 4)
    return [float(done.energy_delivered[4, 0] / done.energy_delivered[0, 0]), shares(done, 4)[0]]


@_study("Vanhatalo A et al. (2007) Med Sci Sports Exerc 39:548-555", "3 min all-out",
        Row("power of the last 30 s against what lasts 20 min", 1.0, 0.05, "", 85))  # fmt: skip
def vanhatalo_2007(model: Model) -> list[float]:
    done = model.run((150, ALL_OUT), (30, ALL_OUT))
    end = float(done.energy_delivered[1, 0]) / 30 / (REFERENCE_VO2MAX_ML_KG_MIN / 60)
    return [end / model.exhausting(1200)[0]]


@_study(ENGINE_TABLE, "constant power", Row("demand that lasts 12 min", 0.915, 0.03, "x VO2max", 80))
def twelve_minutes(model: Model) -> list[float]:
    return model.exhausting(720)


@_study(ENGINE_TABLE, "a step from rest to 70 % of VO2max", Row("uptake at 25 s, of the demand", 0.60, 0.06, "", 80))
def step_to_70_percent(model: Model) -> list[float]:
    return [float(model.run((25, 0.7)).uptake_frac[-1, 0]) / 0.7]


@_study(ENGINE_TABLE, "4 x 4:00 at 92 %, 3:00 easy", Row("highest blood lactate", 8, 2, "mmol/L", 80))
def four_by_four(model: Model) -> list[float]:
    return [model.lactate(*[(240, 0.92), (180, 0.4)] * 3, (240, 0.92), sample_s=1.0)[1]]


_HOUR = {30: 2.2, 60: 5.0, 120: 10.5, 180: 13.3}


@_study("Åstrand I et al. (1960) Acta Physiol Scand 48:448-453, one person",
        "bouts at 95 % of VO2max, rest as long, 30 min",
        *_rows("blood lactate, bouts of {} s", "mmol/L", 3.0, 88, _HOUR, weight=2.0,
               note="what steady work leaves was chosen before the ends of this row; the order is kept"))  # fmt: skip
def astrand_1960(model: Model) -> list[float]:
    return [model.lactate(*[(bout, 0.95), (bout, REST)] * (1800 // bout), sample_s=10.0)[0] for bout in _HOUR]


@_study("Åstrand I et al. (1960) Acta Physiol Scand 48:448-453, one person",
        "bouts at 95 % of VO2max, rest as long, 30 min",
        *(_done(f"bouts of {bout} s", 85) for bout in _HOUR))  # fmt: skip
def astrand_1960_tolerated(model: Model) -> list[float]:
    return [_tolerated(model, 1800 // (2 * bout), (bout, 0.95), (bout, REST)) for bout in _HOUR]
