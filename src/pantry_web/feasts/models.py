"""Feasts, their dishes, the steps of a dish, and the log of what happened."""

from typing import Any, NoReturn

from django.db import models
from django.db.models import Q

from pantry_core.routes.ways import WAYS
from pantry_core.rules.cures import CURING_SALTS
from pantry_web.kitchens.models import Cook, Kitchen
from pantry_web.pantry.models import Vessel


class Feast(models.Model):
    """An hour to eat, at a place on earth, for so many."""

    kitchen = models.ForeignKey(Kitchen, models.CASCADE, related_name="feasts")
    name = models.CharField(max_length=80)
    serve_at = models.DateTimeField()
    time_zone = models.CharField(max_length=64)
    heads = models.PositiveSmallIntegerField()
    note = models.TextField(max_length=2000, blank=True)
    version = models.PositiveIntegerField(default=0)
    kept_plan = models.JSONField(null=True, blank=True)

    class Meta:
        ordering = ["serve_at", "pk"]
        indexes = [models.Index(fields=["kitchen", "serve_at"])]
        constraints = [models.CheckConstraint(condition=Q(heads__gte=1), name="somebody_eats")]

    def __str__(self) -> str:
        return self.name


class Dish(models.Model):
    """A piece and what is to become of it; everything else is computed from this.

    A side job has no piece: `job` names it, and `mass_g` is how much is made.
    """

    class School(models.TextChoices):
        MODEL = "model", "This model"
        WEEK_AN_INCH = "week-an-inch", "A week an inch"
        TWO_DAYS_A_KILO = "two-days-a-kilo", "Two days a kilo, and two"
        FIVE_DAYS = "five-days", "Five days"
        FORTNIGHT = "fortnight", "A fortnight"

    feast = models.ForeignKey(Feast, models.PROTECT, related_name="dishes")
    name = models.CharField(max_length=80)
    job = models.CharField(max_length=12, blank=True)
    serve_at = models.DateTimeField(null=True, blank=True)
    early_max_min = models.FloatField(default=0.0)
    is_given_up = models.BooleanField(default=False)
    note = models.TextField(max_length=2000, blank=True)
    cut = models.CharField(max_length=20, blank=True)
    mass_g = models.FloatField()
    thickness_mm = models.FloatField(null=True, blank=True)
    is_thickness_guessed = models.BooleanField(default=False)
    bone_share = models.FloatField(default=0.0)
    is_frozen = models.BooleanField(default=False)
    method = models.CharField(
        max_length=16, blank=True, choices=[(w.id, w.name) for w in WAYS.values()]
    )
    target_salt_pct = models.FloatField()
    sugar_pct = models.FloatField(default=0.0)
    water_g = models.FloatField(null=True, blank=True)
    cure = models.CharField(
        max_length=12,
        blank=True,
        choices=[(name, each.name) for name, each in CURING_SALTS.items()],
    )
    nitrite_pct = models.FloatField(null=True, blank=True)
    ingoing_ppm = models.FloatField(null=True, blank=True)
    brine_salt_pct = models.FloatField(null=True, blank=True)
    injection_share = models.FloatField(null=True, blank=True)
    sauces = models.JSONField(default=list, blank=True)
    spices = models.JSONField(default=list, blank=True)
    customs = models.JSONField(default=dict, blank=True)
    school = models.CharField(max_length=16, choices=School, default=School.MODEL)
    vessel = models.ForeignKey(Vessel, models.SET_NULL, null=True, blank=True, related_name="+")
    recipe = models.TextField(max_length=8000, blank=True)

    class Meta:
        ordering = ["pk"]
        constraints = [
            models.CheckConstraint(
                condition=Q(mass_g__gt=0, thickness_mm__gt=0)
                | Q(mass_g__gt=0, thickness_mm=None) & ~Q(job=""),
                name="dish_has_mass_and_thickness",
            ),
            models.CheckConstraint(
                condition=Q(bone_share__gte=0, bone_share__lt=1), name="bone_is_a_share"
            ),
            models.CheckConstraint(
                condition=Q(target_salt_pct__gte=0, sugar_pct__gte=0), name="salt_not_negative"
            ),
            models.CheckConstraint(
                condition=~Q(method__in=[w.id for w in WAYS.values() if w.needs_water])
                | Q(water_g__gt=0),
                name="brine_has_water",
            ),
        ]

    def __str__(self) -> str:
        return self.name


class Step(models.Model):
    """One step of a dish as it is planned: the step record of the plan document, less its facts."""

    dish = models.ForeignKey(Dish, models.CASCADE, related_name="steps")
    position = models.PositiveSmallIntegerField()
    key = models.CharField(max_length=40)
    kind = models.CharField(max_length=20)
    title = models.CharField(max_length=80)
    begin = models.CharField(max_length=200, blank=True)
    tend = models.CharField(max_length=200, blank=True)
    place = models.CharField(max_length=20, blank=True)
    min_h = models.FloatField()
    prefer_h = models.FloatField(null=True)
    max_h = models.FloatField(null=True)
    hands_min = models.FloatField(default=0.0)
    attended = models.BooleanField(default=False)
    uses = models.FloatField(default=1.0)
    every_h = models.FloatField(null=True)
    locked_start = models.DateTimeField(null=True)
    is_changed = models.BooleanField(default=False)
    is_own = models.BooleanField(default=False)

    class Meta:
        ordering = ["position"]
        constraints = [
            models.UniqueConstraint(fields=["dish", "key"], name="step_key_once_in_a_dish"),
            models.CheckConstraint(
                condition=Q(min_h__gte=0, hands_min__gte=0), name="step_takes_no_negative_time"
            ),
            models.CheckConstraint(
                condition=Q(max_h=None) | Q(max_h__gte=models.F("min_h")), name="step_has_a_window"
            ),
        ]

    def __str__(self) -> str:
        return self.title


class KeptRoute(models.Model):
    """The steps of a dish, kept for another time."""

    kitchen = models.ForeignKey(Kitchen, models.CASCADE, related_name="routes")
    name = models.CharField(max_length=80)
    steps = models.JSONField()

    class Meta:
        ordering = ["name", "pk"]
        constraints = [models.UniqueConstraint(fields=["kitchen", "name"], name="route_named_once")]

    def __str__(self) -> str:
        return self.name


class Mishap(models.Model):
    """Something that befell the kitchen, or one dish: the power out, the fridge warm, left out."""

    class Kind(models.TextChoices):
        POWER_OUT = "power-out", "The power was out"
        FRIDGE_WARM = "fridge-warm", "The fridge was warm"
        LEFT_OUT = "left-out", "It stood on the counter"

    kitchen = models.ForeignKey(Kitchen, models.CASCADE, related_name="mishaps")
    dish = models.ForeignKey(Dish, models.CASCADE, null=True, blank=True, related_name="mishaps")
    kind = models.CharField(max_length=12, choices=Kind)
    begins = models.DateTimeField()
    ends = models.DateTimeField()
    temperature_c = models.FloatField(null=True, blank=True)
    by = models.ForeignKey(Cook, models.PROTECT, related_name="+")
    recorded_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["begins", "pk"]
        indexes = [models.Index(fields=["kitchen", "begins"])]
        constraints = [
            models.CheckConstraint(
                condition=Q(ends__gt=models.F("begins")), name="mishap_ends_after_it_begins"
            )
        ]

    def __str__(self) -> str:
        return f"{self.get_kind_display()} {self.begins:%Y-%m-%d %H:%M}"


class Solve(models.Model):
    """What is worked out beside the pages, a plan or what would help: how far [h], the answer."""

    class State(models.TextChoices):
        WAITING = "waiting"
        RUNNING = "running"
        DONE = "done"

    key = models.CharField(max_length=80, unique=True)
    document = models.JSONField()
    keep = models.JSONField(default=list)
    state = models.CharField(max_length=8, choices=State, default=State.WAITING)
    deviation_h = models.FloatField(null=True)
    bound_h = models.FloatField(null=True)
    wants_stop = models.BooleanField(default=False)
    answer = models.JSONField(null=True)
    begun_at = models.DateTimeField(auto_now_add=True)

    def __str__(self) -> str:
        return f"{self.key[:12]} {self.state}"


class AppendOnly(models.Model):
    """A row that is written once; the database refuses to change or remove it as well."""

    class Meta:
        abstract = True

    def save(self, *args: Any, **kwargs: Any) -> None:
        """Write a new row."""
        if self.pk is not None:
            self._refuse()
        super().save(*args, **kwargs)

    def delete(self, *args: Any, **kwargs: Any) -> NoReturn:
        """Refuse."""
        self._refuse()

    def _refuse(self) -> NoReturn:
        raise TypeError(f"{type(self).__name__} is append-only")


class Event(AppendOnly):
    """Something that happened to a dish. What belongs to one press shares its batch."""

    class What(models.TextChoices):
        WEIGHED = "weighed"
        LINE_WEIGHED = "line-weighed"
        PUT_IN = "put-in"
        TURNED = "turned"
        LIFTED = "lifted"
        TASTED = "tasted"
        TEMPERATURE_READ = "temperature-read"
        STEP_STARTED = "step-started"
        STEP_ENDED = "step-ended"
        NOTED = "noted"
        WITHDRAWN = "withdrawn"

    class Taste(models.TextChoices):
        FLAT = "flat"
        RIGHT = "right"
        SALTY = "salty"
        TOO_SALTY = "too-salty", "too salty"

    dish = models.ForeignKey(Dish, models.PROTECT, related_name="events")
    batch = models.UUIDField()
    what = models.CharField(max_length=20, choices=What)
    at = models.DateTimeField()
    recorded_at = models.DateTimeField(auto_now_add=True)
    by = models.ForeignKey(Cook, models.PROTECT, related_name="+")
    step_key = models.CharField(max_length=40, blank=True)
    mass_g = models.FloatField(null=True)
    temperature_c = models.FloatField(null=True)
    taste = models.CharField(max_length=10, choices=Taste, blank=True)
    note = models.CharField(max_length=500, blank=True)
    line = models.CharField(max_length=80, blank=True)
    withdraws = models.UUIDField(null=True)

    class Meta:
        ordering = ["pk"]
        indexes = [models.Index(fields=["dish", "id"])]
        constraints = [
            models.CheckConstraint(
                condition=Q(mass_g=None) | Q(mass_g__gt=0), name="weighed_something"
            ),
            models.CheckConstraint(
                condition=Q(what="withdrawn", withdraws__isnull=False)
                | (~Q(what="withdrawn") & Q(withdraws=None)),
                name="only_a_withdrawal_withdraws",
            ),
        ]

    def __str__(self) -> str:
        return f"{self.what} {self.at:%Y-%m-%d %H:%M}"


class WeighSheet(AppendOnly):
    """The weigh-out sheet as it was when the meat went in, with the version of the rules."""

    dish = models.ForeignKey(Dish, models.PROTECT, related_name="sheets")
    batch = models.UUIDField(unique=True)
    rules_version = models.CharField(max_length=20)
    weighed = models.JSONField(default=dict)
    request = models.JSONField()
    answer = models.JSONField()

    def __str__(self) -> str:
        return f"sheet of {self.dish} by rules {self.rules_version}"
