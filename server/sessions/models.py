from django.db import models

from server.accounts.models import Club, User
from server.accounts.owned import Owned
from server.roster.models import Person


class Session(models.Model):
    """A session of the club: the versioned document as it is, with who it is for and what for."""

    club = models.ForeignKey(Club, on_delete=models.CASCADE, related_name="sessions")
    person = models.ForeignKey(Person, on_delete=models.SET_NULL, null=True, related_name="sessions")
    target = models.CharField(max_length=40)
    document = models.JSONField()
    tags = models.JSONField(default=list)
    calls = models.JSONField(default=dict)
    """What is called on the floor: kinds that are muted, and how often a combination is said."""
    series = models.UUIDField(null=True, db_index=True)
    """Shared by the sessions that were made of one ladder over weeks."""
    week = models.PositiveSmallIntegerField(null=True)
    """Which of them, from 1."""
    weeks = models.PositiveSmallIntegerField(null=True)
    in_lists = models.BooleanField(default=True)
    """Among the club's sessions; one that stands in a plan of weeks alone is found there."""
    board = models.JSONField(null=True)
    """Of a class, who is where in which wave, with the ids of those who are of the roster."""
    revision = models.PositiveIntegerField(default=1)
    """Counts the saves, so that a later tab cannot overwrite an earlier one unseen."""
    saved_at = models.DateTimeField(auto_now=True)
    saved_by = models.ForeignKey(User, on_delete=models.SET_NULL, null=True)

    objects = Owned["Session"]()

    class Meta:
        ordering = ("-saved_at",)

    def __str__(self) -> str:
        return str(self.document.get("title"))


class Version(models.Model):
    """One state in the history of a session: who saved it and when."""

    session = models.ForeignKey(Session, on_delete=models.CASCADE, related_name="versions")
    revision = models.PositiveIntegerField()
    document = models.JSONField()
    person = models.ForeignKey(Person, on_delete=models.SET_NULL, null=True)
    target = models.CharField(max_length=40)
    tags = models.JSONField(default=list)
    by_itself = models.BooleanField(default=False)
    """Saved by the app while the coach worked; later saves of the same sitting take its place."""
    begun_at = models.DateTimeField()
    """The first save of the sitting."""
    saved_at = models.DateTimeField()
    saved_by = models.ForeignKey(User, on_delete=models.SET_NULL, null=True)

    class Meta:
        ordering = ("-revision",)
