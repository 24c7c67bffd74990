"""Adding a step of the cook's own."""

from collections.abc import Sequence

from django.utils.text import slugify

from pantry_core.dish.answer import DishStep
from pantry_core.quantities import Number
from pantry_web.feasts.actions.keep_edits import edits_of, keep_edits
from pantry_web.feasts.documents import Document
from pantry_web.feasts.models import Dish
from pantry_web.presses.once import once
from pantry_web.refusal import Refused
from pantry_web.sentences import tell

MOST_STEPS = 30


@once()
def add_step(dish: Dish, steps: Sequence[DishStep], after: str, fields: Document) -> None:
    """Add a step of the cook's own.

    Parameters: dish; steps as they are; after, the step that it follows, empty for none; fields.
    Raises: Refused when there are too many, or for values outside the ranges of a step.
    """
    if len(steps) >= MOST_STEPS:
        raise Refused(
            tell(
                "{most_steps} steps are the most; remove one first.", most_steps=Number(MOST_STEPS)
            )
        )
    edits, ids = edits_of(dish), [step.id for step in steps]
    taken = {*ids, *edits}
    stem = slugify(str(fields["title"]))[:32] or "step"
    names = (stem, *(f"{stem}-{n}" for n in range(2, len(taken) + 3)))
    step = next(each for each in names if each not in taken)
    following = ids[ids.index(after) + 1 :] if after in ids else ids if not after else []
    own = {**fields, "step": step, "own": True, "before": following[0] if following else None}
    keep_edits(dish, {**edits, step: own})
