"""The schools' protocols. One entry in one of the three tables is all a new one needs."""

from yoisho.design.protocols.by_count import BY_COUNT
from yoisho.design.protocols.intervals import INTERVALS
from yoisho.design.protocols.protocol import SCALES, Protocol, Scale, Version
from yoisho.design.protocols.rounds import ROUNDS

PROTOCOLS: dict[str, Protocol] = {protocol.id: protocol for protocol in (*ROUNDS, *INTERVALS, *BY_COUNT)}

__all__ = ["PROTOCOLS", "SCALES", "Protocol", "Scale", "Version"]
