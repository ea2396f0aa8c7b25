"""Who is where in a class, as a PDF for the wall: one page, in black, in type that is shipped with the app."""

from bisect import bisect_left
from typing import TYPE_CHECKING, Any

from django.template.loader import render_to_string
from django.utils import timezone

from server.sendout.wall_sheet import PAPERS, Paper, rendered
from yoisho.answers.classes import class_answer
from yoisho.classes.board import kind_of
from yoisho.session.clock import clock

if TYPE_CHECKING:
    from weasyprint import Document

    from yoisho.classes.made import Made

SIZES_PT = (24.0, 21.0, 18.5, 16.5, 15.0, 13.5, 12.0, 10.8, 9.6, 8.6, 7.6, 6.8, 6.0, 5.2, 4.6)
"""Of the table, the largest that keeps to one page is taken: found by halves, since each try takes its time."""


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


def _too_wide(document: "Document") -> bool:
    """Whether the table runs past the edge of its page."""
    page = document.pages[0]
    box = page._page_box
    right = box.position_x + box.margin_width()
    return any(
        each.position_x + each.width > right - box.margin_right + 1
        for each in box.descendants()
        if each.element_tag == "table" and isinstance(each.width, int | float)
    )


def class_pdf(made: "Made", title: str, paper: Paper, club: str, school: str) -> bytes:
    said = _said(made, title, club, school)
    laid_out: dict[float, Document] = {}

    def fits(size_pt: float) -> bool:
        text = render_to_string("classes/wall.html", {**said, "paper": PAPERS[paper], "size_pt": size_pt})
        document = laid_out[size_pt] = rendered(text)
        return len(document.pages) == 1 and not _too_wide(document)

    largest = bisect_left(SIZES_PT, True, key=fits)
    found: bytes = laid_out[SIZES_PT[min(largest, len(SIZES_PT) - 1)]].write_pdf()
    return found
