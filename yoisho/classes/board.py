"""Who is where while a class runs: the rotation beside the session, and the session as each of the people has it."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from itertools import groupby
from typing import Annotated

from yoisho import plain
from yoisho.plain import Length, OneOf, Within
from yoisho.rotation.group import MOST_PEOPLE, MOST_WAVES, ClassError
from yoisho.runs.pairs import as_work
from yoisho.session.document import MOST_PARTS
from yoisho.session.interval import Interval
from yoisho.session.modality import MODALITIES
from yoisho.session.timeline import Timeline, TimelineInterval
from yoisho.strikes.bags import BAGS
from yoisho.strikes.tempo import TEMPOS

LONGEST_NAME = 120
LONGEST_STATION = 40
EASY = "flow"
"""What somebody does who must not go hard, where hard work is asked."""
HOLDING = Interval(1, "recover", modality="footwork")
"""What holding pads costs: as much as light footwork. Own setting, no source."""
NEAR_HALF = 0.25
"""Of a wave: so near its middle the two at the pads swap between two efforts, not inside one."""
LETTERS = "ABCDEFGHIJKLMNOPQRSTUVWXYZ"
COLOURS = ("Blue", "Red", "Green", "Yellow", "White", "Black", "Orange", "Purple")
"""What teams are called; always by the word, never by the colour alone."""
COACH = "coach"
"""Where the coach holds: a place like one at a bag, for one person."""


@dataclass(frozen=True)
class Doing:
    """What is done at a place off the bag."""

    station: Annotated[str, Length(1, LONGEST_STATION)]
    modality: Annotated[str | None, OneOf(MODALITIES)] = None
    tempo: Annotated[str | None, OneOf(TEMPOS)] = None
    """None for the effort that is asked of all."""


@dataclass(frozen=True)
class OnBoard:
    """One of the people, and where they are in each wave."""

    name: Annotated[str, Length(1, LONGEST_NAME)]
    row: Annotated[tuple[Annotated[str, Length(1, LONGEST_STATION)], ...], Length(1, MOST_WAVES)]
    easy: bool = False
    """Nothing hard."""
    holds: bool = True
    """False where the coach holds in their place."""

    def __post_init__(self) -> None:
        if not 1 <= len(self.row) <= MOST_WAVES:
            raise ClassError(f"somebody is somewhere in 1 to {MOST_WAVES} waves, not in {len(self.row)}", "row")


@dataclass(frozen=True)
class Wave:
    number: int
    start_s: int
    end_s: int
    change_s: int
    """Of the change before it; 0 where there is none."""
    swap_s: int
    """When the two at the pads swap."""


@dataclass(frozen=True)
class Board:
    part: Annotated[int, Within(0, MOST_PARTS)]
    """Of the session, the one that holds the waves: a repeat, of which each repetition is one."""
    people: Annotated[tuple[OnBoard, ...], Length(1, MOST_PEOPLE)]
    doing: Annotated[tuple[Doing, ...], Length(0, 40)] = ()

    def __post_init__(self) -> None:
        if not 1 <= len(self.people) <= MOST_PEOPLE:
            raise ClassError(f"on a board are 1 to {MOST_PEOPLE} people, not {len(self.people)}", "people")
        if len({len(each.row) for each in self.people}) > 1:
            raise ClassError("everybody on a board has as many waves", "people")

    @cached_property
    def at(self) -> dict[str, Doing]:
        return {each.station: each for each in self.doing}

    @cached_property
    def teams(self) -> tuple[tuple[int, ...], ...]:
        """Places of people who go the same ways all through; none where somebody goes a way of their own."""
        ways: dict[tuple[str, ...], list[int]] = {}
        for place, each in enumerate(self.people):
            ways.setdefault(tuple(kind_of(station) for station in each.row), []).append(place)
        found = tuple(tuple(team) for team in ways.values())
        fit = 2 <= len(found) <= len(COLOURS) and all(len(team) > 1 for team in found)
        return found if fit and len(self.people) > MOST_NAMED else ()

    @cached_property
    def labels(self) -> tuple[str, ...]:
        """What each is called by: a name where they are few, the colour of a team, a letter; empty where too many."""
        if len(self.people) <= MOST_NAMED:
            return tuple(each.name for each in self.people)
        if self.teams:
            colour = {place: COLOURS[number] for number, team in enumerate(self.teams) for place in team}
            return tuple(colour[place] for place in range(len(self.people)))
        if len(self.people) <= len(LETTERS):
            return tuple(LETTERS[: len(self.people)])
        return ("",) * len(self.people)


MOST_NAMED = 6
"""So many are called by name."""


def board_to_dict(board: Board) -> dict[str, object]:
    found: dict[str, object] = plain.write(board)
    return found


def board_from_dict(value: object, path: str = "board") -> Board:
    """The board in plain values. Raises `PlainError` with the path to the fault."""
    found: Board = plain.read(Board, value, path, 6)
    return found


def kind_of(station: str) -> str:
    """What somebody is at, without which of them or in which role: "bag", "pads", "squats", "wait" or "away"."""
    first = station.split(" ")[0]
    return first if first in ("bag", "pads") else station


def _wave_of(interval: TimelineInterval, part: int) -> int | None:
    """The wave it belongs to, from 1; None for what is outside, and for a change."""
    inside = interval.part == part and interval.rounds and interval.path[:1] != ("between",)
    return interval.rounds[0][0] if inside else None


def waves_of(timeline: Timeline, part: int) -> tuple[Wave, ...]:
    found: list[Wave] = []
    for number, group in groupby(timeline.intervals, key=lambda interval: _wave_of(interval, part)):
        if number is not None:
            inside = tuple(group)
            start_s, end_s = inside[0].start_s, inside[-1].end_s
            change_s = start_s - found[-1].end_s if found else 0
            found.append(Wave(number, start_s, end_s, change_s, _swap_s(inside)))
    return tuple(found)


def _swap_s(inside: Sequence[TimelineInterval]) -> int:
    start_s, end_s = inside[0].start_s, inside[-1].end_s
    middle_s = (start_s + end_s) // 2
    begins = [interval.start_s for interval in inside[1:] if interval.kind == "work" and not interval.partner]
    nearest = min(begins, key=lambda at: abs(at - middle_s), default=middle_s)
    return nearest if abs(nearest - middle_s) <= NEAR_HALF * (end_s - start_s) else middle_s


def _resting(interval: TimelineInterval) -> TimelineInterval:
    return replace(interval, tempo="rest", source=Interval(interval.seconds, "rest"), partner=False)


def _instead(interval: TimelineInterval, tempo: str, modality: str | None) -> TimelineInterval:
    """Other work in its place: as long, and nothing that was said of what is struck."""
    struck = modality is None or modality in BAGS
    drill = interval.source.drill if struck and TEMPOS[tempo].pace is not None else None
    done = Interval(interval.seconds, tempo, modality=modality, drill=drill)
    return replace(interval, tempo=tempo, source=done, partner=False)


def _eased(interval: TimelineInterval) -> TimelineInterval:
    """As somebody does it who must not go hard."""
    hard = interval.kind == "work" and interval.demand_frac > TEMPOS[EASY].demand_frac
    if not hard:
        return interval
    modality = interval.source.modality
    strikes = modality is None or MODALITIES[modality].strikes
    return _instead(interval, EASY if strikes else "recover", modality)


def _cut(interval: TimelineInterval, at_s: int) -> Iterator[TimelineInterval]:
    """The interval in two where a moment is inside it."""
    if interval.start_s < at_s < interval.end_s and interval.timed:
        yield replace(interval, seconds=at_s - interval.start_s)
        yield replace(interval, start_s=at_s, seconds=interval.end_s - at_s)
    else:
        yield interval


def _at_pads(interval: TimelineInterval, wave: Wave, first: bool, holds: bool) -> Iterator[TimelineInterval]:
    """One of the two hits until they swap, and the other holds."""
    for piece in _cut(as_work(interval), wave.swap_s):
        if piece.kind != "work":
            yield piece
        elif (piece.start_s < wave.swap_s) == first:
            struck = piece.source.modality is None or piece.source.modality in BAGS
            done = replace(piece.source, modality="pads") if struck and piece.source.modality != "shadow" else None
            yield replace(piece, source=done or piece.source)
        elif holds:
            yield _instead(piece, HOLDING.tempo, HOLDING.modality)
        else:
            yield _instead(piece, EASY, "shadow")


def _at(interval: TimelineInterval, wave: Wave, station: str, board: Board, who: OnBoard) -> Iterator[TimelineInterval]:
    kind, words = kind_of(station), station.split(" ")
    if kind in ("wait", "away"):
        yield _resting(interval)
    elif kind == "pads":
        yield from _at_pads(interval, wave, words[-1] == "hit", who.holds)
    elif kind == COACH:
        own = as_work(interval)
        yield replace(own, source=replace(own.source, modality="pads")) if own.kind == "work" else own
    elif kind == "bag":
        mine = not (interval.source.pairs or interval.partner) or interval.partner == (words[-1] == "B")
        yield as_work(interval) if mine else _resting(interval)
    else:
        own = as_work(interval)
        doing = board.at.get(station)
        if doing is None or own.kind != "work":
            yield own
        else:
            yield _instead(own, doing.tempo or own.tempo, doing.modality)


def lived(timeline: Timeline, board: Board, place: int) -> Timeline:
    """The session as the person at a place has it, from 0, by the clock of all: where they are not there, they rest.

    `timeline` is that of two where bags are shared. Raises `IndexError` for a place that is not there.
    """
    who = board.people[place]
    waves = {wave.number: wave for wave in waves_of(timeline, board.part)}
    start_s, end_s = present_s(timeline, board, place)
    found: list[TimelineInterval] = []
    for interval in timeline.intervals:
        number = _wave_of(interval, board.part)
        if not start_s <= interval.start_s < end_s:
            found.append(_resting(interval))
        elif number is None:
            found.append(interval)
        else:
            found.extend(_at(interval, waves[number], who.row[number - 1], board, who))
    return replace(timeline, intervals=tuple(_eased(each) if who.easy else each for each in found))


def present_s(timeline: Timeline, board: Board, place: int) -> tuple[int, int]:
    """From when to when the person is there [s]; nothing of it where they do not come."""
    row = board.people[place].row
    there = [number for number, station in enumerate(row) if station != "away"]
    if not there:
        return 0, 0
    waves = waves_of(timeline, board.part)
    start_s = 0 if there[0] == 0 else waves[there[0]].start_s - waves[there[0]].change_s
    end_s = timeline.total_s if there[-1] == len(row) - 1 else waves[there[-1]].end_s
    return start_s, end_s


def present(timeline: Timeline, board: Board, place: int) -> Timeline:
    """The session as the person has it while they are there, from 0."""
    start_s, end_s = present_s(timeline, board, place)
    own = lived(timeline, board, place)
    inside = (each for each in own.intervals if start_s <= each.start_s < end_s)
    return replace(own, intervals=tuple(replace(each, start_s=each.start_s - start_s) for each in inside))
