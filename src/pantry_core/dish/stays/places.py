"""How warm it is where the piece is."""

from dataclasses import dataclass
from typing import Final

from pantry_core.dish.answer import DishStep
from pantry_core.dish.house_asked import HouseAsked
from pantry_core.heat.media import MEDIA
from pantry_core.rules.heat import COLD_SMOKE_MOST_C
from pantry_core.rules.rule import Mark, Rule

ROOM_C: Final = Rule("room", 21.0, "°C", "counter and kitchen, where nobody says", Mark.PRACTICE)
CELLAR_C: Final = Rule(
    "cellar", 14.0, "°C", "cellar and outdoors, until they are read", Mark.PRACTICE
)
FREEZER_C: Final = Rule("freezer", -18.0, "°C", "a home freezer", Mark.PRACTICE)
HEATED: Final = ("oven", "hob", "smoker", "fire", "grill")
ROOM: Final = ("counter", "kitchen")


def is_heat(step: DishStep | None) -> bool:
    """Whether a step heats the piece: cold smoke does not."""
    if step is None or step.medium is None or step.medium_c is None:
        return False
    return not MEDIA[step.medium].cools and step.medium_c > COLD_SMOKE_MOST_C.value


@dataclass(frozen=True, slots=True)
class Places:
    """How warm the places of a house are [°C]."""

    house: HouseAsked

    def place_of(self, step: DishStep | None, *, is_after_heat: bool) -> str:
        """Where the piece is: without a place of its own before the heat in the fridge.

        At a heated place it is only where the step says in what; after the heat nobody says that
        it is cold, so it stands in the kitchen.
        """
        unsaid = "counter" if is_after_heat else "fridge"
        if step is None or not step.with_piece or step.place is None:
            return unsaid
        if step.place in HEATED and step.medium is None:
            return unsaid
        return step.place

    def around_c(self, step: DishStep | None, *, is_after_heat: bool) -> float:
        """How warm it is around the piece in a step [°C]."""
        if step is not None and step.medium_c is not None and step.with_piece:
            return step.medium_c
        place = self.place_of(step, is_after_heat=is_after_heat)
        if place == "fridge":
            return self.house.cold_c
        if place in self.house.places:
            return self.house.places[place]
        if place in ROOM:
            return ROOM_C.value
        return FREEZER_C.value if place == "freezer" else CELLAR_C.value
