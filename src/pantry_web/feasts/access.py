"""Finding feasts and dishes of one's own kitchen."""

from django.http import HttpRequest
from django.shortcuts import get_object_or_404

from pantry_web.feasts.models import Dish, Feast
from pantry_web.kitchens.access import LAST, kitchen_of


def feast_of(request: HttpRequest, feast_id: int) -> Feast:
    """A feast of the cook's kitchen.

    Raises: Http404 for any other.
    """
    feast = get_object_or_404(kitchen_of(request).feasts, pk=feast_id)
    _look_at(request, feast)
    return feast


def dish_of(request: HttpRequest, dish_id: int) -> Dish:
    """A dish of the cook's kitchen, its feast read along.

    Raises: Http404 for any other.
    """
    own = Dish.objects.filter(feast__kitchen=kitchen_of(request), feast__removed_at=None)
    dishes = own.select_related("feast", "feast__kitchen")
    dish = get_object_or_404(dishes, pk=dish_id)
    _look_at(request, dish.feast, dish)
    return dish


def _look_at(request: HttpRequest, feast: Feast, dish: Dish | None = None) -> None:
    """Remember what was looked at last, so that it can be reached from every page."""
    before = request.session.get(LAST, {})
    same = before if before.get("feast") == feast.pk else {}
    seen = {"kitchen": feast.kitchen_id, "feast": feast.pk, "dish": same.get("dish"),
            "is_job": same.get("is_job", False)}  # fmt: skip
    if dish is not None:
        seen |= {"dish": dish.pk, "is_job": dish.is_job}
    if seen != before:
        request.session[LAST] = seen


def seen_version(request: HttpRequest) -> int:
    """The version of the feast that the cook was looking at; -1 for nonsense."""
    typed = request.POST.get("version", "")
    return int(typed) if typed.isascii() and typed.isdigit() and len(typed) < 10 else -1
