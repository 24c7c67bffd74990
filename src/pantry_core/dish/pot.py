"""How much liquid covers a piece: in its cure, and in the pot, where nobody weighs it."""

from dataclasses import replace
from typing import Final

from pantry_core.dish.piece import Prepared
from pantry_core.dish.written import WrittenLine
from pantry_core.rules.rule import Mark, Rule
from pantry_core.vessels.fit import FitMeat, FitRequest, Vessel, fit

LEAST_SHARE: Final = 0.25
"""A vessel that it nearly fills still has so much liquid around it, of its mass [-] (practice)."""
FAT_G_PER_ML = Rule("fat-density", 0.91, "g/ml", "melted fat and oil", Mark.PRACTICE)
POT_FATS: Final = frozenset(("oil", "olive-oil", "lard", "goose-fat", "duck-fat"))


def covers_it_ml(piece: Prepared, vessel: Vessel | None) -> float:
    """How much liquid covers a piece.

    Parameters: piece; vessel, None where nobody names one.
    Returns: the liquid [ml]; without a vessel, and in a bag, as much as meat.
    Raises: OutOfRange.
    Source: `vessels.fit`; as much as meat by common practice.
    """
    if vessel is None or vessel.shape == "bag":
        return piece.meat.mass_g
    lies = FitMeat(mass_g=piece.meat.mass_g, height_mm=piece.meat.thickness_mm)
    least_ml = LEAST_SHARE * piece.meat.mass_g
    return max(
        fit(FitRequest(meat=lies, vessel=vessel, liquid_ml=0.0)).liquid_to_cover_ml, least_ml
    )


def with_its_pot(line: WrittenLine, piece: Prepared, vessel: Vessel | None) -> WrittenLine:
    """A line of a recipe; water and fat for the pot that have no amount cover the piece.

    Parameters: line; piece; vessel, None where nobody names one.
    Returns: the line, with its grams where it is sized here.
    Raises: OutOfRange. Source: `covers_it_ml`.
    """
    asked = line.asked
    is_sized = line.grams is not None or line.amount is not None or asked.goes != "pot"
    if is_sized or asked.name not in POT_FATS | {"water"}:
        return line
    g_per_ml = 1.0 if asked.name == "water" else FAT_G_PER_ML.value
    return replace(line, grams=g_per_ml * covers_it_ml(piece, vessel))
