"""Every number of our own and every bound, in one place: `docs/settings.md`, read from the sources themselves."""

import ast
from collections.abc import Iterator
from itertools import zip_longest
from pathlib import Path

from yoisho.method.document import table_lines

PACKAGES = (
    "strikes", "session", "judgement", "protocols", "design", "runs", "review", "engine", "camp", "classes", "rotation"
)  # fmt: skip
LONGEST = 300
"""Longer than this it is a table of its own, such as the tempos, and stands on the Method page."""


def _named(statement: ast.stmt) -> tuple[list[str], ast.expr] | None:
    """The constants that a statement sets, and to what."""
    match statement:
        case ast.Assign(targets=targets, value=value):
            pass
        case ast.AnnAssign(target=target, value=ast.expr() as value):
            targets = [target]
        case _:
            return None
    each = [name for one in targets for name in (one.elts if isinstance(one, ast.Tuple) else [one])]
    names = [name.id for name in each if isinstance(name, ast.Name) and name.id.strip("_").isupper()]
    return (names, value) if names and len(names) == len(each) else None


def _counts(value: ast.expr) -> bool:
    numbers = (each.value for each in ast.walk(value) if isinstance(each, ast.Constant))
    return any(isinstance(number, int | float) and not isinstance(number, bool) for number in numbers)


def settings_of(source: str) -> Iterator[tuple[str, str, str]]:
    """Name, value and meaning of each setting of a module; the meaning is empty where the name says it all."""
    body = ast.parse(source).body
    for statement, after in zip_longest(body, body[1:]):
        found = _named(statement)
        if found is None or not _counts(found[1]):
            continue
        told = after.value.value if isinstance(after, ast.Expr) and isinstance(after.value, ast.Constant) else ""
        value = ast.unparse(found[1])
        if len(value) <= LONGEST:
            yield ", ".join(found[0]), value, " ".join(str(told).split("\n\n")[0].split())


def settings_page() -> str:
    lines = [
        "# Our own settings", "",
        "Written by the software itself (`make docs`) from its sources: numbers that nobody has published, bounds of "
        "what may be entered, and figures of the trade. Where a source is known it is named beside the number. What "
        "the engine is fitted with stands in [method.md](method.md).", "",
    ]  # fmt: skip
    root = Path(__file__).resolve().parents[1]
    for package in PACKAGES:
        rows = [
            (file.relative_to(root / package).as_posix(), f"`{name}`", f"`{value}`", meaning)
            for file in sorted((root / package).rglob("*.py"))
            for name, value, meaning in settings_of(file.read_text(encoding="utf-8"))
        ]
        lines += [f"## {package}", "", *table_lines(("in", "setting", "value", "what it is"), rows)]
    return "\n".join(lines).rstrip() + "\n"
