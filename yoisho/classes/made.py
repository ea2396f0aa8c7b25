"""A class worked out: everybody put somewhere in every wave, and what each of them gets of it."""

from collections import Counter
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import cached_property

from yoisho.classes.asked import Asked, Comer
from yoisho.classes.board import Board, OnBoard, kind_of, lived, present, waves_of
from yoisho.classes.schools import Designed, designed
from yoisho.engine.person import Level, Person, person
from yoisho.engine.readout import Reading, try_reading
from yoisho.engine.work_bouts import HARD_FRAC
from yoisho.judgement.verdict import Verdict, judge
from yoisho.rotation.found import Rotation
from yoisho.rotation.group import Kind
from yoisho.rotation.ring import Rows
from yoisho.rotation.score import against
from yoisho.session.timeline import Timeline

LEVELS: tuple[tuple[str, str, Level], ...] = (
    ("weakest", "a beginner", "beginner"), ("middle", "a club athlete", "club"), ("strongest", "a fighter", "fighter"),
)  # fmt: skip
"""Whom a class without names is simulated for."""


@dataclass(frozen=True)
class Share:
    """What one of the people gets."""

    row: tuple[str, ...]
    turns: dict[str, int]
    """How often at each kind of place."""
    moving_s: int
    """At a station, in the waves."""
    work_s: int
    """Of efforts."""
    rest_s: int
    """Of the waves, without effort; changes and waiting are idle."""
    idle_s: int
    waits: int
    total_s: int
    """While they are there."""
    rpe: float
    load: float
    strikes: float


@dataclass(frozen=True)
class Trains:
    """What the class trains for one of the group."""

    which: str
    """Weakest, middle or strongest."""
    who: str
    verdict: Verdict
    hard_s: int
    load: float
    strikes: float


def aim_of(asked: Asked) -> str:
    """What the work of a class is for: as it is asked; where nothing is said, what it trains best as it is designed, at
    a bag in every wave, for the middle of those who come."""
    if asked.target is not None:
        return asked.target
    found = sorted((each.person for each in asked.here), key=lambda one: one.vo2max_ml_kg_min.value)
    reading = try_reading(found[len(found) // 2], designed(asked).session.unrolled())
    return judge(reading).trains_best if reading else "skill"


@dataclass(frozen=True)
class Made:
    asked: Asked
    plan: Designed
    rotation: Rotation

    @cached_property
    def board(self) -> Board:
        people = tuple(
            OnBoard(each.name, tuple(self.rotation.rows[each.name]), each.easy, "hold" not in each.barred)
            for each in self.asked.people
        )
        return Board(self.plan.part, people, self.plan.doing)

    @cached_property
    def timeline(self) -> Timeline:
        return self.plan.session.unrolled()

    def of(self, place: int) -> Timeline:
        """The session as the person at a place has it, while they are there."""
        return present(self.timeline, self.board, place)

    @cached_property
    def target(self) -> str:
        return aim_of(self.asked)

    @cached_property
    def ranked(self) -> tuple[int, ...]:
        """Places of those who come, the weakest first, by what they take up at the most."""
        here = [place for place, each in enumerate(self.asked.people) if self.asked.absent_after.get(each.name) != 0]
        return tuple(sorted(here, key=lambda place: self.asked.people[place].person.vo2max_ml_kg_min.value))

    @property
    def middle(self) -> tuple[int, Person]:
        place = self.ranked[len(self.ranked) // 2]
        return place, self.asked.people[place].person

    @cached_property
    def shares(self) -> tuple[Share, ...]:
        known: dict[tuple[object, ...], Share] = {}
        found = []
        for place, each in enumerate(self.asked.people):
            own = self.board.people[place]
            key = each.person, own.row, own.easy, own.holds
            if key not in known:
                known[key] = self._share(place, each)
            found.append(known[key])
        return tuple(found)

    def _share(self, place: int, who: Comer) -> Share:
        row = self.board.people[place].row
        own = self.of(place)
        reading = try_reading(who.person, own)
        work_s = own.work_s
        waves = waves_of(self.timeline, self.plan.part)
        here = [wave for wave, station in zip(waves, row, strict=True) if station != "away"]
        at_station = [
            wave for wave, station in zip(waves, row, strict=True) if kind_of(station) not in ("wait", "away")
        ]
        moving_s = sum(wave.end_s - wave.start_s for wave in at_station)
        changes_s = sum(wave.change_s for wave in here[1:])
        waited_s = sum(wave.end_s - wave.start_s for wave in here) - moving_s
        inside = lived(self.timeline, self.board, place)
        efforts_s = sum(
            each.seconds for each in inside.intervals
            if each.part == self.plan.part and each.kind == "work"
        )  # fmt: skip
        rpe = reading.figures["rpe"].value if reading else 0.0
        return Share(
            row=row,
            turns=dict(Counter(kind_of(station) for station in row)),
            moving_s=moving_s,
            work_s=efforts_s if work_s else 0,
            rest_s=moving_s - efforts_s,
            idle_s=changes_s + waited_s,
            waits=sum(station == "wait" for station in row),
            total_s=own.total_s,
            rpe=rpe,
            load=rpe * own.total_s / 60,
            strikes=reading.volume.strikes if reading else 0.0,
        )

    @cached_property
    def trains(self) -> tuple[Trains, ...]:
        """For the weakest, the middle and the strongest; of people without names by level."""
        ranked, people = self.ranked, self.asked.people
        several = len({people[place].person for place in ranked}) > 1
        if several:
            places = dict.fromkeys((ranked[0], ranked[len(ranked) // 2], ranked[-1]))
            words = ("weakest", "middle", "strongest") if len(places) == 3 else ("weakest", "strongest")
            told = [(word, people[at].name, people[at].person, at) for word, at in zip(words, places, strict=False)]
        else:
            told = [(word, who, person(level=level), self.middle[0]) for word, who, level in LEVELS]
        found = [self._trains(*each) for each in told]
        return tuple(each for each in found if each is not None)

    def _trains(self, which: str, who: str, one: Person, place: int) -> Trains | None:
        reading = try_reading(one, self.of(place))
        if reading is None:
            return None
        return Trains(
            which, who, judge(reading, self.target), hard_s(reading.timeline),
            reading.figures["rpe"].value * reading.timeline.total_s / 60, reading.volume.strikes,
        )  # fmt: skip

    @property
    def designed_for(self) -> Reading | None:
        """The session as it was designed: at the gear in every wave, for the middle of the group."""
        return try_reading(self.middle[1], self.timeline)

    def in_use(self, wave: int) -> dict[str, int]:
        """How many are at each kind of place in a wave, from 1; pads counted in pairs."""
        count = Counter(kind_of(each.row[wave - 1]) for each in self.board.people)
        return {**count, "pads": count["pads"] // 2}


def hard_s(timeline: Timeline) -> int:
    return sum(each.seconds for each in timeline.intervals if each.kind == "work" and each.demand_frac >= HARD_FRAC)


def make(asked: Asked, near: Rows | None = None, told: Callable[[float], None] = lambda share: None) -> Made:
    """The class solved. Raises `ClassError` where it cannot be, `SessionError` where its session cannot."""
    # The solver takes half a second and much memory to load: where nobody solves, a server does without.
    from yoisho.rotation.solve import solve

    plan = designed(asked)
    return Made(asked, plan, solve(plan.group, near, told))


def sketch(asked: Asked) -> Made:
    """The class as it is constructed, without solving: enough to see what more gear or time would do."""
    from yoisho.rotation.solve import sketched

    plan = designed(asked)
    return Made(asked, plan, sketched(plan.group))


def kept(asked: Asked, rows: Sequence[Sequence[str]]) -> Made:
    """The class as it was solved before: nothing is solved anew. What is wrong with rows, `rotation.faults` says."""
    plan = designed(asked)
    named = {who.name: list(row) for who, row in zip(asked.people, rows, strict=True)}
    kinds = {who: kinds_of(plan, row) for who, row in named.items()}
    return Made(asked, plan, Rotation(named, kinds, against(plan.group, kinds), "feasible", 0.0, ()))


def kinds_of(plan: Designed, row: Sequence[str]) -> list[Kind]:
    found: list[Kind] = []
    for station in row:
        kinds: tuple[Kind, ...] = ("away",) if station == "away" else plan.group.kinds_at(station)
        found.append(kinds[0] if kinds else "wait")
    return found
