"""Letting steps begin when they may."""

from collections.abc import Collection

from pantry_web.feasts.actions.keep_edits import edits_of, keep_edits
from pantry_web.feasts.models import Dish
from pantry_web.presses.once import once


@once()
def unlock_steps(dish: Dish, steps: Collection[str]) -> None:
    """Let steps begin when they may."""
    edits = edits_of(dish)
    for step in steps:
        edits.get(step, {}).pop("locked_start", None)
    keep_edits(dish, {step: edit for step, edit in edits.items() if set(edit) - {"step"}})
