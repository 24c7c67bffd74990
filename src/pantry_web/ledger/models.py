"""What came of a dish, what is left of it, and what of a kitchen's figures is put aside."""

from django.db import models
from django.db.models import Q
from django.utils.translation import gettext_lazy as _

from pantry_core.routes.cuts import CUTS
from pantry_core.routes.leftovers import good_for
from pantry_core.rules.raw_clock import FROZEN_RAW_D, leftovers_keep
from pantry_core.text import say
from pantry_web.feasts.models import Dish, Event
from pantry_web.kitchens.models import Cook, Kitchen
from pantry_web.sentences import tell

PARTS = ("piece", "cure", "heat")


class Review(models.Model):
    """What came of a dish, as it was told after the meal; one that was skipped says nothing.

    `bland_share` is how much of the thickness was still bland or grey when the heart was cut;
    `is_learnt_from` is set once the kitchen has looked what it tells of its figures.
    """

    class Tender(models.TextChoices):
        TOUGH = "tough", _("tough")
        RIGHT = "right", _("right")
        SOFT = "soft", _("too soft")

    class Doneness(models.TextChoices):
        UNDER = "under", _("underdone")
        RIGHT = "right", _("right")
        OVER = "over", _("overdone")

    class Skin(models.TextChoices):
        CRISP = "crisp", _("crisp")
        CHEWY = "chewy", _("chewy")
        SOFT = "soft", _("soft")

    dish = models.OneToOneField(Dish, models.CASCADE, related_name="review")
    saltiness = models.CharField(max_length=10, choices=Event.Taste, blank=True)
    tender = models.CharField(max_length=6, choices=Tender, blank=True)
    doneness = models.CharField(max_length=6, choices=Doneness, blank=True)
    skin = models.CharField(max_length=6, choices=Skin, blank=True)
    bland_share = models.FloatField(null=True, blank=True)
    ready_at = models.DateTimeField(null=True, blank=True)
    left_g = models.FloatField(null=True, blank=True)
    next_time = models.TextField(max_length=1000, blank=True)
    is_skipped = models.BooleanField(default=False)
    is_learnt_from = models.BooleanField(default=False)
    by = models.ForeignKey(Cook, models.PROTECT, related_name="+")
    told_at = models.DateTimeField()

    class Meta:
        constraints = [
            models.CheckConstraint(
                condition=Q(bland_share=None) | Q(bland_share__range=(0.0, 1.0)),
                name="a_share_is_a_share",
            ),
            models.CheckConstraint(condition=Q(left_g=None) | Q(left_g__gte=0), name="left_or_not"),
        ]

    def __str__(self) -> str:
        return f"{self.dish}"


class Photo(models.Model):
    """A photo of a dish, turned upright, scaled, and stripped of where and with what it was taken.

    It is kept in the database: a copy of that is a copy of everything.
    """

    dish = models.ForeignKey(Dish, models.CASCADE, related_name="photos")
    jpeg = models.BinaryField()
    width = models.PositiveSmallIntegerField()
    height = models.PositiveSmallIntegerField()
    by = models.ForeignKey(Cook, models.PROTECT, related_name="+")
    kept_at = models.DateTimeField()

    class Meta:
        ordering = ["pk"]

    def __str__(self) -> str:
        return f"{self.dish}"


FOR_STOCK = say("A stock or a sauce.")


class Leftover(models.Model):
    """What is left of a dish: where, until when by which rule, and what became of it.

    `what` is what was kept of it raw, as its bones; empty for what was cooked.
    """

    class What(models.TextChoices):
        BONES = "bones", _("bones")
        TRIMMINGS = "trimmings", _("trimmings")
        GIBLETS = "giblets", _("giblets")
        FAT = "fat", _("skin and fat")
        PIECE = "piece", _("another piece")

    class Place(models.TextChoices):
        FRIDGE = "fridge", _("fridge")
        FREEZER = "freezer", _("freezer")

    class Fate(models.TextChoices):
        EATEN = "eaten", _("eaten")
        FROZEN = "frozen", _("frozen")
        THROWN = "thrown", _("thrown away")
        USED = "used", _("used")

    dish = models.ForeignKey(Dish, models.CASCADE, related_name="leftovers")
    what = models.CharField(max_length=10, choices=What, blank=True)
    mass_g = models.FloatField()
    place = models.CharField(max_length=7, choices=Place, default=Place.FRIDGE)
    since = models.DateTimeField()
    until = models.DateTimeField(null=True, blank=True)
    fate = models.CharField(max_length=6, choices=Fate, blank=True)
    ended_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["until", "pk"]
        constraints = [
            models.CheckConstraint(condition=Q(mass_g__gt=0), name="something_is_left"),
            models.CheckConstraint(
                condition=Q(fate="", ended_at=None) | (~Q(fate="") & Q(ended_at__isnull=False)),
                name="what_ended_has_its_hour",
            ),
        ]

    def __str__(self) -> str:
        return f"{self.dish}"

    @property
    def name(self) -> str:
        """What it is, and of which dish."""
        if not self.what:
            return self.dish.name
        return tell("{dish}, {what}", what=self.get_what_display(), dish=self.dish.name)

    @property
    def is_for_stock(self) -> bool:
        """Whether a stock is made of it."""
        return self.what in (self.What.BONES, self.What.TRIMMINGS, self.What.GIBLETS)

    @property
    def rule(self) -> str:
        """By which rule it keeps so long."""
        if self.what:
            return FROZEN_RAW_D.basis
        return leftovers_keep(is_raw_fish=self.dish.piece.get("will_be") == "raw").basis

    @property
    def good_for(self) -> str:
        """What it is good for; nothing of a side job."""
        if self.what:
            return FOR_STOCK if self.is_for_stock else ""
        piece, cure, heat = (self.dish.document.get(name) or {} for name in PARTS)
        cut = CUTS.get(piece.get("cut", ""))
        if cut is None:
            return ""
        return good_for(
            cut, heat.get("way", ""),
            is_cured=bool(cure.get("curing_salt")), is_raw=piece.get("will_be") == "raw",
        )  # fmt: skip


class Evidence(models.Model):
    """What one dish tells of one figure, worked out once when it is over and told of.

    `seen` is what the core learns from: hours foretold and taken, salt and its taste, a heart.
    """

    dish = models.ForeignKey(Dish, models.CASCADE, related_name="evidence")
    figure = models.CharField(max_length=20)
    seen = models.JSONField()

    class Meta:
        constraints = [models.UniqueConstraint(fields=["dish", "figure"], name="once_of_a_figure")]

    def __str__(self) -> str:
        return f"{self.figure}"


class OwnFigure(models.Model):
    """How a kitchen takes a figure of its own: put aside, or learnt anew since a moment."""

    kitchen = models.ForeignKey(Kitchen, models.CASCADE, related_name="own_figures")
    figure = models.CharField(max_length=20)
    is_aside = models.BooleanField(default=False)
    since = models.DateTimeField(null=True, blank=True)

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["kitchen", "figure"], name="one_own_figure_of_each")
        ]

    def __str__(self) -> str:
        return self.figure
