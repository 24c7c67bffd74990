"""Reading feasts and dishes with what happened to them, for their outlooks."""

from collections.abc import Sequence
from datetime import datetime

from django.db.models import prefetch_related_objects
from django.http import Http404, HttpRequest

from pantry_web import clock
from pantry_web.feasts.access import dish_of, feast_of
from pantry_web.feasts.models import Dish, Event, Feast
from pantry_web.feasts.state import derive
from pantry_web.kitchens.access import kitchen_of
from pantry_web.kitchens.models import Kitchen
from pantry_web.ledger.noted import noted_before
from pantry_web.planning.outlook import FeastOutlook, Outlook
from pantry_web.planning.solving import found_already, plan_roughly
from pantry_web.planning.surroundings import surroundings_of


def feast_outlook(
    feast: Feast, kitchen: Kitchen, now: datetime, *, looks: bool = False
) -> FeastOutlook:
    """The outlook of a feast: its dishes are read in one query, their logs in another."""
    return feast_outlooks([feast], kitchen, now, looks=looks)[0]


def feast_outlooks(
    feasts: Sequence[Feast],
    kitchen: Kitchen,
    now: datetime,
    *,
    looks: bool = False,
    behind: bool = False,
) -> list[FeastOutlook]:
    """The outlooks of several feasts of a kitchen, read together."""
    around = surroundings_of(kitchen, now)
    wholes = {feast.pk: FeastOutlook(feast, around, looks=looks, behind=behind) for feast in feasts}
    logs: dict[int, list[Event]] = {}
    for event in Event.objects.filter(dish__feast__in=feasts).select_related("by"):
        logs.setdefault(event.dish_id, []).append(event)
    dishes = list(Dish.objects.filter(feast__in=feasts).select_related("vessel"))
    prefetch_related_objects([each for each in dishes if each.copied_from_id], noted_before())
    for dish in dishes:
        whole = wholes[dish.feast_id]
        dish.feast = whole.feast
        whole.dishes.append(_outlook(dish, whole, logs.get(dish.pk, [])))
    if behind:
        ahead = [each for each in wholes.values() if each.is_ahead]
        around.found.update(found_already(kitchen, [each.asked for each in ahead]))
    return list(wholes.values())


def _outlook(dish: Dish, whole: FeastOutlook, log: Sequence[Event]) -> Outlook:
    return Outlook(dish, whole.kitchen, whole.now, derive(log, whole.now), whole, log)


def outlook(dish: Dish, kitchen: Kitchen, now: datetime) -> Outlook:
    """The outlook of a dish, as a part of its feast's."""
    return feast_outlook(dish.feast, kitchen, now).of(dish)


def outlook_alone(dish: Dish, kitchen: Kitchen, now: datetime) -> Outlook:
    """The outlook of a dish as if its feast had no other: what happened, and its steps.

    For what is written down of it, which neither the plan nor another dish bears on.
    """
    whole = FeastOutlook(dish.feast, surroundings_of(kitchen, now), looks=True)
    whole.dishes.append(_outlook(dish, whole, list(dish.events.all())))
    return whole.dishes[0]


def plan_at_once(feast: Feast, kitchen: Kitchen, now: datetime) -> None:
    """Plan a feast that was changed, so that the page that comes next has its hours.

    A large one is planned roughly, and worked out beside the pages.
    """
    whole = feast_outlook(feast, kitchen, now)
    work = whole.solving
    if work is not None and whole.solution is None:
        plan_roughly(whole.asked, work)


def feast_outlook_of(request: HttpRequest, feast_id: int) -> FeastOutlook:
    """A feast of the cook's kitchen as it stands now.

    Raises: Http404 for any other.
    """
    kitchen = kitchen_of(request)
    return feast_outlook(feast_of(request, feast_id), kitchen, clock.now(kitchen))


def outlook_of(request: HttpRequest, dish_id: int) -> Outlook:
    """A dish of the cook's kitchen as it stands now.

    Raises: Http404 for any other.
    """
    kitchen = kitchen_of(request)
    return outlook(dish_of(request, dish_id), kitchen, clock.now(kitchen))


def piece_outlook_of(request: HttpRequest, dish_id: int) -> Outlook:
    """A dish with a piece, as it stands now.

    Raises: Http404 for any other, a side job's included.
    """
    view = outlook_of(request, dish_id)
    if view.dish.is_job:
        raise Http404
    return view
