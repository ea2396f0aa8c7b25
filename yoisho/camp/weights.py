"""Which purposes matter, where a coach says nothing, and when in a camp.

Common practice, no source; the numbers are our own settings.
"""

from collections.abc import Mapping

from yoisho.camp.camp import Camp, Phase

_ROUNDS = {
    "skill": 3.0, "threshold": 2.0, "lactic-capacity": 2.0, "aerobic-power": 2.0, "sprint-power": 1.0,
    "aerobic-base": 1.0, "lactic-power": 1.0, "sprint-capacity": 0.0, "fight-rehearsal": 2.0,
}  # fmt: skip
WEIGHTS: dict[str | None, Mapping[str, float]] = {
    None: {"skill": 3.0, "aerobic-base": 2.0, "threshold": 2.0, "aerobic-power": 1.0, "sprint-power": 1.0},
    **{
        rules: {**_ROUNDS, "lactic-power": 2.0, "lactic-capacity": 1.0, "sprint-power": 2.0}
        for rules in ("taekwondo", "sanda", "kickboxing-amateur", "boxing-junior")
    },
}
"""By rule set: short rounds ask for more sprint. None is a block without a bout: base and skill first."""

EMPHASIS: Mapping[str, Mapping[Phase, float]] = {
    "aerobic-base": {"build": 1.5, "press": 1.0, "sharpen": 0.4, "fresh": 0.6},
    "aerobic-power": {"build": 1.0, "press": 1.2, "sharpen": 0.8, "fresh": 0.4},
    "threshold": {"build": 1.3, "press": 1.0, "sharpen": 0.8, "fresh": 0.3},
    "lactic-capacity": {"build": 0.6, "press": 1.4, "sharpen": 1.0},
    "lactic-power": {"build": 0.3, "press": 1.0, "sharpen": 1.5},
    "sprint-capacity": {"build": 0.7, "press": 1.2, "sharpen": 1.0},
    "sprint-power": {"build": 0.8, "press": 0.9, "sharpen": 1.3, "fresh": 1.5},
    "fight-rehearsal": {"sharpen": 2.0, "press": 1.0, "fresh": 0.8},
    "skill": {"fresh": 1.3},
}
"""How much more or less a purpose matters in a phase; as it is where nothing is said. Base first, then the hard work,
then speed and the bout's own rounds."""


def weights_of(camp: Camp) -> dict[str, float]:
    """Of every purpose that matters: the coach's, or those of the rule set."""
    given = camp.weights or WEIGHTS.get(camp.rule_set if camp.bout_on else None, _ROUNDS)
    return {purpose: weight for purpose, weight in given.items() if weight > 0}


def emphasis(purpose: str, phase: Phase) -> float:
    return EMPHASIS.get(purpose, {}).get(phase, 1.0)
