"""What changes while a class runs: somebody comes late or leaves, two change places. What is done stays as it was."""

from collections import Counter
from dataclasses import replace

from yoisho.classes.board import COACH, Board, OnBoard, kind_of
from yoisho.rotation.group import ClassError, Group, Kind
from yoisho.rotation.ring import Rows


def _gear(board: Board) -> tuple[tuple[str, ...], int, tuple[str, ...]]:
    """Bags, pairs of pads and places off the bag that the board knows of."""
    waves = len(board.people[0].row)
    bags: dict[str, None] = {}
    pads = 0
    spots: Counter[str] = Counter()
    for wave in range(waves):
        here = [each.row[wave] for each in board.people]
        bags.update(dict.fromkeys(station for station in here if kind_of(station) in ("bag", COACH)))
        pads = max(pads, *(int(station.split(" ")[1]) for station in here if kind_of(station) == "pads"), 0)
        off = Counter(station for station in here if kind_of(station) not in ("bag", COACH, "pads", "wait", "away"))
        spots |= off
    places = tuple(sorted(bags, key=lambda name: (name == COACH, len(name), name)))
    return places, pads, tuple(spots.elements())


def _came(row: tuple[str, ...]) -> tuple[int, int]:
    """The first and the last wave that somebody is there, from 1; nought for nobody."""
    there = [number for number, station in enumerate(row, 1) if station != "away"]
    return (there[0], there[-1]) if there else (1, 0)


def _solved(board: Board, done: int, swapped: tuple[tuple[str, int, str], ...] = ()) -> Board:
    """The board with its first waves as they were and the rest solved around what is fixed."""
    bags, pads, spots = _gear(board)
    waves = len(board.people[0].row)
    free = "floor" if not spots or "floor" in spots else spots[0]
    present = max(sum(each.row[wave] != "away" for each in board.people) for wave in range(waves))
    short = max(0, present - len(bags) - 2 * pads - len(spots))
    spots += (free,) * short
    came = {each.name: _came(each.row) for each in board.people}
    past = tuple(
        (each.name, wave, each.row[wave - 1])
        for each in board.people
        for wave in range(came[each.name][0], min(done, came[each.name][1]) + 1)
    )
    group = Group(
        tuple(each.name for each in board.people), waves, len(bags), pads, len(spots),
        from_wave={who: first for who, (first, last) in came.items() if last and first > 1},
        absent_after={who: last for who, (first, last) in came.items() if last < waves},
        pins=(*past, *swapped), bag_names=bags, spots=spots,
    )  # fmt: skip
    near: Rows = {each.name: [_kind(group, station) for station in each.row] for each in board.people}
    # The solver takes half a second and much memory to load: where nobody solves, a server does without.
    from yoisho.rotation.solve import solve

    found = solve(group, near)
    rows = {
        each.name: (*each.row[:done], *found.rows[each.name][done:]) for each in board.people
    }  # fmt: skip
    return replace(board, people=tuple(replace(each, row=tuple(rows[each.name])) for each in board.people))


def _kind(group: Group, station: str) -> Kind:
    return "away" if station == "away" else next(iter(group.kinds_at(station)), "wait")


def with_late(board: Board, name: str, from_wave: int, *, easy: bool = False, holds: bool = True) -> Board:
    """Somebody more from a wave on, from 1. Raises `ClassError` where that cannot be."""
    waves = len(board.people[0].row)
    if not 1 <= from_wave <= waves:
        raise ClassError(f"this class has waves 1 to {waves}; wave {from_wave} is none of them", "from_wave")
    if any(each.name == name for each in board.people):
        raise ClassError(f"'{name}' is here already; give this one another name", "name")
    row = ("away",) * (from_wave - 1) + ("wait",) * (waves - from_wave + 1)
    return _solved(replace(board, people=(*board.people, OnBoard(name, row, easy, holds))), from_wave - 1)


def without(board: Board, place: int, from_wave: int) -> Board:
    """Somebody leaves before a wave, from 1; what they had done stays."""
    who = board.people[place]
    row = who.row[: from_wave - 1] + ("away",) * (len(who.row) - from_wave + 1)
    people = tuple(replace(each, row=row) if at == place else each for at, each in enumerate(board.people))
    return _solved(replace(board, people=people), from_wave - 1)


def swapped(board: Board, one: int, other: int, wave: int) -> Board:
    """Two change places in a wave, from 1; the waves after it are solved around that."""
    here, there = board.people[one], board.people[other]
    if "away" in (here.row[wave - 1], there.row[wave - 1]):
        raise ClassError(f"one of them is not there in wave {wave}", "wave")
    pins = ((here.name, wave, there.row[wave - 1]), (there.name, wave, here.row[wave - 1]))
    return _solved(board, wave - 1, pins)
