"""Removing a step of a dish."""

from collections.abc import Sequence

from pantry_core.dish.answer import DishStep
from pantry_web.feasts.actions.keep_edits import edits_of, keep_edits
from pantry_web.feasts.models import Dish
from pantry_web.presses.once import once


@once()
def remove_step(dish: Dish, steps: Sequence[DishStep], step: str) -> None:
    """Remove a step: one of the cook's own goes, one of the route is left out.

    Parameters: dish; steps as they are; step.
    """
    edits, ids = edits_of(dish), [each.id for each in steps]
    following = ids[ids.index(step) + 1 :] if step in ids else []
    for edit in edits.values():
        if edit.get("before") == step:
            edit["before"] = following[0] if following else None
    if edits.get(step, {}).get("own"):
        del edits[step]
    else:
        edits[step] = {"step": step, "removed": True}
    keep_edits(dish, edits)
