"""One person as the engine runs them: the best guess alone, or many draws within what is not known.

What may differ between people of the same description is a list of *traits*. Each is normal, or log-normal about the
person's best guess; what logs have taught of somebody stands in place of that (`Person.learned`).
"""

from dataclasses import dataclass
from functools import cached_property, lru_cache

import numpy as np

from yoisho.engine.demand import Striking, demands_of
from yoisho.engine.parameters import REFERENCE, Parameters
from yoisho.engine.person import CAPACITY_CV, HEART_OFFSET_SD_BPM, Person, Value, velocity
from yoisho.engine.stores import Floats, People, Precision
from yoisho.engine.strike_cost import COST_CV
from yoisho.session.interval import Interval
from yoisho.session.timeline import unroll
from yoisho.strikes.tempo import TEMPOS

DRAWS = 200
SEED = 20_26
DEMAND_CV = 0.07
"""Of what all words ask of somebody, against the model's. Own setting."""
TEMPO_DEMAND_CV = 0.07
"""Of what one word asks of them besides. Own setting; with the one above a tenth for each word."""
LACTIC_REFERENCE_S = 30.0
"""Length of the fresh all-out effort whose lactic flow counts as the person's highest."""
PEOPLE_KEPT = 128
"""People whose cohorts are kept: drawing them, and trying their highest flow, costs more than a short session."""


@dataclass(frozen=True)
class Cohort:
    people: People
    hr_max_bpm: Floats
    hr_rest_bpm: Floats
    hr_offset_bpm: Floats
    """Of the heart at work, above what uptake says [bpm]."""
    striking: Striking
    parameters: Parameters
    """Of the model they are run by."""

    @cached_property
    def highest_lactic_rate(self) -> Floats:
        """Mean lactic flow of 30 s of all-out punching, fresh [mL/kg/s], shape (k,)."""
        precision: Precision = np.float32 if len(self.people) > 1 else np.float64
        asked = demands_of(unroll(Interval(int(LACTIC_REFERENCE_S), "all-out")), self.people, self.striking)
        alone = asked.run(self.people, self.parameters, sample_s=1e4, precision=precision)
        return np.asarray(alone.energy_lactic[0] / LACTIC_REFERENCE_S)


@dataclass(frozen=True)
class Trait:
    """Something in which people of one description differ."""

    id: str
    linear: bool = False
    """Normal; else log-normal."""
    within: float = 3.0
    """Nobody is drawn further from the best guess than so many standard deviations."""


_HEART = Trait("hr_max_bpm", linear=True), Trait("hr_rest_bpm", linear=True, within=2.0)
_SIZES = tuple(
    Trait(id_)
    for id_ in ("vo2max_ml_kg_min", "sprint_scale", "anaerobic_scale", "speed_scale", "cost", "all_out_force")
)
_TEMPOS = tuple(Trait(f"demand {tempo.id}") for tempo in TEMPOS.values() if not tempo.shows)
TRAITS: tuple[Trait, ...] = (*_HEART, *_SIZES, *_TEMPOS, Trait("demand"), Trait("hr_offset_bpm", linear=True))
"""`demand` multiplies what every word asks above rest, `demand power` what that word asks besides."""
AT = {trait.id: place for place, trait in enumerate(TRAITS)}
_LINEAR = np.array([trait.linear for trait in TRAITS])
_WITHIN = np.array([trait.within for trait in TRAITS])


def values_of(normal: Floats) -> Floats:
    """Traits as they are, from where they are normal; both of shape (..., d)."""
    with np.errstate(over="ignore"):
        return np.asarray(np.where(_LINEAR, normal, np.exp(np.where(_LINEAR, 0.0, normal))))


def prior(person: Person) -> tuple[Floats, Floats]:
    """Middle and standard deviation of every trait, where it is normal, before any log. Both of shape (d,)."""
    person = person.unlearned
    known = {
        "hr_max_bpm": person.hr_max_bpm,
        "hr_rest_bpm": person.hr_rest_bpm,
        "vo2max_ml_kg_min": person.vo2max_ml_kg_min,
        "anaerobic_scale": person.anaerobic_scale,
        "speed_scale": person.speed_scale,
        "all_out_force": person.all_out_force,
    }
    spreads = {"sprint_scale": CAPACITY_CV, "cost": COST_CV, "demand": DEMAND_CV}
    middle, sd = np.zeros(len(TRAITS)), np.zeros(len(TRAITS))
    for place, trait in enumerate(TRAITS):
        value: Value | None = known.get(trait.id)
        if value is None:
            sd[place] = HEART_OFFSET_SD_BPM if trait.linear else _sigma(spreads.get(trait.id, TEMPO_DEMAND_CV))
        elif trait.linear:
            middle[place], sd[place] = value.value, value.sd
        else:
            middle[place], sd[place] = np.log(value.value), _sigma(value.sd / value.value)
    return middle, sd


def _sigma(cv: float) -> float:
    return float(np.sqrt(np.log1p(cv * cv)))


def drawn(person: Person, count: int, seed: int = SEED) -> Floats:
    """`count` draws of the traits before any log, where they are normal. Shape (count, d)."""
    random = np.random.default_rng(seed)
    middle, sd = prior(person)
    far = np.column_stack([random.standard_normal(count) for _ in TRAITS])
    return middle + sd * np.clip(far, -_WITHIN, _WITHIN)


def centre(person: Person) -> Floats:
    """The best guess of every trait, where it is normal. Shape (d,)."""
    return prior(person)[0] if person.learned is None else np.asarray(person.learned.draws.mean(axis=0))


def cohort_of(person: Person, normal: Floats, parameters: Parameters = REFERENCE) -> Cohort:
    """People like `person` with traits of shape (k, d), given where they are normal."""
    columns = dict(zip(AT, values_of(normal).T, strict=True))
    average = People.of(columns["vo2max_ml_kg_min"], columns["anaerobic_scale"], parameters)
    people = People(
        average.vo2max_ml_kg_s,
        average.sprint_capacity_ml_kg * columns["sprint_scale"],
        average.lactic_capacity_ml_kg,
        average.anaerobic_scale,
        average.quickness,
    )
    striking = Striking(
        np.full(len(normal), velocity(person.level, person.age_years)),
        columns["speed_scale"],
        columns["cost"],
        columns["all_out_force"],
        {
            tempo.id: columns["demand"] * columns[f"demand {'rest' if tempo.shows else tempo.id}"]
            for tempo in TEMPOS.values()
        },
    )
    hr_rest = columns["hr_rest_bpm"]
    hr_max = np.maximum(columns["hr_max_bpm"], hr_rest + 30)
    return Cohort(people, hr_max, hr_rest, columns["hr_offset_bpm"], striking, parameters)


def best_guess(person: Person, parameters: Parameters = REFERENCE) -> Cohort:
    return _best_guess(person, parameters)


def draws(person: Person, parameters: Parameters = REFERENCE, count: int = DRAWS) -> Cohort:
    """`count` people like `person`, spread by what is not known; the same person, the same ranges."""
    return _draws(person, parameters, count)


# Kept by all that they depend on, so that who leaves out what is usual finds what others had made.
@lru_cache(PEOPLE_KEPT)
def _best_guess(person: Person, parameters: Parameters) -> Cohort:
    return cohort_of(person, centre(person)[None, :], parameters)


@lru_cache(PEOPLE_KEPT)
def _draws(person: Person, parameters: Parameters, count: int) -> Cohort:
    if person.learned is None:
        return cohort_of(person, drawn(person, count), parameters)
    known = person.learned.draws
    return cohort_of(person, known[np.arange(count) % len(known)], parameters)
