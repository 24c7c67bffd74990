"""Founding a kitchen."""

from pantry_web.kitchens.models import Cook, Kitchen, Membership, Place
from pantry_web.presses.once import once

CAPACITY = {
    "freezer": 4.0, "fridge": 60.0, "counter": 6.0, "hob": 4.0, "smoker": 1.0, "fire": 1.0
}  # fmt: skip
"""What fits at once into the places of an ordinary kitchen (common practice).

Of the fridge litres, else pieces.
"""
OVEN_SHELVES = 2
"""So many shelves an oven has where nobody says (common practice)."""


@once()
def found_kitchen(
    owner: Cook,
    name: str,
    time_zone: str,
    *,
    units: str = Kitchen.Units.METRIC,
    clock_face: str = Kitchen.ClockFace.OF_24,
    oven_shelves: int = OVEN_SHELVES,
    is_demo: bool = False,
) -> Kitchen:
    """Found a kitchen with its places and its owner."""
    rooms = CAPACITY | {"oven": float(oven_shelves)}
    kitchen = Kitchen.objects.create(
        name=name, time_zone=time_zone, units=units, clock_face=clock_face, is_demo=is_demo
    )
    Membership.objects.create(kitchen=kitchen, cook=owner, role=Membership.Role.OWNER)
    Place.objects.bulk_create(
        Place(kitchen=kitchen, name=place, capacity=room) for place, room in rooms.items()
    )
    return kitchen
