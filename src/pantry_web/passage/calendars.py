"""The plan as a calendar."""

from collections.abc import Iterable
from datetime import datetime

from django.http import HttpRequest, HttpResponse

from pantry_core.formats.calendar import Moment, Told, calendar
from pantry_core.quantities import Minutes
from pantry_web.kitchens.models import Kitchen
from pantry_web.planning.hands import Task, tasks
from pantry_web.planning.looking import outlook_of
from pantry_web.planning.outlook import Outlook
from pantry_web.sentences import said, tell

ALARM_MIN, MOST_LATE_MIN = 10, 60.0


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
                "Reminded {late} sooner: so late has work begun in this kitchen.",
                late=Minutes(late),
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
