from django.contrib.auth.models import AbstractUser
from django.db import models

from yoisho.strikes.schools import DEFAULT_SCHOOL, SCHOOLS


class Club(models.Model):
    """Everything belongs to a club, and nothing can be read across clubs."""

    name = models.CharField(max_length=120)
    school = models.CharField(max_length=20, choices=[(s.id, s.name) for s in SCHOOLS.values()], default=DEFAULT_SCHOOL)
    """Which punches the numbers beyond six are."""
    emergency_number = models.CharField(max_length=20, default="112")
    """Whom to call from the hall, shown where somebody is unwell."""
    last_lactic_days = models.PositiveSmallIntegerField(default=9)
    """Days before a fight that the club's school puts the last hard lactic day at."""

    def __str__(self) -> str:
        return self.name


class User(AbstractUser):
    """A coach of one club."""

    club = models.ForeignKey(Club, on_delete=models.CASCADE, related_name="coaches", null=True)

    @property
    def own_club(self) -> Club:
        if self.club is None:
            raise ClublessError(self.username)
        return self.club


class ClublessError(Exception):
    """An account that belongs to no club; it can sign in nowhere."""


class Answered(models.Model):
    """What was answered to something that creates, so that the same asked again, with the same key, creates nothing."""

    user = models.ForeignKey(User, on_delete=models.CASCADE, related_name="+")
    key = models.CharField(max_length=80)
    asked = models.CharField(max_length=64)
    """Fingerprint of what was asked."""
    status = models.PositiveSmallIntegerField()
    body = models.JSONField()
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        constraints = (models.UniqueConstraint(fields=["user", "key"], name="one_answer_per_key"),)
