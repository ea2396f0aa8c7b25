"""A session as an open, versioned document of plain values: what is stored, sent and exported.

`docs/session-format.md` describes it; `docs/session.schema.json` is its JSON Schema. A document of an earlier version
is brought up to date as it is read.
"""

from collections.abc import Callable
from dataclasses import dataclass
from inspect import signature
from typing import Any, TypeVar

from yoisho.session.interval import Beat, HeartBand, Interval, RepeatingCue, SessionError
from yoisho.session.purposes import PURPOSES
from yoisho.session.timeline import Timeline, unroll
from yoisho.session.tree import DEEPEST, Node, Repeat, Sequence
from yoisho.strikes.combination import Action, Combination, CombinationError
from yoisho.strikes.drill import Drill

Made = TypeVar("Made")
FORMAT = "yoisho-session"
VERSION = 2
MOST_PARTS = 40
LONGEST_NAME = 80


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
    purpose: str | None = None
    """What it is for, of `PURPOSES`; None where nothing is said."""

    def __post_init__(self) -> None:
        if self.purpose is not None and self.purpose not in PURPOSES:
            raise SessionError(f"'{self.purpose}' is not a purpose; there are {', '.join(PURPOSES)}")


@dataclass(frozen=True)
class Session:
    title: str
    parts: tuple[Part, ...]

    def __post_init__(self) -> None:
        if len(self.parts) > MOST_PARTS:
            raise SessionError(f"a session has at most {MOST_PARTS} parts")

    def unrolled(self) -> Timeline:
        """Its parts one after the other. Raises `SessionError` if they are too long or too large together."""
        return unroll(*(part.tree for part in self.parts))


def drill_to_dict(drill: Drill) -> dict[str, Any]:
    return {
        "order": drill.order,
        "recall": drill.recall,
        "combinations": [combination_to_list(each) for each in drill.combinations],
    }


def combination_to_list(combination: Combination) -> list[list[dict[str, Any]]]:
    """Groups of actions; a side or a level that a technique does not have is null."""
    return [
        [{"technique": one.technique, "side": one.side, "level": one.level} for one in group]
        for group in combination.groups
    ]


def _interval_to_dict(interval: Interval) -> dict[str, Any]:
    """What is not said is left out."""
    said: dict[str, Any] = {
        "seconds": interval.seconds,
        "reps": list(interval.reps) or None,
        "tempo": interval.tempo,
        "means": interval.means,
        "drill": drill_to_dict(interval.drill) if interval.drill else None,
        "lead": interval.lead,
        "switch": interval.switch,
        "cues": [{"text": cue.text, "every_s": cue.every_s} for cue in interval.cues] or None,
        "beat": {"per_min": interval.beat.per_min, "strikes": interval.beat.strikes} if interval.beat else None,
        "band": {"low": interval.band.low, "high": interval.band.high} if interval.band else None,
        "pairs": interval.pairs or None,
    }
    return {"type": "interval", **{name: value for name, value in said.items() if value is not None}}


def tree_to_dict(node: Node) -> dict[str, Any]:
    match node:
        case Interval():
            return _interval_to_dict(node)
        case Sequence():
            return {"type": "sequence", "items": [tree_to_dict(item) for item in node.items]}
        case Repeat():
            between = tree_to_dict(node.between) if node.between else None
            return {"type": "repeat", "count": node.count, "body": tree_to_dict(node.body), "between": between}


def _only(value: Any, path: str, *names: str) -> dict[str, Any]:
    """The object, if it holds nothing but these."""
    if not isinstance(value, dict):
        raise DocumentError(path, f"expected an object with {', '.join(names)}")
    for name in value:
        if name not in names:
            raise DocumentError(f"{path}.{name}", f"this is not known here; there are {', '.join(names)}")
    return value


def _list(value: Any, path: str) -> list[Any]:
    if not isinstance(value, list):
        raise DocumentError(path, "expected a list")
    return value


def _made(path: str, make: Callable[..., Made], *values: Any, **named: Any) -> Made:
    """What is made, with the path to it where it makes no sense."""
    try:
        return make(*values, **named)
    except DocumentError:
        raise
    except (SessionError, CombinationError) as error:
        raise DocumentError(path, str(error)) from error
    except TypeError as error:
        raise DocumentError(path, "something is missing here, or of the wrong kind") from error


def combination_from_list(value: Any, path: str = "combination") -> Combination:
    """The combination in plain values. Raises `DocumentError` with the path to the fault."""
    groups = []
    for g, group in enumerate(_list(value, path)):
        actions = []
        for a, one in enumerate(_list(group, f"{path}[{g}]")):
            where = f"{path}[{g}][{a}]"
            said = _only(one, where, "technique", "side", "level")
            actions.append(_made(where, Action, said.get("technique"), said.get("side"), said.get("level")))
        groups.append(tuple(actions))
    return _made(path, Combination, tuple(groups))


def drill_from_dict(value: Any, path: str = "drill") -> Drill:
    """The drill in plain values. Raises `DocumentError` with the path to the fault."""
    said = _only(value, path, "order", "recall", "combinations")
    combinations = tuple(
        combination_from_list(each, f"{path}.combinations[{i}]")
        for i, each in enumerate(_list(said.get("combinations"), f"{path}.combinations"))
    )
    if not isinstance(said.get("recall", False), bool):
        raise DocumentError(f"{path}.recall", "expected true or false")
    return _made(path, Drill, combinations, said.get("order", "turns"), said.get("recall", False))


_SAID = ("type", "seconds", "reps", "tempo", "means", "drill", "lead", "switch", "cues", "beat", "band", "pairs")


def _interval_from_dict(value: dict[str, Any], path: str) -> Interval:
    said = _only(value, path, *_SAID)
    cues = _list(said.get("cues") or [], f"{path}.cues")
    if not isinstance(said.get("pairs") or False, bool):
        raise DocumentError(f"{path}.pairs", "expected true or false")
    drill = said.get("drill")
    return _made(
        path,
        Interval,
        said.get("seconds"),
        said.get("tempo", ""),
        reps=tuple(_list(said.get("reps") or [], f"{path}.reps")),
        means=said.get("means"),
        drill=None if drill is None else drill_from_dict(drill, f"{path}.drill"),
        lead=said.get("lead"),
        switch=said.get("switch"),
        cues=tuple(_small(RepeatingCue, cue, f"{path}.cues[{i}]") for i, cue in enumerate(cues)),
        beat=None if said.get("beat") is None else _small(Beat, said["beat"], f"{path}.beat"),
        band=None if said.get("band") is None else _small(HeartBand, said["band"], f"{path}.band"),
        pairs=said.get("pairs") or False,
    )


def _small(make: Callable[..., Made], value: Any, path: str) -> Made:
    """A cue, a beat or a band: its fields as they are."""
    return _made(path, make, **_only(value, path, *signature(make).parameters))


def tree_from_dict(value: Any, path: str = "tree", room: int = DEEPEST) -> Node:
    """The tree in plain values. Raises `DocumentError` with the path to the fault."""
    if not isinstance(value, dict):
        raise DocumentError(path, "expected an object with a type")
    if room < 1:
        raise DocumentError(path, f"brackets go at most {DEEPEST} deep; split the session into parts")
    match value.get("type"):
        case "interval":
            return _interval_from_dict(value, path)
        case "sequence":
            items = _list(_only(value, path, "type", "items").get("items"), f"{path}.items")
            nodes = tuple(tree_from_dict(item, f"{path}.items[{i}]", room - 1) for i, item in enumerate(items))
            return _made(path, Sequence, nodes)
        case "repeat":
            _only(value, path, "type", "count", "body", "between")
            body = tree_from_dict(value.get("body"), f"{path}.body", room - 1)
            pause = value.get("between")
            between = None if pause is None else tree_from_dict(pause, f"{path}.between", room - 1)
            if between is not None and not isinstance(between, Interval):
                raise DocumentError(f"{path}.between", "expected one interval of rest or recover")
            return _made(path, Repeat, value.get("count", 0), body, between)
        case other:
            raise DocumentError(f"{path}.type", f"expected interval, sequence or repeat, not {other!r}")


def part_to_dict(part: Part) -> dict[str, Any]:
    return {"name": part.name, "purpose": part.purpose, "tree": tree_to_dict(part.tree)}


def to_document(session: Session) -> dict[str, Any]:
    parts = [part_to_dict(part) for part in session.parts]
    return {"format": FORMAT, "version": VERSION, "title": session.title, "parts": parts}


def _with_purposes(document: dict[str, Any]) -> dict[str, Any]:
    """1 to 2: parts may state a purpose; intervals may say more than seconds and tempo."""
    parts = document.get("parts")
    if not isinstance(parts, list):
        return document
    return {**document, "parts": [{"purpose": None, **part} if isinstance(part, dict) else part for part in parts]}


MIGRATIONS: dict[int, Callable[[dict[str, Any]], dict[str, Any]]] = {1: _with_purposes}
"""From each earlier version to the next. One entry here is all a new version needs."""


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
    document = _only(up_to_date(document), "document", "format", "version", "title", "parts")
    title, parts = document.get("title"), document.get("parts")
    if not isinstance(title, str) or not 1 <= len(title) <= 120:
        raise DocumentError("title", "expected text of 1 to 120 characters")
    read: list[Part] = []
    for index, part in enumerate(_list(parts, "parts")):
        where = f"parts[{index}]"
        said = _only(part, where, "name", "purpose", "tree")
        name = said.get("name")
        if not isinstance(name, str) or len(name) > LONGEST_NAME:
            raise DocumentError(f"{where}.name", f"expected text of at most {LONGEST_NAME} characters")
        tree = tree_from_dict(said.get("tree"), f"{where}.tree")
        read.append(_made(f"{where}.purpose", Part, name, tree, said.get("purpose")))
    return _made("parts", Session, title, tuple(read))
