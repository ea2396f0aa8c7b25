"""The one catalogue of protocols: the schools' forms, as the library shows them (`PROTOCOLS`), and as knobs for a
search (`FAMILIES`, each with the protocol it is a form of). One entry is all a new one needs."""

from yoisho.protocols.by_count import BY_COUNT
from yoisho.protocols.intervals import INTERVALS
from yoisho.protocols.protocol import SCALES, Protocol, Scale, Version
from yoisho.protocols.rounds import ROUNDS

PROTOCOLS: dict[str, Protocol] = {protocol.id: protocol for protocol in (*ROUNDS, *INTERVALS, *BY_COUNT)}

__all__ = ["PROTOCOLS", "SCALES", "Protocol", "Scale", "Version"]
