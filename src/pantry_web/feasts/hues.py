"""By which hue and hatch a dish is told apart."""

from collections import Counter
from datetime import timedelta

from pantry_web.feasts.models import Dish, Feast

HUES = 8
"""So many dishes are told apart by hue and hatch; the next begins again."""
NEAR = timedelta(days=21)
"""Dishes of feasts so near to each other stand on one list."""


def free_hue(feast: Feast) -> int:
    """A hue that no dish of the feast has, nor of a feast near it, as far as there are enough."""
    near = Dish.objects.filter(
        feast__kitchen=feast.kitchen_id,
        feast__serve_at__range=(feast.serve_at - NEAR, feast.serve_at + NEAR),
    ).values_list("feast_id", "hue")
    taken = [(whose == feast.pk, hue) for whose, hue in near]
    own = Counter(hue for is_own, hue in taken if is_own)
    all_of_them = Counter(hue for _, hue in taken)
    return min(range(HUES), key=lambda hue: (own[hue], all_of_them[hue], hue))
