"""Ids of what can be named, as closed lists for the API."""

from typing import TYPE_CHECKING, Literal, TypeAlias

from yoisho.session.modality import MODALITIES
from yoisho.session.rules import RULE_SETS

if TYPE_CHECKING:
    StruckId: TypeAlias = str
    ModalityId: TypeAlias = str
    RulesId: TypeAlias = str
else:
    ModalityId = Literal[tuple(MODALITIES)]
    RulesId = Literal[tuple(RULE_SETS)]
    StruckId = Literal[tuple(modality.id for modality in MODALITIES.values() if modality.strikes)]
