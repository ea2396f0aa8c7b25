"""What somebody has: every capacity with its range, and where each number came from."""

from dataclasses import dataclass
from typing import Literal

import numpy as np

from yoisho.engine.cohort import best_guess, draws
from yoisho.engine.field_tests import ALL_OUT_FORCE, StrikeTest
from yoisho.engine.person import Origin, Person, Value
from yoisho.engine.stores import Floats
from yoisho.engine.strike_cost import mix_of, top_rate
from yoisho.review.repeats import FIELD_TESTS

Store = Literal["sprint", "lactic", "aerobic", "heart"]
_EIGHTY = 1.2816
"""Standard deviations within which eight in ten lie."""
_PUNCH = mix_of(())


@dataclass(frozen=True)
class Capacity:
    id: str
    name: str
    unit: str
    store: Store
    value: float
    low: float
    high: float
    """80 % range."""
    origin: Origin
    source: str


def _of_value(id_: str, name: str, unit: str, store: Store, value: Value, scale: float = 1.0) -> Capacity:
    half = _EIGHTY * value.sd
    low, high = value.value - half, value.value + half
    return Capacity(id_, name, unit, store, value.value * scale, low * scale, high * scale, value.origin, value.source)


def _of_draws(id_: str, name: str, store: Store, best: Floats, drawn: Floats, origin: Origin, source: str) -> Capacity:
    low, high = np.percentile(drawn, (10.0, 90.0))
    value = float(best[0])
    return Capacity(
        id_, name, "mL O₂/kg", store, value, min(value, float(low)), max(value, float(high)), origin, source
    )


def _top_rate(person: Person, test: StrikeTest | None) -> Capacity:
    """As it was counted; by the model where it was not."""
    if test is None:
        model = float(top_rate(_PUNCH, ALL_OUT_FORCE * person.all_out_force.value))
        return _of_value("top-rate", "Top rate, straight punches", "a second", "sprint", person.speed_scale, model)
    counted = test.top_per_min / 60
    value = Value(counted, FIELD_TESTS["strikes"].error * counted, "measured", "10 s strike test")
    return _of_value("top-rate", "Top rate, straight punches", "a second", "sprint", value)


def _estimated(origin: Origin) -> Origin:
    """Of what follows from a number of that origin: nobody measures a store."""
    return "estimated" if origin == "measured" else origin


def _sprint_from(person: Person) -> tuple[Origin, str]:
    if person.learned:
        return "learned", f"learned from {person.learned.logs} logs"
    source = "in proportion to VO₂max and anaerobic training; how far people differ is our own setting"
    return _estimated(person.vo2max_ml_kg_min.origin), source


def capacities(person: Person, test: StrikeTest | None = None) -> list[Capacity]:
    """Top rate, stores, VO2max and heart as the engine runs them; of the heart only where it says something."""
    best, many = best_guess(person).people, draws(person).people
    found = [
        _top_rate(person, test),
        _of_draws("sprint-store", "Sprint store", "sprint", best.sprint_capacity_ml_kg, many.sprint_capacity_ml_kg,
                  *_sprint_from(person)),
        _of_draws("lactic-store", "Lactic store", "lactic", best.lactic_capacity_ml_kg, many.lactic_capacity_ml_kg,
                  _estimated(person.anaerobic_scale.origin), person.anaerobic_scale.source),
        _of_value("vo2max", "VO₂max", "mL/kg/min", "aerobic", person.vo2max_ml_kg_min),
    ]  # fmt: skip
    if person.heart_holds:
        found += [
            _of_value("hr-rest", "Heart at rest", "bpm", "heart", person.hr_rest_bpm),
            _of_value("hr-max", "Heart at most", "bpm", "heart", person.hr_max_bpm),
        ]
    return found


@dataclass(frozen=True)
class StrikesHeld:
    """What a strike test shows: the rate that is held at the end of 3:00, and what lies above it."""

    top_per_s: float
    hold_per_s: float
    reserve: int
    """Strikes above the hold in 3:00."""


def strikes_held(test: StrikeTest) -> StrikesHeld:
    return StrikesHeld(test.top_per_min / 60, test.sustained_per_min / 60, test.reserve)
