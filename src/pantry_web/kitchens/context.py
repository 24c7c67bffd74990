"""What every page shows of the kitchen."""

from django.http import Http404, HttpRequest

from pantry_web import clock
from pantry_web.kitchens.access import kitchen_of
from pantry_web.kitchens.models import Kitchen
from pantry_web.kitchens.tabs import DISH, FEAST, FIRE, KITCHEN, TABS, here


def kitchen(request: HttpRequest) -> dict[str, object]:
    """The kitchen and its present moment, for whoever is signed in."""
    found: Kitchen | None = None
    if hasattr(request, "user") and request.user.is_authenticated:
        try:
            found = kitchen_of(request)
        except Http404:
            found = None
    return {
        "kitchen": found, "now": clock.now(found) if found else None,
        "units": found.units if found else Kitchen.Units.METRIC,
        "clock_face": found.clock_face if found else Kitchen.ClockFace.OF_24,
        "here": here(request.resolver_match), "tabs": TABS, "fire_tab": FIRE,
        "parts_of_kitchen": KITCHEN, "parts_of_feast": FEAST, "parts_of_dish": DISH,
    }  # fmt: skip
