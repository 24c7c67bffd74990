"""From heads to raw weight, by cut."""

from dataclasses import dataclass

from pantry_core.errors import within
from pantry_core.meat import LEAST_FACTOR, MOST_FACTOR
from pantry_core.routes.cut_figures import LOSS, LOSS_BAND
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


@dataclass(frozen=True, slots=True)
class UsualLoss:
    """Which share of a cut is usually trimmed off, and which is lost in cooking [-]."""

    trimmed: float
    cooked_low: float
    cooked_high: float

    @property
    def cooked(self) -> float:
        """The middle of what is lost in cooking [-]."""
        return (self.cooked_low + self.cooked_high) / 2.0


def usual_loss(cut: Cut) -> UsualLoss:
    """Which share of a cut is usually lost on its way.

    Parameters: cut.
    Returns: shares [-].
    Raises: nothing.
    Source: in cooking, what the table's raw and cooked foods have of what is neither water nor
    fat; common practice for a brisket, which is cooked longer, and for what the table lacks.
    """
    is_brisket = cut.id == "brisket"
    off = 0.0 if _is_whole_bird(cut) else (TRIMMED_OFF_BRISKET if is_brisket else TRIMMED_OFF).value
    if cut.kind == "vegetable":
        return UsualLoss(off, 0.0, 0.0)
    if cut.id in LOSS:
        loss = LOSS[cut.id].value
        return UsualLoss(off, loss - LOSS_BAND, loss + LOSS_BAND)
    low, high = BRISKET_LOSS if is_brisket else ROAST_LOSS
    return UsualLoss(off, low.value, high.value)


def _is_whole_bird(cut: Cut) -> bool:
    return cut.kind == "poultry" and cut.bone_share > 0


def servings(
    cut: Cut, heads: int, *, trimmed_left: float = 1.0, cooked_left: float = 1.0
) -> Servings:
    """How much to buy for so many.

    Parameters: cut; heads, 1 to 500; trimmed_left and cooked_left, what a kitchen has left after
    trimming and after cooking, as factors on what is usual [-].
    Returns: weights [g]; what is cooked counts meat without its bone.
    Raises: OutOfRange.
    Source: common practice.

    >>> from pantry_core.routes.cuts import CUTS
    >>> round(servings(CUTS["pork-loin"], 10).trimmed_g)
    2300
    """
    within("heads", heads, 1, MOST_HEADS)
    if cut.kind == "vegetable":
        each = VEGETABLE
    elif cut.id == "brisket":
        each = BRISKET
    elif _is_whole_bird(cut):
        each = WHOLE_BIRD
    else:
        each = BONE_IN if cut.bone_share > 0 else BONELESS
    loss = usual_loss(cut)
    trimmed_g = heads * each.value
    meat_g = trimmed_g * (1.0 - cut.bone_share)
    return Servings(
        trimmed_g,
        bought_for(cut, trimmed_g, trimmed_left=trimmed_left),
        meat_g * _left(loss.cooked_high, cooked_left),
        meat_g * _left(loss.cooked_low, cooked_left),
        each.basis,
    )


def bought_for(cut: Cut, trimmed_g: float, *, trimmed_left: float = 1.0) -> float:
    """What to buy for a weight after trimming.

    Parameters: cut; trimmed_g [g]; trimmed_left, what a kitchen has left, as a factor on what is
    usual [-].
    Returns: the weight as bought [g].
    Raises: OutOfRange for a factor outside 0.5–2.
    Source: common practice.

    >>> from pantry_core.routes.cuts import CUTS
    >>> round(bought_for(CUTS["brisket"], 1700.0))
    2000
    """
    return trimmed_g / _left(usual_loss(cut).trimmed, trimmed_left)


def _left(lost: float, factor: float) -> float:
    """What is left in a kitchen that has so many times as much left as is usual [-]."""
    return min((1.0 - lost) * within("factor", factor, LEAST_FACTOR, MOST_FACTOR), 1.0)
