"""Who is where in a class, as a PDF for the wall: one page, in black, in type that is shipped with the app."""

from typing import TYPE_CHECKING, Any

from django.template.loader import render_to_string
from django.utils import timezone

from server.sendout.wall_sheet import Paper, rendered
from yoisho.answers.classes import class_answer
from yoisho.classes.board import kind_of
from yoisho.session.clock import clock

if TYPE_CHECKING:
    from weasyprint import Document

    from yoisho.classes.made import Made

LARGEST_PT, LEAST_PT = 24.0, 4.6
"""Of the table's text."""
PAPER_MM: dict[Paper, tuple[float, float]] = {"a4": (297.0, 210.0), "letter": (279.4, 215.9)}
"""Lying: width and height."""
ROLL_MM = 20_000.0
"""Of a page that the largest class fits on at the largest size."""
PX_A_MM = 96 / 25.4
LINE_PX = 0.5 * 96 / 72
"""Under a row; as thick at every size."""
SLACK = 0.98
"""Of the size that was measured, as borders do not shrink with it; and of one that did not do, for the next try."""


def _said(made: "Made", title: str, club: str, school: str) -> dict[str, Any]:
    told = class_answer(made, school, weighed=False)
    labels = {each.label for each in told.people}
    return {
        "title": title, "club": club, "pattern": told.pattern, "wave": clock(told.wave_s),
        "change": clock(told.change_s) if told.change_s else "", "total": clock(told.total_s),
        "sharing": told.sharing.sentence, "waves": [(wave.number, clock(wave.start_s)) for wave in told.waves],
        "called": labels != {""} and labels != {each.name for each in told.people},
        "people": [
            {"name": each.name, "label": each.label, "easy": each.easy,
             "row": [(kind_of(station), "" if station == "away" else station) for station in each.row]}
            for each in told.people
        ],
        "pads": any(wave.pad_pairs for wave in told.waves), "made": f"{timezone.localdate():%Y-%m-%d}",
    }  # fmt: skip


def _size_pt(roll: "Document", rows: int, height_mm: float) -> float:
    """The largest at which the table keeps to one page, from how large it came out on a roll of the page's width."""
    page = roll.pages[0]._page_box
    body = next(each for each in page.descendants() if each.element_tag == "body")
    tables = [each for each in body.descendants() if each.element_tag == "table"]
    width, height = (max(getattr(each, of) for each in tables) for of in ("width", "height"))
    lines = rows * LINE_PX
    room = height_mm * PX_A_MM - page.margin_top - page.margin_bottom - (body.height - height) - lines
    shares = (page.width / width, room / (height - lines))
    return LARGEST_PT * min([1.0, *(SLACK * float(each) for each in shares if each < 1)])


def class_pdf(made: "Made", title: str, paper: Paper, club: str, school: str) -> bytes:
    """The table is laid out twice, as each time takes its time: once to measure it, and as large as it can be."""
    said = _said(made, title, club, school)
    wide_mm, high_mm = PAPER_MM[paper]

    def laid_out(size_pt: float, height_mm: float) -> "Document":
        about = {**said, "paper": f"{wide_mm}mm {height_mm}mm", "size_pt": f"{size_pt:.2f}"}
        return rendered(render_to_string("classes/wall.html", about))

    size_pt = max(LEAST_PT, _size_pt(laid_out(LARGEST_PT, ROLL_MM), len(said["people"]) + 1, high_mm))
    document = laid_out(size_pt, high_mm)
    while len(document.pages) > 1 and size_pt > LEAST_PT:
        size_pt *= SLACK
        document = laid_out(size_pt, high_mm)
    found: bytes = document.write_pdf()
    return found
