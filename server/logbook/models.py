from django.db import models

from server.accounts.models import Club
from server.roster.models import Person
from server.sessions.models import Session
from yoisho.session.volume import Volume


class Entries(models.Manager["LogEntry"]):
    """The log without its records: a trace is read where one entry is drawn, not wherever entries are counted."""

    def get_queryset(self) -> models.QuerySet["LogEntry"]:
        return super().get_queryset().defer("record")


class LogEntry(models.Model):
    """What was done, beside what was planned. The plan is kept as it was when it was run."""

    club = models.ForeignKey(Club, on_delete=models.CASCADE, related_name="log")
    run_id = models.UUIDField()
    """Made where it was run, so that a log sent twice is kept once."""
    session = models.ForeignKey(Session, on_delete=models.SET_NULL, null=True, related_name="log")
    person = models.ForeignKey(Person, on_delete=models.SET_NULL, null=True, related_name="log")
    title = models.CharField(max_length=120)
    document = models.JSONField()
    started_at = models.DateTimeField()
    planned_s = models.PositiveIntegerField()
    planned_efforts = models.PositiveIntegerField()
    planned_rpe = models.FloatField()
    done_s = models.PositiveIntegerField()
    done_efforts = models.PositiveIntegerField()
    rpe = models.PositiveSmallIntegerField()
    lactic = models.BooleanField(default=False)
    """Whether what was done empties the lactic store so far that the day counts as a lactic one."""
    expected_limbs = models.JSONField(default=dict)
    """Strikes by limb that the model expects of what was done."""
    expected_levels = models.JSONField(default=dict)
    """Those of them whose level a combination says, by level."""
    counted_strikes = models.PositiveIntegerField(null=True)
    """Strikes counted on the floor; None where nobody counted."""
    note = models.TextField(max_length=4000, blank=True)
    place = models.PositiveSmallIntegerField(default=0)
    """Of several people on the floor, which; from 0."""
    record = models.JSONField(null=True)
    """What the clock and the devices have kept; None where it was written down by hand."""
    devices_simulated = models.BooleanField(default=False)
    """The record was told by simulated devices."""
    done = models.JSONField(null=True)
    """Round by round, as the core has read it from the record."""
    pain = models.JSONField(default=list)
    """Where something hurt, and on which side."""
    simulated = models.BooleanField(default=False)
    """Made up for the demo, and said so wherever it is shown."""

    objects = Entries()

    class Meta:
        ordering = ("-started_at",)
        verbose_name_plural = "log entries"
        constraints = (models.UniqueConstraint(fields=["club", "run_id", "place"], name="one_entry_per_run"),)

    @property
    def volume(self) -> Volume:
        """Strikes done: as counted where they were, as expected where not."""
        expected = Volume(self.expected_limbs, self.expected_levels, sum(self.expected_limbs.values()))
        return expected if self.counted_strikes is None else expected.scaled_to(self.counted_strikes)

    def __str__(self) -> str:
        return f"{self.title}, {self.started_at:%Y-%m-%d}"


class RunJournal(models.Model):
    """Everything that happened in a run, as the device that ran it has written it down."""

    club = models.ForeignKey(Club, on_delete=models.CASCADE, related_name="journals")
    run_id = models.UUIDField()
    session = models.ForeignKey(Session, on_delete=models.SET_NULL, null=True)
    events = models.JSONField(default=list)
    received_at = models.DateTimeField(auto_now=True)

    class Meta:
        constraints = (models.UniqueConstraint(fields=["club", "run_id"], name="one_journal_per_run"),)

    @property
    def incidents(self) -> list[float]:
        """When somebody was unwell, in session time [s]."""
        return [event["at_s"] for event in self.events if event["kind"] == "unwell"]
