"""A session as an open, versioned document of plain values: what is stored, sent and exported.

`docs/session-format.md` describes it; `docs/session.schema.json` is its JSON Schema. A document of an earlier version
is brought up to date as it is read.
"""

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from typing import Annotated, Any

from yoisho import plain
from yoisho.plain import Length, OneOf
from yoisho.session.interval import SessionError, check_kit
from yoisho.session.kit import GLOVES, SAID
from yoisho.session.purposes import FORMER_PURPOSES, PURPOSES
from yoisho.session.timeline import Timeline, unroll
from yoisho.session.tree import DEEPEST, Node, duration_s, saying
from yoisho.strikes.drill import Drill

FORMAT = "yoisho-session"
VERSION = 4
MOST_PARTS = 40
LONGEST_NAME = 80
LONGEST_TITLE = 120
DocumentError = plain.PlainError
"""A document that is not a session: where in it the fault is, and what would be right."""


@dataclass(frozen=True)
class Part:
    name: Annotated[str, Length(0, LONGEST_NAME, checked=True)]
    tree: Node
    purpose: Annotated[str | None, OneOf(PURPOSES)] = None
    """What it is for, of `PURPOSES`; None where nothing is said."""
    gloves: Annotated[str | None, OneOf(GLOVES)] = None
    """What is on the hands in it, where its work says nothing else."""
    kit: Annotated[tuple[Annotated[str, OneOf(SAID)], ...], Length(0, len(SAID))] = ()

    def __post_init__(self) -> None:
        if self.purpose is not None and self.purpose not in PURPOSES:
            raise SessionError(f"'{self.purpose}' is not a purpose; there are {', '.join(PURPOSES)}", "purpose")
        check_kit(self.gloves, self.kit)

    @property
    def equipped(self) -> Node:
        """Its tree, in which all work says what it is done in."""
        if self.gloves is None and not self.kit:
            return self.tree
        return saying(self.tree, {"gloves": self.gloves, "kit": self.kit})


def unrolled(parts: Iterable[Part], sharing: int = 2) -> Timeline:
    """Parts one after the other, with so many `sharing` a bag where work is done in pairs.

    Raises `SessionError` if they are too long or too large together.
    """
    held = tuple(parts)
    return unroll(*(part.equipped for part in held), purposes=tuple(part.purpose for part in held), sharing=sharing)


@dataclass(frozen=True)
class Session:
    title: Annotated[str, Length(1, LONGEST_TITLE, checked=True)]
    parts: Annotated[tuple[Part, ...], Length(0, MOST_PARTS)]

    def __post_init__(self) -> None:
        if len(self.parts) > MOST_PARTS:
            raise SessionError(f"a session has at most {MOST_PARTS} parts", "parts")

    @property
    def total_s(self) -> int:
        """How long it is [s], known without unrolling it."""
        return sum(duration_s(part.tree) for part in self.parts)

    def unrolled(self, sharing: int = 2) -> Timeline:
        """Its parts one after the other; see `unrolled`."""
        return unrolled(self.parts, sharing)


def drill_to_dict(drill: Drill) -> dict[str, Any]:
    found: dict[str, Any] = plain.write(drill)
    return found


def drill_from_dict(value: Any, path: str = "drill") -> Drill:
    """The drill in plain values. Raises `DocumentError` with the path to the fault."""
    found: Drill = plain.read(Drill, value, path, DEEPEST)
    return found


def tree_to_dict(node: Node) -> dict[str, Any]:
    found: dict[str, Any] = plain.write(node)
    return found


def tree_from_dict(value: Any, path: str = "tree") -> Node:
    """The tree in plain values. Raises `DocumentError` with the path to the fault."""
    found: Node = plain.read(Node, value, path, DEEPEST)
    return found


def part_to_dict(part: Part) -> dict[str, Any]:
    found: dict[str, Any] = plain.write(part)
    return found


def to_document(session: Session) -> dict[str, Any]:
    return {"format": FORMAT, "version": VERSION, **plain.write(session)}


RENAMED = {"means": "modality", "level": "height"}
"""2 to 3: what work is done on is its modality, where a strike lands its height."""


def renamed(value: Any) -> Any:
    """Plain values of version 2, or a part of them, with the names of version 3."""
    match value:
        case dict():
            return {RENAMED.get(name, name): renamed(each) for name, each in value.items()}
        case list():
            return [renamed(each) for each in value]
    return value


def _for_fights(document: dict[str, Any]) -> dict[str, Any]:
    """3 to 4: the purpose of a part that rehearses a fight is `fight-rehearsal`."""
    parts = document.get("parts")
    if not isinstance(parts, list):
        return document
    return {**document, "parts": [_for_a_fight(part) for part in parts]}


def _for_a_fight(part: Any) -> Any:
    if isinstance(part, dict) and part.get("purpose") in FORMER_PURPOSES:
        return {**part, "purpose": FORMER_PURPOSES[part["purpose"]]}
    return part


MIGRATIONS: dict[int, Callable[[dict[str, Any]], dict[str, Any]]] = {1: dict, 2: renamed, 3: _for_fights}
"""From each earlier version to the next; 2 only added what may be left out. One entry here is all a new one needs."""


def up_to_date(document: Any) -> dict[str, Any]:
    """A document of any version as one of this version. Raises `DocumentError` where it is none of ours."""
    if not isinstance(document, dict) or document.get("format") != FORMAT:
        raise DocumentError("format", f"expected {FORMAT!r}: this is not a session document")
    version = document.get("version")
    if isinstance(version, bool) or not isinstance(version, int) or not 1 <= version <= VERSION:
        raise DocumentError("version", f"this software reads versions 1 to {VERSION}, not {version!r}")
    found: dict[str, Any] = document
    for earlier in range(version, VERSION):
        found = {**MIGRATIONS[earlier](found), "version": earlier + 1}
    return found


def from_document(document: Any) -> Session:
    """The session in a document of any version. Raises `DocumentError` with the path to the fault."""
    told = plain.only(up_to_date(document), "document", ("format", "version", "title", "parts"))
    found: Session = plain.read(Session, {"title": told.get("title"), "parts": told.get("parts")}, "", DEEPEST)
    return found


def definitions(place: str = "#/$defs/") -> dict[str, Any]:
    """The JSON Schema of the document and of all that stands in it, by name; they refer to each other at `place`."""
    schema = plain.Schema(place)
    schema.ref(Session)
    whole = schema.defs["SessionDocument"]
    head = {"format": {"const": FORMAT}, "version": {"const": VERSION}}
    whole["properties"] = {**head, **whole["properties"]}
    whole["required"] = [*head, *whole["required"]]
    return schema.defs


def json_schema() -> dict[str, Any]:
    """The JSON Schema of the document, draft 2020-12."""
    defs = definitions()
    whole = defs.pop("SessionDocument")
    about = {"$schema": "https://json-schema.org/draft/2020-12/schema", "title": "Yoisho session document"}
    return {**about, **whole, "$defs": defs}
