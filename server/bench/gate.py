"""The gate before a run: who may not do this session today, and why."""

from typing import Annotated

from django.http import HttpRequest
from ninja import Query, Router, Schema

from server.accounts.current import club_of
from server.bench.circumstances import circumstances_of
from server.errors import Faults, Message
from server.roster.api import the_person
from server.runs.kept import plan_for
from server.sessions.api import find_session
from yoisho.answers.gate import Stop, stops_before
from yoisho.runs.pairs import MOST, lived_by
from yoisho.session.document import from_document

router = Router(tags=["runs"])


class Stopped(Schema):
    person_id: int
    name: str
    stops: list[Stop]


@router.get(
    "/sessions/{session_id}/gate",
    response={200: list[Stopped], 404: Message, 422: Faults},
    operation_id="gate",
)
def gate(
    request: HttpRequest,
    session_id: int,
    person: Annotated[list[int], Query(max_length=MOST)] = [],  # noqa: B006
) -> list[Stopped]:
    """For those who are to do the session: the stops that stand against it; nobody who may do it is told."""
    club = club_of(request)
    saved = find_session(club, session_id)
    plan = plan_for(from_document(saved.document), max(1, len(person)), "query", "person")
    found = []
    for place, person_id in enumerate(dict.fromkeys(person)):
        who = the_person(club, person_id)
        own = lived_by(plan.timeline, place, max(1, len(person)))
        stops = stops_before(who.to_core(), own, saved.target, circumstances_of(who, None))
        if stops:
            found.append(Stopped(person_id=who.pk, name=who.name, stops=stops))
    return found
