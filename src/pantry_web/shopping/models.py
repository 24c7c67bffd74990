"""What is bought already."""

from django.db import models

from pantry_web.feasts.models import Dish
from pantry_web.kitchens.models import Cook


class Bought(models.Model):
    """A line of the shopping list that a dish needs no more, for it was bought."""

    dish = models.ForeignKey(Dish, models.CASCADE, related_name="bought")
    key = models.CharField(max_length=120)
    at = models.DateTimeField()
    by = models.ForeignKey(Cook, models.PROTECT, related_name="+")

    class Meta:
        constraints = [models.UniqueConstraint(fields=["dish", "key"], name="bought_once")]

    def __str__(self) -> str:
        return f"{self.key} for {self.dish}"
