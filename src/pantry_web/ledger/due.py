"""What Today asks of a kitchen: how dishes were, the next morning, and what must be eaten."""

from collections.abc import Sequence
from datetime import datetime, timedelta

from pantry_web.feasts.models import Dish
from pantry_web.kitchens.models import Kitchen
from pantry_web.ledger.models import Leftover

NEXT_MORNING = timedelta(hours=10)
FORGOTTEN = timedelta(days=14)
"""So long after a meal nobody is asked any more; it can be told in the ledger."""
A_DAY = timedelta(days=1)
MOST = 12


def untold(kitchen: Kitchen, now: datetime) -> Sequence[Dish]:
    """Dishes that were eaten yesterday or in the days before, and of which nothing is told."""
    eaten = (now - FORGOTTEN, now - NEXT_MORNING)
    dishes = Dish.objects.filter(
        feast__kitchen=kitchen, feast__removed_at=None, feast__serve_at__range=eaten,
        is_given_up=False, review=None, events__isnull=False,
    )  # fmt: skip
    return list(dishes.distinct().select_related("feast").order_by("feast__serve_at", "pk")[:MOST])


def ending_soon(kitchen: Kitchen, now: datetime) -> Sequence[Leftover]:
    """What is left and must be eaten or frozen within a day, or is past it."""
    left = Leftover.objects.filter(
        dish__feast__kitchen=kitchen, dish__feast__removed_at=None, fate="", until__lte=now + A_DAY
    )
    return list(left.select_related("dish__feast")[:MOST])
