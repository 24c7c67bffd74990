"""Fire day: one page that watches with whoever stands at the fire."""

import hashlib
from zoneinfo import ZoneInfo

from django.db.models import Max
from django.http import HttpRequest, HttpResponse
from django.shortcuts import render

from pantry_web import clock
from pantry_web.devices.models import Reading
from pantry_web.fireday.watching import at_the_heat
from pantry_web.kitchens.access import kitchen_of
from pantry_web.kitchens.models import Kitchen
from pantry_web.planning.outlook import feast_outlooks
from pantry_web.today.agenda import JUST
from pantry_web.today.views import MOST_FEASTS, seen_of

QUARTER_MIN_S = 15.0


def fire_day(request: HttpRequest) -> HttpResponse:
    """All that is at the heat now or today."""
    return render(request, "fireday/fire_day.html", _context(kitchen_of(request)))


def rows(request: HttpRequest) -> HttpResponse:
    """The same without the page around it; nothing where nothing has been read or done since."""
    kitchen = kitchen_of(request)
    if request.GET.get("seen") == _seen(kitchen):
        return HttpResponse(status=204)
    return render(request, "fireday/_rows.html", _context(kitchen))


def _context(kitchen: Kitchen) -> dict[str, object]:
    now, zone = clock.now(kitchen), ZoneInfo(kitchen.time_zone)
    seen = _seen(kitchen)
    feasts = list(kitchen.feasts.filter(serve_at__gt=now - JUST)[:MOST_FEASTS])
    wholes = feast_outlooks(feasts, kitchen, now, behind=True)
    found = at_the_heat(wholes, zone)
    return {"found": found, "zone": kitchen.time_zone, "seen": seen, "now": now}


def _seen(kitchen: Kitchen) -> str:
    """What changes when something was read or done, and every quarter of a minute."""
    latest = Reading.objects.filter(channel__device__kitchen=kitchen).aggregate(Max("pk"))
    quarter = clock.now(kitchen).timestamp() // QUARTER_MIN_S
    told = repr((latest, seen_of(kitchen), quarter))
    return hashlib.sha256(told.encode()).hexdigest()[:16]
