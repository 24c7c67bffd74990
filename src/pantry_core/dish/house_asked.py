"""What of the house bears on a dish: scales, packets, vessel, places, what it has learnt."""

from typing import Annotated

from pydantic import Field, model_validator

from pantry_core.document import PLAIN_LINE, Document, wrong
from pantry_core.meat import LEAST_FACTOR, MOST_FACTOR
from pantry_core.mixes.recipe import Packet
from pantry_core.recipes.words import Cups
from pantry_core.vessels.fit import Vessel

MOST_PLACES = 30
Name = Annotated[str, Field(min_length=1, max_length=80), PLAIN_LINE]
Factor = Annotated[float, Field(ge=LEAST_FACTOR, le=MOST_FACTOR)]
Place = Annotated[str, Field(min_length=1, max_length=20)]
PlaceC = Annotated[float, Field(ge=-40, le=60)]


class ScaleAsked(Document):
    """A scale: it reads to its division, and holds so much [g]."""

    name: Name = "scale"
    division_g: Annotated[float, Field(gt=0, le=1000)]
    capacity_g: Annotated[float, Field(gt=0, le=1e6)]


class LearntAsked(Document):
    """What the kitchen has learnt, as factors on the general figures; no limit asks it.

    How salty it likes it, how fast salt goes in, and hours by place: oven, smoker, hob, fire.
    """

    salt_liking: Factor = 1.0
    salt_speed: Factor = 1.0
    hours: Annotated[dict[str, Factor], Field(max_length=10)] = {}


class HouseAsked(Document):
    """What of the house bears on a dish."""

    scales: Annotated[tuple[ScaleAsked, ...], Field(strict=False, max_length=20)] = ()
    packets: Annotated[tuple[Packet, ...], Field(strict=False, max_length=20)] = ()
    vessel: Vessel | None = None
    fridge_c: Annotated[float, Field(ge=-5, le=60)] = 4.0
    cups: Cups = "us"
    learnt: LearntAsked = LearntAsked()
    places: Annotated[dict[Place, PlaceC], Field(max_length=MOST_PLACES)] = {}

    @model_validator(mode="after")
    def _one_fridge(self) -> "HouseAsked":
        if "fridge" in self.places and "fridge_c" in self.model_fields_set:
            raise wrong("twice", "the fridge is given in fridge_c as well; use one of the two")
        return self

    @property
    def cold_c(self) -> float:
        """How cold the fridge is [°C]."""
        return self.places.get("fridge", self.fridge_c)
