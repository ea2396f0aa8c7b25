from datetime import date, timedelta
from functools import cached_property
from typing import Any, cast

from django.core.validators import MaxValueValidator, MinValueValidator
from django.db import models
from django.utils import timezone

from server.accounts.models import Club, User
from server.accounts.owned import Owned
from yoisho.engine.field_tests import StrikeTest
from yoisho.engine.person import Level, Sex
from yoisho.engine.person import Person as CorePerson
from yoisho.engine.person import person as core_person
from yoisho.judgement.circumstances import Screening
from yoisho.judgement.limits import Limit as CoreLimit
from yoisho.review.repeats import FIELD_TESTS, Tried
from yoisho.strikes.counts import Stance

CLEARANCE_HOLDS = timedelta(days=365)


class Group(models.Model):
    """Some of the club's people, by a name; somebody may be in several."""

    club = models.ForeignKey(Club, on_delete=models.CASCADE, related_name="groups")
    name = models.CharField(max_length=60)

    objects = Owned["Group"]()

    class Meta:
        ordering = ("name",)
        constraints = (models.UniqueConstraint(fields=["club", "name"], name="one_group_per_name"),)

    def __str__(self) -> str:
        return self.name


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
    sport = models.CharField(max_length=60, blank=True)
    level = models.CharField(max_length=10, choices=Level)
    sex = models.CharField(max_length=6, choices=Sex, blank=True)
    """Left empty where it is not said: the formulas that ask for it then take the middle."""
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
    """Metres run in 12 minutes. This and the next ones are those of the last tests, for the engine to read."""
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
    cleared_until = models.DateField(null=True)
    """The last day that the physician's clearance holds, where it says one sooner than a year."""
    cleared_by = models.CharField(max_length=120, blank=True)
    groups = models.ManyToManyField(Group, related_name="people", blank=True)
    archived_at = models.DateTimeField(null=True)
    """Kept, and out of the lists; None for those who train."""
    learns = models.BooleanField(default=True)
    """What their logs teach is used, and shown."""

    objects = Owned["Person"]()

    class Meta:
        ordering = ("name",)

    def __str__(self) -> str:
        return self.name

    @property
    def age_years(self) -> int:
        return timezone.now().year - self.birth_year

    def take_tests(self) -> None:
        """The engine's numbers are those of the last test of each kind; of the heart's highest, the highest."""
        last: dict[str, FieldTest] = {}
        highest: float | None = None
        for test in self.tests.order_by("on", "pk"):
            last[test.kind] = test
            if test.kind == "hr-max":
                highest = max(test.value, highest or 0.0)
        found = {kind: test.value for kind, test in last.items()}
        self.strike_test = last["strikes"].counts if "strikes" in last else None
        self.cooper_m, self.shuttle_km_h = found.get("cooper"), found.get("shuttle")
        self.hr_rest_bpm, self.hr_max_bpm = found.get("hr-rest"), highest
        self.save(update_fields=["strike_test", "cooper_m", "shuttle_km_h", "hr_rest_bpm", "hr_max_bpm"])

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
        ends = self.clearance_ends
        cleared = ends is not None and timezone.localdate() <= ends
        left = (ends - timezone.localdate()).days if ends else None
        return Screening(self.screening_active, self.screening_disease, self.screening_symptoms, cleared, left)

    @property
    def clearance_ends(self) -> date | None:
        """The last day a physician's clearance holds; None where there is none."""
        if self.cleared_on is None:
            return None
        a_year = self.cleared_on + CLEARANCE_HOLDS
        return min(self.cleared_until, a_year) if self.cleared_until else a_year

    def its(self, what: str) -> list[Any]:
        """Its groups, limits or knocks: as they were read with many people at once, else asked now."""
        found: list[Any] | None = getattr(self, f"its_{what}", None)
        return list(getattr(self, what).all()) if found is None else found

    @cached_property
    def limits_today(self) -> tuple[CoreLimit, ...]:
        today = timezone.localdate()
        return tuple(core for each in self.its("limits") if not each.lifted_on and (core := each.core).holds_on(today))

    @property
    def concussion_uncleared(self) -> bool:
        return any(knock.cleared_on is None for knock in self.its("knocks"))

    def to_core(self) -> CorePerson:
        """As the engine sees them, with what their logs have taught."""
        known = self.to_core_unlearned()
        calibration = getattr(self, "calibration", None) if self.learns else None
        return calibration.applied(known) if calibration else known

    def to_core_unlearned(self) -> CorePerson:
        """Of what was entered and tested alone."""
        return core_person(
            vo2max_ml_kg_min=self.vo2max_ml_kg_min,
            hr_max_bpm=self.hr_max_bpm,
            hr_rest_bpm=self.hr_rest_bpm,
            cooper_m=self.cooper_m,
            shuttle_km_h=self.shuttle_km_h,
            strike_test=self.counts,
            mass_kg=self.mass_kg,
            age_years=self.age_years,
            sex=cast(Sex, self.sex) if self.sex else None,
            level=cast(Level, self.level),
            stance=cast(Stance, self.stance),
            rule_set=self.rule_set or None,
            heart_rate_lowering_medication=self.heart_rate_lowering_medication
            or any(limit.kind == "heart-untrusted" for limit in self.limits_today),
        )


class Limit(models.Model):
    """What somebody must not do, until a date or until it is lifted. Why is never asked."""

    person = models.ForeignKey(Person, on_delete=models.CASCADE, related_name="limits")
    kind = models.CharField(max_length=20)
    """Of `LIMITS`."""
    limb = models.CharField(max_length=12, null=True)
    most = models.PositiveIntegerField(null=True)
    period = models.CharField(max_length=7, null=True)
    until = models.DateField(null=True)
    set_by = models.CharField(max_length=120)
    """Who said so: a coach, or the physician."""
    set_on = models.DateField(auto_now_add=True)
    lifted_on = models.DateField(null=True)

    class Meta:
        ordering = ("-set_on", "-pk")

    @property
    def core(self) -> CoreLimit:
        return CoreLimit(self.kind, self.limb, self.most, self.period, self.until, self.set_by)  # type: ignore[arg-type]

    def __str__(self) -> str:
        return self.core.words


class FieldTest(models.Model):
    """A field test of one day: what was found, on what, and who counted."""

    person = models.ForeignKey(Person, on_delete=models.CASCADE, related_name="tests")
    kind = models.CharField(max_length=12)
    """Of `FIELD_TESTS`."""
    on = models.DateField()
    value = models.FloatField()
    """In the test's unit; of a strike test the strikes of 10 s."""
    counts = models.JSONField(null=True)
    """Of a strike test eight counts: 10 s, 30 s, and each of the six 30 s of 3:00."""
    where = models.CharField(max_length=60, blank=True)
    """The bag, the track."""
    counted_by = models.CharField(max_length=120, blank=True)

    class Meta:
        ordering = ("-on", "-pk")

    @property
    def tried(self) -> Tried:
        return Tried(self.on, self.value)

    def __str__(self) -> str:
        return f"{FIELD_TESTS[self.kind].name}, {self.on:%Y-%m-%d}"


class Knock(models.Model):
    """A knock to the head: nothing until a licensed physician clears it."""

    person = models.ForeignKey(Person, on_delete=models.CASCADE, related_name="knocks")
    on = models.DateField()
    noted_by = models.ForeignKey(User, on_delete=models.SET_NULL, null=True, related_name="+")
    cleared_on = models.DateField(null=True)
    cleared_by = models.CharField(max_length=120, blank=True)
    """The physician."""

    class Meta:
        ordering = ("-on", "-pk")

    def __str__(self) -> str:
        return f"knock to the head, {self.on:%Y-%m-%d}"
