"""Passage: the picture of the plan, and what is done in it."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import UTC, date, datetime, time, timedelta
from typing import Any
from urllib.parse import urlencode
from zoneinfo import ZoneInfo

from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.urls import reverse
from django.views.decorators.http import require_POST

from pantry_core.plan.changes import applied
from pantry_web.feasts.access import seen_version
from pantry_web.kitchens.access import cook_of
from pantry_web.passage.actions.move_step import move_step
from pantry_web.passage.forms import MoveForm
from pantry_web.passage.moves import Move, tried
from pantry_web.passage.pictures import JUST_PAST, Seen, kept_spans, picture, spans_now, written
from pantry_web.planning.changes import changes
from pantry_web.planning.hands import tasks
from pantry_web.planning.helps import remedies
from pantry_web.planning.looking import feast_outlook_of, outlook_of
from pantry_web.planning.outlook import FeastOutlook, Outlook
from pantry_web.planning.standing import begin_with, question
from pantry_web.refusal import Refused

YEAR = timedelta(days=366)
FEAST, DISH, DAY = "0", "1", "2"
"""What the slider of the span says."""


@dataclass(frozen=True, slots=True)
class Place:
    """Which picture is looked at: of a feast, of one of its dishes, of a day."""

    whole: FeastOutlook
    only: Outlook | None = None
    day: date | None = None

    @property
    def address(self) -> str:
        """Where it is."""
        if self.only is not None:
            return reverse("passage", args=[self.only.dish.pk])
        plain = reverse("feast-passage", args=[self.whole.feast.pk])
        return f"{plain}?{urlencode({'day': self.day.isoformat()})}" if self.day else plain

    @property
    def span(self) -> str:
        """What its slider says."""
        return DISH if self.only else DAY if self.day else FEAST

    def with_query(self, **told: str) -> str:
        """Its address with more said in it."""
        return f"{self.address}{'&' if self.day else '?'}{urlencode(told)}"


def show(request: HttpRequest, dish_id: int) -> HttpResponse:
    """The picture of the plan for a dish."""
    view = outlook_of(request, dish_id)
    return _page(request, Place(view.whole, view))


def show_all(request: HttpRequest, feast_id: int) -> HttpResponse:
    """The picture of the plan for all dishes of a feast, or of a day of it."""
    whole = feast_outlook_of(request, feast_id)
    span, day = request.GET.get("span"), _day_of(request.GET.get("day", ""), whole)
    wanted = request.GET.get("dish", "")
    if span == DISH and (view := _one_of(whole, wanted)) is not None:
        return redirect("passage", view.dish.pk)
    if span == DAY and day is None:
        zone = ZoneInfo(whole.feast.time_zone)
        day = min(whole.now, whole.feast.serve_at).astimezone(zone).date()
    return _page(request, Place(whole, day=None if span == FEAST else day))


def step(request: HttpRequest, dish_id: int, step_key: str) -> HttpResponse:
    """A step in the picture: what it is, how it stands, its slack; and what a move would move."""
    place, view = _looked_at(request, request.GET, dish_id, step_key)
    form = MoveForm(request.GET, zone=view.dish.feast.time_zone) if "begin" in request.GET else None
    move = None
    if form is not None and form.is_valid():
        move = tried(view, step_key, form.cleaned_data["begin"])
    return _page(request, place, view, step_key, form, move)


@require_POST
def move(request: HttpRequest, dish_id: int, step_key: str) -> HttpResponse:
    """Move a step to an hour; with no hour let it begin when it may."""
    place, view = _looked_at(request, request.POST, dish_id, step_key)
    undoes, found = "undo" in request.POST, None
    step = view.step(step_key)
    was = (
        _typed(view, datetime.fromisoformat(step.locked_start))
        if step and step.locked_start
        else ""
    )
    form = MoveForm(request.POST, zone=view.dish.feast.time_zone)
    start: datetime | None = None
    if request.POST.get("begin", "").strip():
        if not form.is_valid():
            return _page(request, place, view, step_key, form)
        start = form.cleaned_data["begin"]
        if not undoes:
            found = tried(view, step_key, start)
            start = found.start
            if found.plan is None:
                return _page(request, place, view, step_key, form, found)
    before = None if undoes else place.whole.plan
    try:
        move_step(view, cook_of(request), step_key, start, seen_version(request), before=before)
    except Refused as refused:
        form.add_error(None, str(refused))
        return _page(request, place, view, step_key, form)
    if found is not None and found.plan is not None:
        whole = feast_outlook_of(request, place.whole.feast.pk)
        begin_with(whole.kitchen, question(whole.read), found.plan)
    if undoes:
        return redirect(place.address)
    return redirect(place.with_query(moved=f"{dish_id}.{step_key}", was=was))


def _page(
    request: HttpRequest, place: Place, view: Outlook | None = None, key: str = "",
    form: MoveForm | None = None, move: Move | None = None,
) -> HttpResponse:  # fmt: skip
    """The page, with what is told of a step; what was refused is said in it."""
    context = _of_step(place, view, key, form, move) if view is not None else {"asked": None}
    is_refused = request.method == "POST"
    if view is not None and request.headers.get("X-Part") == "step" and not is_refused:
        return render(request, "passage/_step.html", _plain(place) | context)
    context |= _of_picture(request, place) | _plain(place)
    status = 422 if is_refused or (form is not None and form.errors) else 200
    return render(request, "passage/passage.html", context, status=status)


def _plain(place: Place) -> dict[str, Any]:
    only = place.only
    return {
        "place": place, "whole": place.whole, "feast": place.whole.feast, "outlook": only,
        **({"dish": only.dish} if only else {}),
    }  # fmt: skip


def _of_picture(request: HttpRequest, place: Place) -> dict[str, Any]:
    whole, only = place.whole, place.only
    views = [only] if only else [each for each in whole.dishes if not each.dish.is_given_up]
    moved = _moved(request, whole)
    seen = Seen(
        since=None if only else whole.now - JUST_PAST,
        day=_midnight(place.day, whole) if place.day else None,
        before=kept_spans(whole) if moved else {},
    )
    remedy = _remedy(request, whole)
    if remedy is not None:
        house = applied(whole.plan_documents[1], remedy.changes)
        seen = replace(seen, before=spans_now(whole), plan=remedy.plan, house=house)
    drawn = picture(whole, views, seen)
    stays = {
        (each.chain.dish, each.key): (each.chain, each.stay) for each in drawn.wide.ribbons
    } if drawn else {}  # fmt: skip
    rows = [row for row in stays.values() if only or row[1].state != "done"]
    seen_dishes = {dish for dish, _ in stays}
    return {
        "picture": drawn,
        "is_alone": len(seen_dishes) == 1,
        **(written(drawn, place.whole, only, is_day=place.day is not None) if drawn else {}),
        "views": [each for each in views if each.key in seen_dishes],
        "plan_rows": sorted(rows, key=lambda row: row[1].start),
        "remedy": remedy,
        "moved": moved,
        "other_days": _days(drawn.wide.rows if drawn else (), place),
        "first": _one_of(whole, ""),
    }


def _of_step(
    place: Place, view: Outlook, key: str, form: MoveForm | None, move: Move | None
) -> dict[str, Any]:
    """What is told of a step."""
    asked, planned = view.step(key), view.planned(key)
    alone = next((each for each in view.whole.apart.get(view.key, ()) if each.step == key), None)
    initial = {"begin": planned.start} if planned else None
    return {
        "asked": asked,
        "asked_of": view,
        "planned": planned or alone,
        "is_begun": key in view.state.begun,
        "fact": view.state.facts.get(key),
        "locked": asked.locked_start if asked else None,
        "fixed_to": _typed(view, planned.start) if planned else "",
        "latest": planned.latest_start if planned and planned.slack_h else None,
        "why": view.whole.against.get((view.key, key)),
        "task": next((each for each in tasks(view) if each.key == key), None),
        "form": form or MoveForm(zone=view.dish.feast.time_zone, initial=initial),
        "move": move,
    }


def _looked_at(
    request: HttpRequest, told: Any, dish_id: int, step_key: str
) -> tuple[Place, Outlook]:
    """The picture that a step is looked at in, and the dish of the step."""
    view = outlook_of(request, dish_id)
    if view.step(step_key) is None:
        raise Http404
    is_alone = told.get("of") == "dish"
    day = _day_of(told.get("day", ""), view.whole)
    return Place(view.whole, view if is_alone else None, None if is_alone else day), view


def _day_of(text: str, whole: FeastOutlook) -> date | None:
    """A day that is named, within a year of the feast."""
    try:
        day = date.fromisoformat(text)
    except ValueError:
        return None
    return day if abs(day - whole.feast.serve_at.date()) < YEAR else None


def _midnight(day: date, whole: FeastOutlook) -> datetime:
    return datetime.combine(day, time(), ZoneInfo(whole.feast.time_zone)).astimezone(UTC)


def _days(rows: Sequence[Any], place: Place) -> list[tuple[date, bool]]:
    """The days that can be looked at, each with whether it is."""
    if place.day is None:
        return [(each.day, False) for each in rows]
    whole = place.whole
    zone = ZoneInfo(whole.feast.time_zone)
    days = {
        edge.astimezone(zone).date() for span in spans_now(whole).values() for edge in span
    } | {place.day}  # fmt: skip
    first = whole.now.astimezone(zone).date()
    return [(each, each == place.day) for each in sorted(days) if each >= min(first, place.day)]


def _one_of(whole: FeastOutlook, wanted: str) -> Outlook | None:
    """The dish that is named, else the one that the hands are at next."""
    found = [each for each in whole.dishes if not each.dish.is_given_up]
    named = [each for each in found if each.key == wanted]
    ahead = [(task.at, each.key, each) for each in found for task in tasks(each)[:1] if task.at]
    return (*named, *(each for *_, each in sorted(ahead)), *found, None)[0]


def _typed(view: Outlook, moment: datetime) -> str:
    """A moment as a field of a form has it."""
    return f"{moment.astimezone(ZoneInfo(view.dish.feast.time_zone)):%Y-%m-%dT%H:%M}"


def _moved(request: HttpRequest, whole: FeastOutlook) -> dict[str, Any] | None:
    """What has just been moved, what moved with it, and what it was fixed to before."""
    dish_id, _, key = request.GET.get("moved", "").partition(".")
    view = next((each for each in whole.dishes if each.key == dish_id), None)
    step = view.step(key) if view else None
    if view is None or step is None:
        return None
    others = [each for each in changes(whole) if (each.of, each.step) != (view.key, key)]
    return {
        "view": view, "step": step, "planned": view.planned(key), "others": others,
        "was": request.GET.get("was", ""),
    }  # fmt: skip


def _remedy(request: HttpRequest, whole: FeastOutlook) -> Any:
    """What would help, where it is looked at."""
    code = request.GET.get("remedy")
    found = remedies(whole) if code else []
    if not isinstance(found, list):
        return None
    return next((each for each in found if each.code == code), None)
