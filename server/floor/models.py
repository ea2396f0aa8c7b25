from django.db import models

from server.accounts.models import Club
from server.sessions.models import Session


class LiveRun(models.Model):
    """Where the clock of a run stands, as its device last said: for other screens of the club to follow."""

    club = models.ForeignKey(Club, on_delete=models.CASCADE, related_name="live_runs")
    run_id = models.UUIDField()
    session = models.ForeignKey(Session, on_delete=models.CASCADE)
    state = models.JSONField()
    said_at = models.DateTimeField()

    class Meta:
        ordering = ("-said_at",)
        constraints = (models.UniqueConstraint(fields=["club", "run_id"], name="one_clock_per_run"),)
