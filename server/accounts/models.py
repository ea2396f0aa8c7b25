from uuid import uuid4

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

    time_zone = models.CharField(max_length=60, default="UTC")
    """Whose days and hours count, such as Europe/Oslo."""
    first_weekday = models.PositiveSmallIntegerField(default=0)
    """On which its week begins: 0 is Monday, 6 Sunday."""
    stamp = models.UUIDField(default=uuid4, editable=False)
    """Renewed by the database itself whenever anything of its people changes (`server.accounts.stamp`)."""

    def __str__(self) -> str:
        return self.name


class Role(models.TextChoices):
    OWNER = "owner"
    """The club, its people, and what its members may."""
    COACH = "coach"
    """Everything of training."""
    ASSISTANT = "assistant"
    """Runs and logs; sees names, limits and stop signs, and nothing else of anybody's health."""


class User(AbstractUser):
    """A member of one club."""

    club = models.ForeignKey(Club, on_delete=models.CASCADE, related_name="coaches", null=True)
    role = models.CharField(max_length=10, choices=Role, default=Role.COACH)

    @property
    def known_as(self) -> str:
        return self.get_full_name() or self.username

    @property
    def trains(self) -> bool:
        """Whether what is known of people's health is for them."""
        return self.role in (Role.OWNER, Role.COACH)

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


class SetUpCode(models.Model):
    """What the first visitor must know, of a server where there is no club yet; only its fingerprint is kept."""

    fingerprint = models.CharField(max_length=64)
    tries = models.PositiveSmallIntegerField(default=0)
    made_at = models.DateTimeField(auto_now_add=True)


class Invitation(models.Model):
    """A way into a club that works once, until a day; only the fingerprint of its code is kept."""

    club = models.ForeignKey(Club, on_delete=models.CASCADE, related_name="invitations")
    role = models.CharField(max_length=10, choices=Role)
    name = models.CharField(max_length=120)
    """Whom it is for."""
    email = models.EmailField(blank=True)
    """Where it was sent, if it was."""
    fingerprint = models.CharField(max_length=64, unique=True)
    made_by = models.ForeignKey(User, on_delete=models.SET_NULL, null=True, related_name="+")
    made_at = models.DateTimeField(auto_now_add=True)
    until = models.DateTimeField()
    used_by = models.ForeignKey(User, on_delete=models.SET_NULL, null=True, related_name="+")
    used_at = models.DateTimeField(null=True)

    class Meta:
        ordering = ("-made_at",)


class ApiToken(models.Model):
    """A key for programs of somebody's own, until a day; only its fingerprint is kept."""

    user = models.ForeignKey(User, on_delete=models.CASCADE, related_name="tokens")
    name = models.CharField(max_length=60)
    """What it is for, in the words of whoever made it."""
    fingerprint = models.CharField(max_length=64, unique=True)
    scopes = models.JSONField()
    last_day = models.DateField()
    made_at = models.DateTimeField(auto_now_add=True)
    used_on = models.DateField(null=True)

    class Meta:
        ordering = ("-made_at", "-pk")
