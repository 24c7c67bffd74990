"""What of a kitchen bears on its feasts, read once for all of them."""

from dataclasses import dataclass, field
from datetime import datetime

from pantry_web.background.models import Work
from pantry_web.feasts.documents import House, house_of
from pantry_web.feasts.models import Mishap
from pantry_web.kitchens.models import Absence, ChangedDay, Kitchen, Place


@dataclass(frozen=True, slots=True)
class Surroundings:
    """A kitchen at a moment: its house, places, hours, absences, and what befell it."""

    kitchen: Kitchen
    now: datetime
    house: House
    places: tuple[Place, ...]
    absences: tuple[Absence, ...]
    changed_days: tuple[ChangedDay, ...]
    mishaps: tuple[Mishap, ...]
    found: dict[str, Work] = field(default_factory=dict)
    """Plans that were asked for already, by their keys, where several feasts are read at once."""

    @property
    def fridge_unit(self) -> str:
        """What the room of the fridge was told in; empty where nobody said."""
        return next((each.unit for each in self.places if each.name == Place.FRIDGE), "")


def surroundings_of(kitchen: Kitchen, now: datetime) -> Surroundings:
    """Read what of a kitchen bears on its feasts."""
    return Surroundings(
        kitchen,
        now,
        house_of(kitchen),
        tuple(kitchen.places.all()),
        tuple(kitchen.absences.all()),
        tuple(kitchen.changed_days.all()),
        tuple(kitchen.mishaps.filter(begins__lte=now)),
    )
