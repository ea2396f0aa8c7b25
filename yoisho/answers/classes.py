"""A class as it is told: who is where, what each of them gets, what it trains, and what is to be minded."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from yoisho.answers.columns import Block, blocks
from yoisho.classes.asked import Comer
from yoisho.classes.board import COACH, Wave, waves_of
from yoisho.classes.made import Made, Trains
from yoisho.classes.schools import SCHOOLS, flat
from yoisho.classes.weighed import sharing, short
from yoisho.judgement.targets import TARGETS
from yoisho.session.document import to_document
from yoisho.session.purposes import FRAMES
from yoisho.session.shorthand import write
from yoisho.session.timeline import Timeline
from yoisho.session.tree import Node, Repeat
from yoisho.strikes.notation import write_drill


@dataclass(frozen=True)
class WaveAnswer:
    number: int
    start_s: int
    end_s: int
    change_s: int
    bags: int
    """In use."""
    pad_pairs: int
    floor: int
    """On the floor, or at a station off the bag."""
    waiting: int


@dataclass(frozen=True)
class ClassShare:
    """What one of the people gets."""

    name: str
    label: str
    """By which they are called on the floor: a name, a team's colour or a letter; may be empty."""
    row: list[str]
    bag: int
    pads: int
    floor: int
    """Turns on the floor or at a station off the bag."""
    moving_s: int
    work_s: int
    rest_s: int
    idle_s: int
    waits: int
    rpe: float
    load: float
    strikes: float
    easy: bool
    holds: bool


@dataclass(frozen=True)
class TrainsAnswer:
    which: str
    who: str
    strokes: int
    grade: str
    sentence: str
    hard_s: int
    load: float
    strikes: float


@dataclass(frozen=True)
class SharingAnswer:
    strokes: int
    word: str
    sentence: str


@dataclass(frozen=True)
class MindedAnswer:
    """What is to be minded of somebody, under its seal."""

    name: str
    seal: str
    text: str


@dataclass(frozen=True)
class Frame:
    """What stands before or after the waves."""

    name: str
    start_s: int
    seconds: int


@dataclass(frozen=True)
class ClassAnswer:
    document: dict[str, Any]
    school: str
    school_name: str
    reason: str
    target: str
    target_name: str
    pattern: str
    """The work of a wave, as the club writes it."""
    total_s: int
    wave_s: int
    change_s: int
    rounds: int
    frames: list[Frame]
    waves: list[WaveAnswer]
    blocks: list[Block]
    """As it is done at the gear."""
    people: list[ClassShare]
    trains: list[TrainsAnswer]
    sharing: SharingAnswer
    short: str | None
    cure: str | None
    minded: list[MindedAnswer]
    rows: list[list[str]]
    status: str
    bound_gap: float
    clash: list[str]


NOT_OFF = ("bag", "pads", COACH, "wait", "away")
"""What is no turn off the bag."""


def _share(made: Made, place: int, label: str) -> ClassShare:
    found, who = made.shares[place], made.board.people[place]
    off = sum(
        count for kind, count in found.turns.items() if kind not in NOT_OFF
    )  # fmt: skip
    return ClassShare(
        name=who.name, label=label, row=list(found.row), bag=found.turns.get("bag", 0),
        pads=found.turns.get("pads", 0) + found.turns.get(COACH, 0), floor=off, moving_s=found.moving_s,
        work_s=found.work_s, rest_s=found.rest_s, idle_s=found.idle_s, waits=found.waits, rpe=round(found.rpe, 1),
        load=round(found.load), strikes=round(found.strikes), easy=who.easy, holds=who.holds,
    )  # fmt: skip


def trains_answer(one: Trains) -> TrainsAnswer:
    verdict = one.verdict
    return TrainsAnswer(one.which, one.who, verdict.strokes, verdict.grade, verdict.sentence, one.hard_s,
                        round(one.load), round(one.strikes))  # fmt: skip


def _minded(people: Sequence[Comer]) -> list[MindedAnswer]:
    return [MindedAnswer(each.name, said.seal, said.text) for each in people for said in each.spoken]


def _frames(made: Made, timeline: Timeline) -> list[Frame]:
    found = []
    for number, part in enumerate(made.plan.session.parts):
        if part.purpose in FRAMES:
            inside = [each for each in timeline.intervals if each.part == number]
            found.append(Frame(part.name, inside[0].start_s, inside[-1].end_s - inside[0].start_s))
    return found


def _work(made: Made, wave: Node, school: str) -> str:
    """What a wave is, as the club writes it; to the beat in a few words, since every eight of it would be told."""
    if made.asked.school != "beat":
        return write(wave, school)
    whole = next(reversed(flat(wave))).drill
    struck = write_drill(whole, school) if whole else ""
    return f"[{struck}] built up in eights to {made.asked.beats} beats, as long with the left lead as with the right"


def _wave(wave: Wave, use: dict[str, int]) -> WaveAnswer:
    off = sum(count for kind, count in use.items() if kind not in NOT_OFF)
    return WaveAnswer(wave.number, wave.start_s, wave.end_s, wave.change_s, use.get("bag", 0), use.get("pads", 0), off,
                      use.get("wait", 0))  # fmt: skip


def class_answer(made: Made, school: str, *, weighed: bool = True) -> ClassAnswer:
    """All that is shown of a class; `school` is the numbering school of the club. What the gear costs the purpose, and
    what would mend it, is looked for where it is `weighed`."""
    timeline, board = made.timeline, made.board
    waves = waves_of(timeline, board.part)
    main = made.plan.session.parts[board.part].tree
    assert isinstance(main, Repeat)
    shared, lacks = sharing(made), short(made) if weighed else None
    rounds = main.body.count if isinstance(main.body, Repeat) else 1
    return ClassAnswer(
        document=to_document(made.plan.session),
        school=made.asked.school,
        school_name=SCHOOLS[made.asked.school].name,
        reason=SCHOOLS[made.asked.school].reason,
        target=made.target,
        target_name=TARGETS[made.target].name,
        pattern=_work(made, main.body, school),
        total_s=timeline.total_s,
        wave_s=waves[0].end_s - waves[0].start_s,
        change_s=main.between.seconds or 0 if main.between else 0,
        rounds=rounds,
        frames=_frames(made, timeline),
        waves=[_wave(wave, made.in_use(wave.number)) for wave in waves],
        blocks=blocks(timeline),
        people=[_share(made, place, label) for place, label in enumerate(board.labels)],
        trains=[trains_answer(each) for each in made.trains],
        sharing=SharingAnswer(shared.strokes, shared.word, shared.sentence),
        short=lacks.sentence if lacks else None,
        cure=lacks.cure if lacks else None,
        minded=_minded(made.asked.people),
        rows=[list(made.rotation.rows[each.name]) for each in made.asked.people],
        status=made.rotation.status,
        bound_gap=made.rotation.bound_gap,
        clash=[each.sentence for each in made.rotation.clash],
    )
