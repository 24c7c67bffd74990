"""Changing what a dish is to be."""

from django.utils.translation import gettext

from pantry_web.feasts.documents import Document
from pantry_web.feasts.models import Dish, Event
from pantry_web.feasts.state import derive
from pantry_web.pantry.models import Vessel
from pantry_web.presses.once import once
from pantry_web.refusal import Refused


@once()
def change_dish(
    dish: Dish, document: Document, *, name: str | None = None, recipe: str | None = None,
    vessel: Vessel | None = None,
) -> None:  # fmt: skip
    """Change a dish; what the cook changed of its steps stays.

    Parameters: dish; document, what the cook decided but for the edits; name and recipe where they
    change; vessel.
    Raises: Refused once the meat has gone in: its sheet is frozen then.
    """
    if derive(Event.objects.filter(dish=dish)).put_in is not None:
        raise Refused(gettext("It is in: its weigh-out sheet stays as it was."))
    edits = Dish.objects.values_list("document", flat=True).get(pk=dish.pk).get("edits", [])
    dish.document = {**document, "edits": edits} if edits else document
    dish.vessel = vessel
    if name is not None:
        dish.name = name
    if recipe is not None:
        dish.recipe = recipe
    dish.save(update_fields=["document", "vessel", "name", "recipe"])
