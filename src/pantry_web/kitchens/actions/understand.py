"""Reminders that a kitchen has understood, and is not reminded of on every page."""

from collections.abc import Iterable

from pantry_web.kitchens.models import Kitchen
from pantry_web.presses.once import once


@once()
def understand(kitchen: Kitchen, codes: Iterable[str]) -> None:
    """Remember that reminders were understood; they can be read again at each mix.

    Parameters: kitchen; codes of the reminders.
    """
    kitchen.understood = sorted({*kitchen.understood, *codes})
    kitchen.save(update_fields=["understood"])
