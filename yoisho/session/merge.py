"""Bringing together two edits of one session that were made apart: nothing of either is lost silently."""

from dataclasses import dataclass, replace
from typing import TypeVar

from merge3 import Merge3

from yoisho.session.document import LONGEST_NAME, Part, Session

Kept = TypeVar("Kept")
THEIRS = " (saved elsewhere)"


@dataclass(frozen=True)
class Merged:
    session: Session
    notes: tuple[str, ...]
    """What both had changed, and what was done about it; empty where they did not touch."""


def chosen(base: Kept, mine: Kept, theirs: Kept) -> tuple[Kept, bool]:
    """What one side changed; mine where both did and differ, and whether they did."""
    if mine in (base, theirs):
        return theirs, False
    return mine, theirs != base


def _one_part(base: Part, mine: Part, theirs: Part) -> Part | None:
    """The part with both edits; None where both changed the same thing of it."""
    name, names = chosen(base.name, mine.name, theirs.name)
    purpose, purposes = chosen(base.purpose, mine.purpose, theirs.purpose)
    tree, trees = chosen(base.tree, mine.tree, theirs.tree)
    gloves, hands = chosen(base.gloves, mine.gloves, theirs.gloves)
    kit, items = chosen(base.kit, mine.kit, theirs.kit)
    return None if names or purposes or trees or hands or items else Part(name, tree, purpose, gloves, kit)


def _both(base: list[Part], mine: list[Part], theirs: list[Part]) -> tuple[list[Part], list[str]]:
    """Parts that both sides changed: brought together one by one where that can be, else one after the other."""
    if len(base) == len(mine) == len(theirs):
        merged = [_one_part(*three) for three in zip(base, mine, theirs, strict=True)]
        together = [part for part in merged if part is not None]
        if len(together) == len(merged):
            return together, []
    parts, notes = list(mine), []
    for part in theirs:
        if part in mine or part in base:
            continue
        named = replace(part, name=part.name[: LONGEST_NAME - len(THEIRS)] + THEIRS)
        parts.append(named)
        notes.append(f"Both changed {part.name or 'a part'}: yours stands, and theirs after it.")
    if not notes:
        notes.append("Both changed the same parts: yours stand.")
    return parts, notes


def merge(base: Session, mine: Session, theirs: Session) -> Merged:
    """Both edits in one session. Where both changed the same part, mine stands and theirs follows it by name.

    Raises `SessionError` where the two together have more parts than a session holds.
    """
    title, titles = chosen(base.title, mine.title, theirs.title)
    notes = [f"Both changed the title: yours stands, theirs was {theirs.title}."] if titles else []
    parts: list[Part] = []
    # Its types speak of lines of text; it compares anything that has a hash.
    for group in Merge3(base.parts, mine.parts, theirs.parts).merge_groups():  # type: ignore[type-var]
        if group[0] == "conflict":
            both, told = _both(list(group[1] or ()), list(group[2]), list(group[3]))
            parts += both
            notes += told
        else:
            parts += group[1]
    return Merged(Session(title, tuple(parts)), tuple(notes))
