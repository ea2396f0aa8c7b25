"""A session as an open, versioned document of plain values: what is stored, sent and exported."""

from dataclasses import dataclass
from typing import Any

from yoisho.session.tree import DEEPEST, Interval, Node, Repeat, Sequence, SessionError

FORMAT = "yoisho-session"
VERSION = 1
MOST_PARTS = 40


class DocumentError(SessionError):
    """A document that is not a session: where in it the fault is, and what would be right."""

    def __init__(self, path: str, message: str):
        super().__init__(f"{path}: {message}")
        self.path = path
        self.message = message


@dataclass(frozen=True)
class Part:
    name: str
    tree: Node


@dataclass(frozen=True)
class Session:
    title: str
    parts: tuple[Part, ...]

    def __post_init__(self) -> None:
        if len(self.parts) > MOST_PARTS:
            raise SessionError(f"a session has at most {MOST_PARTS} parts")


def tree_to_dict(node: Node) -> dict[str, Any]:
    match node:
        case Interval():
            return {"type": "interval", "seconds": node.seconds, "tempo": node.tempo}
        case Sequence():
            return {"type": "sequence", "items": [tree_to_dict(item) for item in node.items]}
        case Repeat():
            between = tree_to_dict(node.between) if node.between else None
            return {"type": "repeat", "count": node.count, "body": tree_to_dict(node.body), "between": between}


def tree_from_dict(value: Any, path: str = "tree", room: int = DEEPEST) -> Node:
    """The tree in plain values. Raises `DocumentError` with the path to the fault."""
    if not isinstance(value, dict):
        raise DocumentError(path, "expected an object with a type")
    if room < 1:
        raise DocumentError(path, f"brackets go at most {DEEPEST} deep; split the session into parts")
    try:
        match value.get("type"):
            case "interval":
                return Interval(value.get("seconds"), value.get("tempo"))  # type: ignore[arg-type]
            case "sequence":
                items = value.get("items")
                if not isinstance(items, list):
                    raise DocumentError(f"{path}.items", "expected a list")
                return Sequence(
                    tuple(tree_from_dict(item, f"{path}.items[{i}]", room - 1) for i, item in enumerate(items))
                )
            case "repeat":
                body = tree_from_dict(value.get("body"), f"{path}.body", room - 1)
                pause = value.get("between")
                between = None if pause is None else tree_from_dict(pause, f"{path}.between", room - 1)
                if between is not None and not isinstance(between, Interval):
                    raise DocumentError(f"{path}.between", "expected one interval of rest or recover")
                return Repeat(value.get("count"), body, between)  # type: ignore[arg-type]
            case other:
                raise DocumentError(f"{path}.type", f"expected interval, sequence or repeat, not {other!r}")
    except DocumentError:
        raise
    except SessionError as error:
        raise DocumentError(path, str(error)) from error


def to_document(session: Session) -> dict[str, Any]:
    parts = [{"name": part.name, "tree": tree_to_dict(part.tree)} for part in session.parts]
    return {"format": FORMAT, "version": VERSION, "title": session.title, "parts": parts}


def from_document(document: Any) -> Session:
    """The session in a document. Raises `DocumentError` with the path to the fault."""
    if not isinstance(document, dict) or document.get("format") != FORMAT:
        raise DocumentError("format", f"expected {FORMAT!r}: this is not a session document")
    if document.get("version") != VERSION:
        raise DocumentError("version", f"this software reads version {VERSION}, not {document.get('version')!r}")
    title, parts = document.get("title"), document.get("parts")
    if not isinstance(title, str):
        raise DocumentError("title", "expected text")
    if not isinstance(parts, list):
        raise DocumentError("parts", "expected a list")
    read: list[Part] = []
    for index, part in enumerate(parts):
        where = f"parts[{index}]"
        if not isinstance(part, dict) or not isinstance(part.get("name"), str):
            raise DocumentError(f"{where}.name", "expected text")
        read.append(Part(part["name"], tree_from_dict(part.get("tree"), f"{where}.tree")))
    return Session(title, tuple(read))
