"""Taking back what was changed of a step."""

from pantry_web.feasts.actions.keep_edits import edits_of, keep_edits
from pantry_web.feasts.models import Dish
from pantry_web.presses.once import once


@once()
def forget_change(dish: Dish, step: str) -> None:
    """Take back what was changed of a step, or an edit that no longer applies."""
    edits = edits_of(dish)
    edits.pop(step, None)
    keep_edits(dish, edits)
