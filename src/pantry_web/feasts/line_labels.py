"""The lines of a sheet as a cook names them."""

from pantry_core.foods.ingredient import ingredient, is_ingredient
from pantry_core.mixes.request import WeighRequest
from pantry_core.rules.cures import CURING_SALTS
from pantry_core.text import say

NAMES = {"water": say("Water"), "salt": say("Salt"), "sugar": say("Sugar or treacle")}


def label_of(name: str, request: WeighRequest) -> str:
    """A line's name as a cook says it, yet to be translated."""
    return label_with(name, request.cure.name if request.cure is not None else None)


def label_with(name: str, cure: str | None) -> str:
    """A line's name as a cook says it, yet to be translated; cure, the curing salt, if any."""
    if name == "curing-salt" and cure in CURING_SALTS:
        return CURING_SALTS[cure].name
    if name in NAMES:
        return NAMES[name]
    return ingredient(name).name if is_ingredient(name) else name.capitalize()
