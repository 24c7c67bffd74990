"""The ways of cooking that are known so far, each as stages. Times are common practice."""

from dataclasses import dataclass
from typing import Final, Literal

from pantry_core.meat import Kind

HeatName = Literal[
    "roast", "slow-oven", "simmer", "simmer-glaze", "braise", "bake", "smoke", "none",
]  # fmt: skip


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
class Heat:
    """A way of cooking: its stages, and what is done when a skewer slides in.

    `bird` are its stages for poultry, where they differ; `kinds` it is for; `gives_up` what it
    costs.
    """

    id: HeatName
    name: str
    stages: tuple[Stage, ...]
    is_tender: bool = False
    bird: tuple[Stage, ...] | None = None
    gives_up: str = ""
    kinds: tuple[Kind, ...] = ("pork", "beef", "lamb", "game", "poultry", "fish")

    def stages_for(self, kind: Kind) -> tuple[Stage, ...]:
        """Its stages for a kind of meat."""
        return self.bird if kind == "poultry" and self.bird is not None else self.stages


def _simmer(hours_per_kg: float, how: str) -> Stage:
    return Stage("simmer", "Simmer", "hob", 0.5, hours_per_kg, 15, how)


def _roast(hours: float, hours_per_kg: float, how: str) -> Stage:
    return Stage("roast", "Roast", "oven", hours, hours_per_kg, 15, how)


_LOW_AND_HOT = (_roast(2.5, 0.25, "Low at 150 °C, then hot at the end for the skin."),)
SMOKED: Final = (
    Stage("smoke-low", "Smoke, low", "smoker", 1.0, 0.25, 20,
          "Onto the racks, smoke at 50 to 60 °C.", 50.0, 1.0),
    Stage("smoke-hot", "Smoke, hotter", "smoker", 1.0, 0.5, 10,
          "Up to 110 °C; through 10 to 54 °C within 6 h in all.", 110.0, 0.5),
)  # fmt: skip
"""How a piece is hot-smoked, whatever its cut."""
VEGETABLES: Final = Stage(
    "vegetables", "Vegetables into the pot", "hob", 0.75, 0.0, 15, "Roots first, greens last."
)

HEATS: Final[dict[HeatName, Heat]] = {
    heat.id: heat
    for heat in (
        Heat("roast", "Roasted",
             (_roast(0.5, 0.75,
                     "Oven at 180 °C; the probe goes into the thickest part, off the bone."),),
             bird=(_roast(0.5, 0.75,
                          "Skin side up, oven at 190 °C; the probe goes into the thigh."),)),
        Heat("slow-oven", "Low and slow in the oven", _LOW_AND_HOT, is_tender=True,
             kinds=("pork", "beef", "lamb", "game", "poultry")),
        Heat("simmer", "Simmered until tender",
             (_simmer(1.5, "Fresh water, barely moving, until a skewer slides in."),),
             is_tender=True, kinds=("pork", "beef", "lamb", "game", "poultry")),
        Heat("simmer-glaze", "Simmered, then glazed",
             (_simmer(0.75, "Cover with fresh water and keep it just short of boiling."),
              Stage("glaze", "Glaze", "oven", 0.75, 0.0, 15,
                    "Score, brush with the glaze, oven at 200 °C.")),
             kinds=("pork", "beef", "lamb", "game", "poultry")),
        Heat("braise", "Braised",
             (Stage("braise", "Braise", "oven", 1.5, 0.5, 20,
                    "Brown it, half cover it with liquid, lid on, 150 °C."),),
             is_tender=True, kinds=("pork", "beef", "lamb", "game", "poultry")),
        Heat("bake", "Baked", (_roast(0.5, 0.1, "Oven at 180 °C."),)),
        Heat("smoke", "Hot-smoked", SMOKED,
             gives_up="It gives up a night to dry the surface, and the smoker; through 10 to 54 °C "
             "within 6 h."),
        Heat("none", "Not cooked", (), kinds=("fish", "vegetable")),
    )
}  # fmt: skip
