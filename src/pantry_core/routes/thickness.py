"""The thickest part, guessed from cut and weight where it was not measured."""

from dataclasses import dataclass

from pantry_core.errors import within
from pantry_core.meat import MOST_MEAT_G, MOST_THICKNESS_MM
from pantry_core.routes.cuts import Cut
from pantry_core.rules.constants import MEAT_DENSITY
from pantry_core.rules.rule import Mark, Rule

DOUBT = Rule("thickness-guess", 0.2, "of the thickness, either way", "cuts differ", Mark.PRACTICE)


@dataclass(frozen=True, slots=True)
class Guess:
    """A thickness and the doubt about it [mm]."""

    mm: float
    low_mm: float
    high_mm: float


def guessed_thickness(cut: Cut, mass_g: float) -> Guess:
    """Guess the thickest part from the proportions of the cut.

    Parameters: cut; mass_g of the whole piece [g], above 0.
    Returns: the thickness, and a fifth of it either way [mm], at most 400.
    Raises: OutOfRange.
    Source: volume by density, proportions by common practice.

    >>> from pantry_core.routes.cuts import CUTS
    >>> round(guessed_thickness(CUTS["gammon-flat"], 2380.0).mm)
    48
    """
    within("mass_g", mass_g, 1e-6, MOST_MEAT_G, "g")
    volume_mm3 = 1000.0 * mass_g * (1.0 - cut.bone_share) / MEAT_DENSITY.value
    mm = (volume_mm3 / cut.volume_over_cube) ** (1 / 3)
    mm = min(max(mm, 1.0), MOST_THICKNESS_MM)
    return Guess(mm, mm * (1.0 - DOUBT.value), mm * (1.0 + DOUBT.value))
