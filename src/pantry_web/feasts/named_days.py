"""Named days that lie ahead of a kitchen: public holidays, movable feasts, its own."""

from datetime import date, datetime, timedelta
from zoneinfo import ZoneInfo

from pantry_core.days.named import NamedDay, named_days
from pantry_web.kitchens.models import Kitchen

AHEAD = timedelta(days=364)


def coming_days(kitchen: Kitchen, now: datetime) -> list[NamedDay]:
    """Named days of the year to come, in order."""
    today = now.astimezone(ZoneInfo(kitchen.time_zone)).date()
    own = [NamedDay(_next(each.day, today), each.name, "own") for each in kitchen.own_days.all()]
    found = [*named_days(kitchen.country, today, today + AHEAD), *own]
    return sorted(found, key=lambda each: each.day)


def _next(day: date, today: date) -> date:
    """The day of the year when it comes next; 29 February falls on 1 March in common years."""
    for year in (today.year, today.year + 1):
        try:
            coming = day.replace(year=year)
        except ValueError:
            coming = date(year, 3, 1)
        if coming >= today:
            return coming
    return day
