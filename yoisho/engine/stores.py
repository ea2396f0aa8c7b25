"""The three-store model: sprint store, lactic store and aerobic uptake under a changing demand.

State of one person: `F` sprint store left (1 to 0), `L` lactic store used (0 to 1), `v` aerobic uptake and `W`
slow component, both in mL O2/kg/s. The first-order link between the sprint store and uptake follows the
phosphocreatine picture of Meyer (1988); with the lactic store it is a relation of the hydraulic models of
Margaria and Morton. Fitted to cycling and running; for striking it is an assumption.

Everything is integrated for many people (or draws of one person) at once.
"""

from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from yoisho.engine import kernel
from yoisho.engine.parameters import (
    REFERENCE,
    REFERENCE_VO2MAX_ML_KG_MIN,
    REST_DEMAND_ML_KG_MIN,
    Parameters,
)

Floats = NDArray[np.float64]

STEP_S = 0.25
QUICKNESS = 1.25
"""How uptake follows the quicker in the fitter: a power of VO2max. Own setting, within the bands of the unfit."""
Precision = type[np.float64] | type[np.float32]


@dataclass(frozen=True)
class People:
    """Columns of `k` people (or draws of one person), each of shape (k,)."""

    vo2max_ml_kg_s: Floats
    sprint_capacity_ml_kg: Floats
    lactic_capacity_ml_kg: Floats
    anaerobic_scale: Floats
    """Multiplies both stores, their flows and the fatigue that exhausts [-]."""
    quickness: Floats
    """Multiplies the rate at which uptake follows its drive [-]."""

    @staticmethod
    def of(vo2max_ml_kg_min: Floats, anaerobic_scale: Floats, parameters: Parameters = REFERENCE) -> "People":
        """People of so much VO2max [mL/kg/min] and anaerobic training [-], both of shape (k,).

        The stores go with VO2max, so that a demand that is the same share of it lasts about as long for anybody;
        the uptake of the fitter follows quicker. Own assumption.
        """
        fitness = vo2max_ml_kg_min / REFERENCE_VO2MAX_ML_KG_MIN
        return People(
            vo2max_ml_kg_min / 60.0,
            parameters.sprint_capacity_ml_kg * fitness * anaerobic_scale,
            parameters.lactic_capacity_ml_kg * fitness * anaerobic_scale,
            anaerobic_scale,
            fitness**QUICKNESS,
        )

    @staticmethod
    def one(vo2max_ml_kg_min: float, parameters: Parameters = REFERENCE, anaerobic_scale: float = 1.0) -> "People":
        return People.of(np.array([vo2max_ml_kg_min]), np.array([anaerobic_scale]), parameters)

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
    fatigue: Floats
    """0 fresh to 1 exhausted, beyond what the stores say."""
    energy_to_here: Floats
    """Delivered, slow, aerobic, lactic and alactic energy so far, shape (5, t, k) [mL O2/kg]."""
    exhausted_at_s: Floats
    """First moment at which the demand cannot be delivered, per person; NaN if never. Shape (k,)."""

    @cached_property
    def _per_segment(self) -> Floats:
        """All five energies of each segment, shape (5, s, k)."""
        found = self.energy_to_here[:, self.segment_end]
        found[:, 1:] -= found[:, :-1].copy()
        return found

    @property
    def energy_delivered(self) -> Floats:
        return np.asarray(self._per_segment[0])

    @property
    def energy_slow(self) -> Floats:
        return np.asarray(self._per_segment[1])

    @property
    def energy_aerobic(self) -> Floats:
        return np.asarray(self._per_segment[2])

    @property
    def energy_alactic(self) -> Floats:
        return np.asarray(self._per_segment[4])

    @property
    def energy_lactic(self) -> Floats:
        return np.asarray(self._per_segment[3])

    def first(self, segments: int) -> "Run":
        """The run as it was when so many segments were done."""
        kept = int(self.segment_end[segments - 1]) + 1
        return Run(
            self.seconds[:kept],
            self.segment_end[:segments],
            self.sprint_left[:kept],
            self.lactic_used[:kept],
            self.uptake_frac[:kept],
            self.fatigue[:kept],
            self.energy_to_here[:, :kept],
            self.exhausted_at_s,
        )

    def at(self, segments: NDArray[np.int64]) -> "Run":
        """The same run with only these segments' ends counted as ends: each with all before it since the last."""
        return replace(self, segment_end=self.segment_end[segments])

    def over_segments(self, trace: Floats, reduce: np.ufunc) -> Floats:
        """`reduce` (`np.minimum`, `np.maximum`) of a trace over each segment, both ends counted. Shape (s, k)."""
        starts = np.concatenate(([0], self.segment_end[:-1]))
        return np.asarray(reduce(reduce.reduceat(trace, starts, axis=0), trace[self.segment_end]))


class ProfileError(ValueError):
    """A demand profile that cannot be simulated."""


def resting_uptake_frac(vo2max_ml_kg_s: Floats) -> Floats:
    """Uptake at rest [x VO2max]; held under 0.6 so that the least fit still have some room to work."""
    return np.minimum(REST_DEMAND_ML_KG_MIN / 60.0 / vo2max_ml_kg_s, 0.6)


def _stops(ends: NDArray[np.int64], every: int) -> NDArray[np.int64]:
    """Where to take a sample: every so many steps, and at the end of every segment, each once and in order."""
    wanted = np.zeros(ends[-1] + 1, dtype=np.bool_)
    wanted[every::every] = True
    wanted[ends] = True
    return np.flatnonzero(wanted)


_WORTH_TWO = 100
"""People from which a second processor is worth asking."""


def _in_two(work: Callable[[slice], None], count: int) -> None:
    """Do the work for everybody: many people in two halves at once, since the compiled code holds no lock."""
    if count < _WORTH_TWO:
        work(slice(0, count))
        return
    with ThreadPoolExecutor(1) as pool:
        other = pool.submit(work, slice(count // 2, count))
        work(slice(0, count // 2))
        other.result()


def simulate(
    seconds: Floats,
    demand_frac: Floats,
    people: People,
    *,
    top_frac: Floats | None = None,
    ceiling_frac: Floats | None = None,
    parameters: Parameters = REFERENCE,
    step_s: float = STEP_S,
    sample_s: float = 1.0,
    precision: Precision = np.float64,
) -> Run:
    """Run a demand profile through the stores, going on at what can be delivered after a shortfall.

    `seconds` has shape (s,): the length of each segment [s], taken to the nearest `step_s`. `demand_frac` has
    shape (s,) or (s, k): the demand of each segment [x VO2max]; less than rest asks is taken as rest; 9 or more means
    all that can be delivered. Where `top_frac`, of the same shape, is higher, the segment is all out: it asks for the
    top of someone fresh, which falls toward `demand_frac` with fatigue, and never counts as exhausted. `ceiling_frac`
    is the share of VO2max that the muscle in play can take up, 1 where it is not given.
    `precision` may be single for many draws: half the time, and stores to about 1e-4.
    Raises `ProfileError` for an empty profile, a length or a demand that is negative or not a finite number, a top
    under its demand, or a ceiling outside 0.3 to 1.
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
    stops = _stops(ends, every)
    V = people.vo2max_ml_kg_s
    resting = resting_uptake_frac(V)
    shape = len(seconds), len(people)

    def by_person(values: Floats) -> Floats:
        return np.broadcast_to(values[:, None] if values.ndim == 1 else values, shape)

    least = np.maximum(by_person(demand_frac), resting)
    most = least if top_frac is None else np.maximum(by_person(np.asarray(top_frac, dtype=np.float64)), resting)
    ceiling = np.ones(shape) if ceiling_frac is None else by_person(np.asarray(ceiling_frac, dtype=np.float64))
    if not (np.isfinite(most).all() and (most >= least).all()):
        raise ProfileError("the top of an all-out segment must be a number, and no less than its demand")
    if not ((ceiling >= 0.3) & (ceiling <= 1.0)).all():
        raise ProfileError("a ceiling is a share of VO2max from 0.3 to 1")
    samples = len(stops) + 1
    traces, energy = np.empty((4, samples, len(people))), np.empty((5, samples, len(people)))
    exhausted = np.empty(len(people))
    columns = (
        people.sprint_capacity_ml_kg / V,
        people.lactic_capacity_ml_kg / V,
        people.anaerobic_scale,
        people.quickness,
        resting,
    )
    plan = np.searchsorted(ends, stops), np.diff(stops, prepend=0)
    numbers = kernel.numbers(parameters, step_s, precision)

    integrate: Callable[..., None] = kernel.integrate

    def integrate_for(some: slice) -> None:
        count = some.stop - some.start
        out, failed = np.zeros((8, samples, count), precision), np.full(count, kernel.NEVER, precision)
        # Of one layout always: for every other the loop would be compiled anew, for ten seconds.
        integrate(
            *(np.array(each[:, some], precision, order="C") for each in (least, most, ceiling)),
            *plan,
            *(column[some].astype(precision) for column in columns),
            numbers,
            out,
            failed,
        )
        traces[:, :, some] = out[:4]
        np.multiply(out[4:], V[some], out=energy[:4, :, some])
        exhausted[some] = np.where(failed >= kernel.NEVER, np.nan, failed)

    _in_two(integrate_for, len(people))
    np.multiply(traces[0, 0] - traces[0], people.sprint_capacity_ml_kg, out=energy[4])
    return Run(
        seconds=np.concatenate(([0], stops)) * step_s,
        segment_end=np.searchsorted(stops, ends) + 1,
        sprint_left=traces[0],
        lactic_used=traces[1],
        uptake_frac=traces[2],
        fatigue=traces[3],
        energy_to_here=energy,
        exhausted_at_s=exhausted,
    )
