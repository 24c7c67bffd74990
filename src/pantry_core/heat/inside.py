"""How hot a piece must be in its thickest part: one figure for a dish, wherever it is named."""

from collections.abc import Collection
from typing import Final

from pantry_core.meat import Meat, Treatment
from pantry_core.rules.inside import (
    FISH,
    GROUND,
    INTACT,
    NOT_INTACT,
    OTHER_GAME,
    POULTRY,
    RABBIT,
    STUFFED,
    WILD_DEER,
)
from pantry_core.rules.rule import Rule

OPENS: Final[frozenset[Treatment]] = frozenset(
    ("injected", "pricked", "slashed", "bladed", "rolled")
)
"""What takes the outside of a piece to its inside; scoring skin or fat does not."""


def is_intact(treatment: Collection[Treatment]) -> bool:
    """Whether nothing has taken the outside of a piece to its inside.

    >>> is_intact(()), is_intact(("injected",)), is_intact(("stuffed",))
    (True, False, True)
    """
    return not OPENS & set(treatment)


def inside_rule(meat: Meat, treatment: Collection[Treatment]) -> Rule | None:
    """How hot the thickest part must be.

    Parameters: meat; treatment, what was done to it, a needle and meat sold ready-salted included.
    Returns: the rule [°C], None for what is not cooked: fish eaten raw, and vegetables.
    Raises: nothing.
    Source: USDA safe temperatures; FDA Food Code 3-401.11 (from memory).

    >>> bird = Meat(kind="poultry", mass_g=1800.0, thickness_mm=50.0, shape="slab")
    >>> inside_rule(bird, ("injected",)).value
    74.0
    """
    if meat.will_be == "raw":
        return None
    if "stuffed" in treatment:
        return STUFFED
    if meat.kind == "vegetable":
        return None
    if meat.kind == "poultry":
        return POULTRY
    if meat.kind == "fish":
        return GROUND if meat.form == "ground" else FISH
    return _red_meat(meat, treatment)


def _red_meat(meat: Meat, treatment: Collection[Treatment]) -> Rule:
    if meat.wild == "other" or (meat.kind == "game" and meat.form == "ground"):
        return OTHER_GAME
    if meat.wild == "deer":
        return WILD_DEER
    if meat.species == "rabbit":
        return RABBIT
    if meat.form == "ground":
        return GROUND
    return INTACT if is_intact(treatment) else NOT_INTACT
