"""One person erased: what is kept for the sums of the club has no name, no note and no trace of them."""

from typing import Any

from django.apps import apps
from django.db import models, transaction
from django.db.models import F, TextField
from django.db.models.functions import Cast

from server.accounts.models import Club
from server.camp.keep import forget
from server.logbook.models import LogEntry
from server.roster.models import Person
from server.runs.models import Result
from server.sendout.models import SentBack

NOBODY = "somebody"
TOLD = (models.CharField, models.TextField, models.JSONField)
PLACES = {
    "accounts.Answered": "user__club", "accounts.Invitation": "club", "training.Session": "club",
    "training.Version": "session__club", "runs.Run": "club", "runs.Journal": "run__club", "runs.LiveState": "run__club",
    "runs.Result": "run__club", "runs.Letter": "club", "logbook.LogEntry": "club", "combinations.BookEntry": "club",
    "sendout.SentBack": "club", "sendout.CueTrack": "club", "sendout.Music": "club", "camp.Camp": "club",
    "camp.CampSession": "camp__club", "classes.ClassPlan": "club",
}  # fmt: skip
"""Where a name may have been written down beside the roster itself, and the way from there to its club."""


def _without(value: Any, name: str) -> Any:
    """The same, with somebody in the place of the name."""
    match value:
        case str():
            return value.replace(name, NOBODY)
        case list():
            return [_without(each, name) for each in value]
        case dict():
            return {key: _without(each, name) for key, each in value.items()}
    return value


def _forget(model: type[models.Model], club: Club, way: str, name: str) -> None:
    for field in (field.name for field in model._meta.fields if isinstance(field, TOLD)):
        rows = model._default_manager.filter(**{way: club}).annotate(told=Cast(F(field), TextField()))
        for row in rows.filter(told__contains=name):
            model._default_manager.filter(pk=row.pk).update(**{field: _without(getattr(row, field), name)})


@transaction.atomic
def erase(who: Person) -> None:
    """Everything that is known of them goes; what they did stays in the sums, as anybody's."""
    LogEntry.objects.filter(result__person=who).update(note="", pain=[])
    Result.objects.filter(person=who).update(record=None, done=None)
    SentBack.objects.filter(person=who).delete()
    for camp in who.camps.select_related("club"):
        forget(camp)
    name, club = who.name, who.club
    who.delete()
    for label, way in PLACES.items():
        _forget(apps.get_model(label), club, way, name)
