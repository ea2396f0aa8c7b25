"""A run and what hangs on it: journal, where its clock stands, a result for each person, letters that came back."""

from typing import Any

from django.db import models, transaction

from server.accounts.models import Club, User
from server.accounts.owned import Owned
from server.roster.models import Person
from server.sessions.models import Session


class Run(models.Model):
    """A session as it was run: the plan as it stood then, whatever became of the session."""

    class Kind(models.TextChoices):
        """How a run came about; a field test, an imported file and a microphone are to join these."""

        SESSION = "session"
        CLASS = "class"

    club = models.ForeignKey(Club, on_delete=models.CASCADE, related_name="runs")
    run_id = models.UUIDField()
    """Made where it was run, so that what is sent twice is kept once."""
    kind = models.CharField(max_length=12, choices=Kind, default=Kind.SESSION)
    session = models.ForeignKey(Session, on_delete=models.SET_NULL, null=True, related_name="runs")
    revision = models.PositiveIntegerField()
    """Of the session, as its plan was taken."""
    title = models.CharField(max_length=120)
    document = models.JSONField()
    """The plan as it stood."""
    person = models.ForeignKey(Person, on_delete=models.SET_NULL, null=True, related_name="+")
    """Whom it was planned for."""
    people = models.PositiveSmallIntegerField(default=1)
    """On the floor: of two or more, each does all that is done in pairs."""
    board = models.JSONField(null=True)
    """Of a class, who is where in which wave: as it stands now, and as it was once it is logged."""
    board_revision = models.PositiveIntegerField(default=0)
    """Counts its changes, so that other screens know of them."""
    coach = models.ForeignKey(User, on_delete=models.SET_NULL, null=True, related_name="+")
    """Who ran it."""
    begun_at = models.DateTimeField(auto_now_add=True)

    objects = Owned["Run"]()

    class Meta:
        ordering = ("-begun_at",)
        constraints = (models.UniqueConstraint(fields=["club", "run_id"], name="one_run_per_id"),)

    def __str__(self) -> str:
        return self.title


class Journal(models.Model):
    """Everything that happened in a run, as the device that ran it has written it down."""

    run = models.OneToOneField(Run, on_delete=models.CASCADE, related_name="journal")
    events = models.JSONField(default=list)
    received_at = models.DateTimeField(auto_now=True)

    @classmethod
    def take(cls, run: Run, events: list[dict[str, Any]]) -> "Journal":
        """The longest that has come is the one that is kept: an older one that comes late takes nothing away."""
        with transaction.atomic():
            Run.objects.select_for_update().get(pk=run.pk)
            journal, _ = cls.objects.get_or_create(run=run)
            if len(events) >= len(journal.events):
                journal.events = events
                journal.save(update_fields=["events", "received_at"])
        return journal

    @property
    def incidents(self) -> list[float]:
        """When somebody was unwell, in session time [s]."""
        return [event["at_s"] for event in self.events if event["kind"] == "unwell"]

    @property
    def overruled(self) -> list[str]:
        """The rules whose stops the coach has seen and gone past, by id."""
        events = [event for event in self.events if event["kind"] == "overruled"]
        return sorted({rule for event in events for said in event["more"].values() for rule in str(said).split(", ")})


class LiveState(models.Model):
    """Where the clock of a run stands, as its device last said: for other screens of the club to follow."""

    run = models.OneToOneField(Run, on_delete=models.CASCADE, related_name="live")
    state = models.JSONField()
    said_at = models.DateTimeField()

    class Meta:
        ordering = ("-said_at",)


class Result(models.Model):
    """What one person did of a run."""

    run = models.ForeignKey(Run, on_delete=models.CASCADE, related_name="results")
    place = models.PositiveSmallIntegerField(default=0)
    """Of several people on the floor, which; from 0."""
    person = models.ForeignKey(Person, on_delete=models.SET_NULL, null=True, related_name="results")
    record = models.JSONField(null=True)
    """What the clock and the devices have kept; None where it was written down by hand."""
    done = models.JSONField(null=True)
    """Round by round, as the core has read it from the record."""
    lactic = models.BooleanField(default=False)
    """Whether what was done empties the lactic store so far that the day counts as a lactic one."""
    expected_limbs = models.JSONField(default=dict)
    """Strikes by limb that the model expects of what was done."""
    expected_heights = models.JSONField(default=dict)
    """Those of them whose target height a combination says, by height."""
    devices_simulated = models.BooleanField(default=False)
    """The record was told by simulated devices."""

    class Meta:
        constraints = (models.UniqueConstraint(fields=["run", "place"], name="one_result_per_place"),)


class Letter(models.Model):
    """Something of a run that was refused and that a coach has sent to another of the club to see to."""

    club = models.ForeignKey(Club, on_delete=models.CASCADE, related_name="letters")
    sender = models.ForeignKey(User, on_delete=models.CASCADE, related_name="letters_sent")
    to = models.ForeignKey(User, on_delete=models.CASCADE, related_name="letters")
    title = models.CharField(max_length=160)
    path = models.CharField(max_length=200)
    """Where it is to be sent once it is mended."""
    body = models.JSONField()
    reason = models.CharField(max_length=1000)
    """Why it was refused."""
    sent_at = models.DateTimeField(auto_now_add=True)

    objects = Owned["Letter"]()

    class Meta:
        ordering = ("-sent_at",)
