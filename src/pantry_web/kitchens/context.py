"""What every page shows of the kitchen."""

from django.http import Http404, HttpRequest

from pantry_web import clock
from pantry_web.kitchens.access import LAST, kitchen_of
from pantry_web.kitchens.models import Kitchen


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
        "last": _last(request, found),
        "units": found.units if found else Kitchen.Units.METRIC,
        "clock_face": found.clock_face if found else Kitchen.ClockFace.OF_24,
    }  # fmt: skip


def _last(request: HttpRequest, kitchen: Kitchen | None) -> dict[str, object]:
    """The feast and the dish of this kitchen that were looked at last; empty for none."""
    if kitchen is None:
        return {}
    seen: dict[str, object] = request.session.get(LAST, {})
    return seen if seen.get("kitchen") == kitchen.pk else {}
