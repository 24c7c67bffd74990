"""Fire day: one page that watches with whoever stands at the fire."""

import hashlib
from zoneinfo import ZoneInfo

from django.contrib import messages
from django.db.models import Max
from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.utils.translation import gettext
from django.views.decorators.http import require_POST

from pantry_core.text import say
from pantry_web import clock, quantities
from pantry_web.fireday.actions.change_heat import change_heat
from pantry_web.fireday.actions.dish_up_later import dish_up_later
from pantry_web.fireday.watching import at_the_heat
from pantry_web.kitchens.access import cook_of, kitchen_of
from pantry_web.kitchens.models import Kitchen
from pantry_web.planning.looking import feast_outlooks, outlook_of
from pantry_web.planning.outlook import Outlook
from pantry_web.refusal import Refused
from pantry_web.sentences import said
from pantry_web.today.agenda import JUST
from pantry_web.today.views import MOST_FEASTS, seen_of

QUARTER_MIN_S = 15.0
LATER = "later"


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
    wholes = feast_outlooks(feasts, kitchen, now)
    found = at_the_heat(wholes, zone)
    return {"found": found, "wholes": wholes, "zone": kitchen.time_zone, "seen": seen, "now": now}


def _seen(kitchen: Kitchen) -> str:
    """What changes when something was read or done, and every quarter of a minute."""
    latest = kitchen.devices.aggregate(Max("seen_at"))
    quarter = clock.now(kitchen).timestamp() // QUARTER_MIN_S
    told = repr((latest, seen_of(kitchen), quarter))
    return hashlib.sha256(told.encode()).hexdigest()[:16]


@require_POST
def take_help(request: HttpRequest, dish_id: int) -> HttpResponse:
    """Do what would help a dish that is late: another heat, or another hour."""
    view = outlook_of(request, dish_id)
    code = request.POST.get("code", "")
    try:
        done = _later(view) if code == LATER else change_heat(view, cook_of(request), code)
    except Refused as refused:
        messages.error(request, str(refused))
    else:
        messages.success(request, said(say("Written down: {text}", text=done), view.kitchen.units))
    return redirect("fire-day")


def _later(view: Outlook) -> str:
    """Serve it at the hour that the page offers.

    Raises: Refused where it is no longer late.
    """
    zone = ZoneInfo(view.kitchen.time_zone)
    row = next((each for each in at_the_heat([view.whole], zone) if each.view is view), None)
    if row is None or row.later is None:
        raise Refused(gettext("It is no longer late; look again."))
    dish_up_later(view, row.later)
    return say("Dish it up at {at}.", at=quantities.at(row.later, view.kitchen.time_zone))
