"""Who comes to what is planned."""

from collections.abc import Iterable
from functools import cached_property
from typing import Any

from server.pages import Told
from server.roster.models import Person
from server.today.models import Planned
from yoisho.session.document import from_document
from yoisho.session.timeline import Timeline


class Somebody(Told):
    id: int
    name: str

    @classmethod
    def of(cls, person: Person) -> "Somebody":
        return cls(id=person.pk, name=person.name)


class Read:
    """A session of the plan, read and unrolled once however often it comes."""

    def __init__(self, document: dict[str, Any]):
        self.session = from_document(document)

    @cached_property
    def timeline(self) -> Timeline:
        return self.session.unrolled()


def read_once(rows: Iterable[Planned]) -> dict[int, Read]:
    """The sessions of a plan by their id."""
    documents = {row.session_id: row.session.document for row in rows}
    return {pk: Read(document) for pk, document in documents.items()}


def people_of(planned: Planned) -> list[Person]:
    """Of the group and by name, who is not archived, in the order of their names."""
    members = planned.group.people.all() if planned.group else ()
    found = {who.pk: who for who in (*members, *planned.people.all()) if who.archived_at is None}
    return sorted(found.values(), key=lambda who: who.name)
