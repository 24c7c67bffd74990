"""The sheet of a dish as it goes on from what was really weighed."""

from collections.abc import Mapping

from django.utils.translation import gettext

from pantry_core.dish.answer import DishOut
from pantry_core.mixes.weighed import WeighedOut, go_on, keep_to_the_recipe
from pantry_web.refusal import Refused


def gone_on(answer: DishOut | None, weighed: Mapping[str, float]) -> WeighedOut:
    """Go on from what was weighed: in proportion by an aim, as it is written by a recipe.

    Parameters: answer of the dish, None where it has none; weighed, grams by the name of a line of
    its sheet [g].
    Raises: Refused for a dish of which nothing is weighed out.
    """
    sheet = answer.weighed_out if answer is not None else None
    if answer is None or answer.asked is None or sheet is None:
        raise Refused(gettext("The sheet cannot be worked out; look at the weigh-up."))
    if answer.checked is None:
        return go_on(answer.asked, weighed)
    return keep_to_the_recipe(answer.checked, answer.asked, sheet, weighed)
