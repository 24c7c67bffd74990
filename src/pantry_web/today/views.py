"""Today: what is due, ticked and written down where it stands."""

import hashlib
from dataclasses import dataclass
from datetime import datetime
from pathlib import Path
from zoneinfo import ZoneInfo

from django.contrib.auth.decorators import login_not_required
from django.db.models import (
    Count,
    Max,
    Q,
    Sum,
)
from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.views.decorators.http import require_POST

from pantry_web import clock
from pantry_web.background.models import Work
from pantry_web.drawings.ledger import SIZES, Span, beside
from pantry_web.feasts.access import dish_of
from pantry_web.feasts.actions.log.put_off import put_off
from pantry_web.feasts.actions.log.turn import turn
from pantry_web.feasts.models import Dish
from pantry_web.kitchens.access import JUST_PLANNED, cook_of, kitchen_of
from pantry_web.kitchens.models import Kitchen
from pantry_web.ledger.due import FORGOTTEN, NEXT_MORNING, ending_soon, untold
from pantry_web.ledger.models import Leftover
from pantry_web.passage.calendars import calendar_answer
from pantry_web.planning.deeds import done
from pantry_web.planning.hands import Task, feast_tasks, tasks
from pantry_web.planning.looking import feast_outlook, feast_outlooks
from pantry_web.planning.outlook import FeastOutlook, Outlook
from pantry_web.steps.note_form import NoteForm
from pantry_web.steps.page import gate_context
from pantry_web.steps.ticking import write_note
from pantry_web.today.agenda import JUST, LATE, SOON, agenda
from pantry_web.today.alerts import alerts_of
from pantry_web.today.put_off import PutOffForm, offered

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


@dataclass(frozen=True, slots=True)
class Typed:
    """What was typed for a dish on the list and refused."""

    dish: Dish
    note: NoteForm | None = None
    put_off: PutOffForm | None = None
    task: Task | None = None


@require_POST
def note(request: HttpRequest, dish_id: int) -> HttpResponse:
    """Write something down of a dish that is on the list."""
    form = NoteForm(request.POST, units=kitchen_of(request).units)
    if not form.is_valid():
        return _page(request, Typed(dish_of(request, dish_id), note=form))
    write_note(request, dish_id, form)
    return redirect("today")


@require_POST
def put_off_until(request: HttpRequest, dish_id: int, step_key: str) -> HttpResponse:
    """Put off what is next for a dish."""
    dish = dish_of(request, dish_id)
    form = PutOffForm(request.POST, zone=dish.feast.time_zone)
    if not form.is_valid():
        task = Task("begin", step_key, "", "", None, 0, can_tick=False, is_next=True)
        return _page(request, Typed(dish, put_off=form, task=task))
    by, until = cook_of(request), form.cleaned_data["at"]
    done(request, dish_id, lambda view: put_off(view, by, step_key, until), alone=False)
    return redirect("today")


def more(request: HttpRequest, dish_id: int, kind: str, step_key: str) -> HttpResponse:
    """What can be read, put off or written down of a thing on the list, where it stands."""
    kitchen, dish = kitchen_of(request), dish_of(request, dish_id)
    view = feast_outlook(dish.feast, kitchen, clock.now(kitchen)).of(dish)
    task = next((each for each in tasks(view) if (each.kind, each.key) == (kind, step_key)), None)
    context = {"dish": dish, "task": task, **_of_task(view, task, kitchen)}
    return render(request, "today/_more.html", context)


def calendar_file(request: HttpRequest) -> HttpResponse:
    """All that lies ahead over all feasts, with alarms: the sure way to be reminded."""
    kitchen = kitchen_of(request)
    now = clock.now(kitchen)
    wholes, _ = _feasts(kitchen, now)
    views = [view for whole in wholes for view in whole.dishes if not view.dish.is_given_up]
    ahead = [each for whole in wholes for each in feast_tasks(whole)]
    return calendar_answer(kitchen.name, "all", now, views, ahead)


def _feasts(kitchen: Kitchen, now: datetime) -> tuple[list[FeastOutlook], bool]:
    """The feasts of a kitchen that are not over, and whether one was over in the last days."""
    found = list(kitchen.feasts.filter(serve_at__gt=now - FORGOTTEN)[: 2 * MOST_FEASTS])
    ahead = [each for each in found if each.serve_at > now - JUST][:MOST_FEASTS]
    was_one = any(each.serve_at <= now - NEXT_MORNING for each in found)
    return feast_outlooks(ahead, kitchen, now), was_one


def seen_of(kitchen: Kitchen) -> str:
    """What changes when anything on the list does, in two queries."""
    is_open = Q(state__in=(Work.State.WAITING, Work.State.RUNNING))
    work = kitchen.work.aggregate(Max("pk"), open=Count("pk", filter=is_open))
    # A version counts once for each event: that is as good, for nothing reads the sum.
    feasts = kitchen.feasts.aggregate(
        Sum("version"), Count("dishes__events"), n=Count("dishes", distinct=True)
    )
    quarter = int(clock.now(kitchen).timestamp() // SOON.total_seconds())
    return hashlib.sha256(repr((work, feasts, quarter)).encode()).hexdigest()[:16]


def _of_task(view: Outlook, task: Task | None, kitchen: Kitchen) -> dict[str, object]:
    """What the pieces of a page need that act on a thing to do."""
    own = f"id_{view.key}_%s"
    return {
        **gate_context(view),
        "zone": kitchen.time_zone,
        "put_off_hours": offered(view, task, kitchen) if task else [],
        "put_off_form": PutOffForm(zone=view.dish.feast.time_zone, auto_id=f"put_off_{own}"),
        "note_form": NoteForm(units=kitchen.units, auto_id=own),
    }


def _just_planned(request: HttpRequest, wholes: list[FeastOutlook]) -> dict[str, object] | None:
    """A dish that was planned a moment ago, with a small picture of its plan; it is shown once."""
    dish_id = request.session.get(JUST_PLANNED)
    for view in [view for whole in wholes for view in whole.dishes if view.dish.pk == dish_id]:
        if view.plan is not None:
            del request.session[JUST_PLANNED]
            spans = [
                Span(step.title, (planned.start, planned.end), None)
                for step in view.steps
                if (planned := view.planned(step.id)) is not None and planned.start < planned.end
            ]
            return {"dish": view.dish, "pictures": [beside(spans, size) for size in SIZES]}
    return None


def _page(request: HttpRequest, refused: Typed | None = None) -> HttpResponse:
    kitchen = kitchen_of(request)
    now, zone = clock.now(kitchen), ZoneInfo(kitchen.time_zone)
    wholes, was_one = _feasts(kitchen, now)
    found = agenda(wholes, now, zone)
    first = found.first.entries[0] if found.first else None
    wanted = [view for whole in wholes for view in whole.dishes if not view.dish.is_given_up]
    context = {
        **(_of_task(first.view, first.task, kitchen) if first else {}),
        "agenda": found,
        "alerts": alerts_of(wholes),
        "planned_now": _just_planned(request, wholes),
        "after": untold(kitchen, now) if was_one else [],
        "left_soon": ending_soon(kitchen, now) if was_one else [],
        "fates": Leftover.Fate.choices,
        "wholes": wholes,
        "dishes": " ".join(each.key for each in wanted),
        "pieces": " ".join(each.key for each in wanted if not each.dish.is_job),
        "zone": kitchen.time_zone,
        "soon": now + SOON,
        "late": now - LATE,
        "refused": refused,
        "is_planning": any(whole.solving is not None for whole in wholes),
        # After the plans were asked for: that they are being worked out is seen with the list.
        "seen": seen_of(kitchen),
    }
    return render(request, "today/today.html", context, status=422 if refused else 200)
