"""What is known of somebody is asked once, and anew as soon as anything that counts has changed, whoever wrote it."""

import re

import pytest
from django.db import connection, transaction
from django.test.utils import CaptureQueriesContext
from django.utils import timezone

from server.accounts.models import Club
from server.bench.circumstances import known_of
from server.review.models import Calibration
from server.roster.models import Knock, Limit, Person
from tests.server.test_circumstances import logged
from yoisho.review.calibration import calibrate
from yoisho.review.proof import WORLDS, logs_of, true_traits

pytestmark = pytest.mark.django_db(transaction=True)


def asked(coach, person):
    """What is known of somebody, as a request would ask it, and the tables that were read for it."""
    club = Club.objects.get(pk=coach.club.pk)
    with CaptureQueriesContext(connection) as questions:
        known = known_of(club, person.pk, None)
    return known, {table for each in questions for table in re.findall(r'(?:FROM|JOIN) "(\w+)"', each["sql"])}


def taught(coach, person):
    known = Person.objects.get(pk=person.pk).to_core_unlearned()
    logs = logs_of(known, true_traits(known, 1), 1, 4, WORLDS["as the engine has it"])
    Calibration.keep(person, calibrate(known, logs), {})


def test_what_was_asked_is_not_asked_again(coach):
    person = coach.person()
    first, tables = asked(coach, person)
    assert "roster_person" in tables
    again, tables = asked(coach, person)
    assert (again, tables) == (first, set())


def test_somebody_of_another_club_is_no_more_known_for_being_remembered(coach, stranger):
    person = coach.person()
    asked(coach, person)
    assert stranger.post("nudges", {"document": coach.session()["document"], "target": "lactic-capacity",
                                    "person_id": person.pk}).status_code == 404  # fmt: skip


def test_every_table_that_is_read_renews_the_stamp(coach):
    _, tables = asked(coach, coach.person())
    with connection.cursor() as cursor:
        cursor.execute("SELECT tgrelid::regclass::text FROM pg_trigger WHERE tgname LIKE 'renew_stamp%'")
        renewing = {name for (name,) in cursor.fetchall()}
    assert len(tables) >= 5
    assert tables <= renewing


CHANGES = {
    "a number of theirs, in bulk": lambda coach, who: Person.objects.filter(pk=who.pk).update(mass_kg=71.5),
    "a limit": lambda coach, who: Limit.objects.create(person=who, kind="heart-untrusted", set_by="Odd Lind"),
    "a knock to the head": lambda coach, who: Knock.objects.create(person=who, on=timezone.localdate()),
    "a log": lambda coach, who: logged(coach, who, days_ago=1),
    "what logs have taught": taught,
    "the club's last lactic day": lambda coach, who: Club.objects.filter(pk=coach.club.pk).update(last_lactic_days=12),
}  # fmt: skip


@pytest.mark.parametrize("change", CHANGES.values(), ids=CHANGES)
def test_a_change_is_known_at_once(coach, change):
    person = coach.person()
    before, _ = asked(coach, person)
    change(coach, person)
    assert asked(coach, person)[0] != before


@pytest.mark.parametrize("kind", [Limit, Knock])
def test_so_is_what_is_taken_away(coach, kind):
    person = coach.person()
    more = {"kind": "heart-untrusted", "set_by": "Odd Lind"} if kind is Limit else {"on": timezone.localdate()}
    before, _ = asked(coach, person)
    added = kind.objects.create(person=person, **more)
    assert asked(coach, person)[0] != before
    added.delete()
    assert asked(coach, person)[0] == before


def test_a_result_that_changes_alone_is_known_too(coach):
    person = coach.person()
    logged(coach, person, days_ago=1)
    (_, circumstances), _ = asked(coach, person)
    assert circumstances.hours_since_lactic is not None
    result = person.results.get()
    result.lactic = not result.lactic
    result.save(update_fields=["lactic"])
    assert asked(coach, person)[0][1].hours_since_lactic is None


def test_who_read_the_club_before_brings_no_old_stamp_back(coach):
    person = coach.person()
    early = Club.objects.get(pk=coach.club.pk)
    before, _ = asked(coach, person)
    person.mass_kg = 80
    person.save()
    early.name = "Capstan Hall, upstairs"
    early.save()
    assert asked(coach, person)[0] != before


def test_what_a_transaction_has_not_yet_kept_is_known_inside_it(coach):
    person = coach.person()
    asked(coach, person)
    with transaction.atomic():
        person.mass_kg = 81
        person.save()
        assert asked(coach, person)[0][0].mass_kg == 81
