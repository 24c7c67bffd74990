"""Keeping the steps of a dish under a name, for another time."""

from collections.abc import Iterable
from dataclasses import asdict

from pantry_core.dish.answer import DishStep
from pantry_web.feasts.models import KeptRoute
from pantry_web.kitchens.models import Kitchen

OF_THE_DISH = ("uses", "locked_start")
"""What of a step belongs to this dish alone."""


def keep_route(kitchen: Kitchen, name: str, steps: Iterable[DishStep]) -> KeptRoute:
    """Keep steps, in place of any of the same name."""
    plain = [
        {field: value for field, value in asdict(step).items() if field not in OF_THE_DISH}
        for step in steps
    ]
    route, _ = KeptRoute.objects.update_or_create(
        kitchen=kitchen, name=name, defaults={"steps": plain}
    )
    return route
