"""The gate before a run: who may not do this session today, and why."""

from dataclasses import replace
from typing import Annotated

from django.http import HttpRequest
from ninja import Query, Router, Schema

from server.accounts.current import coach
from server.accounts.models import User
from server.bench.circumstances import circumstances_of
from server.errors import Faults, Message
from server.roster.api import the_person
from server.roster.models import Person
from server.runs.kept import plan_for
from server.sessions.api import find_session
from yoisho.answers.gate import Stop, stops_before
from yoisho.runs.pairs import MOST, lived_by
from yoisho.session.document import from_document

router = Router(tags=["runs"])


def discreet(user: User, rule: str, text: str, cure: str) -> tuple[str, str]:
    """Why somebody is stopped, in words; what the screening says of their health only for those it is for."""
    if rule == "screening" and not user.trains:
        return "Not today, by the screening.", "Ask the coach."
    return text, cure


class Stopped(Schema):
    person_id: int
    name: str
    stops: list[Stop]


def told_stops(user: User, who: Person, stops: list[Stop]) -> Stopped:
    """What stands against somebody, in the words that are for this member."""
    words = [(each, *discreet(user, each.rule, each.text, each.cure)) for each in stops]
    told = [replace(each, text=text, cure=cure) for each, text, cure in words]
    return Stopped(person_id=who.pk, name=who.name, stops=told)


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
    user = coach(request)
    club = user.own_club
    saved = find_session(club, session_id)
    plan = plan_for(from_document(saved.document), max(1, len(person)), "query", "person")
    found = []
    for place, person_id in enumerate(dict.fromkeys(person)):
        who = the_person(club, person_id)
        own = lived_by(plan.timeline, place, max(1, len(person)))
        stops = stops_before(who.to_core(), own, saved.target, circumstances_of(who, None))
        if stops:
            found.append(told_stops(user, who, stops))
    return found
