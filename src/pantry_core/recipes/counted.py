"""Things that are counted: what they are, and what a bunch, a head or a tin of them means."""

import re
from dataclasses import replace
from typing import Final

from pantry_core.foods.ingredient import ingredient
from pantry_core.foods.table import is_food
from pantry_core.measures.units import RECIPE_GRAMS, RecipeUnit
from pantry_core.recipes.amounts import Amount
from pantry_core.recipes.names import CURED, Match, match
from pantry_core.rules.ingredients import Ingredient

LEAST_PIECE_G = 400.0
"""So much bacon or ham is the piece of the recipe, less of it seasons (our choice) [g]."""
CLOVES_IN_A_HEAD = 10.0
"""Cloves in a head of garlic (common practice)."""
_BUNCH: Final = re.compile(
    r"\b(?:bunch(?:es)?|bund|bouquets?|bottes?|manojos?|mazz[oi]|mazzett[oi])\b", re.IGNORECASE
)
_HEAD: Final = re.compile(
    r"\b(?:heads?|bulbs?|knollen?|t[êe]tes?|cabezas?|test[ae])\b", re.IGNORECASE
)


def named(words: str, amount: Amount | None) -> Match | None:
    """What words mean; the word in which it is counted may belong to them: a stock cube.

    Parameters: words, of a line without its amount; amount, None where the line has none.
    Returns: the match, None where nothing is known by these words.

    >>> named("chicken stock", Amount(2.0, 2.0, counted="cubes")).keys
    ('chicken-stock-cube',)
    """
    plain = match(words)
    if amount is None or not amount.counted or plain in (None, CURED):
        return plain
    whole = match(f"{words} {amount.counted}")
    return whole if whole is not None and is_food(whole.keys[0]) else plain


def counted(
    known: Ingredient, value: float, amount: Amount, words: str
) -> tuple[Ingredient, float, RecipeUnit]:
    """What is counted: a bunch and a head have their own mass, a tin has one that nobody knows.

    Parameters: known, what it is; value, how many; amount and words as they were read.
    Returns: what it is then, how much, and in what unit; without a mass of a piece where the piece
    is of another size than the table's.
    Source: common practice.
    """
    word = amount.counted or words
    is_bunch = _BUNCH.search(word) is not None
    if is_bunch and known.bunch_g is not None:
        return known, value * known.bunch_g.value, "g"
    if known.key == "garlic" and _HEAD.search(word):
        return known, CLOVES_IN_A_HEAD * value, "piece"
    if (amount.in_containers or is_bunch) and not known.key.endswith("-cube"):
        is_plain = known.role == "spice" and not known.herb
        return ingredient("spice") if is_plain else replace(known, g_per_piece=None), value, "piece"
    return known, value, "piece"


def is_the_piece(amount: Amount | None) -> bool:
    """Whether what is meat by its name is so much that it is the piece, not a seasoning of it.

    Parameters: amount, None where the line has none.
    """
    if amount is None or amount.unit not in RECIPE_GRAMS:
        return False
    return amount.middle * RECIPE_GRAMS[amount.unit] >= LEAST_PIECE_G
