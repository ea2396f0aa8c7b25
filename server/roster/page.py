"""Somebody's page: what they have, what they must not do, their screening and their tests."""

from collections import defaultdict
from datetime import date, timedelta
from typing import TypeVar

from django.db import transaction
from django.db.models import Manager, Model
from django.http import HttpRequest
from django.utils import timezone
from ninja import Router, Status

from server.accounts.current import club_of, coach
from server.accounts.models import Club
from server.accounts.once import once
from server.days import Day
from server.errors import Faults, FieldError, Message, not_found
from server.roster import schemas
from server.roster.api import everything, take, the_person, told
from server.roster.models import FieldTest, Knock, Limit, Person
from yoisho.answers.person import capacities, strikes_held
from yoisho.engine.field_tests import StrikeTest, TestResultError, cooper, leger
from yoisho.engine.person import PersonError
from yoisho.judgement.circumstances import SCREENING_SAYS
from yoisho.judgement.limits import Limit as CoreLimit
from yoisho.judgement.limits import LimitError
from yoisho.plain import sentence
from yoisho.review.repeats import FIELD_TESTS, Repeatability, change, repeatability, repeats

router = Router(tags=["roster"])
Row = TypeVar("Row", bound=Model)
MOST_OF_A_SQUAD = 30
"""Of the others, so many are drawn beside somebody; and a strike test is fitted for each."""


def _fight(who: Person) -> schemas.FightOut | None:
    if who.fight_on is None:
        return None
    days = (who.fight_on - timezone.localdate()).days
    if days < 0:
        return None
    last = who.fight_on - timedelta(days=who.club.last_lactic_days)
    return schemas.FightOut(on=who.fight_on, days=days, last_lactic_on=last)


def _screening(who: Person) -> schemas.ScreeningOut | None:
    screening = who.screening
    if screening is None or who.screened_on is None:
        return None
    return schemas.ScreeningOut(
        on=who.screened_on,
        regularly_active=screening.regularly_active,
        known_disease=screening.known_disease,
        symptoms=screening.symptoms,
        outcome=screening.outcome,
        says=SCREENING_SAYS[screening.outcome],
        cleared_on=who.cleared_on,
        cleared_by=who.cleared_by,
        clearance_ends=who.clearance_ends,
        clearance_days_left=screening.days_left,
        clearance_ends_soon=screening.ends_soon,
    )


def _limit(limit: Limit) -> schemas.LimitOut:
    core = limit.core
    return schemas.LimitOut(
        id=limit.pk,
        kind=core.kind,
        limb=core.limb,
        most=core.most,
        period=core.period,
        until=core.until,
        set_by=core.set_by,
        words=core.words,
        set_on=limit.set_on,
        lifted_on=limit.lifted_on,
        holds=limit.lifted_on is None and core.holds_on(timezone.localdate()),
    )


def _knock(knock: Knock) -> schemas.KnockOut:
    return schemas.KnockOut(
        id=knock.pk,
        on=knock.on,
        noted_by=knock.noted_by.known_as if knock.noted_by else None,
        cleared_on=knock.cleared_on,
        cleared_by=knock.cleared_by,
    )


def repeatability_of(club: Club, kinds: set[str]) -> dict[str, Repeatability]:
    """What each kind of test repeats to in this club."""
    tries: dict[str, dict[int, list[FieldTest]]] = defaultdict(lambda: defaultdict(list))
    for test in FieldTest.objects.filter(person__club=club, kind__in=kinds):
        tries[test.kind][test.person_id].append(test)
    return {
        kind: repeatability(FIELD_TESTS[kind], repeats([[t.tried for t in own] for own in tries[kind].values()]))
        for kind in kinds
    }


def _tests(who: Person) -> list[schemas.FieldTestOut]:
    tests = list(who.tests.all())
    known = repeatability_of(who.club, {test.kind for test in tests})
    rows = []
    for index, test in enumerate(tests):
        before = next((each for each in tests[index + 1 :] if each.kind == test.kind), None)
        since = None
        if before is not None:
            found = change(FIELD_TESTS[test.kind], before.tried, test.tried, known[test.kind])
            since = schemas.ChangeSince(
                by=found.by, within=found.within, real=found.real, source=known[test.kind].source
            )
        rows.append(
            schemas.FieldTestOut(
                id=test.pk, kind=test.kind, on=test.on, value=test.value, counts=test.counts, where=test.where,
                counted_by=test.counted_by, change=since,
            )
        )  # fmt: skip
    return rows


def _squad(who: Person) -> dict[str, list[float]]:
    """What the others of their groups have; of the club where they are in none."""
    others = Person.objects.of(who.club).filter(archived_at__isnull=True).exclude(pk=who.pk)
    mine = [group.pk for group in who.groups.all()]
    if mine:
        others = others.filter(groups__in=mine).distinct()
    found: dict[str, list[float]] = defaultdict(list)
    for other in everything(others)[:MOST_OF_A_SQUAD]:
        for capacity in capacities(other.to_core(), other.counts):
            found[capacity.id].append(round(capacity.value, 2))
    return dict(found)


def _page(club: Club, person_id: int) -> schemas.PersonPage:
    who = everything(Person.objects.of(club)).filter(pk=person_id).first()
    if who is None:
        raise not_found("person")
    return schemas.PersonPage(
        person=told(who),
        capacities=capacities(who.to_core(), who.counts),
        squad=_squad(who),
        strikes=strikes_held(who.counts) if who.counts else None,
        fight=_fight(who),
        screening=_screening(who),
        limits=[_limit(limit) for limit in who.limits.all()],
        knocks=[_knock(knock) for knock in who.knocks.select_related("noted_by")],
        tests=_tests(who),
    )


@router.get("/people/{person_id}", response={200: schemas.PersonPage, 404: Message}, operation_id="person")
def person_page(request: HttpRequest, person_id: int) -> schemas.PersonPage:
    """Somebody whole."""
    return _page(club_of(request), person_id)


@router.put(
    "/people/{person_id}", response={200: schemas.PersonOut, 404: Message, 422: Faults}, operation_id="save_person"
)
def save_person(request: HttpRequest, person_id: int, body: schemas.PersonIn) -> schemas.PersonOut:
    """Who they are, anew."""
    return told(take(the_person(club_of(request), person_id), body))


@router.put(
    "/people/{person_id}/archived", response={200: schemas.PersonOut, 404: Message}, operation_id="archive_person"
)
def archive_person(request: HttpRequest, person_id: int, archived: bool) -> schemas.PersonOut:
    """Out of the lists, with everything kept; or back into them."""
    who = the_person(club_of(request), person_id)
    who.archived_at = timezone.now() if archived else None
    who.save(update_fields=["archived_at"])
    return told(who)


@router.post(
    "/people/{person_id}/limits",
    response={201: schemas.PersonPage, 404: Message, 409: Message, 422: Faults},
    operation_id="add_limit",
)
@once
def add_limit(request: HttpRequest, person_id: int, body: schemas.LimitIn) -> Status[schemas.PersonPage]:
    """What they must not do, and who says so."""
    club = club_of(request)
    who = the_person(club, person_id)
    try:
        CoreLimit(**body.model_dump())
    except LimitError as error:
        raise FieldError(["body", error.field], sentence(error), "limit") from error
    if body.until is not None and body.until < timezone.localdate():
        raise FieldError(["body", "until"], "That day is over. Give today or a later one, or none.", "limit")
    Limit.objects.create(person=who, **body.model_dump())
    return Status(201, _page(club, person_id))


def _theirs(rows: Manager[Row], what: str, pk: int) -> Row:
    """One of somebody's own; 404 where it is not theirs."""
    found = rows.filter(pk=pk).first()
    if found is None:
        raise not_found(what)
    return found


@router.put(
    "/people/{person_id}/limits/{limit_id}/lifted",
    response={200: schemas.PersonPage, 404: Message},
    operation_id="lift_limit",
)
def lift_limit(request: HttpRequest, person_id: int, limit_id: int, lifted: bool) -> schemas.PersonPage:
    """It holds no longer from today on; or it holds again."""
    club = club_of(request)
    limit = _theirs(the_person(club, person_id).limits, "limit", limit_id)
    limit.lifted_on = timezone.localdate() if lifted else None
    limit.save(update_fields=["lifted_on"])
    return _page(club, person_id)


def _not_ahead(on: date) -> date:
    if on > timezone.localdate():
        raise FieldError(["body", "on"], "That day is still to come. Give today or an earlier one.", "day")
    return on


@router.put(
    "/people/{person_id}/knocks/on/{on}",
    response={200: schemas.PersonOut, 404: Message, 422: Faults},
    operation_id="note_knock",
)
def note_knock(request: HttpRequest, person_id: int, on: Day) -> schemas.PersonOut:
    """A knock to the head that day: nothing but rest until a physician's clearance is entered. Told twice it is one."""
    user = coach(request)
    who = the_person(user.own_club, person_id)
    Knock.objects.get_or_create(person=who, on=_not_ahead(on), cleared_on=None, defaults={"noted_by": user})
    return told(who, health=user.trains)


@router.put(
    "/people/{person_id}/knocks/{knock_id}/clearance",
    response={200: schemas.PersonPage, 404: Message, 422: Faults},
    operation_id="clear_knock",
)
def clear_knock(request: HttpRequest, person_id: int, knock_id: int, body: schemas.ClearanceIn) -> schemas.PersonPage:
    """A licensed physician has cleared it. Nothing else ends it, and it stays on record."""
    club = club_of(request)
    knock = _theirs(the_person(club, person_id).knocks, "knock to the head", knock_id)
    if _not_ahead(body.on) < knock.on:
        raise FieldError(["body", "on"], "A clearance comes after the knock. Give that day or a later one.", "day")
    knock.cleared_on, knock.cleared_by = body.on, body.by
    knock.save(update_fields=["cleared_on", "cleared_by"])
    return _page(club, person_id)


@router.put(
    "/people/{person_id}/screening",
    response={200: schemas.PersonPage, 404: Message, 422: Faults},
    operation_id="save_screening",
)
def save_screening(request: HttpRequest, person_id: int, body: schemas.ScreeningIn) -> schemas.PersonPage:
    """The answers of a screening: three of them, and no more is asked."""
    club = club_of(request)
    who = the_person(club, person_id)
    who.screened_on = _not_ahead(body.on)
    who.screening_active, who.screening_disease = body.regularly_active, body.known_disease
    who.screening_symptoms = body.symptoms
    if body.symptoms:
        # A clearance that was given before there were symptoms says nothing of them.
        who.cleared_on, who.cleared_until, who.cleared_by = None, None, ""
    who.save()
    return _page(club, person_id)


@router.put(
    "/people/{person_id}/clearance",
    response={200: schemas.PersonPage, 404: Message, 422: Faults},
    operation_id="save_clearance",
)
def save_clearance(request: HttpRequest, person_id: int, body: schemas.ClearanceIn) -> schemas.PersonPage:
    """A physician has cleared them for training."""
    club = club_of(request)
    who = the_person(club, person_id)
    if who.screened_on is None:
        raise FieldError(["body"], "Enter the screening first: a clearance answers one.", "screening")
    if body.until is not None and body.until < body.on:
        raise FieldError(["body", "until"], "A clearance ends after it is given.", "day")
    who.cleared_on, who.cleared_until, who.cleared_by = _not_ahead(body.on), body.until, body.by
    who.save(update_fields=["cleared_on", "cleared_until", "cleared_by"])
    return _page(club, person_id)


def _value(who: Person, body: schemas.FieldTestIn) -> float:
    """The number of a test, if it can be."""
    kind = FIELD_TESTS[body.kind]
    try:
        if body.kind == "strikes":
            if body.counts is None:
                raise FieldError(["body", "counts"], "Give the eight counts of the strike test.", "test")
            ten_s, thirty_s, *splits = body.counts
            return StrikeTest(ten_s, thirty_s, tuple(splits)).ten_s
        if body.value is None:
            raise FieldError(["body", "value"], f"Give the {kind.name} in {kind.unit}.", "test")
        if not kind.low <= body.value <= kind.high:
            said = f"From {kind.low:g} to {kind.high:g} {kind.unit}, not {body.value:g}. Check it and enter it anew."
            raise FieldError(["body", "value"], said, "test")
        if body.kind == "cooper":
            cooper(body.value)
        if body.kind == "shuttle":
            leger(body.value, who.age_years)
    except TestResultError as error:
        field = "counts" if body.kind == "strikes" else "value"
        raise FieldError(["body", field], sentence(error), "test") from error
    return body.value


@router.post(
    "/people/{person_id}/tests",
    response={201: schemas.PersonPage, 404: Message, 409: Message, 422: Faults},
    operation_id="add_test",
)
@once
def add_test(request: HttpRequest, person_id: int, body: schemas.FieldTestIn) -> Status[schemas.PersonPage]:
    """A field test of a day; the engine reads the last of each kind."""
    club = club_of(request)
    who = the_person(club, person_id)
    value = _value(who, body)
    _not_ahead(body.on)
    with transaction.atomic():
        FieldTest.objects.create(
            person=who,
            kind=body.kind,
            on=body.on,
            value=value,
            counts=body.counts if body.kind == "strikes" else None,
            where=body.where,
            counted_by=body.counted_by,
        )
        who.take_tests()
        _holds(who)
    return Status(201, _page(club, person_id))


def _holds(who: Person) -> None:
    """Whether the numbers make a person together: a heart that rests higher than it rises does not."""
    try:
        who.to_core()
    except (PersonError, TestResultError) as error:
        raise FieldError(["body", "value"], sentence(error), "test") from error


@router.delete(
    "/people/{person_id}/tests/{test_id}", response={200: schemas.PersonPage, 404: Message}, operation_id="delete_test"
)
def delete_test(request: HttpRequest, person_id: int, test_id: int) -> schemas.PersonPage:
    """A test that was wrong; the engine goes back to the one before."""
    club = club_of(request)
    who = the_person(club, person_id)
    with transaction.atomic():
        gone, _ = FieldTest.objects.filter(person=who, pk=test_id).delete()
        if not gone:
            raise not_found("test")
        who.take_tests()
    return _page(club, person_id)
