"""Writing down that something went wrong, and taking that back."""

from datetime import datetime

from pantry_web.feasts.models import Dish, Mishap
from pantry_web.kitchens.models import Cook, Kitchen
from pantry_web.presses.once import once


@once()
def record_mishap(
    kitchen: Kitchen, by: Cook, kind: str, begins: datetime, ends: datetime, *,
    dish: Dish | None = None, temperature_c: float | None = None,
) -> Mishap:  # fmt: skip
    """Write a mishap down: from when to when, how warm it got where that was read [°C]."""
    return Mishap.objects.create(
        kitchen=kitchen, by=by, kind=kind, begins=begins, ends=ends, dish=dish,
        temperature_c=temperature_c,
    )  # fmt: skip


@once()
def take_back_mishap(mishap: Mishap) -> None:
    """Take back what was written down by mistake."""
    mishap.delete()
