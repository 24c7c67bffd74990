"""Removing something from the pantry."""

from pantry_web.pantry.models import Ingredient, Scale, Vessel


def take_out(thing: Scale | Ingredient | Vessel) -> None:
    """Remove a thing."""
    thing.delete()
