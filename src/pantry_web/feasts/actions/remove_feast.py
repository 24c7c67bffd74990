"""Removing a feast, and taking it back."""

from datetime import datetime, timedelta

from django.utils.translation import gettext

from pantry_web.feasts.models import Feast
from pantry_web.kitchens.models import Kitchen
from pantry_web.presses.once import once
from pantry_web.refusal import Refused

TAKEN_BACK_WITHIN = timedelta(days=30)


@once()
def remove_feast(feast: Feast, now: datetime) -> None:
    """Remove a feast from every page; its log stays."""
    feast.removed_at = now
    feast.save(update_fields=["removed_at"])


def removed_feasts(kitchen: Kitchen, now: datetime) -> list[Feast]:
    """The feasts that can still be taken back, the last removed first."""
    found = Feast.with_removed.filter(kitchen=kitchen, removed_at__gt=now - TAKEN_BACK_WITHIN)
    return list(found.order_by("-removed_at"))


@once()
def take_back_feast(feast: Feast, now: datetime) -> None:
    """Bring a removed feast back.

    Raises: Refused after thirty days.
    """
    if feast.removed_at is not None and now - feast.removed_at > TAKEN_BACK_WITHIN:
        raise Refused(gettext("It was removed over 30 days ago, and cannot be taken back."))
    feast.removed_at = None
    feast.save(update_fields=["removed_at"])
