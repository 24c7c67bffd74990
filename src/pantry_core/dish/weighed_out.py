"""The sheet of a dish as it goes on from what was really weighed."""

from collections.abc import Mapping

from pantry_core.dish.answer import DishOut
from pantry_core.mixes.weighed import WeighedOut, go_on, keep_to_the_recipe


def gone_on(answer: DishOut, weighed: Mapping[str, float]) -> WeighedOut | None:
    """Go on from what was weighed: in proportion by an aim, as it is written by a recipe.

    Parameters: answer of the dish; weighed, grams by the name of a line of its sheet [g].
    Returns: the sheet with every line's state; None for a dish of which nothing is weighed out.
    Raises: pydantic.ValidationError for water beyond what `weigh` takes.
    Source: mass balance (derived).
    """
    sheet = answer.weighed_out
    if answer.asked is None or sheet is None:
        return None
    if answer.checked is None:
        return go_on(answer.asked, weighed)
    by_count = {name: sheet.grams(name) for name in counted(answer)}
    return keep_to_the_recipe(answer.checked, answer.asked, sheet, by_count | {**weighed})


def counted(answer: DishOut) -> frozenset[str]:
    """What goes into the cure by its number alone: bay leaves are not weighed.

    Parameters: answer of the dish.
    Returns: names of lines.
    Raises: nothing.
    """
    in_the_cure = [each for each in answer.mix if each.goes == "cure"]
    weighed = {each.name for each in in_the_cure if each.count is None}
    return frozenset(each.name for each in in_the_cure if each.name not in weighed)
