"""What of a club goes out whole and comes in again: every table, in an order in which each points back only."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from functools import cached_property
from typing import TYPE_CHECKING, Any

import msgspec
from django.db import models
from django.db.models.functions import Cast

from server.accounts.models import Club
from server.camp.models import Camp, CampSession
from server.classes.models import ClassPlan
from server.combinations.models import BookEntry
from server.logbook.models import LogEntry
from server.roster.models import FieldTest, Group, Knock, Limit, Person
from server.runs.models import Journal, Result, Run
from server.sendout.models import SentBack
from server.sessions.models import Session, Version
from server.today.models import Planned

Row = dict[str, Any]
if TYPE_CHECKING:
    AnyField = models.Field[Any, Any]
    AnyList = models.ManyToManyField[Any, Any]
else:
    AnyField, AnyList = models.Field, models.ManyToManyField
LEFT_OUT = {"accounts.Club", "accounts.User", "sendout.ShareLink"}
"""What no row points to outside its club: accounts stay where they are, and a link opens here alone."""
SETTINGS = ("name", "school", "emergency_number", "last_lactic_days", "time_zone", "first_weekday")
"""Of the club itself."""


def _no_session(row: Row) -> Row:
    """The id of a session in what was sent back is of this server alone."""
    return {**row, "entry": {**msgspec.json.decode(row["entry"]), "session_id": None}}


def _no_bases(row: Row) -> Row:
    """The sessions that are liked are told by ids of this server alone; what was made of them is in the choices."""
    return {**row, "asked": {**msgspec.json.decode(row["asked"]), "bases": {}}}


def _unknown(row: Row) -> Row:
    """The people of a board are told by name: their ids are of this server alone."""
    if row["board"] is None:
        return row
    board = msgspec.json.decode(row["board"])
    return {**row, "board": {**board, "people": [{**each, "person_id": None} for each in board["people"]]}}


def _nobody_known(row: Row) -> Row:
    """Whoever comes to a class is told by name, and the class by those of its group."""
    asked = msgspec.json.decode(row["asked"])
    people = [{**each, "person_id": None} for each in asked["people"]]
    return {**row, "asked": {**asked, "group_id": None, "people": people}}


@dataclass(frozen=True)
class Table:
    name: str
    model: type[models.Model]
    way: str
    """From a row to its club."""
    tidy: Callable[[Row], Row] = lambda row: row
    since: int = 1
    """The version of the archive that has it first."""
    added: tuple[tuple[str, int, Any], ...] = ()
    """Fields that came later: since which version, and what rows of an earlier one have there."""

    def up_to_date(self, row: Row, version: int) -> Row:
        """A row of an archive of any version, as one of this version."""
        return {**{name: value for name, since, value in self.added if version < since}, **row}

    @cached_property
    def fields(self) -> tuple[AnyField, ...]:
        """All that is told of a row, but for its number."""
        return tuple(
            field
            for field in self.model._meta.fields
            if not field.primary_key and not (field.related_model and field.related_model._meta.label in LEFT_OUT)
        )

    @cached_property
    def lists(self) -> tuple[AnyList, ...]:
        return tuple(self.model._meta.many_to_many)

    @cached_property
    def json(self) -> frozenset[str]:
        """Names of what is JSON already."""
        return frozenset(field.name for field in self.fields if field.get_internal_type() == "JSONField")

    def rows(self, club: Club) -> "models.QuerySet[Any]":
        """What is JSON comes as the database has written it: nothing is read only to be written again."""
        found: models.QuerySet[Any] = self.model._base_manager.filter(**{self.way: club}).order_by("pk")
        texts = {f"{name}_text": Cast(name, models.TextField()) for name in sorted(self.json)}
        found = found.annotate(**texts).defer(*self.json)
        return found.prefetch_related(*(each.name for each in self.lists))


TABLES = (
    Table("groups", Group, "club"),
    Table("people", Person, "club"),
    Table("limits", Limit, "person__club"),
    Table("tests", FieldTest, "person__club"),
    Table("knocks", Knock, "person__club"),
    Table("sessions", Session, "club", _unknown, added=(("in_lists", 2, True), ("board", 3, None))),
    Table("versions", Version, "session__club"),
    Table("combinations", BookEntry, "club"),
    Table("runs", Run, "club", _unknown, added=(("board", 3, None), ("board_revision", 3, 0))),
    Table("journals", Journal, "run__club"),
    Table("results", Result, "run__club"),
    Table("log", LogEntry, "club"),
    Table("planned", Planned, "club"),
    Table("classes", ClassPlan, "club", _nobody_known, since=3),
    Table("camps", Camp, "club", _no_bases, since=2),
    Table("camp_sessions", CampSession, "camp__club", since=2),
    Table("sent_back", SentBack, "club", _no_session),
)
BY_MODEL = {table.model: table for table in TABLES}

_JSON_TYPES: dict[str, dict[str, Any]] = {
    "CharField": {"type": "string"},
    "TextField": {"type": "string"},
    "UUIDField": {"type": "string", "format": "uuid"},
    "BooleanField": {"type": "boolean"},
    "FloatField": {"type": "number"},
    "PositiveIntegerField": {"type": "integer", "minimum": 0},
    "PositiveSmallIntegerField": {"type": "integer", "minimum": 0},
    "DateField": {"type": "string", "format": "date"},
    "TimeField": {"type": "string", "format": "time"},
    "DateTimeField": {"type": "string", "format": "date-time"},
    "JSONField": {},
}


def _field_schema(field: AnyField) -> dict[str, Any]:
    if field.related_model:
        told: dict[str, Any] = {"type": "integer", "minimum": 1}
        told["description"] = f"a row of {BY_MODEL[field.related_model].name}, by its number"
    else:
        told = dict(_JSON_TYPES[field.get_internal_type()])
        if field.get_internal_type() == "CharField" and field.max_length:
            told["maxLength"] = field.max_length
    if field.null and "type" in told:
        told["type"] = [told["type"], "null"]
    return told


def schema_of(table: Table) -> dict[str, Any]:
    """The JSON Schema of a row."""
    own = {field.name: _field_schema(field) for field in table.fields}
    for each in table.lists:
        name = BY_MODEL[each.related_model].name
        own[each.name] = {
            "type": "array", "items": {"type": "integer", "minimum": 1},
            "description": f"rows of {name}, by their numbers",
        }  # fmt: skip
    numbered = {"number": {"type": "integer", "minimum": 1, "description": "the line it stands on"}, **own}
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": f"A row of {table.name}",
        "type": "object",
        "properties": numbered,
        "required": list(numbered),
        "additionalProperties": False,
    }


def told(club: Club) -> Iterator[tuple[Table, list[Row]]]:
    """Every table with its rows. Rows are numbered from 1 in each, and point to each other by those numbers."""
    numbers: dict[type[models.Model], dict[Any, int]] = {}
    for table in TABLES:
        own = numbers[table.model] = {}
        rows = []
        for number, each in enumerate(table.rows(club).iterator(2000), 1):
            own[each.pk] = number
            row: Row = {"number": number}
            for field in table.fields:
                if field.name in table.json:
                    text = getattr(each, f"{field.name}_text")
                    row[field.name] = None if text is None else msgspec.Raw(text.encode())
                    continue
                value = getattr(each, field.attname)
                if field.related_model:
                    # What points out of the club, or to what has gone, points nowhere.
                    value = numbers[field.related_model].get(value)
                row[field.name] = value
            for many in table.lists:
                there = numbers[many.related_model]
                row[many.name] = sorted(there[one.pk] for one in getattr(each, many.name).all() if one.pk in there)
            rows.append(table.tidy(row))
        yield table, rows
