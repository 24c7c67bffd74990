"""Another salt or sugar that is used instead of what the recipe has: the line keeps both."""

from typing import Any

from django.utils.translation import gettext

from pantry_core.foods.ingredient import ingredient, is_ingredient
from pantry_core.rules.ingredients import INGREDIENTS
from pantry_web.feasts.actions.change_dish import change_dish
from pantry_web.planning.outlook import Outlook
from pantry_web.refusal import Refused

ROLES = ("salt", "sugar")


def instead_of(name: str) -> list[tuple[str, str]]:
    """What may be used instead of an ingredient: its key and its name.

    Parameters: name of a line of the sheet.
    Returns: other salts for a salt, other sugars for a sugar; nothing for all else.
    """
    role = ingredient(name).role if is_ingredient(name) else ""
    if role not in ROLES:
        return []
    return [(each.key, each.name) for each in INGREDIENTS.values()
            if each.role == role and each.key != name]  # fmt: skip


def use_instead(view: Outlook, line: str, other: str, grams: float) -> None:
    """Use something else for a line of the recipe, by the scale.

    Parameters: view; line, by its name; other, what is used; grams of it [g].
    Raises: Refused where the recipe has no such line, and once the meat is in.
    """
    recipe = view.dish.document.get("recipe") or {}
    lines = [dict(each) for each in recipe.get("lines", ())]
    at = next((i for i, each in enumerate(lines)
               if each["name"] == line and each.get("goes", "cure") == "cure"), None)  # fmt: skip
    if at is None or other not in dict(instead_of(line)):
        raise Refused(gettext("That line is not on the sheet any more; look again."))
    lines[at] = _replaced(lines[at], other, grams)
    document = {name: part for name, part in view.dish.document.items() if name != "edits"}
    change_dish(view.dish, {**document, "recipe": {**recipe, "lines": lines}},
                vessel=view.dish.vessel)  # fmt: skip


def _replaced(line: dict[str, Any], other: str, grams: float) -> dict[str, Any]:
    """The line with something else in it; `grams` is what goes into the cure of it [g]."""
    written = line.get("instead_of", line["name"])
    whole_g = grams / (1.0 - line.get("held_back", 0.0))
    rest = {name: value for name, value in line.items() if name != "instead_of"}
    kept = {} if other == written else {"instead_of": written}
    return {**rest, "name": other, "grams": whole_g, **kept}
