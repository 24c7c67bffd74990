"""Feasts."""

from zoneinfo import ZoneInfo

from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect, render

from pantry_web import clock
from pantry_web.feasts.access import feast_of
from pantry_web.feasts.forms import FeastForm
from pantry_web.feasts.models import Feast
from pantry_web.feasts.planning import outlook
from pantry_web.feasts.tasks import tasks
from pantry_web.kitchens.access import kitchen_of


def feasts(request: HttpRequest) -> HttpResponse:
    """The kitchen's feasts: those to come, the nearest first, and those that were."""
    kitchen = kitchen_of(request)
    now = clock.now(kitchen)
    found = list(kitchen.feasts.prefetch_related("dishes"))
    context = {
        "ahead": [feast for feast in found if feast.serve_at > now],
        "past": [feast for feast in reversed(found) if feast.serve_at <= now],
    }
    return render(request, "feasts/feasts.html", context)


def new_feast(request: HttpRequest) -> HttpResponse:
    """Pick a feast."""
    kitchen = kitchen_of(request)
    form = FeastForm(
        request.POST or None,
        now=clock.now(kitchen),
        initial={"time_zone": kitchen.time_zone, "hour": "18:30", "heads": "6"},
    )
    if request.method == "POST" and form.is_valid():
        feast = Feast(kitchen=kitchen)
        _keep(feast, form)
        return redirect("new-dish", feast.pk)
    status = 422 if form.is_bound else 200
    return render(request, "feasts/new_feast.html", {"form": form}, status=status)


def feast(request: HttpRequest, feast_id: int) -> HttpResponse:
    """A feast: its hour, which can be moved, and its dish."""
    kitchen = kitchen_of(request)
    found = feast_of(request, feast_id)
    now = clock.now(kitchen)
    local = found.serve_at.astimezone(ZoneInfo(found.time_zone))
    form = FeastForm(
        request.POST or None,
        now=now,
        initial={
            "name": found.name,
            "date": local.date(),
            "hour": local.time(),
            "time_zone": found.time_zone,
            "heads": float(found.heads),
        },
    )
    if request.method == "POST" and form.is_valid():
        _keep(found, form)
        return redirect("feast", found.pk)
    dish = found.dishes.select_related("feast").first()
    view = outlook(dish, kitchen, now) if dish and not form.is_bound else None
    context = {
        "form": form,
        "feast": found,
        "dish": dish,
        "outlook": view,
        "tasks": tasks(view)[:3] if view else [],
    }
    return render(request, "feasts/feast.html", context, status=422 if form.is_bound else 200)


def _keep(feast: Feast, form: FeastForm) -> None:
    for name in ("name", "serve_at", "time_zone", "heads"):
        setattr(feast, name, form.cleaned_data[name])
    feast.save()
