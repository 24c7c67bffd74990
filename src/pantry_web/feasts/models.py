"""Feasts, their dishes, the steps of a dish, and the log of what happened."""

from collections import Counter
from typing import Any, NoReturn

from django.db import models
from django.db.models import Q
from django.utils.translation import gettext_lazy as _

from pantry_core.plan.instants import Instant
from pantry_web.kitchens.models import Cook, Kitchen
from pantry_web.pantry.models import Vessel
from pantry_web.sentences import SentencesField, tell

HUES = 8
"""So many dishes are told apart by hue and hatch; the next begins again."""


class KeptFeasts(models.Manager["Feast"]):
    """The feasts that nobody has removed."""

    def get_queryset(self) -> models.QuerySet["Feast"]:
        """Without those that are removed."""
        return super().get_queryset().filter(removed_at=None)


class Feast(models.Model):
    """An hour to eat, at a place on earth, for so many.

    `kept_plan` is what the cook last went by, `first_plan` how each step was planned at first, to
    be compared with what happened. One that is removed keeps its dishes and their log; it is only
    shown to whoever takes it back.
    """

    kitchen = models.ForeignKey(Kitchen, models.CASCADE, related_name="feasts")
    name = models.CharField(max_length=80)
    serve_at = models.DateTimeField()
    time_zone = models.CharField(max_length=64)
    heads = models.PositiveSmallIntegerField()
    note = models.TextField(max_length=2000, blank=True)
    version = models.PositiveIntegerField(default=0)
    kept_plan = models.JSONField(null=True, blank=True)
    first_plan = models.JSONField(null=True, blank=True)
    removed_at = models.DateTimeField(null=True, blank=True)

    objects = KeptFeasts()
    with_removed: "models.Manager[Feast]" = models.Manager()

    class Meta:
        ordering = ["serve_at", "pk"]
        indexes = [models.Index(fields=["kitchen", "serve_at"])]
        constraints = [models.CheckConstraint(condition=Q(heads__gte=1), name="somebody_eats")]

    def __str__(self) -> str:
        return self.name

    @property
    def hour(self) -> Instant:
        """When it is eaten, with its zone."""
        return Instant(self.serve_at, self.time_zone)

    def free_hue(self) -> int:
        """A hue that none of its dishes has, nor one of the latest, as far as there are enough."""
        latest = Dish.objects.filter(feast__kitchen=self.kitchen_id).order_by("-pk")[:HUES]
        taken = Counter(hue for hue in latest.values_list("hue", flat=True))
        own = Counter(self.dishes.values_list("hue", flat=True))
        return min(range(HUES), key=lambda hue: (own[hue], taken[hue], hue))


class Dish(models.Model):
    """A piece and what is to become of it, or a side job; everything else is computed from this.

    `document` is what the cook decided: piece or job, cure, heat, customs and edits of the `dish`
    document, with units as there. `hue` is by which hue and hatch it is told apart,
    `copied_from` the dish of another time that it goes by.
    """

    feast = models.ForeignKey(Feast, models.PROTECT, related_name="dishes")
    name = models.CharField(max_length=80)
    document = models.JSONField()
    serve_at = models.DateTimeField(null=True, blank=True)
    early_max_min = models.FloatField(null=True, blank=True)
    is_given_up = models.BooleanField(default=False)
    note = models.TextField(max_length=2000, blank=True)
    vessel = models.ForeignKey(Vessel, models.SET_NULL, null=True, blank=True, related_name="+")
    recipe = models.TextField(max_length=8000, blank=True)
    hue = models.PositiveSmallIntegerField(default=0)
    copied_from = models.ForeignKey(
        "self", models.SET_NULL, null=True, blank=True, related_name="copies"
    )

    class Meta:
        ordering = ["pk"]

    def __str__(self) -> str:
        return self.name

    @property
    def is_job(self) -> bool:
        """Whether it is a side job, which has no piece."""
        return "piece" not in self.document

    @property
    def mass_g(self) -> float:
        """Mass of the piece, or of what is made [g]."""
        made: float = self.document["job"]["made_g"] if self.is_job else self.piece["mass_g"]
        return made

    @property
    def piece(self) -> dict[str, Any]:
        """The piece of the document; empty for a side job."""
        return self.document.get("piece") or {}

    @property
    def cure(self) -> dict[str, Any]:
        """The cure of the document."""
        return self.document.get("cure") or {}


class KeptRoute(models.Model):
    """The steps of a dish, kept for another time; of a side job its ingredients as well."""

    kitchen = models.ForeignKey(Kitchen, models.CASCADE, related_name="routes")
    name = models.CharField(max_length=80)
    steps = models.JSONField()
    job = models.JSONField(null=True, blank=True)

    class Meta:
        ordering = ["name", "pk"]
        constraints = [models.UniqueConstraint(fields=["kitchen", "name"], name="route_named_once")]

    def __str__(self) -> str:
        return self.name


class Mishap(models.Model):
    """Something that befell the kitchen, or one dish: the power out, the fridge warm, left out."""

    class Kind(models.TextChoices):
        POWER_OUT = "power-out", _("The power was out")
        FRIDGE_WARM = "fridge-warm", _("The fridge was warm")
        LEFT_OUT = "left-out", _("It stood on the counter")

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
    """Something that happened to a dish. What belongs to one press shares its batch.

    `heat` is how it goes on at the heat, where that was changed: medium, covered, halved.
    """

    class What(models.TextChoices):
        WEIGHED = "weighed"
        LINE_WEIGHED = "line-weighed"
        PUT_IN = "put-in"
        TURNED = "turned"
        LIFTED = "lifted"
        TASTED = "tasted"
        TEMPERATURE_READ = "temperature-read"
        TOUCHED = "touched"
        STEP_STARTED = "step-started"
        STEP_ENDED = "step-ended"
        HEAT_SET = "heat-set"
        HEAT_READ = "heat-read"
        NOTED = "noted"
        PUT_OFF = "put-off"
        WITHDRAWN = "withdrawn"

    class Taste(models.TextChoices):
        FLAT = "flat", _("flat")
        RIGHT = "right", _("right")
        SALTY = "salty", _("salty")
        TOO_SALTY = "too-salty", _("too salty")

    class Touch(models.TextChoices):
        TENDER = "tender", _("tender: a fork turns in it")
        LOOKS_DONE = "looks-done", _("it looks done")
        NOT_YET = "not-yet", _("not yet")

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
    touch = models.CharField(max_length=10, choices=Touch, blank=True)
    note = models.CharField(max_length=500, blank=True)
    line = models.CharField(max_length=80, blank=True)
    withdraws = models.UUIDField(null=True)
    until = models.DateTimeField(null=True)
    heat = models.JSONField(null=True)

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

    @property
    def is_by_a_device(self) -> bool:
        """Whether a probe told it, and no hand; `line` is its wire then."""
        return self.what in (self.What.TEMPERATURE_READ, self.What.HEAT_READ) and bool(self.line)


class WeighSheet(AppendOnly):
    """The weigh-out sheet as it was when the meat went in, with the version of the rules."""

    dish = models.ForeignKey(Dish, models.PROTECT, related_name="sheets")
    batch = models.UUIDField(unique=True)
    rules_version = models.CharField(max_length=20)
    weighed = models.JSONField(default=dict)
    request = models.JSONField()
    answer = SentencesField()

    def __str__(self) -> str:
        return tell(
            "sheet of {dish} by rules {rules_version}",
            dish=str(self.dish),
            rules_version=self.rules_version,
        )
