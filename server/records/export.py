"""A club whole, as one archive of open files: JSON Lines with a JSON Schema each, and tables to look at."""

import io
import json
import zipfile
from collections.abc import Iterable, Iterator
from typing import Any

import msgspec

from server.accounts.models import Club
from server.files import table
from server.logbook.models import LIMB_FIELDS, LogEntry
from server.records.tables import SETTINGS, Row, schema_of, told
from yoisho.session.document import from_document
from yoisho.session.shorthand import write

FORMAT = "yoisho-club"
VERSION = 3
ABOUT = """A club whole, from Yoisho.

club.json         the club's own settings, and the version of this format
*.jsonl           every table, a row a line; rows point to each other by their "number"
*.schema.json     what a row of each holds (JSON Schema, draft 2020-12)
people.csv, sessions.csv, log.csv, strikes.csv, tests.csv   the same to look at in a spreadsheet

It can be brought into an empty club ("Club", "Records"). Accounts, passwords and links to sessions are not in it; what
the logs have taught is worked out anew. It holds data of people's health: keep it as you would keep that.
"""


def cell(value: object) -> object:
    """As a spreadsheet shows it, and never runs it: what begins like a formula is marked as text."""
    if isinstance(value, msgspec.Raw):
        return bytes(value).decode()
    if isinstance(value, str) and value[:1] in ("=", "+", "-", "@", "\t", "\r"):
        return f"'{value}"
    return value


def _sheet(columns: Iterable[str], rows: Iterable[Iterable[object]]) -> str:
    return table(columns, ([cell(value) for value in row] for row in rows))


LOG = ("planned_s", "done_s", "planned_efforts", "done_efforts", "planned_rpe", "rpe", "counted_strikes", "note",
       "pain", "simulated")  # fmt: skip


def _entries(club: Club, *columns: str) -> Iterator[tuple[Any, ...]]:
    """Moment, person and session of every entry, the oldest first, and more of it."""
    told = LogEntry.objects.of(club).order_by("started_at", "pk")
    rows = told.values_list("started_at", "result__person__name", "result__run__title", *columns)
    for at, person, title, *more in rows.iterator(2000):
        yield at.isoformat(), person or "", title, *more


def log_csv(club: Club) -> str:
    def row(at: str, person: str, title: str, *own: Any) -> tuple[object, ...]:
        known = dict(zip(LOG, own, strict=True))
        load = round(known["rpe"] * known["done_s"] / 60, 1)
        return at, person, title, *({**known, "pain": json.dumps(known["pain"])}.values()), load

    head = ("started_at", "person", "session", *LOG, "load")
    return _sheet(head, (row(*each) for each in _entries(club, *LOG)))


def _strikes_csv(club: Club) -> str:
    rows = _entries(club, *LIMB_FIELDS.values(), "counted_strikes")
    return _sheet(
        ("started_at", "person", "session", *LIMB_FIELDS, "counted"),
        (
            (at, person, title, *(round(limb, 1) for limb in limbs), counted is not None)
            for at, person, title, *limbs, counted in rows
        ),
    )


def _sessions_csv(club: Club) -> str:
    def row(each: Any) -> tuple[object, ...]:
        session = from_document(each.document)
        lines = " · ".join(f"{part.name}: {write(part.tree, club.school)}" for part in session.parts)
        person = each.person.name if each.person else ""
        return (
            session.title,
            person,
            each.target,
            ", ".join(each.tags),
            session.total_s,
            lines,
            each.saved_at.isoformat(),
        )

    saved = club.sessions.select_related("person").order_by("pk")
    return _sheet(("title", "person", "purpose", "tags", "total_s", "lines", "saved_at"), map(row, saved))


LINES = msgspec.json.Encoder(order="sorted")
PEOPLE = ("name", "sport", "level", "sex", "birth_year", "stance", "mass_kg", "vo2max_ml_kg_min", "hr_max_bpm",
          "hr_rest_bpm", "rule_set", "fight_on", "archived_at")  # fmt: skip
TESTS = ("kind", "on", "value", "counts", "where", "counted_by")


def _csv_of(columns: tuple[str, ...], rows: list[Row], names: dict[int, str] | None = None) -> str:
    head = ("person", *columns) if names else columns
    return _sheet(
        head, ((*([names[row["person"]]] if names else []), *(row[name] for name in columns)) for row in rows)
    )


def archive(club: Club) -> bytes:
    """A zip. Two of the same records are the same but for the order of keys inside JSON."""
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED, compresslevel=1) as files:
        files.writestr("README.txt", ABOUT)
        own = {"format": FORMAT, "version": VERSION, **{name: getattr(club, name) for name in SETTINGS}}
        files.writestr("club.json", json.dumps(own, ensure_ascii=False, indent=1))
        all_rows: dict[str, list[Row]] = {}
        for each, rows in told(club):
            files.writestr(f"{each.name}.jsonl", LINES.encode_lines(rows))
            files.writestr(f"{each.name}.schema.json", json.dumps(schema_of(each), indent=1))
            if each.name in ("people", "tests"):
                all_rows[each.name] = rows
        names = {row["number"]: row["name"] for row in all_rows["people"]}
        files.writestr("people.csv", _csv_of(PEOPLE, all_rows["people"]))
        files.writestr("tests.csv", _csv_of(TESTS, all_rows["tests"], names or {0: ""}))
        files.writestr("sessions.csv", _sessions_csv(club))
        files.writestr("log.csv", log_csv(club))
        files.writestr("strikes.csv", _strikes_csv(club))
    return out.getvalue()
