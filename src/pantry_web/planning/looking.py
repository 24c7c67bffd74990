"""A page's look at feasts and dishes: they are read, their plans looked up, and both shown.

Looking works no plan out and writes nothing. Whoever changes a feast asks for its plan.
"""

import time
from collections.abc import Sequence
from datetime import datetime

from django.http import Http404, HttpRequest

from pantry_web import clock
from pantry_web.feasts.access import dish_of, feast_of
from pantry_web.feasts.models import Dish, Feast
from pantry_web.kitchens.access import kitchen_of
from pantry_web.kitchens.models import Kitchen
from pantry_web.planning.answers import keep_answers
from pantry_web.planning.outlook import FeastOutlook, Outlook, outlook_on
from pantry_web.planning.reading import read_alone, read_feasts
from pantry_web.planning.standing import NOTHING_AHEAD, ask, question, standings

AT_ONCE_S = 0.5
"""While several plans are asked for in one request, small ones are worked out for so long [s]."""


def feast_outlook(feast: Feast, kitchen: Kitchen, now: datetime) -> FeastOutlook:
    """The outlook of a feast."""
    return feast_outlooks([feast], kitchen, now)[0]


def feast_outlooks(feasts: Sequence[Feast], kitchen: Kitchen, now: datetime) -> list[FeastOutlook]:
    """The outlooks of several feasts of a kitchen, read together."""
    reads = read_feasts(feasts, kitchen, now)
    plans = standings(kitchen, reads)
    return [outlook_on(read, standing) for read, standing in zip(reads, plans, strict=True)]


def outlook(dish: Dish, kitchen: Kitchen, now: datetime) -> Outlook:
    """The outlook of a dish, as a part of its feast's."""
    return feast_outlook(dish.feast, kitchen, now).of(dish)


def outlook_alone(dish: Dish, kitchen: Kitchen, now: datetime) -> Outlook:
    """The outlook of a dish as if its feast had no other: what happened, and its steps.

    For what is written down of it, which neither the plan nor another dish bears on.
    """
    return outlook_on(read_alone(dish, kitchen, now), NOTHING_AHEAD).dishes[0]


def ask_for_plans(
    feasts: Sequence[Feast], kitchen: Kitchen, now: datetime, *, at_once_s: float = AT_ONCE_S
) -> None:
    """Ask for the plans of feasts of a kitchen as they stand, the first of them first.

    Parameters: feasts; kitchen; now; at_once_s, how long small plans are worked out within this
    call: those after them are worked out beside the pages [s].
    """
    until = time.monotonic() + at_once_s
    for read in read_feasts(feasts, kitchen, now):
        if read.planned:
            ask(kitchen, question(read), behind=time.monotonic() > until)
    keep_answers()


def ask_for_plan(feast: Feast, kitchen: Kitchen, now: datetime) -> None:
    """Ask for the plan of a feast that was changed, so that the next page has its hours."""
    ask_for_plans([feast], kitchen, now)


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


def outlook_alone_of(request: HttpRequest, dish_id: int) -> Outlook:
    """A dish of the cook's kitchen as it stands now, without its plan and the others.

    Raises: Http404 for any other.
    """
    kitchen = kitchen_of(request)
    return outlook_alone(dish_of(request, dish_id), kitchen, clock.now(kitchen))


def piece_outlook_of(request: HttpRequest, dish_id: int) -> Outlook:
    """A dish with a piece, as it stands now.

    Raises: Http404 for any other, a side job's included.
    """
    view = outlook_of(request, dish_id)
    if view.dish.is_job:
        raise Http404
    return view
