"""Changing a step of a dish."""

from pantry_web.feasts.actions.keep_edits import edits_of, keep_edits
from pantry_web.feasts.documents import Document
from pantry_web.feasts.models import Dish
from pantry_web.presses.once import once


@once()
def change_step(dish: Dish, step: str, changed: Document) -> None:
    """Change fields of a step; those that are not named stay as they were changed before.

    Raises: Refused for values outside the ranges of a step.
    """
    edits = edits_of(dish)
    before = edits.get(step, {"step": step})
    edits[step] = {**before, **changed}
    keep_edits(dish, edits)
