"""Kilocalories: from the oxygen the model pays with, and beside it what the Compendium's tables say.

References (from memory):
[1] Ainsworth BE et al. (2011) 2011 Compendium of Physical Activities. MSSE 43:1575-1581.
[2] kcal/min = MET x 3.5 x kg / 200. Gross, not net; not valid for the cost of all-out efforts.
"""

from dataclasses import dataclass

KCAL_PER_L_O2 = 5.0


@dataclass(frozen=True)
class Activity:
    code: str
    name: str
    met: float


COMPENDIUM_2011 = (
    Activity("15110", "boxing, punching bag", 5.5),
    Activity("15120", "boxing, sparring", 7.8),
    Activity("15425", "martial arts, slower pace", 5.3),
    Activity("15430", "martial arts, moderate pace, kick boxing and Muay Thai among them", 10.3),
    Activity("15100", "boxing, in ring", 12.8),
)
"""METs of [1]: means over whole sessions, breaks and all."""
LOWEST_MET = min(activity.met for activity in COMPENDIUM_2011)
BAG_MET = next(activity.met for activity in COMPENDIUM_2011 if activity.code == "15110")
SPARRING_MET = next(activity.met for activity in COMPENDIUM_2011 if activity.code == "15120")


def kcal_of_met(met: float, mass_kg: float, minutes: float) -> float:
    """[2], gross."""
    return met * 3.5 * mass_kg / 200.0 * minutes
