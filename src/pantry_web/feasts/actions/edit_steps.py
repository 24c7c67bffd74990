"""Changing the steps of a dish: each change is kept as an edit of its document."""

from collections.abc import Collection, Sequence

from django.utils.text import slugify
from pydantic import ValidationError

from pantry_core.dish.answer import DishStep
from pantry_core.dish.edits import edits_between
from pantry_core.dish.request import MOST_EDITS, Edit
from pantry_core.formats.reading import problem_of
from pantry_web.feasts.documents import Document
from pantry_web.feasts.models import Dish
from pantry_web.feasts.refusal import Refused

MOST_STEPS = 30


def change_step(dish: Dish, step: str, changed: Document) -> None:
    """Change fields of a step; those that are not named stay as they were changed before.

    Raises: Refused for values outside the ranges of a step.
    """
    edits = _edits(dish)
    before = edits.get(step, {"step": step})
    edits[step] = {**before, **changed}
    _keep(dish, edits)


def forget_change(dish: Dish, step: str) -> None:
    """Take back what was changed of a step, or an edit that no longer applies."""
    edits = _edits(dish)
    edits.pop(step, None)
    _keep(dish, edits)


def remove_step(dish: Dish, steps: Sequence[DishStep], step: str) -> None:
    """Remove a step: one of the cook's own goes, one of the route is left out.

    Parameters: dish; steps as they are; step.
    """
    edits, ids = _edits(dish), [each.id for each in steps]
    following = ids[ids.index(step) + 1 :] if step in ids else []
    for edit in edits.values():
        if edit.get("before") == step:
            edit["before"] = following[0] if following else None
    if edits.get(step, {}).get("own"):
        del edits[step]
    else:
        edits[step] = {"step": step, "removed": True}
    _keep(dish, edits)


def add_step(dish: Dish, steps: Sequence[DishStep], after: str, fields: Document) -> None:
    """Add a step of the cook's own.

    Parameters: dish; steps as they are; after, the step that it follows, empty for none; fields.
    Raises: Refused when there are too many, or for values outside the ranges of a step.
    """
    if len(steps) >= MOST_STEPS:
        raise Refused(f"{MOST_STEPS} steps are the most; remove one first.")
    edits, ids = _edits(dish), [step.id for step in steps]
    taken = {*ids, *edits}
    stem = slugify(str(fields["title"]))[:32] or "step"
    names = (stem, *(f"{stem}-{n}" for n in range(2, len(taken) + 3)))
    step = next(each for each in names if each not in taken)
    following = ids[ids.index(after) + 1 :] if after in ids else ids if not after else []
    own = {**fields, "step": step, "own": True, "before": following[0] if following else None}
    _keep(dish, {**edits, step: own})


def take_route(dish: Dish, by_route: Sequence[DishStep], wanted: Sequence[DishStep]) -> None:
    """Make the steps of a dish those of a kept route.

    Parameters: dish; by_route, its steps without changes; wanted.
    Raises: Refused for values outside the ranges of a step.
    """
    try:
        made = edits_between(by_route, wanted)
    except ValidationError as error:
        raise Refused(problem_of(error.errors()[0]).what) from None
    edits = [each.model_dump(mode="json", exclude_unset=True) for each in made]
    _keep(dish, {each["step"]: each for each in edits})


def unlock_steps(dish: Dish, steps: Collection[str]) -> None:
    """Let steps begin when they may."""
    edits = _edits(dish)
    for step in steps:
        edits.get(step, {}).pop("locked_start", None)
    _keep(dish, {step: edit for step, edit in edits.items() if set(edit) - {"step"}})


def _edits(dish: Dish) -> dict[str, Document]:
    return {each["step"]: dict(each) for each in dish.document.get("edits", [])}


def _keep(dish: Dish, edits: dict[str, Document]) -> None:
    if len(edits) > MOST_EDITS:
        raise Refused(f"{MOST_EDITS} changes are the most; take one back first.")
    for each in edits.values():
        try:
            Edit.model_validate(each)
        except ValidationError as error:
            raise Refused(f"{problem_of(error.errors()[0]).what}.") from None
    rest = {name: part for name, part in dish.document.items() if name != "edits"}
    dish.document = {**rest, "edits": list(edits.values())} if edits else rest
    dish.save(update_fields=["document"])
