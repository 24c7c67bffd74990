"""Kitchens, who cooks in them, and what the house is like."""

from datetime import time

from django.contrib.auth.models import AbstractUser
from django.db import models
from django.db.models import F, Q
from django.utils.crypto import salted_hmac
from django.utils.translation import gettext_lazy as _

from pantry_core.quantities import Ppm
from pantry_core.rules import profiles
from pantry_core.text import say


def usual_shop_hours() -> list[dict[str, object]]:
    """When an ordinary shop is open, as hours of a `plan` document."""
    return [
        {"days": ["mon", "tue", "wed", "thu", "fri"], "from": "08:00", "to": "19:00"},
        {"days": ["sat"], "from": "08:00", "to": "18:00"},
    ]


def usual_work_hours() -> list[dict[str, object]]:
    """When people cook who go to work, as hours of a `plan` document."""
    return [
        {"days": ["mon", "tue", "wed", "thu", "fri"], "from": "17:00", "to": "21:00"},
        {"days": ["sat", "sun"], "from": "08:00", "to": "21:00"},
    ]


class Cook(AbstractUser):
    """Somebody who signs in."""

    sign_outs = models.PositiveIntegerField(default=0)

    def get_session_auth_hash(self) -> str:
        """The mark that a session must carry: another password ends it, and signing out."""
        mark = f"{super().get_session_auth_hash()}{self.sign_outs}"
        return salted_hmac("pantry_web.kitchens.session", mark, algorithm="sha256").hexdigest()


class Kitchen(models.Model):
    """A household: its units, its rules, its waking hours.

    One that `rehearses` another has a clock of its own, and leaves no trace.
    """

    class Units(models.TextChoices):
        METRIC = "metric", _("grams and millimetres")
        IMPERIAL = "imperial", _("pounds, ounces and inches")

    class Profile(models.TextChoices):
        US = (
            "us",
            say(
                "United States style: nitrite up to {most_ppm}", most_ppm=Ppm(profiles.US.most_ppm)
            ),
        )
        EU = (
            "eu",
            say(
                "European Union style: nitrite up to {most_ppm}",
                most_ppm=Ppm(profiles.EU.most_ppm),
            ),
        )

    class ClockFace(models.TextChoices):
        OF_24 = "24", _("18:30")
        OF_12 = "12", _("6:30 pm")

    class Cups(models.TextChoices):
        US = "us", _("US: cup 237 ml, tablespoon 14.8 ml")
        METRIC = "metric", _("metric: cup 250 ml, tablespoon 15 ml")
        AUSTRALIAN = "australian", _("Australian: cup 250 ml, tablespoon 20 ml")
        IMPERIAL = "imperial", _("imperial: cup of half a pint, tablespoon 15 ml")

    name = models.CharField(max_length=80)
    members = models.ManyToManyField(Cook, through="Membership", related_name="kitchens")
    time_zone = models.CharField(max_length=64)
    units = models.CharField(max_length=8, choices=Units, default=Units.METRIC)
    clock_face = models.CharField(max_length=2, choices=ClockFace, default=ClockFace.OF_24)
    profile = models.CharField(max_length=2, choices=Profile, default=Profile.US)
    cups = models.CharField(max_length=10, choices=Cups, default=Cups.US)
    wake = models.TimeField(default=time(7, 0))
    sleep = models.TimeField(default=time(22, 30))
    cooks = models.PositiveSmallIntegerField(default=1)
    shop_hours = models.JSONField(default=usual_shop_hours)
    work_hours = models.JSONField(default=usual_work_hours)
    country = models.CharField(max_length=2, blank=True)
    learnt = models.JSONField(default=dict, blank=True)
    understood = models.JSONField(default=list, blank=True)
    is_demo = models.BooleanField(default=False)
    stands_at = models.DateTimeField(null=True, blank=True)
    runs_since = models.DateTimeField(null=True, blank=True)
    runs_times = models.PositiveSmallIntegerField(default=1)
    rehearses = models.ForeignKey(
        "self", models.CASCADE, null=True, blank=True, related_name="rehearsals"
    )

    class Meta:
        constraints = [
            models.CheckConstraint(condition=Q(sleep__gt=F("wake")), name="sleep_after_wake"),
            models.CheckConstraint(condition=Q(cooks__gte=1), name="somebody_cooks"),
            models.CheckConstraint(
                condition=Q(is_demo=True) | Q(stands_at=None), name="only_a_demo_clock_stands"
            ),
        ]

    def __str__(self) -> str:
        return self.name


class Membership(models.Model):
    """A cook's part in a kitchen."""

    class Role(models.TextChoices):
        OWNER = "owner", _("owner")
        COOK = "cook", _("cook")

    kitchen = models.ForeignKey(Kitchen, models.CASCADE, related_name="memberships")
    cook = models.ForeignKey(Cook, models.CASCADE, related_name="memberships")
    role = models.CharField(max_length=5, choices=Role, default=Role.COOK)

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["kitchen", "cook"], name="once_in_a_kitchen")
        ]

    def __str__(self) -> str:
        return f"{self.cook} in {self.kitchen}"


class Place(models.Model):
    """Where a dish can be, and how much fits there at once: into the fridge litres, else pieces.

    `unit` is what the room of the fridge was told in; it is shown so.
    """

    class Unit(models.TextChoices):
        LITRES = "l", _("litres")
        QUARTS = "qt", _("quarts")
        CUBIC_FEET = "cu ft", _("cubic feet")

    kitchen = models.ForeignKey(Kitchen, models.CASCADE, related_name="places")
    name = models.CharField(max_length=20)
    capacity = models.FloatField(default=1.0)
    unit = models.CharField(max_length=5, choices=Unit, blank=True, default="")

    FRIDGE = "fridge"

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["kitchen", "name"], name="place_once_in_a_kitchen"),
            models.CheckConstraint(condition=Q(capacity__gte=0), name="capacity_not_negative"),
        ]

    def __str__(self) -> str:
        return self.name


class OwnDay(models.Model):
    """A day of the year that this kitchen keeps."""

    kitchen = models.ForeignKey(Kitchen, models.CASCADE, related_name="own_days")
    name = models.CharField(max_length=80)
    day = models.DateField()

    class Meta:
        ordering = ["day", "pk"]

    def __str__(self) -> str:
        return self.name


class ChangedDay(models.Model):
    """A day on which the hours of work or of the shop are others than by the week."""

    class Kind(models.TextChoices):
        OFF = "off", _("We have the day off")
        WORK = "work", _("We cook at other hours")
        SHUT = "shut", _("The shop is shut")
        OPEN = "open", _("A shop is open")

    WITH_HOURS = (Kind.WORK, Kind.OPEN)

    kitchen = models.ForeignKey(Kitchen, models.CASCADE, related_name="changed_days")
    day = models.DateField()
    kind = models.CharField(max_length=4, choices=Kind)
    begins = models.TimeField(null=True, blank=True)
    ends = models.TimeField(null=True, blank=True)

    class Meta:
        ordering = ["day", "kind"]
        constraints = [
            models.UniqueConstraint(fields=["kitchen", "day", "kind"], name="day_changed_once"),
            models.CheckConstraint(
                condition=Q(begins=None, ends=None) | Q(ends__gt=F("begins")),
                name="changed_hours_in_order",
            ),
        ]

    def __str__(self) -> str:
        return f"{self.get_kind_display()} on {self.day}"


class Absence(models.Model):
    """A time in which nobody is at home."""

    kitchen = models.ForeignKey(Kitchen, models.CASCADE, related_name="absences")
    begins = models.DateTimeField()
    ends = models.DateTimeField()

    class Meta:
        ordering = ["begins"]
        constraints = [
            models.CheckConstraint(condition=Q(ends__gt=F("begins")), name="home_after_leaving")
        ]

    def __str__(self) -> str:
        return f"{self.begins} to {self.ends}"
