"""A club's archive brought into an empty club: all of it, or none with the line that is wrong."""

import json
import zipfile
from collections.abc import Iterator
from typing import Any, BinaryIO, cast

from django.core.exceptions import ValidationError
from django.db import models, transaction

from server.accounts.models import Club
from server.records.export import FORMAT, VERSION
from server.records.tables import SETTINGS, TABLES, AnyField, Row, Table
from yoisho.plain import sentence
from yoisho.session.document import drill_from_dict, from_document
from yoisho.strikes.combination import CombinationError

MOST_UNPACKED = 600_000_000
"""Bytes of all files together: no archive of a club comes near it."""
AT_ONCE = 500
AUTO = ("auto_now", "auto_now_add")


class ArchiveError(ValueError):
    """What is wrong with an archive: where, and how to mend it."""


def _lines(files: zipfile.ZipFile, name: str) -> Iterator[tuple[int, Row]]:
    with files.open(name) as lines:
        for number, line in enumerate(lines, 1):
            where = f"{name}, line {number}"
            if b"\\u0000" in line:
                raise ArchiveError(f"{where} holds a NUL character, which cannot be kept. Take it out.")
            try:
                row = json.loads(line)
            except ValueError as error:
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


def _other(where: str, field: Any, number: Any, made: dict[type[models.Model], list[Any]]) -> Any:
    there = made[field.related_model]
    if not isinstance(number, int) or isinstance(number, bool) or not 1 <= number <= len(there):
        raise ArchiveError(f"{where}, {field.name}: there is no row {number} to point to; there are {len(there)}.")
    return there[number - 1]


def _value(where: str, field: AnyField, value: Any, made: dict[type[models.Model], list[Any]]) -> Any:
    if value is None and field.null:
        return None
    if field.related_model:
        return _other(where, field, value, made)
    if field.get_internal_type() == "JSONField" and value in ({}, []):
        return value
    if value == "" and field.get_internal_type() in ("CharField", "TextField"):
        return value
    try:
        return field.clean(value, None)
    except (ValidationError, TypeError, ValueError) as error:
        said = "; ".join(error.messages) if isinstance(error, ValidationError) else str(error)
        raise ArchiveError(f"{where}, {field.name}: {said}") from error


def _possible(where: str, table: Table, row: Row) -> None:
    """What the core reads must be readable."""
    try:
        if "document" in row:
            from_document(row["document"])
        if table.name == "combinations":
            drill_from_dict(row["drill"])
    except (ValueError, CombinationError) as error:
        raise ArchiveError(f"{where}: {sentence(error)}") from error


def _bring(club: Club, table: Table, files: zipfile.ZipFile, made: dict[type[models.Model], list[Any]]) -> None:
    fresh: list[Any] = []
    lists: list[tuple[Any, str, list[Any]]] = []
    for number, row in _lines(files, f"{table.name}.jsonl"):
        where = f"{table.name}.jsonl, line {number}"
        _known(where, table, row)
        _possible(where, table, row)
        values = {field.name: _value(where, field, row[field.name], made) for field in table.fields}
        if any(field.name == "club" for field in table.model._meta.fields):
            values["club"] = club
        each = table.model(**values)
        fresh.append(each)
        for many in table.lists:
            if not isinstance(row[many.name], list):
                raise ArchiveError(f"{where}, {many.name} is no list.")
            lists.append((each, many.name, [_other(where, many, one, made) for one in row[many.name]]))
    made[table.model] = table.model._default_manager.bulk_create(fresh, batch_size=AT_ONCE)
    _own_times(table, files, made[table.model])
    for each, name, others in lists:
        if others:
            getattr(each, name).set(others)


def _own_times(table: Table, files: zipfile.ZipFile, fresh: list[Any]) -> None:
    """Moments that the database sets by itself are set back to what they were."""
    auto = [field for field in table.fields if any(getattr(field, name, False) for name in AUTO)]
    if not auto or not fresh:
        return
    for number, row in _lines(files, f"{table.name}.jsonl"):
        for field in auto:
            setattr(fresh[number - 1], field.attname, field.to_python(row[field.name]))
    table.model._default_manager.bulk_update(fresh, [field.name for field in auto], batch_size=AT_ONCE)


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
    wanted = {"club.json", *(f"{table.name}.jsonl" for table in TABLES)}
    if missing := sorted(wanted - names):
        raise ArchiveError(f"There is no {missing[0]} in it: this is not the archive of a club, or not the whole.")
    return files


def _settings(club: Club, files: zipfile.ZipFile) -> None:
    try:
        own = json.loads(files.read("club.json"))
        found = own["format"], own["version"]
    except (ValueError, KeyError, TypeError) as error:
        raise ArchiveError("club.json cannot be read: it says neither format nor version.") from error
    if found != (FORMAT, VERSION):
        raise ArchiveError(f"This is {found[0]} {found[1]}; {FORMAT} {VERSION} can be read.")
    for name in SETTINGS:
        setattr(club, name, _value("club.json", cast(AnyField, Club._meta.get_field(name)), own.get(name), {}))
    club.save()


def bring_in(club: Club, file: BinaryIO) -> dict[str, int]:
    """How many rows of each table came in. Raises `ArchiveError`, and then none has."""
    files = _opened(file)
    made: dict[type[models.Model], list[Any]] = {}
    try:
        with files, transaction.atomic():
            if not is_empty(club):
                raise ArchiveError("This club holds records already. Bring it into an empty one.")
            _settings(club, files)
            for table in TABLES:
                _bring(club, table, files, made)
    except (zipfile.BadZipFile, EOFError, UnicodeDecodeError) as error:
        raise ArchiveError("The archive is torn. Export the club again.") from error
    return {table.name: len(made[table.model]) for table in TABLES}
