"""A ladder over weeks in one line: `6 x 30 all out rest 90/75/60` is three sessions of one series.

Two numbers with a stroke between are work and rest. A ladder over weeks is several behind `rest` or `recover`, three
or more before `x` or `rounds`, or three or more times of one effort.
"""

import re
from itertools import pairwise

_TIME = r"\d+(?:[:']\d\d)?(?:[ \t]*(?:s|secs?|seconds?|m|mins?|minutes?)(?![a-z])\.?)?"
_STEP = re.compile(r"[ \t]*/[ \t]*")
_LADDERS = re.compile(
    rf"(?<=[a-z])[ \t]*(?:for[ \t]+)?(?<![\d:/])(?P<rest>{_TIME}(?:[ \t]*/[ \t]*{_TIME})+)"
    r"(?=[ \t]*(?:$|[,;)\n]|then(?![a-z])|between(?![a-z])))"
    r"|(?<![\d:/])(?P<rounds>\d+(?:[ \t]*/[ \t]*\d+){2,})(?=[ \t]*(?:[x×*]|rounds?(?![a-z])|sets?(?![a-z])))"
    rf"|(?<![\d:/])(?P<work>{_TIME}(?:[ \t]*/[ \t]*{_TIME}){{2,}})(?=[ \t]+[a-z(\[])",
    re.IGNORECASE | re.MULTILINE,
)
_PAUSE = re.compile(r"(?:rest|recover|recovery|off|pause|active|(?<![a-z])r)[ \t]*(?:for[ \t]+)?$", re.IGNORECASE)
MOST_WEEKS = 12


def _ladders(text: str) -> list[tuple[int, int, list[str]]]:
    """Where each ladder stands, and its steps."""
    found = []
    for match in _LADDERS.finditer(text):
        name = str(match.lastgroup)
        start, end = match.span(name)
        if name == "rest" and not _PAUSE.search(text[:start]):
            continue
        found.append((start, end, _STEP.split(match[name])))
    return found


def weeks(text: str) -> tuple[str, ...]:
    """The lines of a series, one for each week; the line alone where it holds no ladder over weeks.

    Several ladders climb together; where their lengths differ, none is read as one.
    """
    ladders = _ladders(text)
    many = {len(steps) for _, _, steps in ladders}
    if len(many) != 1 or not 2 <= (count := many.pop()) <= MOST_WEEKS:
        return (text,)
    lines = []
    for week in range(count):
        line = text
        for start, end, steps in reversed(ladders):
            line = line[:start] + steps[week] + line[end:]
        lines.append(line)
    return tuple(lines) if all(a != b for a, b in pairwise(lines)) else (text,)


def place(text: str) -> tuple[int, str]:
    """Where the first ladder begins, and the ladder as it stands there."""
    start, end, _ = _ladders(text)[0]
    return start, text[start:end]
