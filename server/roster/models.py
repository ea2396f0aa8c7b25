from typing import cast

from django.core.validators import MaxValueValidator, MinValueValidator
from django.db import models
from django.utils import timezone

from server.accounts.models import Club
from yoisho.engine.person import Level, Sex
from yoisho.engine.person import Person as CorePerson
from yoisho.engine.person import person as core_person


class Person(models.Model):
    """An athlete. Numbers left empty are filled in by formula or default in the core, which says so."""

    class Level(models.TextChoices):
        BEGINNER = "beginner"
        CLUB = "club"
        FIGHTER = "fighter"

    class Sex(models.TextChoices):
        FEMALE = "female"
        MALE = "male"

    club = models.ForeignKey(Club, on_delete=models.CASCADE, related_name="people")
    name = models.CharField(max_length=120)
    sport = models.CharField(max_length=60)
    level = models.CharField(max_length=10, choices=Level)
    sex = models.CharField(max_length=6, choices=Sex)
    birth_year = models.PositiveSmallIntegerField()
    mass_kg = models.FloatField(validators=[MinValueValidator(25), MaxValueValidator(250)])
    vo2max_ml_kg_min = models.FloatField(null=True)
    hr_max_bpm = models.FloatField(null=True)
    hr_rest_bpm = models.FloatField(null=True)
    heart_rate_lowering_medication = models.BooleanField(default=False)

    class Meta:
        ordering = ("name",)

    def __str__(self) -> str:
        return self.name

    @property
    def age_years(self) -> int:
        return timezone.now().year - self.birth_year

    def to_core(self) -> CorePerson:
        return core_person(
            vo2max_ml_kg_min=self.vo2max_ml_kg_min,
            hr_max_bpm=self.hr_max_bpm,
            hr_rest_bpm=self.hr_rest_bpm,
            mass_kg=self.mass_kg,
            age_years=self.age_years,
            sex=cast(Sex, self.sex),
            level=cast(Level, self.level),
            heart_rate_lowering_medication=self.heart_rate_lowering_medication,
        )
