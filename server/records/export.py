"""A club whole, as one archive of open files: JSON Lines with a JSON Schema each, and tables to look at."""

import csv
import io
import json
import zipfile
from collections.abc import Iterable
from typing import Any

from server.accounts.models import Club
from server.logbook.models import LIMB_FIELDS, LogEntry
from server.records.tables import SETTINGS, Row, schema_of, told
from yoisho.session.document import from_document
from yoisho.session.shorthand import write
from yoisho.session.tree import duration_s

FORMAT = "yoisho-club"
VERSION = 1
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
    if isinstance(value, str) and value[:1] in ("=", "+", "-", "@", "\t", "\r"):
        return f"'{value}"
    return value


def table(columns: Iterable[str], rows: Iterable[Iterable[object]]) -> str:
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(columns)
    writer.writerows([cell(value) for value in row] for row in rows)
    return out.getvalue()


def _entries(club: Club) -> Iterable[LogEntry]:
    return LogEntry.objects.of(club).select_related("result__person", "result__run").order_by("started_at", "pk")


def _of(entry: LogEntry) -> tuple[str, str, str]:
    person = entry.result.person
    return entry.started_at.isoformat(), person.name if person else "", entry.run.title


def log_csv(club: Club) -> str:
    return table(
        ("started_at", "person", "session", "planned_s", "done_s", "planned_efforts", "done_efforts", "planned_rpe",
         "rpe", "load", "counted_strikes", "note", "pain", "simulated"),
        (
            (*_of(e), e.planned_s, e.done_s, e.planned_efforts, e.done_efforts, e.planned_rpe, e.rpe,
             round(e.rpe * e.done_s / 60, 1), e.counted_strikes, e.note, json.dumps(e.pain), e.simulated)
            for e in _entries(club)
        ),
    )  # fmt: skip


def _strikes_csv(club: Club) -> str:
    return table(
        ("started_at", "person", "session", *LIMB_FIELDS, "counted"),
        (
            (*_of(e), *(round(getattr(e, name), 1) for name in LIMB_FIELDS.values()), e.counted_strikes is not None)
            for e in _entries(club)
        ),
    )


def _sessions_csv(club: Club) -> str:
    def row(each: Any) -> tuple[object, ...]:
        session = from_document(each.document)
        lines = " · ".join(f"{part.name}: {write(part.tree, club.school)}" for part in session.parts)
        total_s = sum(duration_s(part.tree) for part in session.parts)
        person = each.person.name if each.person else ""
        return session.title, person, each.target, ", ".join(each.tags), total_s, lines, each.saved_at.isoformat()

    saved = club.sessions.select_related("person").order_by("pk")
    return table(("title", "person", "purpose", "tags", "total_s", "lines", "saved_at"), map(row, saved))


PEOPLE = ("name", "sport", "level", "sex", "birth_year", "stance", "mass_kg", "vo2max_ml_kg_min", "hr_max_bpm",
          "hr_rest_bpm", "rule_set", "fight_on", "archived_at")  # fmt: skip
TESTS = ("kind", "on", "value", "counts", "where", "counted_by")


def _csv_of(columns: tuple[str, ...], rows: list[Row], names: dict[int, str] | None = None) -> str:
    head = ("person", *columns) if names else columns
    return table(head, ((*([names[row["person"]]] if names else []), *(row[name] for name in columns)) for row in rows))


def archive(club: Club) -> bytes:
    """A zip. Two of the same records are the same but for the order of keys inside JSON."""
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as files:
        files.writestr("README.txt", ABOUT)
        own = {"format": FORMAT, "version": VERSION, **{name: getattr(club, name) for name in SETTINGS}}
        files.writestr("club.json", json.dumps(own, ensure_ascii=False, indent=1))
        all_rows: dict[str, list[Row]] = {}
        for each, rows in told(club):
            lines = (json.dumps(row, ensure_ascii=False, default=_plain, sort_keys=True) for row in rows)
            files.writestr(f"{each.name}.jsonl", "".join(f"{line}\n" for line in lines))
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


def _plain(value: Any) -> str:
    return str(value.isoformat() if hasattr(value, "isoformat") else value)
