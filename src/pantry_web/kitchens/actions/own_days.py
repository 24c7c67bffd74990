"""Days of the year that a kitchen keeps."""

from datetime import date

from pantry_web.kitchens.models import Kitchen, OwnDay
from pantry_web.presses.once import once


@once()
def add_own_day(kitchen: Kitchen, name: str, day: date) -> OwnDay:
    """Keep a day of the year under a name."""
    return kitchen.own_days.create(name=name, day=day)


@once()
def remove_own_day(day: OwnDay) -> None:
    """Keep a day no more."""
    day.delete()
