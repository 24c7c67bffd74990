"""Today: what is due, ticked and written down where it stands."""

import hashlib
from pathlib import Path
from typing import Any
from zoneinfo import ZoneInfo

from django.contrib.auth.decorators import login_not_required
from django.db.models import (
    Aggregate,
    Count,
    Max,
    OuterRef,
    Q,
    QuerySet,
    Subquery,
    Sum,
    Value,
)
from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.views.decorators.http import require_POST

from pantry_web import clock
from pantry_web.background.models import Work
from pantry_web.feasts.access import dish_of
from pantry_web.feasts.actions.log.turn import turn
from pantry_web.feasts.models import Dish, Event, Feast
from pantry_web.kitchens.access import cook_of, kitchen_of
from pantry_web.kitchens.models import Kitchen
from pantry_web.planning.deeds import done
from pantry_web.planning.outlook import feast_outlooks
from pantry_web.rounds.forms import NoteForm
from pantry_web.rounds.views import write_note
from pantry_web.today.agenda import JUST, LATE, SOON, agenda

MOST_FEASTS = 12
"""So many feasts lie ahead on one list; those after them are on the page of feasts."""
MOST_OF_A_VISIT = 40
WORKER = Path(__file__).parents[1] / "static" / "pantry" / "worker.js"


def today(request: HttpRequest) -> HttpResponse:
    """Everything that is due; whoever looks again and has seen it all is told so in no words."""
    seen = request.headers.get("X-Seen")
    if seen is not None and seen == seen_of(kitchen_of(request)):
        return HttpResponse(status=204)
    return _page(request)


@login_not_required
def worker(request: HttpRequest) -> HttpResponse:
    """The service worker: it stands at the root, so that it may answer for every page."""
    answer = HttpResponse(WORKER.read_bytes(), content_type="text/javascript")
    answer["Cache-Control"] = "no-cache"
    return answer


@require_POST
def tick_visit(request: HttpRequest) -> HttpResponse:
    """Tick a round of several dishes with one press."""
    by = cook_of(request)
    for dish_id in request.POST.getlist("dish")[:MOST_OF_A_VISIT]:
        if dish_id.isdecimal():
            done(request, int(dish_id), lambda view: turn(view, by))
    return redirect("today")


@require_POST
def note(request: HttpRequest, dish_id: int) -> HttpResponse:
    """Write something down of a dish that is on the list."""
    form = NoteForm(request.POST, units=kitchen_of(request).units)
    if not form.is_valid():
        return _page(request, (dish_id, form))
    write_note(request, dish_id, form)
    return redirect("today")


def seen_of(kitchen: Kitchen) -> str:
    """What changes when anything on the list does, in one query."""
    events = Event.objects.filter(dish__feast__kitchen=OuterRef("pk"))
    work = Work.objects.filter(kitchen=OuterRef("pk"))
    is_open = Q(state__in=(Work.State.WAITING, Work.State.RUNNING))
    state = Kitchen.objects.filter(pk=kitchen.pk).values_list(
        _of(events, Count("pk")), _of(work, Max("pk")), _of(work.filter(is_open), Count("pk")),
        _of(Feast.objects.filter(kitchen=OuterRef("pk")), Sum("version")),
        _of(Dish.objects.filter(feast__kitchen=OuterRef("pk")), Count("pk")),
    )  # fmt: skip
    quarter = int(clock.now(kitchen).timestamp() // SOON.total_seconds())
    return hashlib.sha256(repr((list(state), quarter)).encode()).hexdigest()[:16]


def _of(rows: QuerySet[Any], what: Aggregate) -> Subquery:
    """One figure of rows that belong to a kitchen."""
    return Subquery(rows.order_by().values(one=Value(1)).annotate(found=what).values("found"))


def _page(request: HttpRequest, refused: tuple[int, NoteForm] | None = None) -> HttpResponse:
    kitchen = kitchen_of(request)
    now, zone = clock.now(kitchen), ZoneInfo(kitchen.time_zone)
    ahead = kitchen.feasts.filter(serve_at__gt=now - JUST)[:MOST_FEASTS]
    wholes = feast_outlooks(list(ahead), kitchen, now, behind=True)
    found = agenda(wholes, now, zone)
    context = {
        "agenda": found,
        "wholes": wholes,
        "zone": kitchen.time_zone,
        "soon": now + SOON,
        "late": now - LATE,
        "refused": refused,
        "refused_dish": dish_of(request, refused[0]) if refused else None,
        "note_form": NoteForm(units=kitchen.units),
        "is_planning": any(whole.solving is not None for whole in wholes),
        # After the plans were asked for: that they are being worked out is seen with the list.
        "seen": seen_of(kitchen),
    }
    return render(request, "today/today.html", context, status=422 if refused else 200)
