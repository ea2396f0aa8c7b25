from datetime import date
from typing import Literal

from django.http import HttpRequest
from ninja import Router, Schema
from ninja.pagination import paginate

from server.accounts.current import club_of
from server.accounts.models import Club
from server.pages import Listed, Pages
from server.roster.models import Person
from yoisho.engine.person import Person as CorePerson
from yoisho.engine.person import Value, person
from yoisho.judgement.circumstances import ScreeningOutcome
from yoisho.session.rules import RULE_SETS

router = Router(tags=["roster"])


class Known(Schema):
    """A number about a person, its standard deviation and where it came from."""

    value: float
    sd: float
    origin: str
    source: str


class PersonOut(Schema):
    id: int
    name: str
    sport: str
    level: str
    stance: Literal["orthodox", "southpaw"]
    age_years: int
    mass_kg: float
    vo2max_ml_kg_min: Known
    hr_max_bpm: Known
    hr_rest_bpm: Known
    anaerobic_scale: Known
    speed_scale: Known
    heart_rate_lowering_medication: bool
    rule_set: str | None
    fight_on: date | None
    screening: ScreeningOutcome | None
    """What the screening came to; None where there was none."""


def _known(value: Value) -> Known:
    return Known(value=value.value, sd=value.sd, origin=value.origin, source=value.source)


def _out(who: Person) -> PersonOut:
    core = who.to_core()
    return PersonOut(
        id=who.pk,
        name=who.name,
        sport=who.sport,
        level=who.level,
        stance=core.stance,
        age_years=who.age_years,
        mass_kg=who.mass_kg,
        vo2max_ml_kg_min=_known(core.vo2max_ml_kg_min),
        hr_max_bpm=_known(core.hr_max_bpm),
        hr_rest_bpm=_known(core.hr_rest_bpm),
        anaerobic_scale=_known(core.anaerobic_scale),
        speed_scale=_known(core.speed_scale),
        rule_set=RULE_SETS[core.rule_set].name if core.rule_set else None,
        fight_on=who.fight_on,
        screening=who.screening.outcome if who.screening else None,
        heart_rate_lowering_medication=who.heart_rate_lowering_medication,
    )


def find_person(club: Club, person_id: int | None) -> Person | None:
    """The club's person with that id; None where none is asked for. 404 where it is not the club's."""
    return None if person_id is None else Person.objects.find(club, "person", pk=person_id)


def core_of(who: Person | None) -> CorePerson:
    """The person as the engine sees them; where nobody is picked, a club-level adult by default."""
    return who.to_core() if who else person()


@router.get("/people", response=list[PersonOut], operation_id="people")
@paginate(Pages)
def people(request: HttpRequest) -> Listed:
    return Listed(Person.objects.of(club_of(request)), _out)
