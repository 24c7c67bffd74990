"""Finding feasts and dishes of one's own kitchen."""

from collections.abc import Callable

from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect

from pantry_web.feasts.models import Dish, Feast
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
    own = Dish.objects.filter(feast__kitchen=kitchen_of(request), feast__removed_at=None)
    return get_object_or_404(own.select_related("feast", "feast__kitchen"), pk=dish_id)


def leads_to(name: str) -> Callable[[HttpRequest, int], HttpResponse]:
    """A view for an old address of a dish: it leads on to the address that has this name now."""

    def lead(request: HttpRequest, dish_id: int) -> HttpResponse:
        return redirect(name, dish_of(request, dish_id).pk)

    return lead


def seen_version(request: HttpRequest) -> int:
    """The version of the feast that the cook was looking at; -1 for nonsense."""
    typed = request.POST.get("version", "")
    return int(typed) if typed.isascii() and typed.isdigit() and len(typed) < 10 else -1
