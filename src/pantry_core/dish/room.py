"""What room a dish takes in the fridge."""

from pantry_core.mixes.judged import Judged
from pantry_core.rules.constants import MEAT_DENSITY
from pantry_core.rules.rule import Mark, Rule
from pantry_core.vessels.fit import FitAnswer, FitMeat, FitRequest, Vessel, fit

ON_A_TRAY = Rule("room-on-a-tray", 2.0, "times its volume", "a bare piece", Mark.PRACTICE)
IN_A_BOWL = Rule("room-in-a-bowl", 1.5, "times its volume", "in a covered bowl", Mark.PRACTICE)
IN_ITS_LIQUID = Rule("room-in-liquid", 1.3, "times its volume", "under its liquid", Mark.PRACTICE)

COVERS_BY_ROUNDING = 1.001
"""So that what is asked for covers in spite of rounding [-]."""


def fridge_litres(judged: Judged, kind: str, vessel: Vessel | None, *, is_in_cure: bool) -> float:
    """Room that a step takes in the fridge.

    Parameters: judged; kind of the step; vessel, None where none is chosen; is_in_cure, whether the
    piece lies in its cure meanwhile.
    Returns: litres, to a tenth; in its cure that of the vessel.
    Raises: nothing.
    Source: common practice.
    """
    meat = judged.request.meat
    if not is_in_cure and kind != "chill-brine":
        return round(ON_A_TRAY.value * _volume_l(meat.mass_g), 1)
    if vessel is not None:
        return round(fitted(judged, vessel).fridge_litres, 1)
    liquid_l = liquid_ml(judged) / 1000.0
    if kind == "chill-brine":
        return round(liquid_l, 1)
    return round(liquid_l + IN_ITS_LIQUID.value * _volume_l(meat.mass_g), 1)


def fitted(judged: Judged, vessel: Vessel) -> FitAnswer:
    """How a mix lies in a vessel, its liquid around it.

    Parameters: judged; vessel. Returns, errors and source as of `fit`.
    """
    meat = judged.request.meat
    lies = FitMeat(mass_g=meat.mass_g, height_mm=meat.thickness_mm)
    days = judged.request.days
    return fit(
        FitRequest(
            meat=lies, vessel=vessel, liquid_ml=liquid_ml(judged),
            hours=None if not days else 24.0 * days,
            has_cure=judged.nitrite.verdict != "none",
        )
    )  # fmt: skip


def more_to_cover(judged: Judged, vessel: Vessel) -> float | None:
    """By how much the liquid would have to grow to cover the piece.

    Parameters: judged; vessel.
    Returns: the factor [-]; None where it is covered, or where more liquid does not help.
    """
    around_ml, lies = liquid_ml(judged), fitted(judged, vessel)
    if lies.covered or not around_ml or lies.liquid_to_cover_ml <= around_ml:
        return None
    return COVERS_BY_ROUNDING * lies.liquid_to_cover_ml / around_ml


def bowl_litres(mass_g: float) -> float:
    """Room of so much of a side job in its bowl [l]."""
    return round(IN_A_BOWL.value * _volume_l(mass_g), 1)


def liquid_ml(judged: Judged) -> float:
    """Liquid that lies around the piece; of a needle's pickle what is left of it [ml]."""
    pickle = judged.pickle
    if pickle is None or judged.request.is_needle_alone:
        return 0.0
    left_g = pickle.mass_g - (judged.needle_g or 0.0)
    return max(left_g, 0.0) / (pickle.density_g_ml or 1.0)


def _volume_l(mass_g: float) -> float:
    return mass_g / MEAT_DENSITY.value / 1000.0
