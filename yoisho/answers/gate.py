"""What stands before a run: the stops of everybody who is to do it, and which of them no coach goes past."""

from dataclasses import dataclass, replace

from yoisho.engine.person import Person
from yoisho.engine.readout import try_reading
from yoisho.judgement.cautions import FINAL, cautions, stops
from yoisho.judgement.circumstances import Circumstances
from yoisho.session.interval import Interval
from yoisho.session.timeline import Timeline, unroll

ANYTHING = unroll(Interval(60, "flow"))
"""Where a session holds no work, what stands against any."""


@dataclass(frozen=True)
class Stop:
    rule: str
    seal: str
    text: str
    cure: str
    final: bool
    """No coach goes past it."""


def stops_before(person: Person, timeline: Timeline, purpose: str, circumstances: Circumstances) -> list[Stop]:
    """What stands against a session for one person, the weightiest first."""
    reading = try_reading(person, timeline) or try_reading(person, ANYTHING)
    assert reading is not None
    return [
        Stop(each.rule, each.seal, each.text, each.cure, each.rule in FINAL)
        for each in stops(cautions(reading, replace(circumstances, purpose=purpose)))
    ]
