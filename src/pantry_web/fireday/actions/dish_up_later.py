"""Dishing up what is late a little later."""

from datetime import datetime

from pantry_web.feasts.actions.claim import claim
from pantry_web.feasts.actions.set_hour import set_hour
from pantry_web.planning.outlook import Outlook
from pantry_web.presses.once import once


@once()
def dish_up_later(view: Outlook, serve_at: datetime) -> None:
    """Serve a dish at an hour of its own.

    Raises: Refused when somebody has changed its feast meanwhile.
    """
    dish = view.dish
    claim(view.whole.feast, view.whole.feast.version)
    set_hour(dish, serve_at, dish.early_max_min, dish.note)
