"""From a document to everything the Bench shows: the core's answer in the API's shape."""

from collections.abc import Mapping
from dataclasses import asdict
from typing import TypeVar

import numpy as np

from server.sessions import schemas
from server.sessions.document_schema import SessionDocument
from server.sessions.documents import core_session, unrolled
from yoisho.design.propose import Proposal
from yoisho.design.scale import Scaled
from yoisho.engine import readout
from yoisho.engine.person import Person
from yoisho.engine.stores import Floats
from yoisho.judgement.cautions import cautions
from yoisho.judgement.circumstances import Circumstances
from yoisho.judgement.targets import TARGETS
from yoisho.judgement.verdict import judge
from yoisho.session.document import Session, to_document
from yoisho.session.purposes import FRAMES
from yoisho.session.shorthand import write
from yoisho.session.tempo import TEMPOS
from yoisho.session.timeline import Timeline, TimelineInterval
from yoisho.session.tree import Node, Repeat, Sequence
from yoisho.session.volume import Volume, interval_volume, total
from yoisho.strikes.notation import calls

MOST_SAMPLES = 480
Name = TypeVar("Name", bound=str)


def interval_out(interval: TimelineInterval, volume: Volume) -> schemas.TimelineInterval:
    tempo = TEMPOS[interval.tempo]
    return schemas.TimelineInterval(
        start_s=interval.start_s,
        seconds=interval.seconds,
        kind=tempo.kind,
        tempo=tempo.id,
        demand_frac=interval.demand_frac,
        rounds=[schemas.Round(turn=turn, of=count) for turn, count in interval.rounds],
        part=interval.part,
        strikes=round(volume.strikes, 1),
        limbs=_rounded(volume.limbs),
        means=None if interval.partner else interval.source.means,
        reps=interval.reps,
        calls=calls(interval.combination) if interval.combination else [],
        partner=interval.partner,
        pulse_per_min=interval.pulse_per_min,
    )


def _rounded(numbers: Mapping[Name, float]) -> dict[Name, float]:
    return {name: round(number, 1) for name, number in numbers.items()}


def volume_out(volume: Volume) -> schemas.VolumeOut:
    return schemas.VolumeOut(
        limbs=_rounded(volume.limbs),
        levels=_rounded(volume.levels),
        strikes=volume.strikes,
        left_share=volume.left_share,
        counted=volume.counted,
        open=volume.open,
        defences=volume.defences,
        steps=volume.steps,
    )


def levels(node: Node, school: str, path: tuple[int | str, ...] = ()) -> list[schemas.LevelText]:
    """The lines of everything inside a tree, by their path in the document."""
    inside: list[tuple[tuple[int | str, ...], Node]] = []
    match node:
        case Sequence():
            inside = [((*path, "items", index), item) for index, item in enumerate(node.items)]
        case Repeat():
            inside = [((*path, "body"), node.body)]
    found = []
    for way, item in inside:
        found += [schemas.LevelText(path=list(way), text=write(item, school)), *levels(item, school, way)]
    return found


def _summaries(
    session: Session, timeline: Timeline, volumes: tuple[Volume, ...], school: str
) -> list[schemas.PartSummary]:
    summaries = []
    for index, part in enumerate(session.parts):
        own = Timeline(tuple(interval for interval in timeline.intervals if interval.part == index))
        start = own.intervals[0].start_s
        length_s = own.total_s - start
        summaries.append(
            schemas.PartSummary(
                text=write(part.tree, school),
                levels=levels(part.tree, school),
                start_s=start,
                total_s=length_s,
                work_s=own.work_s,
                rest_s=length_s - own.work_s,
                volume=volume_out(
                    total(v for v, i in zip(volumes, timeline.intervals, strict=True) if i.part == index)
                ),
            )
        )
    return summaries


def _traces(traces: readout.Traces, *, with_heart: bool) -> schemas.Traces:
    stride = max(1, -(-len(traces.seconds) // MOST_SAMPLES))
    keep = np.unique(np.append(np.arange(0, len(traces.seconds), stride), len(traces.seconds) - 1))

    def thin(trace: Floats, digits: int) -> list[float]:
        return np.round(trace[keep].astype(float), digits).tolist()  # type: ignore[no-any-return]

    return schemas.Traces(
        seconds=thin(traces.seconds, 1),
        sprint_left=thin(traces.sprint_left, 3),
        lactic_left=thin(traces.lactic_left, 3),
        uptake_frac=thin(traces.uptake_frac, 3),
        heart_rate_bpm=thin(traces.heart_rate_bpm, 0) if with_heart else None,
    )


def _bands(bands: readout.Bands, *, with_heart: bool) -> schemas.Bands:
    def told(band: tuple[Floats, Floats], digits: int) -> schemas.Band:
        low, high = (np.round(side.astype(float), digits).tolist() for side in band)
        return schemas.Band(low=low, high=high)

    return schemas.Bands(
        seconds=np.round(bands.seconds, 1).tolist(),
        sprint_left=told(bands.sprint_left, 3),
        lactic_left=told(bands.lactic_left, 3),
        uptake_frac=told(bands.uptake_frac, 3),
        heart_rate_bpm=told(bands.heart_rate_bpm, 0) if with_heart else None,
    )


def heart_targets(who: Person, timeline: Timeline, target: str) -> list[schemas.HeartTarget]:
    """The bands that intervals ask for; where none does, the purpose's own over the whole session."""
    if not who.heart_holds:
        return []
    highest = who.hr_max_bpm.value
    asked = [(i.start_s, i.end_s, i.source.band) for i in timeline.intervals if i.source.band and not i.partner]
    found = [(start, end, band.low / 100, band.high / 100) for start, end, band in asked]
    own = TARGETS[target].heart_band
    if not found and own:
        found = [(0, timeline.total_s, *own)]
    return [
        schemas.HeartTarget(start_s=start, end_s=end, low_bpm=round(low * highest), high_bpm=round(high * highest))
        for start, end, low, high in found
    ]


def _reading_out(reading: readout.Reading, target: str, around: Circumstances) -> schemas.Reading:
    who = reading.who
    verdict = judge(reading, target)
    bands = reading.bands
    figures = {name: schemas.Figure(**asdict(figure)) for name, figure in reading.told(reading.figures).items()}
    return schemas.Reading(
        figures=figures,
        traces=_traces(reading.traces, with_heart=reading.heart_holds),
        bands=_bands(bands, with_heart=reading.heart_holds) if bands else None,
        heart_targets=heart_targets(who, reading.timeline, target),
        verdict=schemas.Verdict(
            target=verdict.target,
            score=verdict.score,
            strokes=verdict.strokes,
            grade=verdict.grade,
            sentence=verdict.sentence,
            reasons=[
                schemas.Reason(
                    measure=reason.measure,
                    met=reason.met,
                    text=reason.text,
                    intervals=list(reason.intervals),
                    source=reason.source,
                )
                for reason in verdict.reasons
            ],
            trains_best=verdict.trains_best,
        ),
        cautions=[schemas.Caution(**asdict(caution)) for caution in cautions(reading, around)],
        week=_rounded(around.strikes_this_week),
        efforts=_efforts(reading),
        fade_onset=schemas.FadeOnset(**asdict(reading.fade_onset)),
        exhausted_at_s=reading.exhausted_at_s,
        hr_rest_bpm=who.hr_rest_bpm.value,
        hr_max_bpm=who.hr_max_bpm.value,
    )


def _efforts(reading: readout.Reading) -> list[schemas.Effort]:
    intervals = reading.timeline.intervals
    return [
        schemas.Effort(
            start_s=intervals[bout.first].start_s,
            end_s=intervals[bout.last].end_s,
            sprint_at_start=schemas.Figure(**asdict(start)),
            fade=schemas.Figure(**asdict(fade)),
        )
        for bout, start, fade in zip(reading.bouts, reading.sprint_at_bout, reading.bout_fade, strict=True)
    ]


def blocks_out(timeline: Timeline) -> list[schemas.Block]:
    return [schemas.Block(seconds=i.seconds, demand_frac=round(i.demand_frac, 2)) for i in timeline.intervals]


def drawn(session: Session, reading: readout.Reading, target: str, school: str) -> dict[str, object]:
    """A session as it stands in a column beside others."""
    timeline = reading.timeline
    verdict = judge(reading, target)
    mains = [part for part in session.parts if part.purpose not in FRAMES] or session.parts
    return {
        "document": to_document(session),
        "text": "; ".join(write(part.tree, school) for part in mains),
        "strokes": verdict.strokes,
        "grade": verdict.grade,
        "sentence": verdict.sentence,
        "figures": {name: asdict(figure) for name, figure in reading.told(reading.figures).items()},
        "total_s": timeline.total_s,
        "work_s": timeline.work_s,
        "blocks": blocks_out(timeline),
        "traces": _traces(reading.traces, with_heart=reading.heart_holds),
    }


def proposal_out(found: Proposal, target: str, school: str) -> dict[str, object]:
    return {
        **drawn(found.session, found.reading, target, school),
        "name": found.family.name,
        "school": found.family.school,
        "why": found.why,
        "source": found.family.source,
        "tradeoff": found.tradeoff,
    }


def scaled_out(found: Scaled, target: str, school: str, around: Circumstances) -> dict[str, object]:
    return {
        **drawn(found.session, found.reading, target, school),
        "steps": list(found.steps),
        "effect": [asdict(each) for each in found.effect],
        "cautions": [asdict(caution) for caution in cautions(found.reading, around)],
        "same": found.same,
    }


def evaluate(
    document: SessionDocument, who: Person, target: str, around: Circumstances, school: str, *, ranges: bool = True
) -> schemas.Evaluation:
    session = core_session(document.model_dump())
    timeline = unrolled(session)
    try:
        reading = readout.read(who, timeline, ranges=ranges)
        volumes = reading.volumes
    except readout.NoWorkError:
        reading = None
        volumes = tuple(interval_volume(interval, who.stance) for interval in timeline.intervals)
    return schemas.Evaluation(
        timeline=[interval_out(one, volume) for one, volume in zip(timeline.intervals, volumes, strict=True)],
        parts=_summaries(session, timeline, volumes, school),
        total_s=timeline.total_s,
        work_s=timeline.work_s,
        rest_s=timeline.rest_s,
        volume=volume_out(reading.volume if reading else total(volumes)),
        reading=_reading_out(reading, target, around) if reading else None,
    )
