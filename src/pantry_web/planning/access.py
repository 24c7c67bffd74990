"""The outlook of feasts and dishes of one's own kitchen."""

from django.http import Http404, HttpRequest

from pantry_web import clock
from pantry_web.feasts.access import dish_of, feast_of
from pantry_web.kitchens.access import kitchen_of
from pantry_web.planning.looking import feast_outlook, outlook
from pantry_web.planning.outlook import FeastOutlook, Outlook


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
