"""Taking the steps of a kept route."""

from collections.abc import Sequence

from pydantic import ValidationError

from pantry_core.dish.answer import DishStep
from pantry_core.dish.edits import edits_between
from pantry_core.formats.reading import problem_of
from pantry_web.feasts.actions.keep_edits import keep_edits
from pantry_web.feasts.models import Dish
from pantry_web.presses.once import once
from pantry_web.refusal import Refused


@once()
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
    keep_edits(dish, {each["step"]: each for each in edits})
