"""Who comes to what is planned."""

from server.pages import Told
from server.roster.models import Person
from server.today.models import Planned


class Somebody(Told):
    id: int
    name: str

    @classmethod
    def of(cls, person: Person) -> "Somebody":
        return cls(id=person.pk, name=person.name)


def people_of(planned: Planned) -> list[Person]:
    """Of the group and by name, who is not archived, in the order of their names."""
    members = planned.group.people.all() if planned.group else ()
    found = {who.pk: who for who in (*members, *planned.people.all()) if who.archived_at is None}
    return sorted(found.values(), key=lambda who: who.name)
