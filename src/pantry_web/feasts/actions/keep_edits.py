"""Keeping the changes of the steps of a dish as edits of its document."""

from pydantic import ValidationError

from pantry_core.dish.request import MOST_EDITS, Edit
from pantry_core.formats.reading import problem_of
from pantry_core.quantities import Number
from pantry_web.feasts.documents import Document
from pantry_web.feasts.models import Dish
from pantry_web.presses.once import once
from pantry_web.refusal import Refused
from pantry_web.sentences import tell


def edits_of(dish: Dish) -> dict[str, Document]:
    """The changes of the steps of a dish, by step."""
    return {each["step"]: dict(each) for each in dish.document.get("edits", [])}


@once()
def keep_edits(dish: Dish, edits: dict[str, Document]) -> None:
    """Keep the changes of the steps of a dish.

    Raises: Refused for too many, or for values outside the ranges of a step.
    """
    if len(edits) > MOST_EDITS:
        raise Refused(
            tell(
                "{most_edits} changes are the most; take one back first.",
                most_edits=Number(MOST_EDITS),
            )
        )
    for each in edits.values():
        try:
            Edit.model_validate(each)
        except ValidationError as error:
            raise Refused(f"{problem_of(error.errors()[0]).what}.") from None
    rest = {name: part for name, part in dish.document.items() if name != "edits"}
    dish.document = {**rest, "edits": list(edits.values())} if edits else rest
    dish.save(update_fields=["document"])
