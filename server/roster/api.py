"""The roster: the club's people and groups, entered and kept."""

from collections.abc import Iterable
from dataclasses import asdict
from typing import cast

from django.db import transaction
from django.db.models import Count, Prefetch, Q, QuerySet
from django.http import HttpRequest
from django.utils import timezone
from ninja import Router, Status
from ninja.pagination import paginate

from server.accounts.current import club_of, coach
from server.accounts.models import Club
from server.accounts.once import once
from server.errors import Faults, FieldError, Message
from server.pages import Listed, Pages
from server.roster import schemas
from server.roster.models import Group, Person
from yoisho.engine.person import OLDEST, YOUNGEST, PersonError, Sex, Value, person
from yoisho.engine.person import Person as CorePerson
from yoisho.judgement.limits import LIMBS, LIMITS
from yoisho.plain import sentence
from yoisho.review.repeats import FIELD_TESTS
from yoisho.session.rules import RULE_SETS

router = Router(tags=["roster"])


def _known(value: Value) -> schemas.Known:
    return schemas.Known(value=value.value, sd=value.sd, origin=value.origin, source=value.source)


def told(who: Person, health: bool = True) -> schemas.PersonOut:
    """Without what is known of their `health`, save their limits and a knock to the head, for those it is not for."""
    core = who.to_core()
    return schemas.PersonOut(
        id=who.pk,
        name=who.name,
        sport=who.sport,
        level=core.level,
        sex=cast(Sex, who.sex) if who.sex else None,
        stance=core.stance,
        birth_year=who.birth_year,
        age_years=who.age_years,
        mass_kg=who.mass_kg,
        vo2max_given=who.vo2max_ml_kg_min,
        vo2max_ml_kg_min=_known(core.vo2max_ml_kg_min),
        hr_max_bpm=_known(core.hr_max_bpm),
        hr_rest_bpm=_known(core.hr_rest_bpm),
        anaerobic_scale=_known(core.anaerobic_scale),
        speed_scale=_known(core.speed_scale),
        rule_set=RULE_SETS[core.rule_set].name if core.rule_set else None,
        rule_set_id=core.rule_set,
        fight_on=who.fight_on,
        screening=who.screening.outcome if who.screening and health else None,
        heart_rate_lowering_medication=who.heart_rate_lowering_medication and health,
        groups=[group.pk for group in who.its("groups")],
        limits=[limit.words for limit in who.limits_today],
        knocked=who.concussion_uncleared,
        archived=who.archived_at is not None,
    )


def everything(rows: QuerySet[Person]) -> QuerySet[Person]:
    """With all that is told of them, in as many questions for one as for five hundred."""
    return (
        rows.select_related("calibration")
        .defer("calibration__draws")
        .prefetch_related(*(Prefetch(what, to_attr=f"its_{what}") for what in ("groups", "limits", "knocks")))
    )


def find_person(club: Club, person_id: int | None) -> Person | None:
    """The club's person with that id; None where none is asked for. 404 where it is not the club's."""
    return None if person_id is None else Person.objects.find(club, "person", pk=person_id)


def the_person(club: Club, person_id: int) -> Person:
    return Person.objects.find(club, "person", pk=person_id)


def core_of(who: Person | None) -> CorePerson:
    """The person as the engine sees them; where nobody is picked, a club-level adult by default."""
    return who.to_core() if who else person()


@router.get("/people", response=list[schemas.PersonOut], operation_id="people")
@paginate(Pages)
def people(request: HttpRequest, archived: bool = False) -> Listed:
    """Those who train; or those who are archived."""
    user = coach(request)
    rows = Person.objects.of(user.own_club).filter(archived_at__isnull=not archived)
    return Listed(everything(rows), lambda who: told(who, health=user.trains))


def _groups(club: Club, ids: Iterable[int]) -> list[Group]:
    wanted = set(ids)
    found = list(Group.objects.of(club).filter(pk__in=wanted))
    if len(found) < len(wanted):
        raise FieldError(["body", "groups"], "One of these groups is not there any more. Choose again.", "group")
    return found


def age_fault(birth_year: int) -> str | None:
    """What is wrong with a year of birth, if the engine does not know that age."""
    year = timezone.localdate().year
    if YOUNGEST <= year - birth_year <= OLDEST:
        return None
    return (
        f"That makes {year - birth_year} years; the engine knows {schemas.AGES}. "
        f"Give a year from {year - OLDEST} to {year - YOUNGEST}."
    )


def take(who: Person, body: schemas.PersonIn) -> Person:
    """Keep what was entered, if the engine can work with it."""
    values = body.model_dump(exclude={"groups"})
    values["sex"] = values["sex"] or ""
    values["rule_set"] = values["rule_set"] or ""
    for name, value in values.items():
        setattr(who, name, value)
    if said := age_fault(who.birth_year):
        raise FieldError(["body", "birth_year"], said, "person")
    try:
        who.to_core() if who.pk else person(mass_kg=who.mass_kg, age_years=who.age_years)
    except PersonError as error:
        raise FieldError(["body"], sentence(error), "person") from error
    with transaction.atomic():
        groups = _groups(who.club, body.groups)
        who.save()
        who.groups.set(groups)
    return who


@router.post("/people", response={201: schemas.PersonOut, 409: Message, 422: Faults}, operation_id="add_person")
@once
def add_person(request: HttpRequest, body: schemas.PersonIn) -> Status[schemas.PersonOut]:
    """Somebody new."""
    return Status(201, told(take(Person(club=club_of(request)), body)))


def _group_out(group: Group) -> schemas.GroupOut:
    return schemas.GroupOut(id=group.pk, name=group.name, people=getattr(group, "training", 0))


@router.get("/groups", response=list[schemas.GroupOut], operation_id="groups")
@paginate(Pages)
def groups(request: HttpRequest) -> Listed:
    training = Count("people", filter=Q(people__archived_at__isnull=True))
    # A model's own order does not hold where rows are counted by group.
    return Listed(Group.objects.of(club_of(request)).annotate(training=training).order_by("name"), _group_out)


def _named(club: Club, name: str, but: int | None = None) -> str:
    if Group.objects.of(club).filter(name__iexact=name).exclude(pk=but or 0).exists():
        raise FieldError(["body", "name"], f"There is a group called {name} already. Choose another name.", "group")
    return name


@router.post("/groups", response={201: schemas.GroupOut, 409: Message, 422: Faults}, operation_id="add_group")
@once
def add_group(request: HttpRequest, body: schemas.GroupIn) -> Status[schemas.GroupOut]:
    club = club_of(request)
    return Status(201, _group_out(Group.objects.create(club=club, name=_named(club, body.name))))


@router.put(
    "/groups/{group_id}", response={200: schemas.GroupOut, 404: Message, 422: Faults}, operation_id="save_group"
)
def save_group(request: HttpRequest, group_id: int, body: schemas.GroupIn) -> schemas.GroupOut:
    club = club_of(request)
    group = Group.objects.find(club, "group", pk=group_id)
    group.name = _named(club, body.name, but=group.pk)
    group.save(update_fields=["name"])
    group.training = group.people.filter(archived_at__isnull=True).count()  # type: ignore[attr-defined]
    return _group_out(group)


@router.delete("/groups/{group_id}", response={204: None, 404: Message}, operation_id="delete_group")
def delete_group(request: HttpRequest, group_id: int) -> Status[None]:
    """The group; its people stay."""
    Group.objects.find(club_of(request), "group", pk=group_id).delete()
    return Status(204, None)


@router.get("/roster/words", response=schemas.RosterWords, operation_id="roster_words")
def roster_words(request: HttpRequest) -> schemas.RosterWords:
    """What limits and tests there are."""
    return schemas.RosterWords(
        limits=[
            schemas.LimitKindOut(
                id=kind.id, word=kind.word, changes=kind.changes, limb=kind.limb, most=kind.most, period=kind.period
            )
            for kind in LIMITS.values()
        ],
        limbs=list(LIMBS),
        tests=[schemas.FieldTestKindOut.model_validate(asdict(test)) for test in FIELD_TESTS.values()],
    )
