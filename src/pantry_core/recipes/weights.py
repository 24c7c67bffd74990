"""What a line of a recipe weighs."""

from pantry_core.foods.ingredient import ingredient
from pantry_core.measures.units import RECIPE_GRAMS, RECIPE_ML
from pantry_core.recipes.line import ReadLine


def line_grams(line: ReadLine, key: str, own_g_per_ml: float | None = None) -> float | None:
    """What a line weighs, the cook's own spoon before the table.

    Parameters: line; key, the ingredient that it is; own_g_per_ml, by the cook's own spoon, None
    where none was weighed [g/ml].
    Returns: grams; None for what is counted, or of which a spoon weighs nobody knows what [g].
    Raises: KeyError for an unknown ingredient.
    Source: see `rules.ingredients`.

    >>> line_grams(ReadLine("2 tsp salt", 2.0, "tsp"), "salt-table")
    12.0
    """
    if line.amount is None or line.unit is None:
        return None
    if line.unit in RECIPE_GRAMS:
        return line.amount * RECIPE_GRAMS[line.unit]
    given = ingredient(key)
    if line.unit == "piece":
        return line.amount * given.g_per_piece.value if given.g_per_piece else None
    by_table = given.g_per_ml
    each = own_g_per_ml or (by_table.value if by_table else None)
    if line.unit not in RECIPE_ML or each is None:
        return None
    return line.amount * RECIPE_ML[line.unit] * each
