"""Secret addresses of calendars."""

from django.db import models
from django.db.models import Q

from pantry_web.feasts.models import Feast
from pantry_web.kitchens.models import Cook, Kitchen


class Feed(models.Model):
    """An address of a cook's calendar, of one feast or of all; only the digest of it is kept."""

    kitchen = models.ForeignKey(Kitchen, models.CASCADE, related_name="feeds")
    cook = models.ForeignKey(Cook, models.CASCADE, related_name="feeds")
    feast = models.ForeignKey(Feast, models.CASCADE, null=True, blank=True, related_name="feeds")
    token_digest = models.CharField(max_length=64, unique=True)
    made_at = models.DateTimeField()
    ended_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["pk"]
        constraints = [
            models.UniqueConstraint(
                fields=["kitchen", "cook", "feast"],
                condition=Q(ended_at=None),
                nulls_distinct=False,
                name="one_address_at_a_time",
            )
        ]

    def __str__(self) -> str:
        return f"{self.cook}, {self.feast or self.kitchen}"
