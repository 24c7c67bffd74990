"""Invitations."""

from django.db import models
from django.db.models import F, Q

from pantry_web.kitchens.models import Cook, Kitchen, Membership
from pantry_web.sentences import tell


class Invitation(models.Model):
    """A link with which one person can come into a kitchen, until it ends or is used."""

    kitchen = models.ForeignKey(Kitchen, models.CASCADE, related_name="invitations")
    role = models.CharField(max_length=5, choices=Membership.Role, default=Membership.Role.COOK)
    made_by = models.ForeignKey(Cook, models.PROTECT, related_name="+")
    made_at = models.DateTimeField()
    ends_at = models.DateTimeField()
    used_by = models.ForeignKey(Cook, models.PROTECT, null=True, blank=True, related_name="+")

    class Meta:
        ordering = ["ends_at", "pk"]
        constraints = [
            models.CheckConstraint(
                condition=Q(ends_at__gt=F("made_at")), name="invitation_ends_after_it_is_made"
            )
        ]

    def __str__(self) -> str:
        return tell(
            "{role} of {kitchen} until {ends_at}",
            role=self.role,
            kitchen=str(self.kitchen),
            ends_at=f"{self.ends_at:%Y-%m-%d %H:%M}",
        )
