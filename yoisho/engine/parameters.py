"""The parameters of the three-store model, with their units, and the file the fit writes them to."""

import json
from dataclasses import dataclass, field, fields
from functools import cache
from importlib.resources import files
from typing import Any

REST_DEMAND_ML_KG_MIN = 6.0
REFERENCE_VO2MAX_ML_KG_MIN = 57.0
ALL_THAT_CAN_BE_DELIVERED_FRAC = 9.0
"""A demand of this many times VO2max or more asks for all that can be delivered and never stops a run."""


def _of(symbol: str, unit: str, meaning: str, least: float, most: float) -> Any:
    """A parameter without a default: its symbol, unit and meaning, and the bounds that the fit searches within."""
    return field(metadata={"symbol": symbol, "unit": unit, "meaning": meaning, "least": least, "most": most})


@dataclass(frozen=True)
class Parameters:
    """The three-store model's constants.

    The values are our own search against published cycling and running studies (`make fit`; the reference person has
    a VO2max of 57 mL/kg/min); no published vector is copied. Striking has no such studies, so for striking they are
    an assumption.
    """

    sprint_capacity_ml_kg: float = _of("CF", "mL O2/kg", "size of the sprint store", 20, 45)
    lactic_capacity_ml_kg: float = _of("CL", "mL O2/kg", "size of the lactic store", 45, 90)
    sprint_flow: float = _of("cF", "x V", "highest flow of the sprint store", 1.2, 3.6)
    sprint_shape: float = _of("Kf", "-", "square of the sprint store at which its flow is about half", 0.005, 0.3)
    sprint_floor: float = _of("phi", "-", "sprint store at which uptake is driven to its maximum", 0.04, 0.5)
    uptake_tau_s: float = _of("tau_v", "s", "lag of uptake behind its drive", 1, 14)
    acidosis_drag: float = _of("a", "-", "how far a used lactic store keeps the sprint store from refilling", 0.05, 0.9)
    lactic_flow: float = _of("cL", "x V", "highest burst flow of the lactic store", 0.8, 4.0)
    burst_threshold: float = _of("Dc", "x V", "demand above which burst glycolysis answers", 0.45, 0.92)
    burst_width: float = _of("w", "x V", "demand over the threshold at which it answers fully", 0.5, 12.0)
    burst_power: float = _of("m", "-", "how steeply it answers", 0.45, 3.0)
    burst_resistance: float = _of("Kl", "-", "how far an emptying store holds down what is called for", 0.03, 6.0)
    steady_glycolysis: float = _of("cs", "x V", "highest sustained glycolysis", 0.03, 0.7)
    glycolysis_gain: float = _of("gk", "-", "how readily glycolysis answers a need beyond the oxygen", 0.8, 1.6)
    clearance_per_s: float = _of("rL", "1/s", "clearance of the lactic store", 0.0003, 0.008)
    clearance_cost: float = _of("e", "-", "oxygen paid for what is cleared", 0.01, 1.0)
    slow_gain: float = _of("kap", "-", "gain of the slow component", 0.1, 1.5)
    slow_threshold: float = _of("Ds", "x V", "demand above which the slow component grows", 0.6, 0.9)
    slow_ceiling: float = _of("Wm", "x V", "highest slow component", 0.08, 0.6)
    slow_tau_s: float = _of("tau_W", "s", "lag of the slow component", 60, 600)
    fatigue_threshold: float = _of("Dx", "x V", "delivered demand above which fatigue builds up", 0.65, 0.92)
    fatigue_capacity_s: float = _of("CX", "s", "work above it, in seconds at VO2max, that exhausts by itself", 40, 160)
    fatigue_ceiling: float = _of("sx", "x V", "work above it that counts at most", 0.2, 1.5)
    fatigue_recovery_per_s: float = _of("rX", "1/s", "rate at which fatigue fades at a standstill", 0.002, 0.02)
    fatigue_recovery_drag: float = _of("kX", "-", "how far going on keeps it from fading", 0.8, 5.0)
    lactate_half_time_s: float = _of("T1", "s", "quickest half-time of blood lactate", 180, 720)
    lactate_quickest_at: float = _of("vhi", "x V", "uptake from which it is that quick", 0.3, 0.9)
    lactate_appearance_s: float = _of("tau_b", "s", "lag of blood lactate behind the muscle", 40, 240)
    lactate_ml_kg_per_mmol: float = _of("b_La", "mL O2/kg", "energy behind one mmol/L", 2.6, 3.3)


@cache
def fitted() -> dict[str, Any]:
    """What `make fit` wrote: `parameters`, and `rows` with published value, tolerance, value and residual each."""
    return dict(json.loads(files("yoisho.engine").joinpath("fitted.json").read_text(encoding="utf-8")))


REFERENCE = Parameters(**{one.name: fitted()["parameters"][one.name] for one in fields(Parameters)})
