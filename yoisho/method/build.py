"""The whole method document, and the same as Markdown."""

from functools import cache

from yoisho.engine.parameters import fitted
from yoisho.engine.studies import NEVER_S, STUDIES
from yoisho.method import engine_sections as engine
from yoisho.method import judgement_sections as judgement
from yoisho.method import protocol_sections as protocols
from yoisho.method import review_sections as review
from yoisho.method.document import FitRow, Method, Section, Table, table_lines
from yoisho.method.figures import FIGURES


def fit_rows() -> tuple[FitRow, ...]:
    """The fit's rows as `make fit` wrote them; none may be missing."""
    notes = {(study.id, row.what): row.note for study in STUDIES.values() for row in study.rows}
    return tuple(
        FitRow(
            row["source"], row["what"], row["unit"], row["published"], row["tolerance"], row["ratio"],
            row["confidence"], row["value"], row["residual"], row["within"], notes[row["study"], row["what"]],
        )
        for row in fitted()["rows"]
    )  # fmt: skip


def said(row: FitRow, value: float) -> str:
    if row.ratio and value >= NEVER_S:
        return "does not end"
    unit = f" {row.unit}" if row.unit else ""
    return (f"{value:.0f}" if abs(value) >= 100 else f"{value:.3g}") + unit


def _fit(rows: tuple[FitRow, ...]) -> Section:
    hits = sum(row.within for row in rows)
    cells = tuple(
        (row.source, row.what, said(row, row.published),
         f"x {row.tolerance:g}" if row.ratio else f"± {row.tolerance:g}", said(row, row.value),
         "within" if row.within else "missed", f"{row.confidence} %", row.note)
        for row in rows
    )  # fmt: skip
    return Section(
        "fit", "The fit: published figures and this model",
        (
            f"{hits} of {len(rows)} published figures are met within their tolerance. Those that are not stand here "
            "too: none was dropped. Confidence is how sure we are that the figure, recalled from memory, is the "
            "published one.",
        ),
        (),
        (Table("Published and modelled",
               ("source", "figure", "published", "tolerance", "model", "", "confidence", "note"), cells),),
    )  # fmt: skip


def _figures() -> Section:
    rows = tuple((figure.name, figure.meaning, figure.source) for figure in FIGURES.values())
    return Section(
        "figures", "The figures, and who says so",
        ("Ranges are the 10th to 90th percentile of 200 people like this one, drawn with a fixed seed.",),
        (),
        (Table("Every figure on the screens", ("figure", "what it is", "who says so"), rows),),
    )  # fmt: skip


@cache
def method() -> Method:
    rows = fit_rows()
    sections = (
        engine.stores(), engine.parameters(), _fit(rows), engine.effort(), engine.people(), engine.readouts(),
        _figures(), review.learning(), review.weeks(), judgement.purposes(), protocols.proposals(),
        judgement.safety(), judgement.rule_sets(),
        judgement.limits(),
    )  # fmt: skip
    return Method(sections, tuple(FIGURES.values()), rows)


def _table(table: Table) -> list[str]:
    return [f"*{table.caption}*", "", *table_lines(table.columns, table.rows)]


def markdown() -> str:
    """The document for `docs/method.md`."""
    lines = [
        "# How Yoisho works it out", "",
        "Written by the software itself (`make docs`) from the data it computes with; the app shows the same page. "
        "Nothing here is a measurement of a person. Every number of our own stands in [settings.md](settings.md).", "",
    ]  # fmt: skip
    for section in method().sections:
        lines += [f"## {section.title}", ""]
        lines += [part for text in section.text for part in (text, "")]
        for equation in section.equations:
            lines += [f"    {equation.text}", "", f"*{equation.name}*: {equation.about}.", ""]
        for table in section.tables:
            lines += _table(table)
    return "\n".join(lines).rstrip() + "\n"
