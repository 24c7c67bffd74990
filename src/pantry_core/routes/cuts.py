"""The cuts a cook can choose from, and how each is cooked. Times are common practice."""

from dataclasses import dataclass
from typing import Literal

from pantry_core.meat import Kind, Shape, Species
from pantry_core.rules.constants import (
    WATER_IN_BELLY,
    WATER_IN_DUCK,
    WATER_IN_MACKEREL,
    WATER_IN_SALMON,
    WATER_IN_WHITE_FISH,
)
from pantry_core.rules.rule import Rule

PROPORTIONS: dict[Shape, float] = {"slab": 6.0, "cylinder": 1.6, "ball": 0.52}
"""Volume over the cube of the thickest part, for cuts that say nothing else (common practice)."""


@dataclass(frozen=True, slots=True)
class Stage:
    """One stage of cooking: place, hours = hours + hours_per_kg · kg, hands at its beginning.

    In the smoker `air_c` is its air at the coolest [°C], and `to_54_c` the part of the stage in
    which the heart is between 10 and 54 °C (common practice).
    """

    id: str
    title: str
    place: Literal["hob", "oven", "smoker"]
    hours: float
    hours_per_kg: float
    hands_min: float
    how: str
    air_c: float | None = None
    to_54_c: float = 0.0


@dataclass(frozen=True, slots=True)
class Cut:
    """A cut: its kind and shape, shares [g/g], closed faces, and how it is cooked through.

    `proportion` is its volume over the cube of its thickest part, where its shape does not tell;
    `is_tender`: done when a skewer slides in, which its temperature only hints at.
    """

    id: str
    kind: Kind
    name: str
    shape: Shape
    bone_share: float
    stages: tuple[Stage, ...]
    closed_faces: int = 0
    water: Rule | None = None
    will_be: Literal["bacon"] | None = None
    proportion: float | None = None
    is_scored: bool = False
    is_tender: bool = False
    species: Species | None = None

    @property
    def volume_over_cube(self) -> float:
        """Volume of the piece over the cube of its thickest part [-]."""
        return self.proportion or PROPORTIONS[self.shape]


def _simmer(hours_per_kg: float, how: str) -> Stage:
    return Stage("simmer", "Simmer", "hob", 0.5, hours_per_kg, 15, how)


def _roast(hours: float, hours_per_kg: float, how: str) -> Stage:
    return Stage("roast", "Roast", "oven", hours, hours_per_kg, 15, how)


_GENTLE = _simmer(0.75, "Cover with fresh water and keep it just short of boiling.")
_TENDER = _simmer(1.5, "Fresh water, barely moving, until a skewer slides in.")
_GLAZE = Stage(
    "glaze", "Glaze", "oven", 0.75, 0.0, 15, "Score, brush with the glaze, oven at 200 °C."
)
_PINK = _roast(0.5, 0.75, "Oven at 180 °C; the probe goes into the thickest part, off the bone.")
_BIRD = _roast(0.5, 0.75, "Skin side up, oven at 190 °C; the probe goes into the thigh.")
_SLOW = _roast(2.5, 0.25, "Low at 150 °C, then hot at the end for the skin.")
SMOKED = (
    Stage("smoke-low", "Smoke, low", "smoker", 1.0, 0.25, 20,
          "Onto the racks, smoke at 50 to 60 °C.", 50.0, 1.0),
    Stage("smoke-hot", "Smoke, hotter", "smoker", 1.0, 0.5, 10,
          "Up to 110 °C; through 10 to 54 °C within 6 h in all.", 110.0, 0.5),
)  # fmt: skip
"""How a piece is hot-smoked, whatever its cut."""
VEGETABLES = Stage(
    "vegetables", "Vegetables into the pot", "hob", 0.75, 0.0, 15, "Roots first, greens last."
)
_BRAISE = Stage(
    "braise", "Braise", "oven", 1.5, 0.0, 20, "Brown it, half cover it with liquid, lid on, 150 °C."
)
_BAKE = _roast(0.5, 0.1, "Oven at 180 °C.")

CUTS: dict[str, Cut] = {
    cut.id: cut
    for cut in (
        Cut("gammon-boned", "pork", "Gammon or leg, boned", "cylinder", 0.0,
            (_GENTLE, _GLAZE)),
        Cut("gammon-flat", "pork", "Gammon or leg, opened flat", "slab", 0.0,
            (_GENTLE, _GLAZE), proportion=20.0),
        Cut("gammon-bone", "pork", "Gammon or leg, bone in", "cylinder", 0.16,
            (_GENTLE, _GLAZE), closed_faces=1, is_scored=True),
        Cut("pork-loin", "pork", "Loin, boned", "cylinder", 0.0, (_PINK,)),
        Cut("pork-shoulder", "pork", "Shoulder, boned", "slab", 0.0, (_SLOW,), proportion=8.0),
        Cut("belly-skinless", "pork", "Belly for bacon, skin off", "slab", 0.0, (_SLOW,),
            water=WATER_IN_BELLY, will_be="bacon", proportion=30.0),
        Cut("belly-skin", "pork", "Belly for bacon, skin on", "slab", 0.0, (_SLOW,),
            closed_faces=1, water=WATER_IN_BELLY, will_be="bacon", proportion=30.0,
            is_scored=True),
        Cut("brisket", "beef", "Brisket", "slab", 0.0, (_TENDER,), proportion=20.0,
            is_tender=True),
        Cut("silverside", "beef", "Silverside or round", "cylinder", 0.0, (_TENDER,),
            is_tender=True),
        Cut("beef-rib", "beef", "Rib, bone in", "slab", 0.2, (_PINK,)),
        Cut("lamb-leg", "lamb", "Leg of lamb or goat, boned", "slab", 0.0, (_PINK,),
            proportion=8.0),
        Cut("lamb-leg-bone", "lamb", "Leg of lamb or goat, bone in", "cylinder", 0.2,
            (_PINK,)),
        Cut("venison", "game", "Venison haunch, boned", "cylinder", 0.0, (_PINK,)),
        Cut("rabbit", "game", "Rabbit, in pieces", "slab", 0.25, (_BRAISE,), species="rabbit",
            is_tender=True),
        Cut("chicken", "poultry", "Chicken, whole", "slab", 0.3, (_BIRD,),
            closed_faces=1),
        Cut("chicken-breast", "poultry", "Chicken breast", "slab", 0.0, (_BAKE,)),
        Cut("duck", "poultry", "Duck, whole", "slab", 0.3, (_BIRD,), closed_faces=1,
            water=WATER_IN_DUCK, is_scored=True),
        Cut("turkey-crown", "poultry", "Turkey crown", "slab", 0.15, (_BIRD,),
            closed_faces=1),
        Cut("salmon-side", "fish", "Side of salmon, skin on", "slab", 0.0, (_BAKE,),
            closed_faces=1, water=WATER_IN_SALMON, proportion=25.0),
        Cut("white-fillet", "fish", "White fish fillet", "slab", 0.0, (_BAKE,),
            water=WATER_IN_WHITE_FISH, proportion=20.0),
        Cut("trout", "fish", "Trout, whole", "slab", 0.1, (_BAKE,), closed_faces=1,
            proportion=12.0),
        Cut("trout-fillet", "fish", "Trout fillets, skin off", "slab", 0.0, (_BAKE,),
            proportion=20.0),
        Cut("mackerel", "fish", "Mackerel, herring or sardine", "slab", 0.0, (_BAKE,),
            closed_faces=1, water=WATER_IN_MACKEREL, proportion=15.0, species="mackerel"),
        Cut("vegetable", "vegetable", "Firm vegetable", "cylinder", 0.0, ()),
    )
}  # fmt: skip
