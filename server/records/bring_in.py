"""A club's archive brought into an empty club: all of it, or none with the line that is wrong."""

import json
import zipfile
from collections.abc import Iterable, Iterator
from typing import Any, BinaryIO, cast

import msgspec
from django.core.exceptions import ValidationError
from django.db import DataError, IntegrityError, connection, models, transaction

from server.accounts.models import Club
from server.camp.schemas import AskedIn
from server.classes.schemas import ClassAskedIn
from server.records.export import FORMAT, VERSION
from server.records.tables import SETTINGS, TABLES, AnyField, Row, Table
from server.runs.kept import plain_board
from yoisho.camp.plain_choices import cost_from_plain, from_plain
from yoisho.classes.board import board_from_dict
from yoisho.plain import sentence
from yoisho.session.document import drill_from_dict, from_document
from yoisho.strikes.combination import CombinationError

MOST_UNPACKED = 600_000_000
"""Bytes of all files together: no archive of a club comes near it."""
Made = dict[type[models.Model], list[int]]
"""The ids of the rows of each table, in their order."""


class ArchiveError(ValueError):
    """What is wrong with an archive: where, and how to mend it."""


def _lines(files: zipfile.ZipFile, name: str) -> Iterator[tuple[int, Row]]:
    with files.open(name) as lines:
        for number, line in enumerate(lines, 1):
            where = f"{name}, line {number}"
            if b"\\u0000" in line:
                raise ArchiveError(f"{where} holds a NUL character, which cannot be kept. Take it out.")
            try:
                row = msgspec.json.decode(line)
            except (msgspec.DecodeError, UnicodeDecodeError) as error:
                raise ArchiveError(f"{where} is no JSON: {error}.") from error
            if not isinstance(row, dict):
                raise ArchiveError(f"{where} is not an object of JSON.")
            if row.get("number") != number:
                raise ArchiveError(f'{where} says "number": {row.get("number")}. Rows are numbered by their lines.')
            yield number, row


def _known(where: str, table: Table, row: Row) -> None:
    wanted = {"number", *(field.name for field in table.fields), *(each.name for each in table.lists)}
    if missing := sorted(wanted - set(row)):
        raise ArchiveError(f'{where} has no "{missing[0]}".')
    if strange := sorted(set(row) - wanted):
        raise ArchiveError(f'{where} has "{strange[0]}", which no row of {table.name} has.')


def _other(where: str, field: Any, number: Any, made: Made) -> int:
    there = made[field.related_model]
    if not isinstance(number, int) or isinstance(number, bool) or not 1 <= number <= len(there):
        raise ArchiveError(f"{where}, {field.name}: there is no row {number} to point to; there are {len(there)}.")
    return there[number - 1]


def _value(where: str, field: AnyField, value: Any, made: Made) -> Any:
    """As the database takes it."""
    if value is None and field.null:
        return None
    if field.related_model:
        return _other(where, field, value, made)
    if field.get_internal_type() == "JSONField" and value is not None:
        return msgspec.json.encode(value).decode()
    if value == "" and field.get_internal_type() in ("CharField", "TextField"):
        return value
    try:
        return field.clean(value, None)
    except (ValidationError, TypeError, ValueError) as error:
        said = "; ".join(error.messages) if isinstance(error, ValidationError) else str(error)
        raise ArchiveError(f"{where}, {field.name}: {said}") from error


def _possible(where: str, table: Table, row: Row, read: set[bytes]) -> None:
    """What the core reads must be readable. A plan that was run many times is read once."""
    try:
        if "document" in row:
            text = msgspec.json.encode(row["document"])
            if text not in read:
                from_document(row["document"])
                read.add(text)
        if table.name == "combinations":
            drill_from_dict(row["drill"])
        if table.name == "camp_sessions":
            cost_from_plain(row["cost"])
        if row.get("board") is not None:
            board_from_dict(plain_board(row["board"]))
        if table.name == "classes":
            ClassAskedIn(**row["asked"])
        if table.name == "camps":
            AskedIn(**row["asked"])
            if row["choices"] is not None:
                from_plain(row["choices"], row["sessions_to_choose"])
    except (ValueError, CombinationError) as error:
        raise ArchiveError(f"{where}: {sentence(error)}") from error
    except (KeyError, TypeError) as error:
        raise ArchiveError(f"{where}: it is not whole ({error}).") from error


def _numbers(model: type[models.Model], count: int) -> list[int]:
    """So many fresh ids of a table."""
    with connection.cursor() as cursor:
        table = model._meta.db_table
        cursor.execute(
            "SELECT nextval(pg_get_serial_sequence(%s, 'id')) FROM generate_series(1, %s)", [f'"{table}"', count]
        )
        return [number for (number,) in cursor.fetchall()]


def _copy(model: type[models.Model], columns: list[str], rows: Iterable[Iterable[Any]]) -> None:
    """Rows as they are, with the moments that a save would set anew."""
    quoted = ", ".join(f'"{column}"' for column in columns)
    with connection.cursor() as cursor, cursor.copy(f'COPY "{model._meta.db_table}" ({quoted}) FROM STDIN') as into:
        for row in rows:
            into.write_row(list(row))


def _bring(club: Club, table: Table, files: zipfile.ZipFile, made: Made, version: int) -> None:
    owned = any(field.name == "club" for field in table.model._meta.fields)
    rows: list[list[Any]] = []
    lists: dict[str, list[tuple[int, int]]] = {each.name: [] for each in table.lists}
    read: set[bytes] = set()
    for number, row in _lines(files, f"{table.name}.jsonl"):
        where = f"{table.name}.jsonl, line {number}"
        row = table.up_to_date(row, version)
        _known(where, table, row)
        _possible(where, table, row, read)
        own = [_value(where, field, row[field.name], made) for field in table.fields]
        rows.append([*own, club.pk] if owned else own)
        for many in table.lists:
            if not isinstance(row[many.name], list):
                raise ArchiveError(f"{where}, {many.name} is no list.")
            lists[many.name] += [(number, _other(where, many, one, made)) for one in row[many.name]]
    ids = made[table.model] = _numbers(table.model, len(rows))
    columns = ["id", *(str(field.column) for field in table.fields), *(["club_id"] if owned else [])]
    try:
        _copy(table.model, columns, ([pk, *row] for pk, row in zip(ids, rows, strict=True)))
        for many in table.lists:
            pairs = ((ids[number - 1], other) for number, other in lists[many.name])
            through = cast(type[models.Model], many.remote_field.through)
            _copy(through, [many.m2m_column_name(), many.m2m_reverse_name()], pairs)
    except (IntegrityError, DataError) as error:
        said = str(error).strip().splitlines()[-1]
        raise ArchiveError(f"{table.name}.jsonl holds rows that cannot stand together. {said}") from error


def is_empty(club: Club) -> bool:
    return not any(table.rows(club).exists() for table in TABLES)


def _opened(file: BinaryIO) -> zipfile.ZipFile:
    try:
        files = zipfile.ZipFile(file)
        names = set(files.namelist())
    except (zipfile.BadZipFile, OSError, EOFError) as error:
        raise ArchiveError("This is no zip archive, or it is torn. Export the club again.") from error
    if sum(info.file_size for info in files.infolist()) > MOST_UNPACKED:
        raise ArchiveError(f"Unpacked it would be larger than {MOST_UNPACKED // 1_000_000} MB.")
    _there(names, ["club.json"])
    return files


def _there(names: Iterable[str], wanted: Iterable[str]) -> None:
    if missing := sorted(set(wanted) - set(names)):
        raise ArchiveError(f"There is no {missing[0]} in it: this is not the archive of a club, or not the whole.")


def _settings(club: Club, files: zipfile.ZipFile) -> int:
    """Takes the club's own, and gives the version of the archive."""
    try:
        own = json.loads(files.read("club.json"))
        found = own["format"], own["version"]
    except (ValueError, KeyError, TypeError) as error:
        raise ArchiveError("club.json cannot be read: it says neither format nor version.") from error
    version = found[1]
    if found[0] != FORMAT or isinstance(version, bool) or version not in range(1, VERSION + 1):
        raise ArchiveError(f"This is {found[0]} {version}; {FORMAT} 1 to {VERSION} can be read.")
    for name in SETTINGS:
        setattr(club, name, _value("club.json", cast(AnyField, Club._meta.get_field(name)), own.get(name), {}))
    club.save()
    return int(version)


def bring_in(club: Club, file: BinaryIO) -> dict[str, int]:
    """How many rows of each table came in. Raises `ArchiveError`, and then none has."""
    files = _opened(file)
    made: Made = {}
    try:
        with files, transaction.atomic():
            if not is_empty(club):
                raise ArchiveError("This club holds records already. Bring it into an empty one.")
            version = _settings(club, files)
            here = [table for table in TABLES if table.since <= version]
            _there(files.namelist(), [f"{table.name}.jsonl" for table in here])
            for table in here:
                _bring(club, table, files, made, version)
    except (zipfile.BadZipFile, EOFError, UnicodeDecodeError) as error:
        raise ArchiveError("The archive is torn. Export the club again.") from error
    return {table.name: len(made.get(table.model, ())) for table in TABLES}
