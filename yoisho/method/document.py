"""What a method document is made of."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field

from yoisho.method.figures import Told


@dataclass(frozen=True)
class Equation:
    name: str
    text: str
    about: str = ""


@dataclass(frozen=True)
class Table:
    caption: str
    columns: tuple[str, ...]
    rows: tuple[tuple[str, ...], ...]


@dataclass(frozen=True)
class Section:
    id: str
    title: str
    text: tuple[str, ...] = ()
    equations: tuple[Equation, ...] = ()
    tables: tuple[Table, ...] = field(default=())


@dataclass(frozen=True)
class FitRow:
    """One published figure and what the model gives for it, for the plot and the table."""

    source: str
    what: str
    unit: str
    published: float
    tolerance: float
    ratio: bool
    confidence: int
    value: float
    residual: float
    """In tolerances: within 1 is a hit."""
    within: bool
    note: str


@dataclass(frozen=True)
class Method:
    sections: tuple[Section, ...]
    figures: tuple[Told, ...]
    fit: tuple[FitRow, ...]


def table_lines(columns: Sequence[str], rows: Iterable[Sequence[str]]) -> list[str]:
    """A table as Markdown, with the empty line that ends it."""

    def line(cells: Sequence[str]) -> str:
        return "| " + " | ".join(cell.replace("|", "\\|") for cell in cells) + " |"

    return [line(columns), "|" + "---|" * len(columns), *map(line, rows), ""]
