from django.db import models

from server.accounts.models import Club, User
from server.accounts.owned import Owned
from server.roster.models import Group, Person
from server.sessions.models import Session


class Planned(models.Model):
    """A session on a day, at an hour, for some people or a group."""

    club = models.ForeignKey(Club, on_delete=models.CASCADE, related_name="planned")
    session = models.ForeignKey(Session, on_delete=models.CASCADE, related_name="planned")
    on = models.DateField()
    at = models.TimeField()
    """By the clock of the club."""
    group = models.ForeignKey(Group, on_delete=models.SET_NULL, null=True, related_name="planned")
    people = models.ManyToManyField(Person, related_name="planned", blank=True)
    """Besides those of the group."""
    away = models.ManyToManyField(Person, related_name="+", blank=True)
    """Who was to come and did not: nothing of theirs waits for a log."""
    series = models.UUIDField(null=True, db_index=True)
    """Shared by those that repeat from week to week."""
    planned_by = models.ForeignKey(User, on_delete=models.SET_NULL, null=True, related_name="+")

    objects = Owned["Planned"]()

    class Meta:
        ordering = ("on", "at", "pk")
        verbose_name_plural = "planned"

    def __str__(self) -> str:
        return f"{self.session}, {self.on:%Y-%m-%d} {self.at:%H:%M}"
