"""The piece that takes the salt."""

from typing import Annotated, Literal

from pydantic import Field

from pantry_core.document import Document
from pantry_core.rules.constants import WATER_SHARE

Kind = Literal["pork", "beef", "lamb", "game", "poultry", "fish", "vegetable"]
Shape = Literal["slab", "cylinder", "ball"]

MOST_MEAT_G = 100_000.0
MOST_THICKNESS_MM = 400.0
MOST_BONE_SHARE = 0.6


class Meat(Document):
    """The piece: mass_g as weighed [g], thickness_mm of its thickest part [mm], shares [-]."""

    kind: Kind
    mass_g: Annotated[float, Field(gt=0, le=MOST_MEAT_G)]
    thickness_mm: Annotated[float, Field(gt=0, le=MOST_THICKNESS_MM)]
    shape: Shape
    bone_share: Annotated[float, Field(ge=0, le=MOST_BONE_SHARE)] = 0.0
    form: Literal["whole", "pieces", "ground"] = "whole"
    will_be: Literal["bacon", "raw"] | None = None
    water_share: Annotated[float, Field(ge=0.2, le=0.97)] | None = None
    closed_faces: Annotated[int, Field(ge=0, le=1)] = 0

    @property
    def salted_g(self) -> float:
        """Mass that takes the salt: the bone's share is off [g]."""
        return self.mass_g * (1.0 - self.bone_share)

    @property
    def water_g_g(self) -> float:
        """Water in the piece [g/g]: as given, or by its kind."""
        if self.water_share is not None:
            return self.water_share
        return WATER_SHARE[self.kind].value
