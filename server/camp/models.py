import secrets
from uuid import uuid4

from django.db import models

from server.accounts.models import Club, User
from server.accounts.owned import Owned
from server.roster.models import Group, Person
from server.sessions.models import Session
from server.today.models import Planned


class Camps(Owned["Camp"]):
    """Camps without the sessions that they choose from."""

    def get_queryset(self) -> models.QuerySet["Camp"]:
        return super().get_queryset().select_related("club", "person", "group").defer("sessions_to_choose")


class Camp(models.Model):
    """The weeks to a bout of a person or a group: what was asked of them, and what stands to choose from."""

    club = models.ForeignKey(Club, on_delete=models.CASCADE, related_name="camps")
    person = models.ForeignKey(Person, on_delete=models.CASCADE, null=True, related_name="camps")
    group = models.ForeignKey(Group, on_delete=models.CASCADE, null=True, related_name="camps")
    asked = models.JSONField()
    choices = models.JSONField(null=True)
    """What stands to choose from and what it should cost: simulated once, made anew when `choices_key` is another.
    None until the first plan is solved."""
    sessions_to_choose = models.JSONField(null=True)
    """The sessions of it, which are much larger: read only where one of them is made."""
    choices_key = models.CharField(max_length=64, blank=True)
    hold = models.JSONField(default=list)
    """Purposes, each with a week in which its knob is not turned."""
    bound_gap = models.FloatField(null=True)
    """Of the plan as it was solved last; None where none was, or where it was pushed about by hand since."""
    revision = models.PositiveIntegerField(default=1)
    made_by = models.ForeignKey(User, on_delete=models.SET_NULL, null=True, related_name="+")
    saved_at = models.DateTimeField(auto_now=True)

    objects = Camps()

    class Meta:
        ordering = ("-saved_at",)

    def __str__(self) -> str:
        return f"camp of {self.person or self.group}"


class CampSession(models.Model):
    """A session of a camp on a day. What is taken out stays as cancelled, for calendars that have it."""

    camp = models.ForeignKey(Camp, on_delete=models.CASCADE, related_name="sessions")
    uid = models.UUIDField(default=uuid4)
    """The same for as long as the camp has it, whatever is changed of it."""
    on = models.DateField()
    order = models.PositiveSmallIntegerField(default=0)
    purpose = models.CharField(max_length=40)
    step = models.PositiveSmallIntegerField(null=True)
    """How far its knobs are turned; None where it is a session of the coach's own."""
    size = models.CharField(max_length=12, default="whole")
    locked = models.BooleanField(default=False)
    skipped = models.BooleanField(default=False)
    """It was missed, and the coach let it go."""
    cost = models.JSONField()
    """What it should cost, of the document as it was at `seen_revision`."""
    seen_revision = models.PositiveIntegerField(default=1)
    session = models.OneToOneField(Session, on_delete=models.SET_NULL, null=True, related_name="camp_session")
    planned = models.OneToOneField(Planned, on_delete=models.SET_NULL, null=True, related_name="camp_session")
    sequence = models.PositiveIntegerField(default=0)
    """Counts the changes that a calendar has to hear of."""
    cancelled_at = models.DateTimeField(null=True)
    changed_at = models.DateTimeField(auto_now=True)

    class Meta:
        ordering = ("on", "order", "pk")
        verbose_name_plural = "camp sessions"
        constraints = (models.UniqueConstraint(fields=["camp", "uid"], name="one_session_per_uid"),)

    @property
    def edited(self) -> bool:
        """It was changed on the Bench since the camp made it."""
        return self.session is not None and self.step is not None and self.session.revision > 1

    def __str__(self) -> str:
        return f"{self.purpose}, {self.on:%Y-%m-%d}"


def new_token() -> str:
    return secrets.token_urlsafe(24)


class CampFeed(models.Model):
    """An address at which a calendar follows a camp, until it is taken back."""

    camp = models.ForeignKey(Camp, on_delete=models.CASCADE, related_name="feeds")
    token = models.CharField(max_length=64, unique=True, default=new_token)
    made_by = models.ForeignKey(User, on_delete=models.SET_NULL, null=True, related_name="+")
    made_at = models.DateTimeField(auto_now_add=True)
    revoked_at = models.DateTimeField(null=True)

    class Meta:
        ordering = ("-made_at",)

    def __str__(self) -> str:
        return f"feed of {self.camp}"
