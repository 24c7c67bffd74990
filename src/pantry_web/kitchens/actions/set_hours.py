"""Setting the hours that a kitchen keeps, and the days on which they are others."""

from datetime import date, time

from pantry_web.kitchens.hours import Span, as_hours
from pantry_web.kitchens.models import ChangedDay, Kitchen
from pantry_web.presses.once import once


@once()
def set_hours(kitchen: Kitchen, shop: dict[str, Span], work: dict[str, Span]) -> None:
    """Set when the shop is open and when people work, by the day of the week."""
    kitchen.shop_hours, kitchen.work_hours = as_hours(shop), as_hours(work)
    kitchen.save(update_fields=["shop_hours", "work_hours"])


@once()
def change_day(
    kitchen: Kitchen, day: date, kind: str, begins: time | None = None, ends: time | None = None
) -> ChangedDay:
    """Keep a day on which the hours are others, in place of one of the same kind."""
    changed, _ = kitchen.changed_days.update_or_create(
        day=day, kind=kind, defaults={"begins": begins, "ends": ends}
    )
    return changed


@once()
def remove_changed_day(changed: ChangedDay) -> None:
    """Keep the usual hours on a day after all."""
    changed.delete()
