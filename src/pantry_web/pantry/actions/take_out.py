"""Removing something from the pantry."""

from pantry_web.pantry.models import Ingredient, Scale, Vessel
from pantry_web.presses.once import once


@once()
def take_out(thing: Scale | Ingredient | Vessel) -> None:
    """Remove a thing."""
    thing.delete()
