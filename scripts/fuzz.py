"""Throw text at the readers of both languages for so many seconds: `fuzz.py SECONDS`.

Text is made three ways: any characters, words of the languages in any order, and true lines with a few characters
changed. A reader may refuse with a place inside the text and a cure; what it reads must be written so that it reads the
same again. Anything else is a fault.
"""

import random
import sys
import time
from collections.abc import Callable
from pathlib import Path
from typing import Any

ROOT = Path(__file__).resolve().parent.parent
sys.path.insert(0, str(ROOT))

from yoisho.protocols import PROTOCOLS  # noqa: E402
from yoisho.session.modality import modality_spellings  # noqa: E402
from yoisho.session.purposes import purpose_spellings  # noqa: E402
from yoisho.session.shorthand import assist, read, read_parts, write, write_parts  # noqa: E402
from yoisho.strikes import notation  # noqa: E402
from yoisho.strikes.line import LineError  # noqa: E402
from yoisho.strikes.schools import SCHOOLS  # noqa: E402
from yoisho.strikes.techniques import spellings  # noqa: E402
from yoisho.strikes.tempo import tempo_spellings  # noqa: E402

TRUE_LINES = [version.lines for protocol in PROTOCOLS.values() for version in protocol.versions]
WORDS = [
    *tempo_spellings(), *modality_spellings(), *purpose_spellings(), *spellings(), *"()[]|,;/:@%\"'x×-\n", "then",
    "rest 1:00", "3 x", "20", "1:30", "1-2-3b", "9-7-5", "reps", "strikes", "min", "switch every 0:15", "at half",
    "call", "every", "to 120 beats", "@80-90%HR", "in pairs", "left lead", "adding", "draw", "pyramid", "recall",
    "rk-l", "5x",
]  # fmt: skip
ANY = "".join(map(chr, range(32, 127))) + "\n\t×–“”’éßİ٣²Ⅷ\u200b\U0001f94a"


def texts(rng: random.Random) -> str:
    kind = rng.randrange(3)
    if kind == 0:
        return "".join(rng.choices(ANY, k=rng.randrange(60)))
    if kind == 1:
        return rng.choice(["", " "]).join(rng.choices(WORDS, k=rng.randrange(1, 14)))
    line = list(rng.choice(TRUE_LINES))
    for _ in range(rng.choice((0, 1, 1, 1, 2, 4))):
        at = rng.randrange(len(line) or 1)
        line[at : at + rng.randrange(3)] = rng.choice([rng.choices(ANY, k=rng.randrange(3)), rng.choice(WORDS)])
    return "".join(line)


class FuzzError(Exception):
    """A reader that broke its promise."""


READERS: tuple[tuple[Callable[[str, str], Any], Callable[[Any, str], str]], ...] = (
    (read, write),
    (read_parts, write_parts),
    (notation.read, notation.write),
    (notation.read_drill, notation.write_drill),
)


def try_one(text: str, school: str) -> int:
    """How many of the readers read it. Raises where one falls over."""
    understood = 0
    for reader, writer in READERS:
        try:
            found = reader(text, school)
        except LineError as error:
            if not (0 <= error.position <= len(text) and error.message):
                raise FuzzError(f"refused at {error.position}, outside the text, or without a word") from error
            continue
        understood += 1
        again = reader(writer(found, school), school)
        assert again == found, f"written as {writer(found, school)!r}"
    for span in assist.spans(text):
        assert 0 <= span.start < span.end <= len(text)
    assert 0 <= assist.complete(text).start <= len(text)
    return understood


def main(seconds: float) -> int:
    rng = random.Random()
    ends, tried, understood = time.monotonic() + seconds, 0, 0
    said = time.monotonic()
    while time.monotonic() < ends:
        text = texts(rng)
        try:
            understood += try_one(text, rng.choice(sorted(SCHOOLS))) > 0
        except Exception as error:
            print(f"\n{text!r}\n{type(error).__name__}: {error}")
            raise
        tried += 1
        if sys.stdout.isatty() and time.monotonic() - said > 1:
            said = time.monotonic()
            print(f"{tried} texts, {understood} of them understood, {ends - said:.0f} s to go ", end="\r", flush=True)
    print(f"{tried} texts, {understood} of them understood; none made a reader fall over")
    return 0


if __name__ == "__main__":
    raise SystemExit(main(float(sys.argv[1])))
