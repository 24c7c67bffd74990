"""The cuts a cook can choose from, and how each is cooked. Times are common practice."""

from dataclasses import dataclass
from typing import Literal

from pantry_core.meat import Kind, Shape
from pantry_core.rules.constants import (
    WATER_IN_BELLY,
    WATER_IN_DUCK,
    WATER_IN_SALMON,
    WATER_IN_WHITE_FISH,
)
from pantry_core.rules.rule import Mark, Rule

WHOLE_CUT = Rule("inside-whole", 63.0, "°C", "USDA safe temperatures, 3 min rest", Mark.MEMORY)
POULTRY = Rule("inside-poultry", 74.0, "°C", "USDA safe temperatures", Mark.MEMORY)
FISH = Rule("inside-fish", 63.0, "°C", "FDA Food Code 3-401.11", Mark.MEMORY)
TENDER = Rule("inside-tender", 93.0, "°C", "simmered until tender", Mark.PRACTICE)


PROPORTIONS: dict[Shape, float] = {"slab": 6.0, "cylinder": 1.6, "ball": 0.52}
"""Volume over the cube of the thickest part, for cuts that say nothing else (common practice)."""


@dataclass(frozen=True, slots=True)
class Stage:
    """One stage of cooking: place, hours = hours + hours_per_kg · kg, hands at its beginning."""

    id: str
    title: str
    place: Literal["hob", "oven", "smoker"]
    hours: float
    hours_per_kg: float
    hands_min: float
    how: str


@dataclass(frozen=True, slots=True)
class Cut:
    """A cut: its kind and shape, shares [g/g], closed faces, and how it is cooked through.

    `proportion` is its volume over the cube of its thickest part, where its shape does not tell.
    """

    id: str
    kind: Kind
    name: str
    shape: Shape
    bone_share: float
    stages: tuple[Stage, ...]
    inside: Rule | None
    closed_faces: int = 0
    water: Rule | None = None
    will_be: Literal["bacon"] | None = None
    proportion: float | None = None
    is_scored: bool = False

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
          "Onto the racks, smoke at 50 to 60 °C."),
    Stage("smoke-hot", "Smoke, hotter", "smoker", 1.0, 0.5, 10,
          "Up to 110 °C; through 10 to 54 °C within 6 h in all."),
)  # fmt: skip
"""How a piece is hot-smoked, whatever its cut."""
VEGETABLES = Stage(
    "vegetables", "Vegetables into the pot", "hob", 0.75, 0.0, 15, "Roots first, greens last."
)
_BAKE = _roast(0.5, 0.1, "Oven at 180 °C.")

CUTS: dict[str, Cut] = {
    cut.id: cut
    for cut in (
        Cut("gammon-boned", "pork", "Gammon or leg, boned", "cylinder", 0.0,
            (_GENTLE, _GLAZE), WHOLE_CUT),
        Cut("gammon-flat", "pork", "Gammon or leg, opened flat", "slab", 0.0,
            (_GENTLE, _GLAZE), WHOLE_CUT, proportion=20.0),
        Cut("gammon-bone", "pork", "Gammon or leg, bone in", "cylinder", 0.16,
            (_GENTLE, _GLAZE), WHOLE_CUT, closed_faces=1, is_scored=True),
        Cut("pork-loin", "pork", "Loin, boned", "cylinder", 0.0, (_PINK,), WHOLE_CUT),
        Cut("pork-shoulder", "pork", "Shoulder, boned", "slab", 0.0, (_SLOW,),
            WHOLE_CUT, proportion=8.0),
        Cut("belly-skinless", "pork", "Belly for bacon, skin off", "slab", 0.0, (_SLOW,),
            WHOLE_CUT, water=WATER_IN_BELLY, will_be="bacon", proportion=30.0),
        Cut("belly-skin", "pork", "Belly for bacon, skin on", "slab", 0.0, (_SLOW,),
            WHOLE_CUT, closed_faces=1, water=WATER_IN_BELLY, will_be="bacon", proportion=30.0,
            is_scored=True),
        Cut("brisket", "beef", "Brisket", "slab", 0.0, (_TENDER,), TENDER, proportion=20.0),
        Cut("silverside", "beef", "Silverside or round", "cylinder", 0.0, (_TENDER,), TENDER),
        Cut("beef-rib", "beef", "Rib, bone in", "slab", 0.2, (_PINK,), WHOLE_CUT),
        Cut("lamb-leg", "lamb", "Leg of lamb or goat, boned", "slab", 0.0, (_PINK,),
            WHOLE_CUT, proportion=8.0),
        Cut("lamb-leg-bone", "lamb", "Leg of lamb or goat, bone in", "cylinder", 0.2,
            (_PINK,), WHOLE_CUT),
        Cut("venison", "game", "Venison haunch, boned", "cylinder", 0.0, (_PINK,), WHOLE_CUT),
        Cut("chicken", "poultry", "Chicken, whole", "slab", 0.3, (_BIRD,), POULTRY,
            closed_faces=1),
        Cut("chicken-breast", "poultry", "Chicken breast", "slab", 0.0, (_BAKE,), POULTRY),
        Cut("duck", "poultry", "Duck, whole", "slab", 0.3, (_BIRD,), POULTRY, closed_faces=1,
            water=WATER_IN_DUCK, is_scored=True),
        Cut("turkey-crown", "poultry", "Turkey crown", "slab", 0.15, (_BIRD,), POULTRY,
            closed_faces=1),
        Cut("salmon-side", "fish", "Side of salmon, skin on", "slab", 0.0, (_BAKE,), FISH,
            closed_faces=1, water=WATER_IN_SALMON, proportion=25.0),
        Cut("white-fillet", "fish", "White fish fillet", "slab", 0.0, (_BAKE,), FISH,
            water=WATER_IN_WHITE_FISH, proportion=20.0),
        Cut("trout", "fish", "Trout, whole", "slab", 0.1, (_BAKE,), FISH, closed_faces=1,
            proportion=12.0),
        Cut("trout-fillet", "fish", "Trout fillets, skin off", "slab", 0.0, (_BAKE,), FISH,
            proportion=20.0),
        Cut("vegetable", "vegetable", "Firm vegetable", "cylinder", 0.0, (), None),
    )
}  # fmt: skip
