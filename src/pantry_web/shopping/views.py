"""The shopping list on a page, ticked, as text, and as a table."""

import csv
from collections.abc import Iterable
from functools import partial
from io import StringIO

from django.contrib import messages
from django.http import HttpRequest, HttpResponse, HttpResponseRedirect
from django.shortcuts import redirect, render
from django.utils.text import capfirst
from django.utils.translation import gettext
from django.utils.translation import gettext_lazy as _
from django.views.decorators.http import require_POST

from pantry_core.quantities import Moment
from pantry_web import clock
from pantry_web.cells import harmless
from pantry_web.feasts.actions.keep_plan import keep_plan
from pantry_web.feasts.actions.log.begin_step import begin_step
from pantry_web.kitchens.access import cook_of, kitchen_of
from pantry_web.kitchens.models import Cook
from pantry_web.planning.deeds import done
from pantry_web.planning.outlook import FeastOutlook, Outlook
from pantry_web.quantities import mass
from pantry_web.sentences import tell, translated
from pantry_web.shopping.actions.tick_line import tick_lines, untick_lines
from pantry_web.shopping.needs import (
    MOST_FEASTS,
    Line,
    Trip,
    feasts_to_shop_for,
    in_the_pantry,
    shopping_trips,
)

NO_MORE = _("The plan has changed, and the list with it: look again.")


def shopping(request: HttpRequest) -> HttpResponse:
    """The list, trip by trip."""
    wholes = _feasts(request)
    trips = shopping_trips(kitchen_of(request), wholes)
    context = {
        "wholes": wholes,
        "is_cut": len(wholes) == MOST_FEASTS,
        "trips": trips,
        "in_stock": in_the_pantry(trips),
        "is_planning": any(trip.is_planning for trip in trips),
    }
    return render(request, "shopping/shopping.html", context)


@require_POST
def tick(request: HttpRequest, code: str) -> HttpResponseRedirect:
    """Tick a line of a trip, or take its tick back; a piece that is bought begins its dish.

    What the page asked for is done, not the opposite of what somebody else has done meanwhile.
    """
    trip, key = _trip(request, code), request.POST.get("line", "")
    line = next((each for each in trip.lines if each.key == key), None) if trip else None
    if line is None:
        messages.error(request, NO_MORE)
    elif request.POST.get("bought") == "no":
        untick_lines((need.dish, key) for need in line.needs)
    else:
        _buy(request, [line])
    return redirect("shopping")


@require_POST
def tick_all(request: HttpRequest, code: str) -> HttpResponseRedirect:
    """Tick a whole trip: everything is bought."""
    trip = _trip(request, code)
    if trip is None:
        messages.error(request, NO_MORE)
    else:
        _buy(request, trip.to_buy)
    return redirect("shopping")


def shopping_text(request: HttpRequest) -> HttpResponse:
    """The list as plain text."""
    units = kitchen_of(request).units
    lines: list[str] = []
    for trip in _trips(request):
        missing = [each for each in trip.to_buy if not each.is_bought]
        if missing:
            lines += ["", _named(trip)] if lines else [_named(trip)]
        lines += [
            f"{_amount(each, units)}  {_name(each)} ({', '.join(each.dishes)})" for each in missing
        ]
    text = "\n".join(lines or [gettext("Nothing is missing.")])
    return HttpResponse(f"{text}\n", content_type="text/plain; charset=utf-8")


def shopping_csv(request: HttpRequest) -> HttpResponse:
    """The list as a table: name, grams to buy, needed and in stock, by when, for which dishes."""
    table = StringIO()
    writer = csv.writer(table)
    writer.writerow(
        ["name", "to_buy_g", "needed_g", "stock_g", "by", "dishes", "note", "trip", "bought"]
    )
    for trip in _trips(request):
        at = trip.at.local.isoformat(timespec="minutes") if trip.at else ""
        for each in trip.lines:
            row = [
                _name(each), _number(each.to_buy_g), _number(each.needed_g), _number(each.stock_g),
                each.by.local.isoformat(timespec="minutes"),
                "; ".join(each.dishes), each.note, at, "yes" if each.is_bought else "no",
            ]  # fmt: skip
            writer.writerow([harmless(cell) for cell in row])
    answer = HttpResponse(table.getvalue(), content_type="text/csv; charset=utf-8")
    answer["Content-Disposition"] = 'attachment; filename="shopping.csv"'
    return answer


def _feasts(request: HttpRequest) -> list[FeastOutlook]:
    kitchen = kitchen_of(request)
    return feasts_to_shop_for(kitchen, clock.now(kitchen))


def _trips(request: HttpRequest) -> list[Trip]:
    return shopping_trips(kitchen_of(request), _feasts(request))


def _trip(request: HttpRequest, code: str) -> Trip | None:
    return next((each for each in _trips(request) if each.code == code), None)


def _buy(request: HttpRequest, lines: Iterable[Line]) -> None:
    """Write down what is bought; with its piece a dish begins, and goes by the plan as shown."""
    by, at = cook_of(request), clock.now(kitchen_of(request))
    for line in lines:
        needs = [need for need in line.needs if not need.is_bought]
        if line.is_step:
            for need in needs:
                done(request, need.dish.pk, partial(_begin, step=need.step, by=by), alone=False)
        else:
            tick_lines(((need.dish, line.key) for need in needs), at, by)


def _begin(view: Outlook, step: str, by: Cook) -> None:
    plan = view.whole.plan
    begin_step(view, step, by)
    keep_plan(view.dish.feast, plan)


def _name(line: Line) -> str:
    return capfirst(translated(line.name))


def _named(trip: Trip) -> str:
    if trip.at is None:
        return gettext("Without a trip of its own")
    return tell("{moment}", moment=Moment(trip.at.local, "long-day-hour"))


def _amount(each: Line, units: str) -> str:
    return each.note if each.to_buy_g is None else mass(each.to_buy_g, units)


def _number(grams: float | None) -> str:
    return "" if grams is None else f"{grams:.2f}"
