from typing import get_args

from django.db import models

from server.accounts.models import Club
from server.accounts.owned import Owned
from server.runs.models import Result, Run
from yoisho.answers.log import STORES, Store
from yoisho.session.volume import Volume
from yoisho.strikes.counts import Limb

LIMB_FIELDS: dict[Limb, str] = {limb: limb.replace(" ", "_") for limb in get_args(Limb)}
STORE_FIELDS: dict[Store, str] = {store: f"{store}_min" for store in STORES}
SUMMED = (*LIMB_FIELDS.values(), *STORE_FIELDS.values())
"""What an entry keeps so that weeks can be summed."""


class Entries(Owned["LogEntry"]):
    """The log without its records: a trace is read where one entry is drawn, not wherever entries are counted."""

    def counted(self, club: Club) -> models.QuerySet["LogEntry"]:
        """Only what is added up over days: when, whose, how many strikes, what hurt, whether it was a lactic day."""
        told = ("person", "lactic", "expected_limbs", "expected_heights")
        return self.of(club).only("started_at", "counted_strikes", "pain", *(f"result__{name}" for name in told))

    def get_queryset(self) -> models.QuerySet["LogEntry"]:
        return super().get_queryset().select_related("result").defer("result__record")


class LogEntry(models.Model):
    """How one person's run is told in the log: how hard it was, what was done beside what was planned, a note."""

    club = models.ForeignKey(Club, on_delete=models.CASCADE, related_name="log")
    result = models.OneToOneField(Result, on_delete=models.CASCADE, related_name="entry")
    started_at = models.DateTimeField()
    planned_s = models.PositiveIntegerField()
    planned_efforts = models.PositiveIntegerField()
    planned_rpe = models.FloatField()
    done_s = models.PositiveIntegerField()
    done_efforts = models.PositiveIntegerField()
    rpe = models.PositiveSmallIntegerField()
    counted_strikes = models.PositiveIntegerField(null=True)
    """Strikes counted on the floor; None where nobody counted."""
    note = models.TextField(max_length=4000, blank=True)
    pain = models.JSONField(default=list)
    """Where something hurt, and on which side."""
    simulated = models.BooleanField(default=False)
    """Made up for the demo, and said so wherever it is shown."""
    left_out = models.BooleanField(default=False)
    """Nothing is learned from it."""
    left_hand = models.FloatField(default=0)
    """Strikes of each limb as they count, kept so that weeks can be summed."""
    right_hand = models.FloatField(default=0)
    left_leg = models.FloatField(default=0)
    right_leg = models.FloatField(default=0)
    aerobic_min = models.FloatField(null=True)
    """Minutes that count for each store, by the model; None in what was kept before this was told."""
    lactic_min = models.FloatField(null=True)
    sprint_min = models.FloatField(null=True)

    objects = Entries()

    class Meta:
        ordering = ("-started_at",)
        verbose_name_plural = "log entries"
        indexes = (models.Index(fields=["club", "started_at"], name="entries_by_day"),)

    @property
    def run(self) -> Run:
        return self.result.run

    @property
    def volume(self) -> Volume:
        """Strikes done: as counted where they were, as expected where not."""
        limbs = self.result.expected_limbs
        expected = Volume(limbs, self.result.expected_heights, sum(limbs.values()))
        return expected if self.counted_strikes is None else expected.scaled_to(self.counted_strikes)

    def take_sums(self, minutes: dict[Store, float]) -> None:
        """Keep what weeks are summed from."""
        limbs = self.volume.limbs
        for limb, name in LIMB_FIELDS.items():
            setattr(self, name, limbs.get(limb, 0.0))
        for store, name in STORE_FIELDS.items():
            setattr(self, name, minutes[store])
        self.save(update_fields=SUMMED)

    def __str__(self) -> str:
        return f"{self.run.title}, {self.started_at:%Y-%m-%d}"
