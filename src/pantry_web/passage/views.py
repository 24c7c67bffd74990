"""Passage: the picture of the plan, and the plan as a calendar."""

from datetime import UTC, datetime
from zoneinfo import ZoneInfo

from django.http import HttpRequest, HttpResponse
from django.shortcuts import render

from pantry_core.formats.calendar import Moment, calendar
from pantry_web.drawings.passage import NARROW, WIDE, Passage, State, Stay, Visit, passage
from pantry_web.drawings.timescale import House
from pantry_web.feasts.access import outlook_of
from pantry_web.feasts.planning import Outlook
from pantry_web.feasts.tasks import Task, tasks
from pantry_web.kitchens.access import kitchen_of
from pantry_web.kitchens.models import Kitchen
from pantry_web.passage.slack import raw_notice, slacks
from pantry_web.quantities import hours_of, span


def show(request: HttpRequest, dish_id: int) -> HttpResponse:
    """The picture of the plan for a dish, and what comes next beside it."""
    view = outlook_of(request, dish_id)
    kitchen = kitchen_of(request)
    stays = _stays(view)
    context = {
        "outlook": view,
        "dish": view.dish,
        "feast": view.dish.feast,
        "pictures": _pictures(view, kitchen, stays) if stays else {},
        "plan_rows": [stay for stay in stays if stay.end > stay.start],
        "tasks": tasks(view)[:5],
        "slacks": slacks(view),
        "raw": raw_notice(view),
    }
    return render(request, "passage/passage.html", context)


def calendar_file(request: HttpRequest, dish_id: int) -> HttpResponse:
    """Every hands-on moment and round that lies ahead, with alarms."""
    view = outlook_of(request, dish_id)
    name = f"{view.dish.name}, {view.dish.feast.name}"
    moments = (
        Moment(
            uid=_uid(view, task, task.at),
            at=task.at,
            minutes=task.minutes,
            title=f"{view.dish.name}: {task.title}",
            note=task.how,
        )
        for task in tasks(view)
        if task.at is not None
    )
    response = HttpResponse(calendar(name, moments, view.now), content_type="text/calendar")
    response["Content-Disposition"] = f'attachment; filename="pantry-clock-{dish_id}.ics"'
    return response


def _uid(view: Outlook, task: Task, at: datetime) -> str:
    """The same for the same step whenever it is; rounds are told apart by their time."""
    which = f"-{at.astimezone(UTC):%Y%m%dT%H%MZ}" if task.kind == "tend" else ""
    return f"dish-{view.dish.pk}-{task.key}{which}@pantry-clock"


def _stays(view: Outlook) -> list[Stay]:
    stays = []
    for planned in view.plan.steps if view.plan else ():
        step = view.step(planned.step)
        if step is not None:
            stays.append(
                Stay(
                    key=step.key,
                    title=step.title,
                    place=step.place or "shop",
                    start=planned.start,
                    end=planned.end,
                    state=_state(view, step.key),
                    length=span(hours_of(planned.end - planned.start)),
                )
            )
    return stays


def _pictures(view: Outlook, kitchen: Kitchen, stays: list[Stay]) -> dict[str, Passage]:
    feast = view.dish.feast
    house = House(ZoneInfo(feast.time_zone), kitchen.wake, kitchen.sleep)
    done = {key: set(fact.rounds_done) for key, fact in view.state.facts.items()}
    visits = [
        Visit(job.step, each.at, each.at in done.get(job.step, ()))
        for each in (view.plan.rounds if view.plan else ())
        for job in each.jobs
    ]
    return {
        name: passage(stays, visits, view.now, feast.serve_at, house, size)
        for name, size in (("wide", WIDE), ("narrow", NARROW))
    }


def _state(view: Outlook, key: str) -> State:
    fact = view.state.facts.get(key)
    if fact is None or fact.started_at is None:
        return "ahead"
    return "running" if fact.ended_at is None else "done"
