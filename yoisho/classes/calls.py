"""What is called in a class besides what the session says: who goes where, in the fewest words, before each wave."""

from collections.abc import Iterator

from yoisho.classes.board import COACH, Board, kind_of, waves_of
from yoisho.runs.calls import FIRST_WORD_S, Call
from yoisho.session.timeline import Timeline

FIRST_LEFT_S = 25
"""Where to go first is said when so much is left before the first wave."""
LONGEST_CALL_WORDS = 34
"""What takes longer to say is read from the board. Own setting: about 13 s."""
_TO = {"bag": "to the bags", "pads": "to the pads", "floor": "to the floor", COACH: "to the coach", "wait": "wait"}


def _joined(names: list[str]) -> str:
    return names[0] if len(names) == 1 else f"{', '.join(names[:-1])} and {names[-1]}"


def _called(board: Board, label: str) -> str:
    return f"{label}s" if board.teams else label


def moving(board: Board, wave: int) -> str:
    """Who goes where for a wave, from 1, as it is called."""
    first = "First." if wave == 1 else "Change."
    going: dict[str, list[str]] = {}
    for each, label in zip(board.people, board.labels, strict=True):
        station = each.row[wave - 1]
        if station != "away":
            names = going.setdefault(kind_of(station), [])
            if _called(board, label) not in names:
                names.append(_called(board, label))
    if not going or not all(all(names) for names in going.values()):
        return f"{first} Look at the board"
    order = sorted(going, key=lambda kind: (list(_TO).index(kind) if kind in _TO else 2.5, kind))
    if len(going) == 1:
        return f"{first} All {_TO.get(order[0], 'to the ' + order[0])}"
    said = f"{first} " + ". ".join(f"{_joined(going[kind])} {_TO.get(kind, 'to ' + kind)}" for kind in order)
    return said if len(said.split()) <= LONGEST_CALL_WORDS else f"{first} Look at the board"


def board_calls(timeline: Timeline, board: Board) -> Iterator[Call]:
    """Where everybody goes, said as the change begins; and at half of a wave that the two at the pads swap."""
    for wave in waves_of(timeline, board.part):
        text = moving(board, wave.number)
        if wave.number == 1:
            yield Call(max(FIRST_WORD_S, wave.start_s - FIRST_LEFT_S) if wave.start_s else -9.0, "move", text)
        elif any(kind_of(each.row[wave.number - 1]) != kind_of(each.row[wave.number - 2]) for each in board.people):
            yield Call(wave.start_s - wave.change_s + FIRST_WORD_S, "move", text)
        if any(kind_of(each.row[wave.number - 1]) == "pads" for each in board.people):
            yield Call(wave.swap_s + 0.2, "swap", "pads, swap")
