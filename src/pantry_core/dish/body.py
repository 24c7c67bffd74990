"""From the piece as it was prepared to the body that the heat goes through."""

from typing import Final

from pantry_core.dish.piece import DOUBT, Prepared, guessed_mm
from pantry_core.heat.body import DIFFUSIVITY, FATTY, Body
from pantry_core.meat import MOST_THICKNESS_MM, Meat
from pantry_core.rules.rule import Mark, Rule

BIRD_MM: Final = Rule(
    "bird-as-a-ball", 8.9, "mm times the cube root of its grams",
    "whole birds as balls, set by roasting charts", Mark.PRACTICE,
)  # fmt: skip
FATTY_WATER: Final = Rule(
    "fatty-below", 0.5, "g water per g", "belly, duck and goose conduct less", Mark.PRACTICE
)
STUFFED_BIRD: Final = Rule(
    "stuffed-bird", 1.05, "times as thick", "USDA roasting charts, stuffed and not", Mark.DERIVED
)
MEASURED_DOUBT: Final = Rule(
    "thickness-measured", 0.05, "of the thickness, either way", "no cut is even", Mark.PRACTICE
)


def body_of(piece: Prepared) -> Body:
    """The piece as heat sees it.

    Parameters: piece.
    Returns: its shape and thickest part, skin and cut faces all open; a whole bird is a ball by its
    mass, larger or smaller as its measured wall is thicker or thinner than usual, by the cube root.
    Raises: nothing for a piece that could be prepared.
    Source: shapes by common practice; the ball of a bird by the roasting charts of USDA.
    """
    meat, mm = piece.meat, piece.meat.thickness_mm
    is_bird = piece.cut.build == "wall" and piece.form in ("whole", "stuffed")
    if not is_bird:
        return _body(meat, mm)
    usual_mm = guessed_mm(piece.cut, piece.form, piece.piece_g * (1.0 - meat.bone_share))
    ball_mm = BIRD_MM.value * (piece.piece_g * mm / usual_mm) ** (1 / 3)
    if piece.form == "stuffed" or "stuffed" in piece.asked.treatment:
        ball_mm *= STUFFED_BIRD.value
    return Body("ball", min(ball_mm, MOST_THICKNESS_MM), _diffusivity(meat))


def body_of_meat(meat: Meat) -> Body:
    """The meat of a `weigh` document as heat sees it; its closed faces mean nothing here."""
    return _body(meat, meat.thickness_mm)


def thickness_doubt(piece: Prepared) -> float:
    """How far the thickness may be off, in parts of it either way."""
    return MEASURED_DOUBT.value if piece.guess_mm is None else DOUBT.value


def _body(meat: Meat, mm: float) -> Body:
    return Body(meat.shape, mm, _diffusivity(meat))


def _diffusivity(meat: Meat) -> float:
    return FATTY.value if meat.water_g_g <= FATTY_WATER.value else DIFFUSIVITY.value
