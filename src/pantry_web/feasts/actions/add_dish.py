"""Adding a dish to a feast."""

from pantry_core.quantities import Number
from pantry_web.feasts.documents import Document
from pantry_web.feasts.models import Dish, Feast
from pantry_web.pantry.models import Vessel
from pantry_web.presses.once import once
from pantry_web.refusal import Refused
from pantry_web.sentences import tell

MOST_DISHES = 40


@once()
def add_dish(
    feast: Feast, name: str, document: Document, vessel: Vessel | None = None,
    early_max_min: float | None = None, recipe: str = "",
) -> Dish:  # fmt: skip
    """Add a dish or a side job to a feast.

    Parameters: feast; name; document, what the cook decided; vessel; early_max_min, how much
    earlier it may be done [min], None: as usual; recipe, its text as it was typed.
    Raises: Refused when the feast has forty dishes.
    """
    if feast.dishes.count() >= MOST_DISHES:
        raise Refused(
            tell(
                "{most_dishes} dishes are the most a feast can hold; drop one first.",
                most_dishes=Number(MOST_DISHES),
            )
        )
    return Dish.objects.create(
        feast=feast, name=name, document=document, vessel=vessel, early_max_min=early_max_min,
        hue=feast.free_hue(), recipe=recipe,
    )  # fmt: skip
