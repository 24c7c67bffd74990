"""Bringing in a feast from its document."""

from uuid import UUID, uuid4
from zoneinfo import ZoneInfo

from django.db import IntegrityError

from pantry_core.formats.feast import DishDocument, FeastDocument
from pantry_core.formats.reading import Problem, WrongInput
from pantry_core.plan.instants import read_instant, read_zone
from pantry_web.feasts.actions.keep_waits import keep_waits
from pantry_web.feasts.brought_in import event_of
from pantry_web.feasts.exchange import CONTRADICTS
from pantry_web.feasts.models import Dish, Event, Feast, WeighSheet
from pantry_web.kitchens.models import Cook, Kitchen
from pantry_web.presses.once import once


def bring_in_feast(document: FeastDocument, kitchen: Kitchen, by: Cook) -> Feast:
    """Make a feast from its document; whoever brings it in stands for whoever did what it tells.

    Raises: WrongInput when it contradicts itself; nothing is kept then.
    """
    zone = read_zone(document.tz)
    try:
        with once():
            feast = Feast.objects.create(
                kitchen=kitchen, name=document.name, time_zone=document.tz, note=document.note,
                heads=document.people, serve_at=read_instant(document.serve_at, zone),
            )  # fmt: skip
            made = [(each.id, _make_dish(feast, each, zone, by)) for each in document.dishes]
            keep_waits({key: dish for key, dish in made if key is not None})
    except IntegrityError:
        raise WrongInput((Problem("dishes", str(CONTRADICTS)),)) from None
    return feast


def _make_dish(feast: Feast, document: DishDocument, zone: ZoneInfo, by: Cook) -> Dish:
    dish = Dish.objects.create(
        feast=feast, name=document.name, document=document.decided, note=document.note,
        early_max_min=document.early_max_min, is_given_up=document.given_up,
        recipe=document.recipe, hue=feast.free_hue(),
        serve_at=read_instant(document.serve_at, zone) if document.serve_at else None,
    )  # fmt: skip
    batches: dict[int, UUID] = {each.press: uuid4() for each in document.events}
    events = [event_of(dish, each, batches, zone) for each in document.events]
    for event in events:
        event.by = by
    Event.objects.bulk_create(events)
    for sheet in document.sheets:
        WeighSheet.objects.create(
            dish=dish, batch=batches[sheet.press], rules_version=sheet.rules_version,
            weighed=sheet.weighed, request=sheet.request, answer=sheet.answer,
        )  # fmt: skip
    return dish
