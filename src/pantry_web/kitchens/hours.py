"""The hours that a kitchen keeps, as the `plan` document has them."""

from collections.abc import Iterable
from datetime import date
from typing import Any

from pantry_core.plan.request import WEEKDAYS
from pantry_web.kitchens.models import ChangedDay, Kitchen

Hours = list[dict[str, Any]]
Span = tuple[str, str]

FREE = WEEKDAYS[-1]
"""On free days people keep the hours of a Sunday."""


def work_hours(kitchen: Kitchen, free: Iterable[date], changed: Iterable[ChangedDay]) -> Hours:
    """When work is done: by the week, on free days as on a Sunday, and on changed days.

    Parameters: kitchen; free, days that are free by themselves; changed, its changed days.
    """
    hours: Hours = list(kitchen.work_hours)
    week, days = by_weekday(hours), {day.isoformat() for day in free}
    for each in changed:
        if each.kind == ChangedDay.Kind.OFF:
            days.add(each.day.isoformat())
        elif each.kind == ChangedDay.Kind.WORK:
            hours.append(_on(each))
    if days and (span := week.get(FREE) or _longest(week.values())):
        hours.append({"dates": sorted(days), "from": span[0], "to": span[1]})
    return hours


def shop_opening(
    kitchen: Kitchen, holidays: Iterable[date], changed: Iterable[ChangedDay]
) -> dict[str, Any]:
    """When the shop is open: by the week, not on holidays, and otherwise on changed days.

    Parameters: kitchen; holidays; changed, its changed days.
    """
    hours: Hours = list(kitchen.shop_hours)
    closed = {day.isoformat() for day in holidays}
    for each in changed:
        if each.kind == ChangedDay.Kind.SHUT:
            closed.add(each.day.isoformat())
        elif each.kind == ChangedDay.Kind.OPEN:
            hours.append(_on(each))
            closed.discard(each.day.isoformat())
    return {"hours": hours, "closed": sorted(closed)}


def _on(changed: ChangedDay) -> dict[str, Any]:
    return {
        "dates": [changed.day.isoformat()],
        "from": f"{changed.begins:%H:%M}", "to": f"{changed.ends:%H:%M}",
    }  # fmt: skip


def by_weekday(hours: Hours) -> dict[str, Span]:
    """The hours of each day of the week that has some."""
    return {day: (each["from"], each["to"]) for each in hours for day in each.get("days", WEEKDAYS)}


def as_hours(week: dict[str, Span]) -> Hours:
    """Hours of a `plan` document from those of each day, days of the same hours together."""
    days: dict[Span, list[str]] = {}
    for day in WEEKDAYS:
        if day in week:
            days.setdefault(week[day], []).append(day)
    return [{"days": names, "from": span[0], "to": span[1]} for span, names in days.items()]


def _longest(spans: Iterable[Span]) -> Span | None:
    found = list(spans)
    return (min(begin for begin, _ in found), max(end for _, end in found)) if found else None
