"""What hangs on the wall of the hall: a session in words and numbers that need no screen.

Nothing of anybody's health is on it: its cautions are those of the session itself, whoever does it.
"""

from dataclasses import dataclass

from yoisho.engine import readout
from yoisho.engine.person import Person, person
from yoisho.engine.readout import Figure
from yoisho.engine.work_bouts import find_work_bouts
from yoisho.judgement.cautions import cautions
from yoisho.judgement.circumstances import Circumstances
from yoisho.judgement.stop_signs import STOP_SIGNS
from yoisho.judgement.targets import TARGETS
from yoisho.session.clock import clock
from yoisho.session.document import Session
from yoisho.session.meaning import meaning
from yoisho.session.shorthand import write
from yoisho.session.timeline import Timeline
from yoisho.session.wearing import to_bring
from yoisho.strikes.combination import Combination
from yoisho.strikes.notation import calls
from yoisho.strikes.schools import SCHOOLS
from yoisho.strikes.tempo import Kind

LEGEND = (
    "Width is time; height is how hard, as a share of the highest oxygen uptake. Black is work, hatched is active "
    "recovery, white is rest."
)
ESTIMATE = "Strikes are an estimate; in brackets the range that eight in ten would fall in."


@dataclass(frozen=True)
class Bar:
    """One interval of the score."""

    start_s: int
    seconds: int
    demand_frac: float
    kind: Kind
    part: int


@dataclass(frozen=True)
class SheetPart:
    name: str
    starts: str
    """On the session's clock."""
    lasts: str
    efforts: int
    work: str
    rest: str
    """Active recovery with it."""
    line: str
    meaning: str
    """The same in words, its combinations spelled out."""


@dataclass(frozen=True)
class WallSheet:
    title: str
    purpose: str
    trains: str
    """What the purpose means."""
    for_whom: str
    lasts: str
    work: str
    rest: str
    total_s: int
    bars: tuple[Bar, ...]
    parts: tuple[SheetPart, ...]
    strikes: str
    """Of the whole session, with their range; empty where nothing is struck."""
    limbs: tuple[tuple[str, int], ...]
    bring: tuple[str, ...]
    cautions: tuple[tuple[str, str], ...]
    """Seal, and what it says with its cure."""
    stop_signs: str
    numbers: tuple[tuple[int, str], ...]
    """Which strike a number stands for, in the club's school."""
    legend: tuple[str, ...]


def _parts(session: Session, timeline: Timeline, school: str) -> tuple[SheetPart, ...]:
    bouts = find_work_bouts(timeline)
    of = [each.part for each in timeline.intervals]
    found = []
    for index, part in enumerate(session.parts):
        inside = [each for each in timeline.intervals if each.part == index]
        work_s = sum(each.seconds for each in inside if each.kind == "work")
        total_s = sum(each.seconds for each in inside)
        found.append(
            SheetPart(
                name=part.name or f"Part {index + 1}",
                starts=clock(inside[0].start_s),
                lasts=clock(total_s),
                efforts=sum(of[bout.first] <= index <= of[bout.last] for bout in bouts),
                work=clock(work_s),
                rest=clock(total_s - work_s),
                line=write(part.tree, school),
                meaning=meaning(part.tree),
            )
        )
    return tuple(found)


def _ranged(figure: Figure) -> str:
    """A count with its range, to the nearest ten."""
    value, low, high = (round(each, -1) for each in (figure.value, figure.low, figure.high))
    return f"{value:.0f} ({low:.0f} to {high:.0f})" if low < high else f"{value:.0f}"


def wall_sheet(session: Session, target: str, school: str, who: Person | None = None, for_whom: str = "") -> WallSheet:
    """A session as it hangs on the wall: strikes for a person, cautions for anybody.

    Raises `SessionError` where the session is too long or too large.
    """
    timeline = session.unrolled()
    try:
        reading = readout.read(who or person(), timeline)
        anybody = readout.read(person(), timeline, ranges=False) if who else reading
        spoken = cautions(anybody, Circumstances(of_somebody=False))
    except readout.NoWorkError:
        reading, spoken = None, ()
    limbs = reading.volume.limbs if reading else {}
    struck = reading is not None and reading.figures["strikes"].value >= 1
    return WallSheet(
        title=session.title,
        purpose=TARGETS[target].name,
        trains=TARGETS[target].meaning,
        for_whom=for_whom,
        lasts=clock(timeline.total_s),
        work=clock(timeline.work_s),
        rest=clock(timeline.rest_s),
        total_s=timeline.total_s,
        bars=tuple(
            Bar(each.start_s, each.seconds, each.demand_frac, "rest" if each.partner else each.kind, each.part)
            for each in timeline.intervals
        ),
        parts=_parts(session, timeline, school),
        strikes=_ranged(reading.figures["strikes"]) if struck and reading else "",
        limbs=tuple((limb, round(count)) for limb, count in limbs.items() if round(count)),
        bring=tuple(to_bring(timeline)),
        cautions=tuple((each.seal, f"{each.text} {each.cure}".strip()) for each in spoken if each.severity != "note"),
        stop_signs=STOP_SIGNS[0].upper() + STOP_SIGNS[1:],
        numbers=tuple(
            (number, calls(Combination(((action,),)))[0]) for number, action in SCHOOLS[school].numbers.items()
        ),
        legend=(LEGEND, *([ESTIMATE] if struck else [])),
    )
