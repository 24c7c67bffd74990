"""Ticking a line of the shopping list."""

from collections.abc import Iterable
from datetime import datetime

from pantry_web.feasts.models import Dish
from pantry_web.kitchens.models import Cook
from pantry_web.presses.once import once
from pantry_web.shopping.models import Bought

Line = tuple[Dish, str]
"""A dish and what it needs, as the shopping list names it."""


@once()
def tick_lines(lines: Iterable[Line], at: datetime, by: Cook) -> None:
    """Write down that lines are bought; what is ticked already stays as it is."""
    Bought.objects.bulk_create(
        (Bought(dish=dish, key=key, at=at, by=by) for dish, key in lines), ignore_conflicts=True
    )


@once()
def untick_lines(lines: Iterable[Line]) -> None:
    """Write down that lines are not bought after all."""
    for dish, key in lines:
        Bought.objects.filter(dish=dish, key=key).delete()
