"""The piece that takes the salt."""

from typing import Annotated, Literal

from pydantic import Field, ValidationInfo, field_validator

from pantry_core.document import Document, wrong
from pantry_core.rules.constants import WATER_SHARE
from pantry_core.rules.ingredients import SALT_PER_SODIUM
from pantry_core.text import say

Kind = Literal["pork", "beef", "lamb", "game", "poultry", "fish", "vegetable"]
NEVER_CURED: frozenset[Kind] = frozenset(("fish", "vegetable"))
"""No curing salt goes into these."""
Shape = Literal["slab", "cylinder", "ball"]
Species = Literal["rabbit", "mackerel"]
"""What has limits of its own: rabbit, and the fish that form histamine (mackerel and its like)."""
Treatment = Literal["injected", "pricked", "slashed", "bladed", "rolled", "stuffed"]

MOST_MEAT_G = 100_000.0
MOST_THICKNESS_MM = 400.0
MOST_BONE_SHARE = 0.6
MOST_PIECES = 500
MOST_SODIUM_MG = 10_000.0
_KIND_OF: dict[Species, Kind] = {"rabbit": "game", "mackerel": "fish"}


LEAST_FACTOR, MOST_FACTOR = 0.5, 2.0
"""Nothing that a kitchen has learnt is used beyond these [-]."""


class Meat(Document):
    """The piece: mass_g as weighed [g], thickness_mm of its thickest part [mm], shares [-].

    `sodium_mg` is that of the label of meat sold ready-salted [mg per 100 g]; `storage` says how
    smoked fish is kept; `count` of pieces weighs mass_g together; `salt_speed` is how fast salt
    goes in where the kitchen has learnt it, as a factor on the usual [-]: waits ask it, no limit.
    """

    kind: Kind
    mass_g: Annotated[float, Field(gt=0, le=MOST_MEAT_G)]
    thickness_mm: Annotated[float, Field(gt=0, le=MOST_THICKNESS_MM)]
    shape: Shape
    bone_share: Annotated[float, Field(ge=0, le=MOST_BONE_SHARE)] = 0.0
    form: Literal["whole", "pieces", "ground"] = "whole"
    count: Annotated[int, Field(ge=1, le=MOST_PIECES)] = 1
    will_be: Literal["bacon", "raw", "smoked"] | None = None
    storage: Literal["meal", "air", "vacuum"] = "meal"
    wild: Literal["deer", "other"] | None = None
    species: Species | None = None
    sodium_mg: Annotated[float, Field(ge=0, le=MOST_SODIUM_MG)] | None = None
    water_share: Annotated[float, Field(ge=0.2, le=0.97)] | None = None
    closed_faces: Annotated[int, Field(ge=0, le=1)] = 0
    salt_speed: Annotated[float, Field(ge=LEAST_FACTOR, le=MOST_FACTOR)] = 1.0

    @field_validator("species")
    @classmethod
    def _of_its_kind(cls, species: Species | None, info: ValidationInfo) -> Species | None:
        kind = info.data.get("kind")
        if species is not None and kind is not None and kind != _KIND_OF[species]:
            raise wrong(
                "species",
                say(
                    "{species} is {kind_of}; leave this out for {kind}",
                    species=species,
                    kind_of=_KIND_OF[species],
                    kind=kind,
                ),
            )
        return species

    @property
    def salted_g(self) -> float:
        """Mass that takes the salt: the bone's share is off [g]."""
        return self.mass_g * (1.0 - self.bone_share)

    @property
    def own_salt_g(self) -> float:
        """Salt that it was sold with, by its label [g]."""
        return self.salted_g * self.own_salt_pct / 100.0

    @property
    def own_salt_pct(self) -> float:
        """Salt that it was sold with, by its label [% of the meat]."""
        return (self.sodium_mg or 0.0) * SALT_PER_SODIUM.value

    @property
    def is_kept_smoked(self) -> bool:
        """Whether it is fish that is smoked and kept, not eaten at the same meal."""
        return self.kind == "fish" and self.will_be == "smoked" and self.storage != "meal"

    @property
    def water_g_g(self) -> float:
        """Water in the piece [g/g]: as given, or by its kind."""
        if self.water_share is not None:
            return self.water_share
        return WATER_SHARE[self.kind].value
