"""Saying how much of a side job is made, and of what."""

from pantry_web.feasts.documents import Document
from pantry_web.feasts.models import Dish
from pantry_web.presses.once import once


@once()
def set_parts(dish: Dish, parts: Document) -> None:
    """Set parts of a side job; None for what is to be as usual."""
    job = {**dish.document["job"], **parts}
    kept = {name: value for name, value in job.items() if value is not None}
    dish.document = {**dish.document, "job": kept}
    dish.save(update_fields=["document"])
