"""Saying what a kitchen is like."""

from collections.abc import Mapping

from pantry_web.kitchens.models import Kitchen
from pantry_web.presses.once import once


@once()
def set_house(kitchen: Kitchen, values: Mapping[str, object]) -> None:
    """Set fields of a kitchen."""
    for name, value in values.items():
        setattr(kitchen, name, value)
    kitchen.save(update_fields=list(values))
