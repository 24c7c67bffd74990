"""Copying a feast to another day: everything shifts, the notes come along, the log does not."""

from datetime import date, datetime, timedelta
from zoneinfo import ZoneInfo

from pantry_core.plan.instants import local_instant
from pantry_web.feasts.actions.keep_waits import keep_waits
from pantry_web.feasts.models import Dish, Feast
from pantry_web.presses.once import once


@once()
def copy_feast(feast: Feast, day: date) -> Feast:
    """Copy a feast to a day, at the same hour of that day.

    Parameters: feast; day, in the zone of the feast.
    Returns: the new feast; hours of dishes and fixed starts lie as many days from it as before, at
    the same time of day.
    Raises: NotAnInstant when the clocks skip one of the hours on its new day.
    """
    zone = ZoneInfo(feast.time_zone)
    days = day - feast.serve_at.astimezone(zone).date()
    new = Feast.objects.create(
        kitchen=feast.kitchen, name=feast.name, time_zone=feast.time_zone, heads=feast.heads,
        note=feast.note, serve_at=_shifted(feast.serve_at, days, zone),
    )  # fmt: skip
    made = {}
    for dish in feast.dishes.filter(is_given_up=False):
        before = str(dish.pk)
        _copy_dish(dish, new, days, zone)
        made[before] = dish
    keep_waits(made)
    return new


def _copy_dish(dish: Dish, feast: Feast, days: timedelta, zone: ZoneInfo) -> None:
    """Make the dish a new one of another feast."""
    dish.pk, dish.feast, dish.copied_from_id = None, feast, dish.pk
    dish._state.adding = True
    for edit in dish.document.get("edits", []):
        if edit.get("locked_start"):
            locked = datetime.fromisoformat(edit["locked_start"])
            edit["locked_start"] = _shifted(locked, days, zone).isoformat()
    if dish.serve_at:
        dish.serve_at = _shifted(dish.serve_at, days, zone)
    dish.save()


def _shifted(moment: datetime, days: timedelta, zone: ZoneInfo) -> datetime:
    local = moment.astimezone(zone).replace(tzinfo=None) + days
    return local_instant(local, zone)
