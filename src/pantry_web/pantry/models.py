"""What stands in the pantry of a kitchen."""

from typing import Any

from django.db import models
from django.db.models import Q
from django.utils.translation import gettext_lazy as _

from pantry_core.measures.units import RECIPE_ML
from pantry_core.rules.ingredients import INGREDIENTS
from pantry_web.kitchens.models import Kitchen

SHAPES = [("box", _("Box")), ("round", _("Round")), ("tapered", _("Tapered")), ("bag", _("Bag"))]
MATERIALS = [
    ("glass", _("Glass")), ("food-plastic", _("Food plastic")), ("stoneware", _("Stoneware")),
    ("stainless", _("Stainless steel")), ("aluminium", _("Bare aluminium")),
    ("copper", _("Bare copper")), ("iron", _("Bare iron")), ("unknown", _("Not known")),
]  # fmt: skip
SPOONS = [
    ("", _("not weighed")),
    ("tsp", _("US teaspoon")), ("tbsp", _("US tablespoon")), ("us-cup", _("US cup")),
    ("metric-tbsp", _("metric tablespoon")), ("metric-cup", _("metric cup")),
    ("au-tbsp", _("Australian tablespoon")), ("ml", _("millilitre")),
]  # fmt: skip


class Scale(models.Model):
    """A scale: it reads to its division, and holds so much."""

    kitchen = models.ForeignKey(Kitchen, models.CASCADE, related_name="scales")
    name = models.CharField(max_length=40)
    division_g = models.FloatField()
    capacity_g = models.FloatField()

    class Meta:
        ordering = ["division_g", "pk"]
        constraints = [
            models.CheckConstraint(
                condition=Q(division_g__gt=0, capacity_g__gt=models.F("division_g")),
                name="scale_reads_less_than_it_holds",
            )
        ]

    def __str__(self) -> str:
        return self.name


class Ingredient(models.Model):
    """A packet or bottle: which ingredient it is, its label, its weighed spoon, what is left."""

    kitchen = models.ForeignKey(Kitchen, models.CASCADE, related_name="ingredients")
    name = models.CharField(max_length=60)
    stands_for = models.CharField(
        max_length=24, choices=[(each.key, each.name) for each in INGREDIENTS.values()]
    )
    spoon = models.CharField(max_length=12, blank=True)
    spoon_g = models.FloatField(null=True, blank=True)
    nitrite_pct = models.FloatField(null=True, blank=True)
    nitrate_pct = models.FloatField(null=True, blank=True)
    sodium_mg = models.FloatField(null=True, blank=True)
    stock_g = models.FloatField(null=True, blank=True)

    @property
    def spoon_name(self) -> Any:
        """The spoon that was weighed, as a cook calls it."""
        return dict(SPOONS)[self.spoon]

    class Meta:
        ordering = ["name", "pk"]
        constraints = [
            models.CheckConstraint(
                condition=Q(spoon_g=None) | Q(spoon_g__gt=0), name="a_spoon_weighs_something"
            ),
            models.CheckConstraint(
                condition=Q(stock_g=None) | Q(stock_g__gte=0), name="stock_not_negative"
            ),
        ]

    def __str__(self) -> str:
        return self.name

    @property
    def g_per_ml(self) -> float | None:
        """By the spoon that the cook weighed [g/ml]."""
        if self.spoon_g is None or self.spoon not in RECIPE_ML:
            return None
        return self.spoon_g / RECIPE_ML[self.spoon]


class Vessel(models.Model):
    """A vessel by its inner measures."""

    kitchen = models.ForeignKey(Kitchen, models.CASCADE, related_name="vessels")
    name = models.CharField(max_length=40)
    shape = models.CharField(
        max_length=8,
        choices=SHAPES,
    )
    material = models.CharField(
        max_length=12,
        choices=MATERIALS,
    )
    length_mm = models.FloatField(null=True, blank=True)
    width_mm = models.FloatField(null=True, blank=True)
    diameter_mm = models.FloatField(null=True, blank=True)
    top_mm = models.FloatField(null=True, blank=True)
    bottom_mm = models.FloatField(null=True, blank=True)
    depth_mm = models.FloatField(null=True, blank=True)
    litres = models.FloatField(null=True, blank=True)

    class Meta:
        ordering = ["name", "pk"]

    def __str__(self) -> str:
        return self.name
