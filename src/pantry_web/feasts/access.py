"""Finding feasts and dishes of one's own kitchen."""

from django.http import Http404, HttpRequest
from django.shortcuts import get_object_or_404

from pantry_web import clock
from pantry_web.feasts.models import Dish, Feast
from pantry_web.feasts.planning import FeastOutlook, Outlook, feast_outlook, outlook
from pantry_web.kitchens.access import kitchen_of


def feast_of(request: HttpRequest, feast_id: int) -> Feast:
    """A feast of the cook's kitchen.

    Raises: Http404 for any other.
    """
    return get_object_or_404(kitchen_of(request).feasts, pk=feast_id)


def dish_of(request: HttpRequest, dish_id: int) -> Dish:
    """A dish of the cook's kitchen, its feast read along.

    Raises: Http404 for any other.
    """
    dishes = Dish.objects.filter(feast__kitchen=kitchen_of(request)).select_related("feast")
    return get_object_or_404(dishes, pk=dish_id)


def feast_outlook_of(request: HttpRequest, feast_id: int) -> FeastOutlook:
    """A feast of the cook's kitchen as it stands now.

    Raises: Http404 for any other.
    """
    kitchen = kitchen_of(request)
    return feast_outlook(feast_of(request, feast_id), kitchen, clock.now(kitchen))


def piece_outlook_of(request: HttpRequest, dish_id: int) -> Outlook:
    """A dish with a piece, as it stands now.

    Raises: Http404 for any other, a side job's included.
    """
    view = outlook_of(request, dish_id)
    if view.dish.job:
        raise Http404
    return view


def seen_version(request: HttpRequest) -> int:
    """The version of the feast that the cook was looking at; -1 for nonsense."""
    typed = request.POST.get("version", "")
    return int(typed) if typed.isascii() and typed.isdigit() and len(typed) < 10 else -1


def outlook_of(request: HttpRequest, dish_id: int) -> Outlook:
    """A dish of the cook's kitchen as it stands now.

    Raises: Http404 for any other.
    """
    kitchen = kitchen_of(request)
    return outlook(dish_of(request, dish_id), kitchen, clock.now(kitchen))
