"""Times in which nobody is at home."""

from datetime import datetime

from pantry_web.kitchens.models import Absence, Kitchen
from pantry_web.presses.once import once


@once()
def add_absence(kitchen: Kitchen, begins: datetime, ends: datetime) -> Absence:
    """Write down a time in which nobody is at home."""
    return Absence.objects.create(kitchen=kitchen, begins=begins, ends=ends)


@once()
def remove_absence(absence: Absence) -> None:
    """Stay at home after all."""
    absence.delete()
