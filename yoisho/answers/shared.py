"""What the core and the browser must both know: `web/src/api/shared.json` and `vectors.json` are written from it.

Constants that are words on screen, ids; and vectors: cases with their answers, that the tests of both sides hold to.
"""

from typing import Any, get_args

import numpy as np

from yoisho.engine.measures import LACTIC_DEEP
from yoisho.judgement.stop_signs import STOP_SIGNS
from yoisho.runs.cues import SoundKind
from yoisho.runs.pairs import MOST, whose
from yoisho.runs.record import MOSTLY, Record, Stretch, covered_s, mostly
from yoisho.runs.sound import RATE, sound_of

_PLAYED: tuple[tuple[tuple[float, float], ...], ...] = (
    ((0, 100),),
    ((-10, 12),),
    ((0, 20), (30, 60)),
    ((30, 60), (0, 20)),
    ((0, 40), (20, 60)),
    ((0, 10), (0, 10), (5, 8)),
    ((3.25, 27.5), (27.5, 28)),
    (),
)
_ASKED = ((0, 20), (10, 50), (0, 60), (59, 61), (25, 30))


def _coverage() -> list[dict[str, Any]]:
    found = []
    for played in _PLAYED:
        stretches = tuple(Stretch(*each) for each in played)
        for start, end in _ASKED:
            seconds = round(covered_s(stretches, start, end), 6)
            done = mostly(Record(stretches), start, end)
            found.append({"played": played, "from_s": start, "to_s": end, "covered_s": seconds, "done": done})
    return found


def _turns() -> list[dict[str, int]]:
    return [
        {"turn": turn, "of": of, "shift": shift, "place": whose(turn, of, shift)}
        for turn in (0, 1, 2, 5, 11)
        for of in range(1, MOST + 1)
        for shift in (0, 1, 3)
    ]


def _sounds() -> list[dict[str, Any]]:
    """Of every sound its length and some of its samples, against the loudest: a track sounds as the floor does."""
    found = []
    for kind in get_args(SoundKind):
        samples = sound_of(kind)
        at = np.unique(np.geomspace(40, len(samples) - 1, 30).astype(int))
        values = np.round(samples[at] / np.abs(samples).max(), 3)
        found.append({"kind": kind, "rate": RATE, "length": len(samples), "at": at.tolist(), "values": values.tolist()})
    return found


def shared() -> dict[str, Any]:
    return {
        "lactic_deep": LACTIC_DEEP,
        "mostly": MOSTLY,
        "stop_signs": STOP_SIGNS,
    }


def vectors() -> dict[str, Any]:
    return {"coverage": _coverage(), "turns": _turns(), "sounds": _sounds()}
