"""From heads to raw weight, by cut."""

from dataclasses import dataclass

from pantry_core.errors import within
from pantry_core.routes.cuts import Cut
from pantry_core.rules.rule import Mark, Rule

MOST_HEADS = 500


def _practice(name: str, value: float, unit: str, source: str) -> Rule:
    return Rule(name, value, unit, source, Mark.PRACTICE)


BONELESS = _practice("raw-boneless", 230.0, "g a head", "raw, boneless, trimmed")
BONE_IN = _practice("raw-bone-in", 400.0, "g a head", "raw, bone in, trimmed")
BRISKET = _practice("raw-brisket", 425.0, "g a head", "raw brisket, 400 to 450 g")
WHOLE_BIRD = _practice("raw-whole-bird", 600.0, "g a head", "whole bird, 500 to 700 g")
VEGETABLE = _practice("raw-vegetable", 120.0, "g a head", "a side")

TRIMMED_OFF = _practice("trimmed-off", 0.05, "g/g", "fat and silver skin of a roast")
TRIMMED_OFF_BRISKET = _practice("trimmed-off-brisket", 0.15, "g/g", "fat cap of a brisket")
ROAST_LOSS = (
    _practice("roast-loss-low", 0.20, "g/g", "loss of a roast in cooking"),
    _practice("roast-loss-high", 0.25, "g/g", "loss of a roast in cooking"),
)
BRISKET_LOSS = (
    _practice("brisket-loss-low", 0.35, "g/g", "loss of a brisket in cooking"),
    _practice("brisket-loss-high", 0.45, "g/g", "loss of a brisket in cooking"),
)


@dataclass(frozen=True, slots=True)
class Servings:
    """Raw weight, trimmed and as bought, and what is left when it is cooked [g]."""

    trimmed_g: float
    bought_g: float
    cooked_low_g: float
    cooked_high_g: float
    basis: str


def servings(cut: Cut, heads: int) -> Servings:
    """How much to buy for so many.

    Parameters: cut; heads, 1 to 500.
    Returns: weights [g]; what is cooked counts meat without its bone.
    Raises: OutOfRange.
    Source: common practice.

    >>> from pantry_core.routes.cuts import CUTS
    >>> round(servings(CUTS["pork-loin"], 10).trimmed_g)
    2300
    """
    within("heads", heads, 1, MOST_HEADS)
    is_bird = cut.kind == "poultry" and cut.bone_share > 0
    is_brisket = cut.id == "brisket"
    if cut.kind == "vegetable":
        each = VEGETABLE
    elif is_brisket:
        each = BRISKET
    elif is_bird:
        each = WHOLE_BIRD
    else:
        each = BONE_IN if cut.bone_share > 0 else BONELESS
    off = 0.0 if is_bird else (TRIMMED_OFF_BRISKET if is_brisket else TRIMMED_OFF).value
    low, high = BRISKET_LOSS if is_brisket else ROAST_LOSS
    if cut.kind == "vegetable":
        low = high = _practice("no-loss", 0.0, "g/g", "nothing is lost")
    trimmed_g = heads * each.value
    meat_g = trimmed_g * (1.0 - cut.bone_share)
    return Servings(
        trimmed_g,
        trimmed_g / (1.0 - off),
        meat_g * (1.0 - high.value),
        meat_g * (1.0 - low.value),
        each.basis,
    )
