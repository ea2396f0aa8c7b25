"""The wall sheet as a PDF: one page in black, in type that is shipped with the app."""

from dataclasses import dataclass
from functools import lru_cache
from typing import TYPE_CHECKING, Literal

import segno
from django.conf import settings
from django.template.loader import render_to_string

from yoisho.answers.wall_sheet import Bar, WallSheet

# Loaded with the first sheet: it takes a second, which every start would wait for.
if TYPE_CHECKING:
    from weasyprint import Document
    from weasyprint.text.fonts import FontConfiguration

Paper = Literal["a4", "letter"]
PAPERS: dict[Paper, str] = {"a4": "A4", "letter": "Letter"}
MOST_PARTS_ON_ONE_PAGE = 12
SIZES_PT = (14.0, 12.5, 11.2, 10.0, 9.0, 8.2, 7.4, 6.7, 6.0)
"""Of the text, the largest that keeps to its pages is taken; the smallest can still be read at arm's length."""
ROOM_PT = 480.0
"""Of a page, under its score."""
TALLEST_FRAC = 1.8
"""Demand that fills the score; all out is as tall as it."""
LEAST_WIDTH = 0.0015
"""Of the score: a bar that is thinner is not seen on a bad copy."""
FONTS = settings.ROOT / "web" / "node_modules"


@dataclass(frozen=True)
class Drawn:
    """A bar in thousandths of the score's width and hundredths of its height."""

    x: float
    y: float
    width: float
    height: float
    hatched: bool


def _drawn(bar: Bar, total_s: int) -> Drawn:
    height = 100 * min(bar.demand_frac, TALLEST_FRAC) / TALLEST_FRAC
    width = max(bar.seconds / total_s, LEAST_WIDTH)
    return Drawn(1000 * bar.start_s / total_s, 100 - height, 1000 * width, height, bar.kind == "recover")


@lru_cache(1)
def _fonts() -> "FontConfiguration":
    from weasyprint.text.fonts import FontConfiguration

    return FontConfiguration()


def rendered(text: str) -> "Document":
    """A page of HTML laid out on paper, in type that is shipped with the app; nothing is fetched from elsewhere."""
    from weasyprint import HTML
    from weasyprint.urls import URLFetcher

    fetcher = URLFetcher(allowed_protocols=("file", "data"))
    return HTML(string=text, base_url=f"{FONTS.as_uri()}/", url_fetcher=fetcher).render(font_config=_fonts())


def _rendered(sheet: WallSheet, paper: Paper, link: str, made: str, size_pt: float) -> "Document":
    total_s = max(1, sheet.total_s)
    every_s = next(step for step in (60, 120, 300, 600, 1200, 3600) if total_s / step <= 16)
    text = render_to_string(
        "sendout/wall_sheet.html",
        {
            "sheet": sheet,
            "paper": PAPERS[paper],
            "size_pt": size_pt,
            "bars": [_drawn(bar, total_s) for bar in sheet.bars if bar.kind != "rest"],
            "minutes": [(1000 * at / total_s, at // 60) for at in range(0, total_s + 1, every_s)],
            "starts": [
                (1000 * next(bar.start_s for bar in sheet.bars if bar.part == index) / total_s, index + 1)
                for index in range(len(sheet.parts))
            ],
            "code": segno.make(link, error="m").svg_data_uri(scale=1, border=0, omitsize=True) if link else "",
            "link": link,
            "made": made,
        },
    )
    return rendered(text)


def _likely_pt(sheet: WallSheet, pages: int) -> float:
    """About the largest size that will do: those above it are not tried, since each try takes its time."""
    size_pt = SIZES_PT[0]
    for size_pt in SIZES_PT:
        wide = 1150 / size_pt
        rows = sum(2.2 + len(part.line) * 1.12 // wide + len(part.meaning) // wide for part in sheet.parts)
        foot = 12 + sum(len(text) for _, text in sheet.cautions) / (0.5 * wide)
        if (rows + foot) * 1.34 * size_pt <= 1.1 * ROOM_PT * pages:
            break
    return size_pt


def wall_sheet_pdf(sheet: WallSheet, paper: Paper, link: str, made: str) -> bytes:
    """One page for up to twelve parts, two for more; `link` is drawn as a code where there is one."""
    pages = 1 if len(sheet.parts) <= MOST_PARTS_ON_ONE_PAGE else 2
    first = SIZES_PT.index(_likely_pt(sheet, pages))
    document = _rendered(sheet, paper, link, made, SIZES_PT[first])
    for size_pt in SIZES_PT[first + 1 :]:
        if len(document.pages) <= pages:
            break
        document = _rendered(sheet, paper, link, made, size_pt)
    found: bytes = document.write_pdf()
    return found
