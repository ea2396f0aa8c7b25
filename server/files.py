"""Files that are given out: their names, and tables for a spreadsheet."""

import csv
import io
from collections.abc import Iterable
from typing import TypeVar

from django.http.response import HttpResponseBase
from django.utils.http import content_disposition_header
from django.utils.text import slugify

Answer = TypeVar("Answer", bound=HttpResponseBase)


def named(answer: Answer, title: str, ending: str, or_else: str, *, shown: bool = False) -> Answer:
    """The answer as a file called after a title; one that is `shown` opens in the browser, the others are saved."""
    header = content_disposition_header(not shown, f"{slugify(title) or or_else}{ending}")
    answer.headers["Content-Disposition"] = header or ("inline" if shown else "attachment")
    return answer


def table(columns: Iterable[str], rows: Iterable[Iterable[object]]) -> str:
    """CSV with a head."""
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(columns)
    writer.writerows(rows)
    return out.getvalue()
