"""Dishes that wait for dishes, when all of them become others."""

from collections.abc import Mapping

from pantry_web.feasts.documents import with_waits
from pantry_web.feasts.models import Dish
from pantry_web.presses.once import once


@once()
def keep_waits(made: Mapping[str, Dish]) -> None:
    """Let steps wait for the dishes that were made, by the ids that these had before."""
    ids = {before: str(dish.pk) for before, dish in made.items()}
    for dish in made.values():
        document = with_waits(dish.document, ids)
        if document != dish.document:
            dish.document = document
            dish.save(update_fields=["document"])
