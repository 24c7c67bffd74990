"""Whether something is at the heat, by the log alone: every page asks, so nothing is worked out."""

from collections import defaultdict
from datetime import timedelta

from django.http import HttpRequest

from pantry_core.routes.hot_steps import HOT_PLACES, HOT_STEPS
from pantry_web import clock
from pantry_web.feasts.models import Dish, Event
from pantry_web.feasts.state import derive
from pantry_web.kitchens.models import Kitchen

LONGEST = timedelta(days=2)
"""Nothing stays at the heat longer than this (our own choice)."""


def context(request: HttpRequest) -> dict[str, object]:
    """Whether the tab of the fire is shown; only a page that has tabs asks for it."""

    def lit() -> bool:
        membership = getattr(request, "pantry_membership", None)
        return membership is not None and is_lit(membership.kitchen)

    return {"is_lit": lit}


def is_lit(kitchen: Kitchen) -> bool:
    """Whether a dish of a kitchen is at the heat."""
    recent = Event.objects.filter(
        dish__feast__kitchen=kitchen, dish__feast__removed_at=None, dish__is_given_up=False,
        at__gte=clock.now(kitchen) - LONGEST,
    )  # fmt: skip
    of_dish: dict[int, list[Event]] = defaultdict(list)
    for event in recent:
        of_dish[event.dish_id].append(event)
    states = ((dish_id, derive(events)) for dish_id, events in of_dish.items())
    running = {dish_id: state.running for dish_id, state in states if state.running is not None}
    if not running:
        return False
    dishes = Dish.objects.filter(pk__in=running).only("document")
    return any(_is_hot(dish, running[dish.pk]) for dish in dishes)


def _is_hot(dish: Dish, running: str) -> bool:
    edits = dish.document.get("edits", ())
    places = [edit["place"] for edit in edits if edit["step"] == running and "place" in edit]
    return places[-1] in HOT_PLACES if places else running in HOT_STEPS
