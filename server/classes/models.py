from django.db import models

from server.accounts.models import Club, User
from server.accounts.owned import Owned
from server.roster.models import Group
from server.sessions.models import Session
from server.today.models import Planned


class ClassPlan(models.Model):
    """A class: what was asked of it, and who is where in which wave."""

    club = models.ForeignKey(Club, on_delete=models.CASCADE, related_name="classes")
    title = models.CharField(max_length=120)
    group = models.ForeignKey(Group, on_delete=models.SET_NULL, null=True, related_name="classes")
    """Whose class it is; None for whoever comes."""
    asked = models.JSONField()
    rows = models.JSONField()
    """Of each person, in the order in which they were asked for, the station of every wave."""
    session = models.OneToOneField(Session, on_delete=models.CASCADE, related_name="class_plan")
    """As it is run: its waves, and its board."""
    planned = models.ForeignKey(Planned, on_delete=models.SET_NULL, null=True, related_name="class_plan")
    revision = models.PositiveIntegerField(default=1)
    made_by = models.ForeignKey(User, on_delete=models.SET_NULL, null=True, related_name="+")
    saved_at = models.DateTimeField(auto_now=True)

    objects = Owned["ClassPlan"]()

    class Meta:
        ordering = ("-saved_at",)

    def __str__(self) -> str:
        return self.title
