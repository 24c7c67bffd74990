"""Devices of a kitchen, their channels, and what was read and believed."""

from django.db import models
from django.utils.translation import gettext_lazy as _

from pantry_core.heat.thermometer import Checked, checked
from pantry_web.feasts.models import Dish, Mishap
from pantry_web.kitchens.models import Cook, Kitchen

MOST_CHANNELS = 4


class Device(models.Model):
    """Something that sends readings with a token of its own, of which only the digest is kept."""

    kitchen = models.ForeignKey(Kitchen, models.CASCADE, related_name="devices")
    name = models.CharField(max_length=60)
    token_digest = models.CharField(max_length=64, unique=True)
    added_by = models.ForeignKey(Cook, models.PROTECT, related_name="+")
    added_at = models.DateTimeField()
    revoked_at = models.DateTimeField(null=True, blank=True)
    seen_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["pk"]

    def __str__(self) -> str:
        return self.name


class Channel(models.Model):
    """One wire of a device: what it is in, and of which dish.

    `waiting` are readings that jumped and are not confirmed yet, `left_out` how many were not
    believed, by why, and `refused_at` when the last; `goal_c` is what the piece goes on until, as
    it was when it was last looked.
    `mishap` is the warm spell of a fridge that goes on. Of a scale only what lies on it is kept,
    and whether that is at rest.
    """

    class What(models.TextChoices):
        MEAT = "meat", _("in the meat")
        FIRE = "fire", _("at the fire, in the oven")
        FRIDGE = "fridge", _("in the fridge")
        SCALE = "scale", _("a scale")
        UNUSED = "unused", _("not used")

    device = models.ForeignKey(Device, models.CASCADE, related_name="channels")
    number = models.PositiveSmallIntegerField()
    what = models.CharField(max_length=6, choices=What, default=What.UNUSED)
    dish = models.ForeignKey(Dish, models.SET_NULL, null=True, blank=True, related_name="channels")
    low_c = models.FloatField(null=True, blank=True)
    high_c = models.FloatField(null=True, blank=True)
    waiting = models.JSONField(default=list, blank=True)
    left_out = models.JSONField(default=dict, blank=True)
    refused_at = models.DateTimeField(null=True, blank=True)
    goal_c = models.FloatField(null=True, blank=True)
    written_at = models.DateTimeField(null=True, blank=True)
    thinned_at = models.DateTimeField(null=True, blank=True)
    grams = models.FloatField(null=True, blank=True)
    is_steady = models.BooleanField(default=False)
    weighed_at = models.DateTimeField(null=True, blank=True)
    mishap = models.ForeignKey(Mishap, models.SET_NULL, null=True, blank=True, related_name="+")

    class Meta:
        ordering = ["device", "number"]
        constraints = [
            models.UniqueConstraint(fields=["device", "number"], name="one_channel_of_a_number"),
            models.CheckConstraint(
                condition=models.Q(number__range=(1, MOST_CHANNELS)), name="so_many_channels"
            ),
        ]

    def __str__(self) -> str:
        return f"{self.device} {self.number}"


class ThermometerCheck(models.Model):
    """What a wire of a device, or another thermometer, showed in ice and boiling water [°C]."""

    kitchen = models.ForeignKey(Kitchen, models.CASCADE, related_name="thermometer_checks")
    channel = models.ForeignKey(
        Channel, models.SET_NULL, null=True, blank=True, related_name="checks"
    )
    name = models.CharField(max_length=60)
    ice_c = models.FloatField()
    boiling_c = models.FloatField()
    height_m = models.FloatField()
    at = models.DateTimeField()
    by = models.ForeignKey(Cook, models.PROTECT, related_name="+")

    class Meta:
        ordering = ["-at", "-pk"]

    def __str__(self) -> str:
        return f"{self.name}, {self.at:%Y-%m-%d}"

    @property
    def found(self) -> Checked:
        """How far it is off."""
        return checked(self.ice_c, self.boiling_c, self.height_m)


class Reading(models.Model):
    """A temperature that was believed [°C]; older ones are thinned."""

    channel = models.ForeignKey(Channel, models.CASCADE, related_name="readings")
    at = models.DateTimeField()
    celsius = models.FloatField()

    class Meta:
        ordering = ["at"]
        constraints = [
            models.UniqueConstraint(fields=["channel", "at"], name="one_reading_at_a_moment")
        ]

    def __str__(self) -> str:
        return f"{self.celsius:.1f} °C"
