"""Putting something into the pantry, or changing it."""

from collections.abc import Mapping
from typing import TypeVar

from pantry_web.kitchens.models import Kitchen, Place
from pantry_web.pantry.models import Ingredient, Scale, Vessel
from pantry_web.presses.once import once

Thing = TypeVar("Thing", Scale, Ingredient, Vessel, Place)


@once()
def put_in(kind: type[Thing], kitchen: Kitchen, values: Mapping[str, object]) -> Thing:
    """Put a new thing into the pantry of a kitchen."""
    return change(kind(kitchen=kitchen), values)


@once()
def change(thing: Thing, values: Mapping[str, object]) -> Thing:
    """Change a thing in the pantry."""
    for name, value in values.items():
        setattr(thing, name, value)
    thing.save()
    return thing
