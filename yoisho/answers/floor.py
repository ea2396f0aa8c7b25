"""What the Floor shows: the plan of a run, and the session as each of the people on the floor has it."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import pairwise
from typing import Literal

from yoisho.answers.intervals import TimelineInterval, told, volumes_of
from yoisho.engine.person import Person
from yoisho.engine.readout import Reading, expected_rpe, try_reading
from yoisho.judgement.cautions import WARM_UP_S, cautions, first_needing_warmth
from yoisho.judgement.targets import TARGETS
from yoisho.runs.calls import Call, Settings, switches
from yoisho.runs.cues import COUNT_IN_S, Cue
from yoisho.runs.pairs import as_work, is_held, lived_by, turns
from yoisho.runs.plan import Plan
from yoisho.runs.simulated import simulate
from yoisho.session.timeline import Timeline
from yoisho.session.timeline import TimelineInterval as Flat
from yoisho.session.volume import Volume
from yoisho.session.wearing import kit_changes, to_bring
from yoisho.strikes.combination import Action
from yoisho.strikes.counts import Stance
from yoisho.strikes.notation import calls
from yoisho.strikes.techniques import Height


@dataclass(frozen=True)
class EffortSpan:
    start_s: int
    end_s: int


@dataclass(frozen=True)
class FloorInterval(TimelineInterval):
    """As it is done on the floor: a partner's turn is work, of the partner."""

    turn: int | None
    """Whose turn it is, in pairs and on pads: counted from 0 over the session; None where all work or all rest."""
    held: bool
    """The one whose turn it is not holds for the other, until the coach swaps them."""
    doing: str
    """What is done, in the word that is told largest."""
    beside: str
    """What is said beside it, such as the effort where the modality is what is done; may be empty."""
    pieces: list[int]
    """Of a combination that grows, how many of its calls belong to each piece, the new one last; else empty."""
    sides: list["Side"]
    """Which side stands in front, one after the other, where the session says a side or a switch."""
    kit_change: list[str]
    """What is put on, taken off or taken up before it, as it is called; empty where nothing is."""
    switch_on_call: bool
    """The side is switched when the coach says so."""
    music_per_min: int | None
    """Beats of the music it is done to, counted in eights; None without music."""
    strokes: list["Stroke"]
    """Of what is shown, each strike as it is drawn; empty where nothing is shown."""


@dataclass(frozen=True)
class Side:
    start_s: float
    end_s: float
    stance: Stance
    """Orthodox with the left side in front, southpaw with the right."""


Bend = Literal["straight", "round", "upward", "kick", "knee", "defence", "step"]
BENDS: Mapping[str, Bend] = {"jab": "straight", "cross": "straight", "palm": "straight", "push-kick": "straight",
                             "uppercut": "upward"}  # fmt: skip


@dataclass(frozen=True)
class Stroke:
    """A strike as it is drawn: from which side, how it bends, how high it ends."""

    word: str
    bend: Bend
    side: Literal["left", "right"]
    height: Height


@dataclass(frozen=True)
class Warmth:
    """Hard work and kicks want so much easy work before them."""

    from_s: int
    """Where the first of them starts."""
    needed_s: int


@dataclass(frozen=True)
class HeartTarget:
    """Where the heart rate belongs, from when to when [s, bpm]."""

    start_s: int
    end_s: int
    low_bpm: float
    high_bpm: float


@dataclass(frozen=True)
class FloorPlan:
    title: str
    part_names: list[str]
    people: int
    """For how many on the floor it is worked out."""
    count_in_s: int
    total_s: int
    work_s: int
    bring: list[str]
    """Kit to bring."""
    efforts: list[EffortSpan]
    """Efforts done are counted against these."""
    expected_rpe: float
    timeline: list[FloorInterval]
    cues: list[Cue]
    calls: list[Call]
    """Of every kind, also the muted ones."""
    cold: str | None
    """Said before the start where hard work or kicks come before the warm-up is done."""
    warmth: Warmth | None
    """None where there is neither hard work nor a kick."""


@dataclass(frozen=True)
class SimulatedDevices:
    """What a simulated strap and strike sensor tell; never a measurement."""

    heart: list[int | None]
    """For every second of the session [bpm]; None where the strap has no signal."""
    strikes: list[float]
    """When a strike is noticed [s]."""


@dataclass(frozen=True)
class OnFloor:
    """One of the people on the floor: what this session is for them."""

    heart_holds: bool
    """False where medication lowers the heart rate, so that it says nothing of the effort."""
    work_s: int
    rest_s: int
    targets: list[HeartTarget]
    """Where their heart rate belongs; none where it says nothing."""
    simulated: SimulatedDevices


def heart_targets(person: Person, timeline: Timeline, target: str) -> list[HeartTarget]:
    """The bands that intervals ask for; where none does, the purpose's own over the whole session.

    None for somebody whose heart rate says nothing of the effort.
    """
    if not person.heart_holds:
        return []
    highest = person.hr_max_bpm.value
    asked = [(i.start_s, i.end_s, i.source.band) for i in timeline.intervals if i.source.band and not i.partner]
    found = [(start, end, band.low / 100, band.high / 100) for start, end, band in asked]
    whole = TARGETS[target].heart_band
    if not found and whole:
        found = [(0, timeline.total_s, *whole)]
    return [HeartTarget(start, end, round(low * highest), round(high * highest)) for start, end, low, high in found]


def _pieces(interval: Flat) -> list[int]:
    drill = interval.source.drill
    turn, of = interval.turn
    if drill is None or drill.order != "adding" or of == 1:
        return []
    return [len(calls(each)) for each in drill.combinations[:turn]]


def _bend(one: Action) -> Bend:
    kind = one.known.kind
    if kind in ("defence", "step", "knee"):
        return kind
    return BENDS.get(one.technique, "kick" if kind == "kick" else "round")


def _strokes(interval: Flat, stance: Stance) -> list[Stroke]:
    """What is shown, as it is drawn for somebody of a stance."""
    if interval.shown is None:
        return []
    front, back = ("left", "right") if stance == "orthodox" else ("right", "left")
    sides = {"lead": front, "rear": back, "left": "left", "right": "right"}
    words = calls(interval.shown)
    return [
        Stroke(word, _bend(one), sides[str(one.side or "lead")], one.height or "head")  # type: ignore[arg-type]
        for word, one in zip(words, interval.shown.actions, strict=False)
    ]


def _sides(interval: Flat, stance: Stance) -> list[Side]:
    source = interval.source
    if source.lead is None and source.switch in (None, "call"):
        return []
    first: Stance = stance if source.lead is None else "orthodox" if source.lead == "left" else "southpaw"
    other: Stance = "southpaw" if first == "orthodox" else "orthodox"
    edges = (float(interval.start_s), *switches(interval), float(interval.end_s))
    return [Side(*span, (first, other)[number % 2]) for number, span in enumerate(pairwise(edges))]


def floor_intervals(timeline: Timeline, volumes: Sequence[Volume], stance: Stance, of: int) -> list[FloorInterval]:
    """A timeline as it is done by so many on the floor, of a stance, with the strikes expected of each interval: a
    partner's turn is work, of the partner, who is expected to do as much."""
    found = []
    own = Volume()
    kit = {change.index: change.words for change in kit_changes(timeline)}
    rows = zip(timeline.intervals, turns(timeline, of), volumes, strict=True)
    for index, (interval, turn, volume) in enumerate(rows):
        own = own if interval.partner else volume
        done = as_work(interval)
        doing, beside = done.source.doing
        fields = told(done, own) | {
            "partner": interval.partner,
            "turn": turn,
            "held": is_held(interval, of),
            "doing": doing,
            "beside": beside,
            "pieces": _pieces(done),
            "sides": _sides(done, stance),
            "kit_change": list(kit.get(index, ())),
            "switch_on_call": done.source.switch == "call",
            "music_per_min": done.source.beat.per_min if done.source.beat else None,
            "strokes": _strokes(done, stance),
        }
        found.append(FloorInterval(**fields))  # type: ignore[arg-type]
    return found


def _warmth(timeline: Timeline) -> Warmth | None:
    found = first_needing_warmth(timeline)
    return Warmth(found[0].start_s, WARM_UP_S) if found else None


def _cold(reading: Reading | None) -> str | None:
    found = cautions(reading) if reading else ()
    return next((f"{caution.text} {caution.cure}" for caution in found if caution.rule == "warm-up"), None)


def floor_plan(plan: Plan, person: Person, settings: Settings) -> FloorPlan:
    """All that the floor needs to run a session, worked out ahead for a person.

    The calls are of every kind, whatever is muted: what is heard is chosen where it is played.
    """
    timeline = plan.timeline
    reading = try_reading(person, timeline)
    return FloorPlan(
        title=plan.session.title,
        part_names=[part.name for part in plan.session.parts],
        people=plan.people,
        count_in_s=COUNT_IN_S,
        total_s=timeline.total_s,
        work_s=timeline.work_s,
        bring=list(to_bring(timeline)),
        efforts=[EffortSpan(*effort) for effort in plan.efforts],
        expected_rpe=expected_rpe(reading),
        timeline=floor_intervals(
            timeline, volumes_of(timeline, reading, person.stance), person.stance, plan.on_the_floor
        ),
        cues=list(plan.cues),
        calls=list(plan.calls(replace(settings, muted=frozenset()))),
        cold=_cold(reading),
        warmth=_warmth(timeline),
    )


def on_floor(plan: Plan, person: Person, target: str, place: int, of: int, seed: int) -> OnFloor:
    """The session as the person at a place, from 0 of `of`, has it, with devices simulated for them."""
    timeline = lived_by(plan.timeline, place, of)
    devices = simulate(person, timeline, seed)
    return OnFloor(
        heart_holds=person.heart_holds,
        work_s=timeline.work_s,
        rest_s=timeline.rest_s,
        targets=heart_targets(person, timeline, target) if timeline.work_s else [],
        simulated=SimulatedDevices(list(devices.heart), list(devices.strikes)),
    )
