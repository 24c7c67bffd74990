"""Changing one thing of a dish's recipe, and putting it back."""

from django.utils.translation import gettext

from pantry_core.dish.proposals import changed_by
from pantry_core.dish.request import DishRequest
from pantry_core.dish.work import dish
from pantry_web.feasts.actions.change_dish import change_dish
from pantry_web.planning.outlook import Outlook
from pantry_web.planning.recipes.change import Change, Parts, parts_of
from pantry_web.refusal import Refused


def change_by_proposal(view: Outlook, code: str) -> Change:
    """Take a proposal: the one change of it, and nothing else.

    Parameters: view of the dish; code of the proposal, as it is worked out now.
    Returns: the change, to undo it by.
    Raises: Refused where it is offered no more, and once the meat has gone in.
    """
    asked = DishRequest.model_validate(view.read.document)
    offer = next((each for each in dish(asked).proposals if each.code == code), None)
    if offer is None:
        raise Refused(gettext("This is not offered any more: look at what it comes to now."))
    changed = changed_by(asked, offer.changes).model_dump(mode="json", exclude_unset=True)
    names = {str(change.get("field", "recipe")).split(".")[0] for change in offer.changes}
    before = parts_of(view.dish, names)
    _keep(view, {name: changed[name] for name in names})
    return Change(before, parts_of(view.dish, names))


def undo_change(view: Outlook, change: Change) -> None:
    """Undo a proposal that was taken.

    Parameters: view of the dish; change.
    Raises: Refused once the meat has gone in.
    """
    _keep(view, change.before)


def put_line_back(view: Outlook, line: str) -> None:
    """Put a line of the recipe back to what is written; one that was added goes.

    Parameters: view of the dish; line, its place in the recipe as text.
    Raises: Refused for a line that is not there, and once the meat has gone in.
    """
    recipe = view.dish.document.get("recipe") or {}
    lines = list(recipe.get("lines", ()))
    if not line.isdecimal() or int(line) >= len(lines):
        raise Refused(gettext("There is no such line any more."))
    found = lines.pop(int(line))
    if found.get("text"):
        written = found.get("instead_of", found["name"])
        as_it_was = {**found, "name": written}
        for changed in ("grams", "instead_of"):
            as_it_was.pop(changed, None)
        lines.insert(int(line), as_it_was)
    _keep(view, {"recipe": {**recipe, "lines": lines}})


def _keep(view: Outlook, parts: Parts) -> None:
    document = {**view.dish.document, **parts}
    kept = {name: part for name, part in document.items() if name != "edits" and part is not None}
    change_dish(view.dish, kept, vessel=view.dish.vessel)
