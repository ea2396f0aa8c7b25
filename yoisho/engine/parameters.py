"""The parameters of the three-store model, with their units, and how they belong to a person."""

from dataclasses import dataclass

REST_DEMAND_ML_KG_MIN = 6.0
REFERENCE_VO2MAX_ML_KG_MIN = 57.0
ALL_THAT_CAN_BE_DELIVERED_FRAC = 9.0
"""A demand of this many times VO2max or more asks for all that can be delivered and never stops a run."""


@dataclass(frozen=True)
class Parameters:
    """The three-store model's constants.

    The values are a rough search against published cycling and running studies (the reference person has a
    VO2max of 57 mL/kg/min); no published vector is copied. Striking has no such studies, so for striking they
    are an assumption.
    """

    sprint_capacity_ml_kg: float = 36.4
    """CF: size of the sprint store [mL O2/kg]."""
    lactic_capacity_ml_kg: float = 58.3
    """CL: size of the lactic store [mL O2/kg]."""
    sprint_flow: float = 2.299
    """cF: highest flow of the sprint store [x VO2max]."""
    lactic_flow: float = 1.733
    """cL: highest burst flow of the lactic store [x VO2max]."""
    sprint_floor: float = 0.302
    """phi: sprint store at which uptake is driven to its maximum [fraction left]."""
    uptake_tau_s: float = 2.68
    """tau_v: lag of uptake behind its drive [s]."""
    burst_threshold: float = 0.450
    """Dc: demand above which burst glycolysis answers [x VO2max]."""
    burst_width: float = 2.005
    """w: demand over the threshold at which it answers fully [x VO2max]."""
    burst_power: float = 1.405
    """m: how steeply it answers [-]."""
    clearance_per_s: float = 0.0015
    """rL: clearance of the lactic store [1/s]."""
    acidosis_drag: float = 0.300
    """a: how far a used lactic store keeps the sprint store from refilling [-]."""
    sprint_shape: float = 0.113
    """Kf: sprint store at which its flow has fallen by about half [fraction left]."""
    slow_gain: float = 0.549
    """kap: gain of the slow component [-]."""
    slow_threshold: float = 0.666
    """Ds: demand above which the slow component grows [x VO2max]."""
    steady_glycolysis: float = 0.222
    """cs: highest sustained glycolysis [x VO2max]."""


REFERENCE = Parameters()
