"""Passage: the picture of the plan, and the plan as a calendar."""

from collections.abc import Iterable, Sequence
from datetime import datetime, timedelta
from zoneinfo import ZoneInfo

from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.urls import reverse

from pantry_core.formats.calendar import Moment, Told, calendar
from pantry_core.measures.said import span
from pantry_web.drawings.passage import NARROW, WIDE, passage
from pantry_web.drawings.shapes import Chain, Passage, State, Stay, Visit
from pantry_web.drawings.timescale import House
from pantry_web.kitchens.models import Kitchen
from pantry_web.passage.slack import slacks
from pantry_web.planning.access import feast_outlook_of, outlook_of
from pantry_web.planning.hands import Task, feast_tasks, tasks
from pantry_web.planning.outlook import FeastOutlook, Outlook
from pantry_web.quantities import hours_of
from pantry_web.sentences import said, tell, translated

NEXT_TASKS = 5
ALARM_MIN, MOST_LATE_MIN = 10, 60.0
MOST_SAID = 90
JUST_PAST = timedelta(hours=12)
"""How much of the past the picture of a whole feast shows."""


def show(request: HttpRequest, dish_id: int) -> HttpResponse:
    """The picture of the plan for a dish, and what comes next beside it."""
    view = outlook_of(request, dish_id)
    chain = _chain(view)
    context = {
        "outlook": view,
        "whole": view.whole,
        "dish": view.dish,
        "feast": view.dish.feast,
        "pictures": _pictures(view.whole, [chain]),
        "plan_rows": [(view, stay) for stay in chain.stays if stay.end > stay.start],
        "tasks": [(view, task) for task in tasks(view)[:NEXT_TASKS]],
        "slacks": slacks(view),
    }
    return render(request, "passage/passage.html", context)


def show_all(request: HttpRequest, feast_id: int) -> HttpResponse:
    """The picture of the plan for all dishes of a feast."""
    whole = feast_outlook_of(request, feast_id)
    drawn = [(view, _chain(view)) for view in whole.dishes if view.plan]
    rows = [
        (view, stay)
        for view, chain in drawn
        for stay in chain.stays
        if stay.end > stay.start and stay.state != "done"
    ]
    context = {
        "whole": whole,
        "feast": whole.feast,
        "key": [(chain.hue, view) for view, chain in drawn],
        "pictures": _pictures(whole, [chain for _, chain in drawn], whole.now - JUST_PAST),
        "plan_rows": sorted(rows, key=lambda row: row[1].start),
        "tasks": feast_tasks(whole)[:NEXT_TASKS],
    }
    return render(request, "passage/feast.html", context)


def calendar_file(request: HttpRequest, dish_id: int) -> HttpResponse:
    """Every hands-on moment and round of a dish that lies ahead, with alarms."""
    view = outlook_of(request, dish_id)
    name = f"{view.dish.name}, {view.dish.feast.name}"
    ahead = [(view, each) for each in tasks(view)]
    return calendar_answer(name, str(dish_id), view.now, [view], ahead)


def calendar_answer(
    name: str, file_name: str, now: datetime, views: Iterable[Outlook],
    ahead: Iterable[tuple[Outlook, Task]],
) -> HttpResponse:  # fmt: skip
    """A calendar file: its name, the end of its file's name, its hour, its dishes, their tasks."""
    rounds: dict[tuple[int, str], int] = {}
    moments = [
        Moment(
            uid=_uid(view, task, rounds),
            at=task.at,
            minutes=task.minutes,
            title=f"{', '.join(task.together) or view.dish.name}: "
            f"{said(task.title, view.kitchen.units)}",
            note=_note(task, view.kitchen),
            alarm_min=ALARM_MIN + _late_min(view.kitchen),
        )
        for view, task in ahead
        if task.at is not None
    ]
    told = [
        Told(said(each.text, view.kitchen.units), each.code, each.level, each.step or "")
        for view in views
        for each in view.notices
    ]
    response = HttpResponse(calendar(name, moments, now, told), content_type="text/calendar")
    response["Content-Disposition"] = f'attachment; filename="pantry-clock-{file_name}.ics"'
    return response


def _late_min(kitchen: Kitchen) -> int:
    """How much sooner people are reminded in a kitchen that begins late, to five minutes."""
    late: float = kitchen.learnt.get("late_min", 0.0)
    return 5 * round(min(max(late, 0.0), MOST_LATE_MIN) / 5.0)


def _note(task: Task, kitchen: Kitchen) -> str:
    told = [said(task.how, kitchen.units)]
    if late := _late_min(kitchen):
        told.append(
            tell(
                "Reminded {late} min sooner: so late has work begun in this kitchen.",
                late=late,
            )
        )
    if task.withheld:
        told.append(tell("Stop. {withheld}", withheld=said(task.withheld, kitchen.units)))
    return "\n\n".join(told)


def _uid(view: Outlook, task: Task, rounds: dict[tuple[int, str], int]) -> str:
    """The same for the same step, and for its first, second, third round, whenever it is.

    `rounds` counts those of each step that were met so far.
    """
    which = ""
    if task.kind == "tend":
        fact = view.state.facts.get(task.key)
        done = len(fact.rounds_done) if fact else 0
        met = rounds.get((view.dish.pk, task.key), done) + 1
        rounds[view.dish.pk, task.key] = met
        which = f"-round-{met}"
    return f"dish-{view.dish.pk}-{task.key}{which}@pantry-clock"


def _chain(view: Outlook) -> Chain:
    done = {key: set(fact.rounds_done) for key, fact in view.state.facts.items()}
    visits = [
        Visit(job.step, each.at, each.at in done.get(job.step, ()))
        for each in (view.plan.rounds if view.plan else ())
        for job in each.jobs
    ]
    serve_at = view.dish.serve_at or view.dish.feast.serve_at
    address = reverse("steps", args=[view.dish.pk])
    return Chain(view.dish.name, view.dish.hue, _stays(view), visits, serve_at, address)


def _stays(view: Outlook) -> list[Stay]:
    stays, units = [], view.kitchen.units
    for planned in view.plan.steps if view.plan else ():
        step = view.step(planned.step)
        if step is not None:
            stays.append(
                Stay(
                    key=step.id,
                    title=said(step.title, units),
                    place=step.place or "shop",
                    start=planned.start,
                    end=planned.end,
                    state=_state(view, step.id),
                    length=translated(span(hours_of(planned.end - planned.start))),
                    uses=step.uses,
                )
            )
    return stays


def _pictures(
    whole: FeastOutlook, chains: Sequence[Chain], since: datetime | None = None
) -> dict[str, Passage]:
    """The picture in both sizes, none where there is no plan."""
    if not any(chain.stays for chain in chains):
        return {}
    feast, kitchen = whole.feast, whole.kitchen
    house = House(ZoneInfo(feast.time_zone), kitchen.wake, kitchen.sleep)
    rooms = {each.name: each.capacity for each in whole.around.places}
    going_on = _going_on(whole, {chain.name for chain in chains})
    return {
        name: passage(
            chains,
            whole.now,
            feast.serve_at,
            house,
            size,
            since,
            rooms=rooms,
            going_on=going_on if name == "wide" else "",
        )
        for name, size in (("wide", WIDE), ("narrow", NARROW))
    }


def _going_on(whole: FeastOutlook, names: set[str]) -> str:
    """What is said at the line of now: what a dish is at, and what is next and when."""
    for view, task in feast_tasks(whole):
        running = view.step(view.state.running or "")
        if running is None or view.dish.name not in names or task.at is None:
            continue
        told = tell(
            "{dish}: {step}, then {task} at {at}",
            dish=view.dish.name,
            step=said(running.title, view.kitchen.units).lower(),
            task=said(task.title, view.kitchen.units).lower(),
            at=f"{task.at.astimezone(ZoneInfo(whole.feast.time_zone)):%H:%M}",
        )
        return told[:MOST_SAID]
    return ""


def _state(view: Outlook, key: str) -> State:
    fact = view.state.facts.get(key)
    if fact is None or fact.started_at is None:
        return "ahead"
    return "running" if fact.ended_at is None else "done"
