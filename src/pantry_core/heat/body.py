"""What heat goes through: a shape, its thickest part, and how heat moves in it."""

from dataclasses import dataclass
from typing import Final

from pantry_core.meat import Shape
from pantry_core.rules.rule import Mark, Rule

_LITERATURE = "thermal properties of meat, loosely"


def _rule(name: str, value: float, unit: str) -> Rule:
    return Rule(name, value, unit, _LITERATURE, Mark.MEMORY)


DIFFUSIVITY: Final = _rule("heat-diffusivity", 1.3e-7, "m²/s")
DIFFUSIVITY_LOW: Final = _rule("heat-diffusivity-low", 1.1e-7, "m²/s")
DIFFUSIVITY_HIGH: Final = _rule("heat-diffusivity-high", 1.5e-7, "m²/s")
FATTY: Final = _rule("heat-diffusivity-fatty", 1.0e-7, "m²/s")
CONDUCTIVITY: Final = _rule("heat-conductivity", 0.45, "W/m·K")


@dataclass(frozen=True, slots=True)
class Body:
    """A piece as heat sees it: shape, thickest part [mm], diffusivity [m²/s], conductivity [W/mK].

    Skin and cut faces all take heat.
    """

    shape: Shape
    thickness_mm: float
    diffusivity_m2_s: float = DIFFUSIVITY.value
    conductivity_w_mk: float = CONDUCTIVITY.value

    @property
    def way_m(self) -> float:
        """From rim to heart [m]."""
        return self.thickness_mm / 2000.0
