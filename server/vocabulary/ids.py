"""Ids of what can be named, as closed lists for the API."""

from typing import TYPE_CHECKING, Literal, TypeAlias

from yoisho.session.means import MEANS
from yoisho.session.rules import RULE_SETS

if TYPE_CHECKING:
    StruckId: TypeAlias = str
    MeansId: TypeAlias = str
    RulesId: TypeAlias = str
else:
    MeansId = Literal[tuple(MEANS)]
    RulesId = Literal[tuple(RULE_SETS)]
    StruckId = Literal[tuple(means.id for means in MEANS.values() if means.strikes)]
