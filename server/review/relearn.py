"""What logs teach is worked out anew, beside the requests, whenever a log or what is known of a person changes."""

from typing import Any

from django.db.models.signals import post_delete, post_save

from server.jobs.later import later
from server.logbook.models import SUMMED, LogEntry
from server.review.tasks import learn_person
from server.roster.models import Limit, Person


def relearn(person_id: int) -> None:
    later(learn_person, once=f"learn {person_id}", person_id=person_id)


def _of_entry(instance: LogEntry, update_fields: frozenset[str] | None = None, **_: Any) -> None:
    if update_fields and update_fields <= set(SUMMED):
        return
    if instance.result.person_id is not None:
        relearn(instance.result.person_id)


def _of_person(instance: Person, created: bool, **_: Any) -> None:
    if not created:
        relearn(instance.pk)


def _of_limit(instance: Limit, **_: Any) -> None:
    """A limit may say that their heart is not to be trusted."""
    relearn(instance.person_id)


def listen() -> None:
    post_save.connect(_of_limit, Limit)
    post_save.connect(_of_entry, LogEntry)
    post_delete.connect(_of_entry, LogEntry)
    post_save.connect(_of_person, Person)
