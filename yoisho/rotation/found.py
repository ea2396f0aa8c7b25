"""A rotation that was found: who is where in which wave, how good it is, and why somebody waits."""

from dataclasses import dataclass
from typing import Literal

from yoisho.rotation.name import Stations
from yoisho.rotation.ring import Rows
from yoisho.rotation.score import Against

Status = Literal["optimal", "feasible"]


@dataclass(frozen=True)
class Clash:
    """Why somebody has to wait: what would have to be another way for nobody to."""

    what: Literal["places", "limits", "together"]
    sentence: str


@dataclass(frozen=True)
class Rotation:
    rows: Stations
    """Of each person the station of every wave, such as "bag 3", "pads 1 hit", "floor", "wait" or "away"."""
    kinds: Rows
    against: Against
    status: Status
    bound_gap: float
    """What might still be saved, as a share of everybody at work in every wave; 0 where nothing can."""
    clash: tuple[Clash, ...]
