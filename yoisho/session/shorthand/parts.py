"""A whole session as lines: `Warm-up: 10:00 skip`, `Main set (threshold, 16 oz gloves): 3 x (1:00 power / 30 flow)`.

A name and a colon begin a part, with its purpose and its kit in brackets where they are stated; lines without one go on
with it.
"""

import re
from dataclasses import dataclass
from difflib import get_close_matches

from yoisho.session.document import LONGEST_NAME, MOST_PARTS, Part
from yoisho.session.kit import kit_spellings, words
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


@dataclass(frozen=True)
class _Head:
    """What the line says that begins a part."""

    name: str
    purpose: str | None
    gloves: str | None
    kit: tuple[str, ...]
    begins: int
    """Where its pattern begins."""


def _head(match: re.Match[str], start: int) -> _Head:
    name = _name(match)
    if len(name) > LONGEST_NAME:
        raise ShorthandError(f"A part's name has at most {LONGEST_NAME} characters.", start)
    purpose = purpose_spellings().get(name.lower()) if name.lower() in _OWN_NAME else None
    gloves: str | None = None
    kit: list[str] = []
    position = start + (match.start("purpose") if match["purpose"] is not None else 0)
    for said in match["purpose"].split(",") if match["purpose"] is not None else ():
        word = " ".join(said.lower().split())
        named, found = kit_spellings().get(word, ("purpose", purpose_spellings().get(word)))
        if found is None:
            raise _neither(said.strip(), position + len(said) - len(said.lstrip()))
        if named == "kit":
            kit.append(found)
        elif named == "gloves":
            gloves = found
        else:
            purpose = found
        position += len(said) + 1
    return _Head(name, purpose, gloves, tuple(dict.fromkeys(kit)), start + match.end())


def _neither(said: str, position: int) -> ShorthandError:
    known = [*purpose_spellings(), *kit_spellings()]
    nearest = get_close_matches(said.lower(), known, n=1, cutoff=0.5)
    words = {purpose.id: purpose.word for purpose in PURPOSES.values()}
    suggestion = words.get(nearest[0], nearest[0]) if nearest else None
    hint = f"Did you mean {suggestion}?" if suggestion else f"Purposes are {', '.join(words.values())}."
    return ShorthandError(f"“{said}” is not a purpose, nor kit. {hint}", position, ("a purpose",), suggestion)


_OWN_NAME = {word for word, purpose in purpose_spellings().items() if purpose in FRAMES}
"""Names that state their purpose by themselves."""


def read_parts(text: str, school_id: str = DEFAULT_SCHOOL) -> tuple[Part, ...]:
    """The parts that several lines mean.

    Raises `ShorthandError` with the character at fault in the whole text, what was expected there, and an example.
    """
    if len(text) > LONGEST_TEXT:
        raise ShorthandError(f"A session has at most {LONGEST_TEXT} characters.", LONGEST_TEXT)
    heads: list[_Head] = []
    places: list[int] = []
    start = 0
    for line in text.splitlines(keepends=True):
        match = _HEAD.match(line)
        if match:
            heads.append(_head(match, start))
            places.append(start)
        elif line.strip() and not heads:
            heads.append(_Head(UNNAMED, None, None, (), start))
            places.append(start)
        start += len(line)
    if not heads:
        raise ShorthandError("Nothing to read yet: type a pattern.", 0, ("a number",))
    if len(heads) > MOST_PARTS:
        raise ShorthandError(f"A session has at most {MOST_PARTS} parts.", places[MOST_PARTS])
    parts = []
    for head, end in zip(heads, [*places[1:], len(text)], strict=True):
        try:
            tree = read(text[head.begins : end], school_id, _UNSAID.get(head.purpose or ""))
        except ShorthandError as error:
            raise error.moved(head.begins, ShorthandError) from error
        parts.append(Part(head.name, tree, head.purpose, head.gloves, head.kit))
    return tuple(parts)


def write_parts(parts: tuple[Part, ...], school_id: str = DEFAULT_SCHOOL) -> str:
    """The canonical lines. A name that would not read back as one is made to: brackets and colons are left out."""
    lines = []
    for part in parts:
        name = re.sub(r"[:()\[\]\n]+", " ", part.name).strip()
        name = " ".join(name.split()) if re.match(r"[^\W\d]", name) else f"Part {name}".strip()
        own = purpose_spellings().get(name.lower()) if name.lower() in _OWN_NAME else None
        stated = [PURPOSES[part.purpose].word] if part.purpose and part.purpose != own else []
        stated += words(part.gloves, part.kit)
        said = f" ({', '.join(stated)})" if stated else ""
        lines.append(f"{name}{said}: {write(part.tree, school_id)}")
    return "\n".join(lines)
