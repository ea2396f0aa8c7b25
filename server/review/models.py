from dataclasses import asdict, replace
from hashlib import sha256
from typing import Any

import numpy as np
from django.db import models

from server.roster.models import Person
from yoisho.engine.cohort import TRAITS
from yoisho.engine.person import Learned, Value
from yoisho.engine.person import Person as CorePerson
from yoisho.engine.stores import Floats
from yoisho.review.calibration import NUMBERS
from yoisho.review.calibration import Calibration as CoreCalibration


def digest_of(known: CorePerson) -> str:
    """The same for somebody of whom the same is known without their logs, on the same engine."""
    return sha256(repr((known, [trait.id for trait in TRAITS])).encode()).hexdigest()


class Calibration(models.Model):
    """What somebody's logs have taught of them, as the core has worked it out last."""

    person = models.OneToOneField(Person, on_delete=models.CASCADE, related_name="calibration")
    of = models.CharField(max_length=64)
    """Digest of what was known of them then: a new test makes it old."""
    digest = models.CharField(max_length=64)
    logs = models.PositiveIntegerField()
    draws = models.BinaryField()
    """Traits of each draw, single precision, row by row."""
    numbers = models.JSONField()
    """The person's own numbers with what was learned, by name."""
    before = models.JSONField()
    after = models.JSONField()
    """Every capacity with its range."""
    forecasts = models.JSONField()
    """How well the logs were forecast before and after, by kind."""
    effective_draws = models.FloatField()
    learned_at = models.DateTimeField(auto_now=True)

    @classmethod
    def keep(cls, person: Person, found: CoreCalibration, forecasts: dict[str, Any]) -> "Calibration":
        assert found.person.learned is not None
        kept, _ = cls.objects.update_or_create(
            person=person,
            defaults={
                "of": digest_of(found.person.unlearned),
                "digest": found.person.learned.digest,
                "logs": found.logs,
                "draws": found.person.learned.draws.astype(np.float32).tobytes(),
                "numbers": {name: asdict(getattr(found.person, name)) for name in NUMBERS},
                "before": [asdict(each) for each in found.before],
                "after": [asdict(each) for each in found.after],
                "forecasts": forecasts,
                "effective_draws": found.effective_draws,
            },
        )
        return kept

    def _draws(self) -> Floats:
        told = np.frombuffer(bytes(self.draws), dtype=np.float32).reshape(-1, len(TRAITS))
        return told.astype(np.float64)

    def holds(self, known: CorePerson) -> bool:
        """Whether it was learned from what is known of them now."""
        return self.of == digest_of(known)

    def applied(self, known: CorePerson) -> CorePerson:
        """The person with what was learned; as they are known where that has changed since: it is learned anew."""
        if not self.holds(known):
            return known
        numbers: dict[str, Any] = {name: Value(**value) for name, value in self.numbers.items()}
        return replace(known, **numbers, learned=Learned(self.logs, self.digest, self._draws, known))

    def __str__(self) -> str:
        return f"{self.person}, learned from {self.logs} logs"
