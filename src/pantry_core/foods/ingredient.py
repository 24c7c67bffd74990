"""What a recipe's line can be: an ingredient of the rules, or a food of the table."""

from functools import lru_cache

from pantry_core.foods.table import Food, food, is_food, named
from pantry_core.rules.ingredients import INGREDIENTS, Ingredient
from pantry_core.rules.rule import Mark, Rule

SALTY = 0.01
"""From this share of salt on a food counts with its salt and its water, as a sauce does [g/g]
(our own choice)."""


def ingredient(key: str) -> Ingredient:
    """What a line is, by its key.

    Parameters: key, of the rules' ingredients or of the table of foods.
    Returns: the ingredient; shares [g/g], masses of a millilitre and of a piece with their source.
    Raises: KeyError for an unknown key.
    Source: see `rules.ingredients`; foods by the USDA National Nutrient Database.

    >>> ingredient("capers").role, ingredient("onion").role, ingredient("onion").g_per_piece.value
    ('sauce', 'spice', 143.0)
    """
    given = INGREDIENTS.get(key)
    return _of(key) if given is None else given


def is_ingredient(key: str) -> bool:
    """Whether a key is known, among the rules' ingredients or in the table of foods."""
    return key in INGREDIENTS or is_food(key)


def ingredient_names() -> tuple[str, ...]:
    """The keys of all that a cook would call by a name: the rules' ingredients, usual foods."""
    return (*INGREDIENTS, *named())


@lru_cache(maxsize=512)
def _of(key: str) -> Ingredient:
    of_table = food(key)
    return Ingredient(
        key,
        of_table.name[:1].upper() + of_table.name[1:],
        "sauce" if of_table.salt >= SALTY else "spice",
        _by_volume(of_table),
        of_table.water,
        of_table.salt,
        softens=of_table.softens,
        g_per_piece=_by_piece(of_table),
        bunch_g=_by_bunch(of_table),
        herb=of_table.herb,
    )


def _by_volume(of_table: Food) -> Rule | None:
    if of_table.g_per_ml is None:
        return None
    source = of_table.source
    return Rule(f"{of_table.key}-by-volume", of_table.g_per_ml, "g/ml", source.source, source.mark)


def _by_piece(of_table: Food) -> Rule | None:
    if of_table.piece_g is None or of_table.piece_source is None:
        return None
    source = of_table.piece_source
    return Rule(f"{of_table.key}-piece", of_table.piece_g, "g", source.source, source.mark)


def _by_bunch(of_table: Food) -> Rule | None:
    if of_table.bunch_g is None:
        return None
    return Rule(f"{of_table.key}-bunch", of_table.bunch_g, "g", "a bunch", Mark.PRACTICE)
