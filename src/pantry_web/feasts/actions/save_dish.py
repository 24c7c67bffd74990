"""Writing down what a dish is to be."""

from django.db import transaction

from pantry_core.routes.steps import RouteStep
from pantry_web.feasts.holding import fridge_litres
from pantry_web.feasts.mixing import House, Mix, stored, work_out
from pantry_web.feasts.models import Dish, Feast, Step
from pantry_web.feasts.refusal import Refused
from pantry_web.feasts.state import derive
from pantry_web.pantry.models import Vessel


@transaction.atomic
def add_dish(feast: Feast, name: str, mix: Mix, house: House, vessel: Vessel | None = None) -> Dish:
    """Add a dish to a feast, with the steps of its route.

    Raises: Refused when the feast has its dish already.
    """
    if feast.dishes.exists():
        raise Refused("This feast has its dish already.")
    dish = Dish(feast=feast, name=name, vessel=vessel, **stored(mix))
    dish.save()
    _lay_out(dish, mix, house)
    return dish


@transaction.atomic
def change_dish(
    dish: Dish, name: str, mix: Mix, house: House, vessel: Vessel | None = None
) -> Dish:
    """Change a dish and lay its steps out anew.

    Raises: Refused once the meat has gone in: its sheet is frozen then.
    """
    state = derive(dish.events.all())
    if state.put_in is not None:
        raise Refused("The meat is in: its weigh-out sheet stays as it was.")
    for field, value in stored(mix).items():
        setattr(dish, field, value)
    dish.name, dish.vessel = name, vessel
    dish.save()
    dish.steps.all().delete()
    _lay_out(dish, mix, house)
    return dish


def keep_recipe(dish: Dish, text: str) -> None:
    """Keep the recipe as it was found beside its dish."""
    dish.recipe = text
    dish.save(update_fields=["recipe"])


def _lay_out(dish: Dish, mix: Mix, house: House) -> None:
    mixed = work_out(mix, house)
    Step.objects.bulk_create(
        _stored(dish, position, step, fridge_litres(step, mixed, dish.vessel))
        for position, step in enumerate(mixed.route.steps)
    )


def _stored(dish: Dish, position: int, step: RouteStep, uses: float) -> Step:
    return Step(
        dish=dish,
        position=position,
        key=step.id,
        kind=step.kind,
        title=step.title,
        begin=step.begin,
        tend=step.tend,
        place=step.place or "",
        min_h=step.min_h,
        prefer_h=step.prefer_h,
        max_h=step.max_h,
        hands_min=step.hands_min,
        attended=step.attended,
        uses=uses,
        every_h=step.every_h,
    )
