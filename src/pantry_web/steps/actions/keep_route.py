"""Keeping the steps of a dish under a name, for another time."""

from collections.abc import Iterable
from dataclasses import asdict

from pantry_core.dish.answer import DishStep
from pantry_web.feasts.documents import Document
from pantry_web.feasts.models import Dish, KeptRoute
from pantry_web.kitchens.models import Kitchen
from pantry_web.presses.once import once

OF_THE_DISH = ("uses", "locked_start", "after")
"""What of a step belongs to this dish alone."""


@once()
def keep_route(
    kitchen: Kitchen, name: str, steps: Iterable[DishStep], dish: Dish | None = None
) -> KeptRoute:
    """Keep steps, in place of any of the same name; of a side job its ingredients as well."""
    plain = [
        {field: value for field, value in asdict(step).items() if field not in OF_THE_DISH}
        for step in steps
    ]
    kept = {"steps": plain, "job": _job(dish) if dish is not None and dish.is_job else None}
    route, _ = KeptRoute.objects.update_or_create(kitchen=kitchen, name=name, defaults=kept)
    return route


def _job(dish: Dish) -> Document:
    """A side job without its amount: so much a head."""
    job = {
        name: part for name, part in dish.document["job"].items() if name not in ("made_g", "steps")
    }
    return {**job, "a_head_g": dish.mass_g / dish.feast.heads}
