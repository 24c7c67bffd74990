"""Dropping a dish from its feast, and taking it up again."""

from pantry_web.feasts.models import Dish
from pantry_web.presses.once import once


@once()
def drop_dish(dish: Dish) -> None:
    """Drop a dish: it goes for good when nothing has happened to it yet.

    What has begun stays, with its log, but is no longer planned.
    """
    if dish.events.exists():
        dish.is_given_up = True
        dish.save(update_fields=["is_given_up"])
    else:
        dish.delete()


@once()
def take_up(dish: Dish) -> None:
    """Take a dish up again that was dropped."""
    dish.is_given_up = False
    dish.save(update_fields=["is_given_up"])
