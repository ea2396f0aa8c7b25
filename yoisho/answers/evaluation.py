"""What the Bench shows of a session: timeline and strikes, parts, the reading, the verdict, the cautions."""

from collections.abc import Sequence as Several
from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np

from yoisho.answers.floor import HeartTarget, heart_targets
from yoisho.answers.intervals import TimelineInterval, interval_answer, rounded, volumes_of
from yoisho.engine import readout
from yoisho.engine.person import Person
from yoisho.engine.readout import FadeOnset, Figure
from yoisho.engine.stores import Floats
from yoisho.judgement.cautions import Caution, cautions
from yoisho.judgement.circumstances import Circumstances
from yoisho.judgement.fade import fade_onset, failing
from yoisho.judgement.targets import TARGETS
from yoisho.judgement.verdict import Verdict, judge
from yoisho.session.document import Session
from yoisho.session.kit import words
from yoisho.session.shorthand import write
from yoisho.session.timeline import Timeline
from yoisho.session.tree import Node, Repeat, Sequence
from yoisho.session.volume import Volume, total
from yoisho.session.wearing import kit_changes, to_bring
from yoisho.strikes.counts import Limb
from yoisho.strikes.techniques import Height

MOST_SAMPLES = 480


@dataclass(frozen=True)
class VolumeAnswer:
    """Strikes by limb and target height, after the fade. Those no combination places are shared over two hands."""

    limbs: dict[Limb, float]
    heights: dict[Height, float]
    strikes: float
    left_share: float | None
    """Of the left side, hands and legs, 0 to 1; None where nothing is struck."""
    counted: float
    open: float
    defences: float
    steps: float


@dataclass(frozen=True)
class LevelText:
    """One level of a part's tree: the way down to it, and its line."""

    path: list[int | str]
    text: str


@dataclass(frozen=True)
class KitAnswer:
    """What to bring, and what changing it takes [s]."""

    bring: list[str]
    changes: int
    needs_s: int
    """An estimate."""
    short_s: int
    """Seconds that the pauses do not give for it."""


@dataclass(frozen=True)
class PartSummary:
    text: str
    kit: list[str]
    """What all of it is done in, in words, where its work says nothing else."""
    levels: tuple[LevelText, ...]
    """Every level inside, in the order it is read; the whole is not among them."""
    start_s: int
    total_s: int
    work_s: int
    rest_s: int
    volume: VolumeAnswer


@dataclass(frozen=True)
class Traces:
    seconds: list[float]
    sprint_left: list[float]
    lactic_left: list[float]
    uptake_frac: list[float]
    heart_rate_bpm: list[float] | None
    """None where medication lowers the heart rate."""


@dataclass(frozen=True)
class Band:
    low: list[float]
    high: list[float]


@dataclass(frozen=True)
class Bands:
    """80 % ranges of the traces, at seconds of their own."""

    seconds: list[float]
    sprint_left: Band
    lactic_left: Band
    uptake_frac: Band
    heart_rate_bpm: Band | None


@dataclass(frozen=True)
class Effort:
    start_s: int
    end_s: int
    sprint_at_start: Figure
    fade: Figure


@dataclass(frozen=True)
class Reading:
    figures: dict[str, Figure]
    traces: Traces
    bands: Bands | None
    """None where no ranges were asked for."""
    heart_targets: list[HeartTarget]
    verdict: Verdict
    cautions: list[Caution]
    week: dict[Limb, float]
    """Strikes by limb in the last seven days, this session not among them."""
    efforts: list[Effort]
    fade_onset: FadeOnset
    fails: FadeOnset
    """The effort in which what is asked can no longer be given."""
    exhausted_at_s: float | None
    hr_rest_bpm: float
    hr_max_bpm: float


@dataclass(frozen=True)
class Evaluation:
    timeline: list[TimelineInterval]
    parts: list[PartSummary]
    total_s: int
    work_s: int
    rest_s: int
    volume: VolumeAnswer
    kit: KitAnswer
    reading: Reading | None
    """None while there is no work to judge."""


def volume_answer(volume: Volume) -> VolumeAnswer:
    return VolumeAnswer(
        limbs=rounded(volume.limbs),
        heights=rounded(volume.heights),
        strikes=volume.strikes,
        left_share=volume.left_share,
        counted=volume.counted,
        open=volume.open,
        defences=volume.defences,
        steps=volume.steps,
    )


def kit_answer(timeline: Timeline) -> KitAnswer:
    changes = kit_changes(timeline)
    return KitAnswer(
        bring=list(to_bring(timeline)),
        changes=len(changes),
        needs_s=sum(change.needs_s for change in changes),
        short_s=sum(change.short_s for change in changes),
    )


PARTS_REMEMBERED = 1000
"""An edit changes one part of a session: the lines of the others are as they were."""
SESSIONS_REMEMBERED = 129
"""Whose best guess was asked for just now, by as many coaches as wait at once in one process, and once more while they
wait: its ranges follow. A fifth of a megabyte each for half an hour of work."""


@lru_cache(PARTS_REMEMBERED)
def lines(tree: Node, school: str) -> tuple[str, tuple[LevelText, ...]]:
    """The line of a part, and of every level inside it."""
    return write(tree, school), tuple(levels(tree, school))


def levels(node: Node, school: str, path: tuple[int | str, ...] = ()) -> list[LevelText]:
    """The lines of everything inside a tree, by their path in the document."""
    inside: list[tuple[tuple[int | str, ...], Node]] = []
    match node:
        case Sequence():
            inside = [((*path, "items", index), item) for index, item in enumerate(node.items)]
        case Repeat():
            inside = [((*path, "body"), node.body)]
    found = []
    for way, item in inside:
        found += [LevelText(list(way), write(item, school)), *levels(item, school, way)]
    return found


def _summaries(session: Session, timeline: Timeline, volumes: Several[Volume], school: str) -> list[PartSummary]:
    pairs = [*zip(timeline.intervals, volumes, strict=True)]
    summaries = []
    for index, part in enumerate(session.parts):
        inside = [(interval, volume) for interval, volume in pairs if interval.part == index]
        start, length_s = inside[0][0].start_s, sum(interval.seconds for interval, _ in inside)
        work_s = sum(interval.seconds for interval, _ in inside if interval.kind == "work")
        text, inner = lines(part.tree, school)
        summaries.append(
            PartSummary(
                text=text,
                kit=words(part.gloves, part.kit),
                levels=inner,
                start_s=start,
                total_s=length_s,
                work_s=work_s,
                rest_s=length_s - work_s,
                volume=volume_answer(total(volume for _, volume in inside)),
            )
        )
    return summaries


def _listed(course: Floats, digits: int) -> list[float]:
    return np.round(course.astype(float), digits).tolist()  # type: ignore[no-any-return]


def traces_answer(reading: readout.Reading) -> Traces:
    """The courses of the best guess, thinned for drawing; no heart rate of somebody whose heart says nothing."""
    traces = reading.traces
    stride = max(1, -(-len(traces.seconds) // MOST_SAMPLES))
    keep = np.unique(np.append(np.arange(0, len(traces.seconds), stride), len(traces.seconds) - 1))
    return Traces(
        seconds=_listed(traces.seconds[keep], 1),
        sprint_left=_listed(traces.sprint_left[keep], 3),
        lactic_left=_listed(traces.lactic_left[keep], 3),
        uptake_frac=_listed(traces.uptake_frac[keep], 3),
        heart_rate_bpm=_listed(traces.heart_rate_bpm[keep], 0) if reading.heart_holds else None,
    )


def _band(band: tuple[Floats, Floats], digits: int) -> Band:
    low, high = band
    return Band(_listed(low, digits), _listed(high, digits))


def _bands(reading: readout.Reading) -> Bands | None:
    bands = reading.bands
    if bands is None:
        return None
    return Bands(
        seconds=_listed(bands.seconds, 1),
        sprint_left=_band(bands.sprint_left, 3),
        lactic_left=_band(bands.lactic_left, 3),
        uptake_frac=_band(bands.uptake_frac, 3),
        heart_rate_bpm=_band(bands.heart_rate_bpm, 0) if reading.heart_holds else None,
    )


def _efforts(reading: readout.Reading) -> list[Effort]:
    intervals = reading.timeline.intervals
    pairs = zip(reading.work_bouts, reading.sprint_at_work_bout, reading.work_bout_fade, strict=True)
    return [
        Effort(intervals[bout.first].start_s, intervals[bout.last].end_s, start, fade) for bout, start, fade in pairs
    ]


def _reading(reading: readout.Reading, target: str, circumstances: Circumstances) -> Reading:
    person = reading.person
    spoken = cautions(reading, replace(circumstances, purpose=target))
    return Reading(
        figures=reading.told(reading.figures),
        traces=traces_answer(reading),
        bands=_bands(reading),
        heart_targets=heart_targets(person, reading.timeline, target),
        verdict=judge(reading, target, spoken),
        cautions=list(spoken),
        week=rounded(circumstances.strikes_this_week),
        efforts=_efforts(reading),
        fade_onset=fade_onset(reading, TARGETS[target]),
        fails=failing(reading),
        exhausted_at_s=reading.exhausted_at_s,
        hr_rest_bpm=person.hr_rest_bpm.value,
        hr_max_bpm=person.hr_max_bpm.value,
    )


@dataclass(frozen=True)
class _Guessed:
    """What the best guess gives, which the answer with ranges needs as much as the one before it."""

    timeline: Timeline
    best: readout.Reading | None
    intervals: tuple[TimelineInterval, ...]
    parts: tuple[PartSummary, ...]
    volume: VolumeAnswer
    kit: KitAnswer


@lru_cache(SESSIONS_REMEMBERED)
def _guessed(session: Session, person: Person, school: str) -> _Guessed:
    timeline = session.unrolled()
    best = readout.try_reading(person, timeline)
    volumes = volumes_of(timeline, best, person.stance)
    return _Guessed(
        timeline=timeline,
        best=best,
        intervals=tuple(interval_answer(one, volume) for one, volume in zip(timeline.intervals, volumes, strict=True)),
        parts=tuple(_summaries(session, timeline, volumes, school)),
        volume=volume_answer(total(volumes)),
        kit=kit_answer(timeline),
    )


def evaluate(
    session: Session, person: Person, target: str, circumstances: Circumstances, school: str, *, ranges: bool = True
) -> Evaluation:
    """A session drawn, simulated for a person and judged for a purpose, its lines in a numbering school.

    Without `ranges` every figure is the best guess alone, and there are no bands. Raises `SessionError` where the
    session is too long or too large.
    """
    guessed = _guessed(session, person, school)
    reading = readout.with_ranges(guessed.best) if guessed.best and ranges else guessed.best
    return Evaluation(
        timeline=list(guessed.intervals),
        parts=list(guessed.parts),
        total_s=guessed.timeline.total_s,
        work_s=guessed.timeline.work_s,
        rest_s=guessed.timeline.rest_s,
        volume=guessed.volume,
        kit=guessed.kit,
        reading=_reading(reading, target, circumstances) if reading else None,
    )
