"""Keeping what is left of a piece before it is cooked."""

from datetime import datetime, timedelta

from pantry_core.rules.raw_clock import FROZEN_RAW_D
from pantry_web.feasts.models import Dish
from pantry_web.ledger.models import Leftover
from pantry_web.presses.once import once


@once()
def keep_left(dish: Dish, what: str, mass_g: float, now: datetime) -> Leftover:
    """Keep what is left of a piece in the freezer.

    Parameters: dish; what it is, as its bones; mass_g [g]; now.
    Returns: what is kept, good until the rule says.
    """
    return Leftover.objects.create(
        dish=dish, what=what, mass_g=mass_g, place=Leftover.Place.FREEZER, since=now,
        until=now + timedelta(days=FROZEN_RAW_D.value),
    )  # fmt: skip
