"""People from a table of another program: read, shown row by row, and taken whole or not at all."""

import csv
import io
import re
from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import Annotated, Any

from django.db import transaction
from django.http import HttpRequest
from ninja import Router, Schema, Status
from pydantic import Field, ValidationError

from server.accounts.current import club_of
from server.accounts.models import Club
from server.accounts.once import once
from server.errors import Faults, FieldError, Message
from server.roster.api import age_fault, take
from server.roster.models import Group, Person
from server.roster.schemas import PersonIn
from yoisho.session.rules import RULE_SETS

router = Router(tags=["roster"])
MOST_ROWS = 1000
LONGEST_TEXT = 500_000

COLUMNS: dict[str, tuple[str, tuple[str, ...], str]] = {
    "name": ("name", ("athlete", "fullname", "person"), "Write who it is."),
    "birth_year": ("year of birth", ("born", "birthyear", "yearborn", "yob", "dateofbirth", "birthdate", "dob"),
                   "Write the year, such as 1996."),
    "mass_kg": ("mass", ("masskg", "weight", "weightkg", "bodymass", "kg"),
                "Write kilograms between 25 and 250, such as 62.5."),
    "level": ("level", ("experience",), "Write beginner, club or fighter."),
    "sport": ("sport", ("discipline",), "Write at most 60 letters."),
    "sex": ("sex", ("gender",), "Write female or male, or leave it empty."),
    "stance": ("stance", (), "Write orthodox or southpaw, or leave it empty."),
    "rule_set": ("rules", ("ruleset",), f"Write one of {', '.join(RULE_SETS)}, or leave it empty."),
    "fight_on": ("bout", ("boutdate", "bouton", "fight", "fightdate", "fighton"), "Write the day as 2027-05-14."),
    "vo2max_ml_kg_min": ("VO2max", ("vo2max", "vo2maxmlkgmin"), "Write mL/kg/min from a laboratory, such as 52."),
    "groups": ("groups", ("group", "class", "classes", "team"), "Write at most 50, with a / between them."),
}  # fmt: skip
"""What may stand in a file: how it is called, what else means the same, and what to write."""
NEEDED = ("name", "birth_year", "mass_kg", "level")
WORDS = {"m": "male", "man": "male", "f": "female", "w": "female", "woman": "female"}
_YEAR = re.compile(r"\b(\d{4})\b")


def _plain(heading: str) -> str:
    return "".join(letter for letter in heading.lower() if letter.isascii() and letter.isalnum())


MEANT = {_plain(word): column for column, (name, others, _) in COLUMNS.items() for word in (name, *others)}


class CsvIn(Schema):
    text: Annotated[str, Field(min_length=1, max_length=LONGEST_TEXT)]
    leave_out: Annotated[list[int], Field(max_length=MOST_ROWS)] = Field(default_factory=list)
    """Lines of the file that are not taken."""


class CsvRow(Schema):
    line: int
    """In the file, from 1."""
    name: str
    told: list[str]
    """What was read, in words."""
    faults: list[str]
    """What is wrong with it and how it is mended; empty where it can be taken."""


class CsvOut(Schema):
    columns: list[str]
    """Those that are read."""
    unknown: list[str]
    """Headings that mean nothing here: they are left alone."""
    rows: list[CsvRow]


@dataclass
class _Row:
    line: int
    cells: dict[str, str]
    faults: list[str] = field(default_factory=list)
    person: PersonIn | None = None
    groups: tuple[str, ...] = ()


def _value(column: str, cell: str) -> Any:
    """A cell as it is meant: a comma may be a decimal point, a date of birth has a year."""
    match column:
        case "mass_kg" | "vo2max_ml_kg_min":
            return re.sub(r"[^\d.,-]", "", cell).replace(",", ".") or cell
        case "birth_year":
            year = _YEAR.search(cell)
            return int(year[1]) if year else cell
        case "level" | "sex" | "stance":
            word = cell.strip().lower()
            return WORDS.get(word, word)
        case "rule_set":
            word = cell.strip().lower()
            return next((id_ for id_, rules in RULE_SETS.items() if rules.name.lower() == word), word)
    return cell.strip()


def _understood(row: _Row) -> None:
    """What the row says of somebody, or what is wrong with it."""
    row.groups = tuple(name.strip() for name in re.split(r"[/;|]", row.cells.pop("groups", "")) if name.strip())
    try:
        row.person = PersonIn(**{column: _value(column, cell) for column, cell in row.cells.items() if cell.strip()})
    except ValidationError as error:
        for wrong in {str(each["loc"][0]): None for each in error.errors()}:
            said, (title, _, cure) = row.cells.get(wrong, "").strip(), COLUMNS[wrong]
            row.faults.append(f"{title}: “{said}” cannot be. {cure}" if said else f"{title} is empty. {cure}")
    row.faults += [f"groups: “{name[:20]} …” is too long. Write at most 60 letters." for name in row.groups
                   if len(name) > 60]  # fmt: skip


def _headed(text: str) -> tuple[list[str], Iterator[tuple[int, list[str]]]]:
    """The headings of the first line, and every further line with its number."""
    try:
        dialect: Any = csv.Sniffer().sniff(text[:4000], delimiters=",;\t")
    except csv.Error:
        dialect = csv.excel
    reader = csv.reader(io.StringIO(text.removeprefix("\ufeff"), newline=""), dialect, strict=True)
    headings = next(reader, [])
    return headings, ((reader.line_num, cells) for cells in reader if any(cell.strip() for cell in cells))


def _file_fault(said: str) -> FieldError:
    return FieldError(["body", "text"], said, "file")


def _read(club: Club, text: str) -> tuple[list[str], list[str], list[_Row]]:
    """The columns that are read, the headings that are not, and the rows with what is wrong with each."""
    try:
        headings, lines = _headed(text)
        meant = [MEANT.get(_plain(heading)) for heading in headings]
        missing = [COLUMNS[column][0] for column in NEEDED if column not in meant]
        if missing:
            raise _file_fault(
                f"The file has no column for {', '.join(missing)}. Its first line names its columns, such as: name, "
                "year of birth, mass, level, sport, groups."
            )
        twice = {column for column in meant if column and meant.count(column) > 1}
        if twice:
            raise _file_fault(f"Two columns mean {COLUMNS[min(twice)][0]}. Leave one of them.")
        rows = [
            _Row(line, {column: cell for column, cell in zip(meant, cells, strict=False) if column})
            for line, cells in lines
        ]
    except csv.Error as error:
        raise _file_fault(f"This is no table: {error}. Save it as CSV, with commas or semicolons between.") from error
    if len(rows) > MOST_ROWS:
        raise _file_fault(f"The file has {len(rows)} rows; {MOST_ROWS} at a time. Cut it.")
    if not rows:
        raise _file_fault("The file has its headings and nobody below them. Add a row for each athlete.")
    known = {(name.lower(), year) for name, year in Person.objects.of(club).values_list("name", "birth_year")}
    for row in rows:
        _understood(row)
        if row.person:
            if said := age_fault(row.person.birth_year):
                row.faults.append(f"year of birth: {said}")
            who = (row.person.name.lower(), row.person.birth_year)
            if who in known:
                row.faults.append("They are on the roster already, or above. Leave this row out.")
            known.add(who)
    columns = [COLUMNS[column][0] for column in meant if column]
    return columns, [each for each, column in zip(headings, meant, strict=True) if not column and each.strip()], rows


def _told(row: _Row) -> CsvRow:
    who = row.person
    told = []
    if who:
        told = [str(who.birth_year), f"{who.mass_kg:g} kg", who.level, who.sport, who.sex or "", *row.groups]
    return CsvRow(line=row.line, name=row.cells.get("name", "").strip(), told=[w for w in told if w], faults=row.faults)


@router.post("/people/csv/preview", response={200: CsvOut, 422: Faults}, operation_id="preview_people")
def preview_people(request: HttpRequest, body: CsvIn) -> CsvOut:
    """What a file says of people, row by row. Nothing is kept."""
    columns, unknown, rows = _read(club_of(request), body.text)
    return CsvOut(columns=columns, unknown=unknown, rows=[_told(row) for row in rows])


class CsvTaken(Schema):
    people: int


@router.post("/people/csv", response={201: CsvTaken, 409: Message, 422: Faults}, operation_id="import_people")
@once
def import_people(request: HttpRequest, body: CsvIn) -> Status[CsvTaken]:
    """Everybody of a file but the lines that are left out: all of them, or nobody."""
    club = club_of(request)
    rows = [row for row in _read(club, body.text)[2] if row.line not in body.leave_out]
    wrong = [row for row in rows if row.faults]
    if wrong:
        first = f"Line {wrong[0].line}: {wrong[0].faults[0]}"
        more = f" And {len(wrong) - 1} more." if len(wrong) > 1 else ""
        raise _file_fault(f"{first}{more} Mend the file, or leave the row out. Nobody was taken.")
    with transaction.atomic():
        groups = {group.name.lower(): group.pk for group in Group.objects.of(club)}
        for row in rows:
            for name in row.groups:
                if name.lower() not in groups:
                    groups[name.lower()] = Group.objects.create(club=club, name=name).pk
            assert row.person
            ids = tuple(groups[name.lower()] for name in row.groups)
            take(Person(club=club), row.person.model_copy(update={"groups": ids}))
    return Status(201, CsvTaken(people=len(rows)))
