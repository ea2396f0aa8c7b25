from datetime import timedelta
from typing import cast

from django.core.validators import MaxValueValidator, MinValueValidator
from django.db import models
from django.utils import timezone

from server.accounts.models import Club
from server.accounts.owned import Owned
from yoisho.engine.field_tests import StrikeTest
from yoisho.engine.person import Level, Sex
from yoisho.engine.person import Person as CorePerson
from yoisho.engine.person import person as core_person
from yoisho.judgement.circumstances import Screening
from yoisho.strikes.counts import Stance

CLEARANCE_HOLDS = timedelta(days=365)


class Person(models.Model):
    """An athlete. Numbers left empty are filled in by formula or default in the core, which says so."""

    class Level(models.TextChoices):
        BEGINNER = "beginner"
        CLUB = "club"
        FIGHTER = "fighter"

    class Sex(models.TextChoices):
        FEMALE = "female"
        MALE = "male"

    class Stance(models.TextChoices):
        ORTHODOX = "orthodox"
        SOUTHPAW = "southpaw"

    club = models.ForeignKey(Club, on_delete=models.CASCADE, related_name="people")
    name = models.CharField(max_length=120)
    sport = models.CharField(max_length=60)
    level = models.CharField(max_length=10, choices=Level)
    sex = models.CharField(max_length=6, choices=Sex)
    birth_year = models.PositiveSmallIntegerField()
    stance = models.CharField(max_length=9, choices=Stance, default=Stance.ORTHODOX)
    mass_kg = models.FloatField(validators=[MinValueValidator(25), MaxValueValidator(250)])
    vo2max_ml_kg_min = models.FloatField(null=True)
    hr_max_bpm = models.FloatField(null=True)
    hr_rest_bpm = models.FloatField(null=True)
    heart_rate_lowering_medication = models.BooleanField(default=False)
    rule_set = models.CharField(max_length=40, blank=True)
    fight_on = models.DateField(null=True)
    cooper_m = models.FloatField(null=True)
    """Metres run in 12 minutes."""
    shuttle_km_h = models.FloatField(null=True)
    """Speed of the last full stage of the 20 m shuttle run."""
    strike_test = models.JSONField(null=True)
    """Eight counts: 10 s, 30 s, and each of the six 30 s of 3:00."""
    screened_on = models.DateField(null=True)
    screening_active = models.BooleanField(default=False)
    screening_disease = models.BooleanField(default=False)
    screening_symptoms = models.BooleanField(default=False)
    cleared_on = models.DateField(null=True)
    """By a physician; holds for a year."""
    concussion_uncleared = models.BooleanField(default=False)

    objects = Owned["Person"]()

    class Meta:
        ordering = ("name",)

    def __str__(self) -> str:
        return self.name

    @property
    def age_years(self) -> int:
        return timezone.now().year - self.birth_year

    @property
    def counts(self) -> StrikeTest | None:
        if self.strike_test is None:
            return None
        ten_s, thirty_s, *splits = self.strike_test
        return StrikeTest(ten_s, thirty_s, tuple(splits))

    @property
    def screening(self) -> Screening | None:
        """The screening as the core judges by it; None where there was none."""
        if self.screened_on is None:
            return None
        cleared = self.cleared_on is not None and timezone.localdate() - self.cleared_on <= CLEARANCE_HOLDS
        return Screening(self.screening_active, self.screening_disease, self.screening_symptoms, cleared)

    def to_core(self) -> CorePerson:
        return core_person(
            vo2max_ml_kg_min=self.vo2max_ml_kg_min,
            hr_max_bpm=self.hr_max_bpm,
            hr_rest_bpm=self.hr_rest_bpm,
            cooper_m=self.cooper_m,
            shuttle_km_h=self.shuttle_km_h,
            strike_test=self.counts,
            mass_kg=self.mass_kg,
            age_years=self.age_years,
            sex=cast(Sex, self.sex),
            level=cast(Level, self.level),
            stance=cast(Stance, self.stance),
            rule_set=self.rule_set or None,
            heart_rate_lowering_medication=self.heart_rate_lowering_medication,
        )
