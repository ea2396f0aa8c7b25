"""What a strike costs, and how often it can be thrown: mechanics of the limb, checked against what boxers breathe.

The energy of a strike is the kinetic energy of its limb over the efficiency of muscle. References (from memory):
[1] Walilko TJ, Viano DC, Bir CA (2005) Br J Sports Med 39:710-719: punches of Olympic boxers, 9.14 m/s, effective
    mass 2.9 kg.
[2] Arseneau E, Mekary S, Léger LA (2011) J Strength Cond Res 25:348-353: bag work at 60, 120 and 180 punches a minute,
    24.7, 30.4 and 38.3 mL/kg/min.
[3] Smith MS et al. (2000) Eur J Appl Physiol 82:...: novices strike about half as hard as elite boxers.
Other limbs, top rates and the steps between are our own settings; no study gives a cost per strike.
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from yoisho.engine.stores import Floats
from yoisho.strikes.combination import Action
from yoisho.strikes.techniques import TECHNIQUES

EFFICIENCY = 0.22
"""Of muscle, from oxygen to motion of the limb [-]; 0.19 to 0.25 are common."""
J_PER_ML_O2 = 20.9
REFERENCE_MASS_KG = 72.0
COST_CV = 0.30
"""How far the cost of a strike is unknown. Own setting: efficiency 0.19 to 0.25, force of a word by a tenth."""
LEG_SHARE_FULL = 0.30
"""Of the strikes, from which with kicks and knees the legs' uptake counts in full. Own setting."""


@dataclass(frozen=True)
class Blow:
    """One way to strike, at full force, for an elite striker of 72 kg."""

    mass_kg: float
    """Effective mass of the limb."""
    speed_m_s: float
    top_per_s: float
    """As often as it can be thrown, light."""
    leg: bool = False

    @property
    def cost_ml_kg(self) -> float:
        """Oxygen for one [mL O2 per kg of body mass]. A heavier body has heavier limbs: the share stays."""
        return 0.5 * self.mass_kg * self.speed_m_s**2 / EFFICIENCY / J_PER_ML_O2 / REFERENCE_MASS_KG


BLOWS: dict[str, Blow] = {
    "punch": Blow(2.9, 9.14, 7.0),
    "palm": Blow(2.9, 8.2, 6.5),
    "hammer-fist": Blow(3.2, 8.2, 4.0),
    "elbow": Blow(3.5, 7.0, 4.5),
    "knee": Blow(9.0, 7.5, 2.2, leg=True),
    "kick": Blow(9.0, 12.0, 2.0, leg=True),
    "low-kick": Blow(8.5, 11.0, 2.0, leg=True),
    "push-kick": Blow(9.0, 9.0, 2.0, leg=True),
}
"""The limbs. One entry here, and its technique below, is all a new one needs."""
_OWN = {"palm": "palm", "hammer-fist": "hammer-fist", "push-kick": "push-kick"}


def blow_of(action: Action) -> str | None:
    """The id of its entry in `BLOWS`; None for defence and steps."""
    known = TECHNIQUES[action.technique]
    if not known.strikes:
        return None
    if action.technique in _OWN:
        return _OWN[action.technique]
    return "low-kick" if known.kind == "kick" and action.height == "leg" else known.kind


@dataclass(frozen=True)
class Mix:
    """Strikes of several kinds in turn, as one: what a mean one costs and how often they can be thrown."""

    cost_ml_kg: float
    """Of one at full force."""
    top_per_s: float
    """Of them all, light."""
    leg_share: float
    """Of the strikes, 0 to 1."""

    @property
    def ceiling_frac(self) -> float:
        """Share of VO2max that the muscle in play can take up: arms alone cannot use the legs' [-]."""
        return 0.80 + 0.15 * min(1.0, self.leg_share / LEG_SHARE_FULL)


def mix_of(blows: Sequence[str]) -> Mix:
    """Of strikes in turn, by their ids; of none, straight punches."""
    each = [BLOWS[blow] for blow in blows or ("punch",)]
    return Mix(
        sum(one.cost_ml_kg for one in each) / len(each),
        len(each) / sum(1 / one.top_per_s for one in each),
        sum(one.leg for one in each) / len(each),
    )


def top_rate(mix: Mix, force: Floats | float) -> Floats:
    """How often strikes of that share of full force can be thrown [1/s]: the harder, the fewer. Own setting."""
    return np.asarray(mix.top_per_s * np.clip((1.6 - np.asarray(force)) / 1.05, 0.5, 1.0))


def strike_cost(mix: Mix, force: Floats | float) -> Floats:
    """Oxygen for a strike at a share of the person's full force: with its square [mL/kg]."""
    return np.asarray(mix.cost_ml_kg * np.square(force))
