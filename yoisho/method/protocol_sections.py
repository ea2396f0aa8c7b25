"""The section on protocols: what a proposal is chosen from, and what goes around it."""

import re
from collections.abc import Sequence
from itertools import pairwise
from typing import Any

from yoisho.design.scale import EFFECT
from yoisho.design.tradeoffs import SIDES
from yoisho.engine.person import person
from yoisho.judgement.targets import TARGETS
from yoisho.method.document import Section, Table
from yoisho.protocols.families import FAMILIES, Family
from yoisho.protocols.frames import NO_SKIPPING_FROM_YEARS
from yoisho.protocols.protocol import COOL_DOWN, SCALES, WARM_UP
from yoisho.session.shorthand import write
from yoisho.strikes.tempo import TEMPOS

FEW = 6
"""So many values are told one by one."""


def _values(values: Sequence[Any]) -> str:
    if any(isinstance(each, str) for each in values):
        return ", ".join(TEMPOS[each].word if each in TEMPOS else str(each) for each in values)
    step = values[1] - values[0] if len(values) > 1 else 0
    even = all(b - a == step for a, b in pairwise(values))
    if len(values) <= FEW or not even:
        return ", ".join(map(str, values))
    return f"{values[0]} to {values[-1]}" + (f" by {step}" if step > 1 else "")


def _row(family: Family) -> tuple[str, ...]:
    first, last = (
        write(family.build(person(), {name: values[at] for name, values in family.knobs.items()})) for at in (0, -1)
    )
    tried = "; ".join(f"{name}: {_values(values)}" for name, values in family.knobs.items())
    made_for = ", ".join(TARGETS[purpose].name for purpose in family.home)
    return family.name, first, last, tried, made_for, family.source


def proposals() -> Section:
    told = tuple(
        (re.sub(r"{\w+}", "…", side.least), re.sub(r"{\w+}", "…", side.most),
         f"{100 * side.apart:g} {'points' if side.points else '%'}")
        for side in SIDES
    )  # fmt: skip
    kept = tuple(
        (aim.label, aim.unit, f"{aim.matters:g}", f"{100 * aim.matters_frac:g} %" if aim.matters_frac else "")
        for aim in EFFECT
    )
    around = tuple((word, write(WARM_UP[scale].tree), write(COOL_DOWN.tree)) for scale, word in SCALES.items())
    return Section(
        "proposals", "What a proposal is chosen from",
        (
            "Each school's protocol is a form with a few values to choose; every choice that fits the time, the kit "
            "and the person is simulated and judged. The values are our own settings around what the schools do.",
            f"From {NO_SKIPPING_FROM_YEARS} years on the warm-up of a proposal works the joints in place of skipping.",
        ),
        (),
        (
            Table("Forms, with the first and with the last of their values",
                  ("protocol", "first", "last", "values", "made for", "source"), tuple(map(_row, FAMILIES))),
            Table("Around a protocol of the library; own setting", ("scale", "warm-up", "cool-down"), around),
            Table("What is said of a proposal beside the others, where it stands out by so much; own settings",
                  ("of the lowest", "of the highest", "by"), told),
            Table("What is kept where a session is scaled, and how much counts as one step away; own settings",
                  ("figure", "unit", "so much", "or so much of what it was"), kept),
        ),
    )  # fmt: skip
