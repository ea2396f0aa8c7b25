"""A session as it stands in a column beside others: proposals, and sessions scaled or converted."""

from dataclasses import dataclass, replace
from typing import Any

from yoisho.answers.evaluation import Traces, traces_answer
from yoisho.design.propose import Proposal
from yoisho.design.scale import Kept, Scaled
from yoisho.engine.readout import Figure, Reading
from yoisho.judgement.cautions import Caution, cautions
from yoisho.judgement.circumstances import Circumstances
from yoisho.judgement.verdict import judge
from yoisho.session.document import Session, to_document
from yoisho.session.purposes import FRAMES
from yoisho.session.shorthand import write
from yoisho.session.timeline import Timeline


@dataclass(frozen=True)
class Block:
    """An interval of a small score."""

    seconds: int
    demand_frac: float


@dataclass(frozen=True)
class Column:
    """A session worked out for somebody, as it stands beside others."""

    document: dict[str, Any]
    text: str
    """The main set, as the club writes it."""
    strokes: int
    grade: str
    sentence: str
    sureness: float | None
    """Share of the draws in which it is well aimed at least; None where there are none."""
    cautions: list[Caution]
    """What still speaks for this person."""
    figures: dict[str, Figure]
    total_s: int
    work_s: int
    blocks: list[Block]
    traces: Traces


def blocks(timeline: Timeline) -> list[Block]:
    return [Block(interval.seconds, round(interval.demand_frac, 2)) for interval in timeline.intervals]


def column(session: Session, reading: Reading, target: str, school: str, circumstances: Circumstances) -> Column:
    timeline = reading.timeline
    spoken = cautions(reading, replace(circumstances, purpose=target))
    verdict = judge(reading, target, spoken)
    mains = [part for part in session.parts if part.purpose not in FRAMES] or session.parts
    return Column(
        document=to_document(session),
        text="; ".join(write(part.tree, school) for part in mains),
        strokes=verdict.strokes,
        grade=verdict.grade,
        sentence=verdict.sentence,
        sureness=verdict.sureness,
        cautions=list(spoken),
        figures=reading.told(reading.figures),
        total_s=timeline.total_s,
        work_s=timeline.work_s,
        blocks=blocks(timeline),
        traces=traces_answer(reading),
    )


@dataclass(frozen=True)
class ProposalColumn(Column):
    name: str
    school: str
    why: str
    source: str
    tradeoff: str
    """What it costs and gains beside the others."""


def proposal_column(found: Proposal, target: str, school: str, circumstances: Circumstances) -> ProposalColumn:
    return ProposalColumn(
        **vars(column(found.session, found.reading, target, school, circumstances)),
        name=found.family.name,
        school=found.family.school,
        why=found.why,
        source=found.family.source,
        tradeoff=found.tradeoff,
    )


@dataclass(frozen=True)
class ScaledColumn(Column):
    steps: list[str]
    """The changes made; none where it fits as it is."""
    effect: list[Kept]
    same: bool
    """Whether the effect is kept."""


def scaled_column(found: Scaled, target: str, school: str, circumstances: Circumstances) -> ScaledColumn:
    return ScaledColumn(
        **vars(column(found.session, found.reading, target, school, circumstances)),
        steps=list(found.steps),
        effect=list(found.effect),
        same=found.same,
    )
