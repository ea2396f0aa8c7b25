"""A whole session as lines: `Warm-up: 10:00 skip`, `Main set (lactic capacity): 8 x (30 power / 30 flow)`.

A name and a colon begin a part, with its purpose in brackets where one is stated; lines without one go on with it.
"""

import re
from difflib import get_close_matches

from yoisho.session.document import LONGEST_NAME, MOST_PARTS, Part
from yoisho.session.purposes import FRAMES, PURPOSES, purpose_spellings
from yoisho.session.shorthand.faults import ShorthandError
from yoisho.session.shorthand.reader import LONGEST_TEXT, read
from yoisho.session.shorthand.writer import write
from yoisho.strikes.schools import DEFAULT_SCHOOL

UNNAMED = "Main set"
_FRAME = "|".join(re.escape(w) for w, p in purpose_spellings().items() if p in FRAMES)
_HEAD = re.compile(
    r"[ \t]*(?P<name>[^\W\d][^:\n()\[\]]*?)[ \t]*(?:\((?P<purpose>[^)\n]*)\)[ \t]*)?:(?=\s|$)"
    rf"|[ \t]*(?P<frame>{_FRAME})(?=[ \t]+\d|[ \t]*$)",
    re.IGNORECASE | re.MULTILINE,
)
_UNSAID = {"warm-up": "flow", "cool-down": "recover"}
"""The effort of a time that says none, by the frame it stands in."""


def names_parts(text: str) -> bool:
    """Whether any line begins a part of its own."""
    return any(_HEAD.match(line) for line in text.splitlines())


def _name(match: re.Match[str]) -> str:
    return " ".join((match["name"] or match["frame"]).split())


def _purpose(match: re.Match[str], start: int) -> str | None:
    said, name = match["purpose"], _name(match).lower()
    if said is None:
        return purpose_spellings().get(name) if name in _OWN_NAME else None
    found = purpose_spellings().get(" ".join(said.lower().split()))
    if found is None:
        nearest = get_close_matches(said.lower(), purpose_spellings(), n=1, cutoff=0.5)
        words = ", ".join(purpose.word for purpose in PURPOSES.values())
        hint = f"Did you mean {nearest[0]}?" if nearest else f"Purposes are {words}."
        position = start + match.start("purpose")
        suggestion = nearest[0] if nearest else None
        raise ShorthandError(f"“{said}” is not a purpose. {hint}", position, ("a purpose",), suggestion)
    return found


_OWN_NAME = {word for word, purpose in purpose_spellings().items() if purpose in FRAMES}
"""Names that state their purpose by themselves."""


def read_parts(text: str, school_id: str = DEFAULT_SCHOOL) -> tuple[Part, ...]:
    """The parts that several lines mean.

    Raises `ShorthandError` with the character at fault in the whole text, what was expected there, and an example.
    """
    if len(text) > LONGEST_TEXT:
        raise ShorthandError(f"A session has at most {LONGEST_TEXT} characters.", LONGEST_TEXT)
    heads: list[tuple[str, str | None, int]] = []
    places: list[int] = []
    start = 0
    for line in text.splitlines(keepends=True):
        match = _HEAD.match(line)
        if match:
            if len(_name(match)) > LONGEST_NAME:
                raise ShorthandError(f"A part's name has at most {LONGEST_NAME} characters.", start)
            heads.append((_name(match), _purpose(match, start), start + match.end()))
            places.append(start)
        elif line.strip() and not heads:
            heads.append((UNNAMED, None, start))
            places.append(start)
        start += len(line)
    if not heads:
        raise ShorthandError("Nothing to read yet: type a pattern.", 0, ("a number",))
    if len(heads) > MOST_PARTS:
        raise ShorthandError(f"A session has at most {MOST_PARTS} parts.", places[MOST_PARTS])
    parts = []
    for (name, purpose, begin), end in zip(heads, [*places[1:], len(text)], strict=True):
        body = text[begin:end]
        try:
            parts.append(Part(name, read(body, school_id, _UNSAID.get(purpose or "")), purpose))
        except ShorthandError as error:
            raise error.moved(begin, ShorthandError) from error
    return tuple(parts)


def write_parts(parts: tuple[Part, ...], school_id: str = DEFAULT_SCHOOL) -> str:
    """The canonical lines. A name that would not read back as one is made to: brackets and colons are left out."""
    lines = []
    for part in parts:
        name = re.sub(r"[:()\[\]\n]+", " ", part.name).strip()
        name = " ".join(name.split()) if re.match(r"[^\W\d]", name) else f"Part {name}".strip()
        own = purpose_spellings().get(name.lower()) if name.lower() in _OWN_NAME else None
        purpose = f" ({PURPOSES[part.purpose].word})" if part.purpose and part.purpose != own else ""
        lines.append(f"{name}{purpose}: {write(part.tree, school_id)}")
    return "\n".join(lines)
