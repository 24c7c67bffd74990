"""How to split the water of a brine so that it comes out cold: hot, cold and ice."""

from dataclasses import dataclass
from typing import Final

from pantry_core.errors import within
from pantry_core.heat.chill import ChillRequest, Liquid, chill
from pantry_core.rules.constants import FRIDGE_GOAL_C

HOT_SHARE: Final = 1 / 3
"""The part of the water that is heated (common practice)."""
BOILING_C: Final = 95.0
TAP_C: Final = 15.0
FREEZER_C: Final = -18.0
MOST_WATER_G: Final = 1_000_000.0
LEAST_ICE_G: Final = 1.0


@dataclass(frozen=True, slots=True)
class Split:
    """The water of a brine as it is made: hot, cold from the tap, ice [g]."""

    hot_g: float
    cold_g: float
    ice_g: float


def held_back(water_g: float, goal_c: float = FRIDGE_GOAL_C.value) -> Split:
    """Split the water of a brine so that its mix comes to a goal.

    Parameters: water_g, ice included, up to a tonne [g]; goal_c [°C].
    Returns: the split; a third is hot at 95 °C, the tap gives 15 °C, the ice has −18 °C.
    Raises: OutOfRange.
    Source: two answers of `chill`; the ice that a goal takes falls in a straight line with the cold
    water it stands for.

    >>> split = held_back(3000.0)
    >>> round(split.hot_g), round(split.cold_g + split.ice_g)
    (1000, 2000)
    """
    within("water_g", water_g, 1e-3, MOST_WATER_G, "g")
    hot_g = HOT_SHARE * water_g
    rest_g = water_g - hot_g
    hot = Liquid(mass_g=hot_g, temperature_c=BOILING_C)

    def ice_needed_g(cold_g: float) -> float:
        cold = Liquid(mass_g=cold_g, temperature_c=TAP_C) if cold_g > 0 else None
        return chill(ChillRequest(hot=hot, cold=cold, ice=None, goal_c=goal_c)).ice_needed_g

    without_g, with_all_g = ice_needed_g(0.0), ice_needed_g(rest_g)
    slope = (with_all_g - without_g) / rest_g
    cold_g = min(max((rest_g - without_g) / (1.0 + slope), 0.0), rest_g)
    return Split(hot_g, cold_g, max(rest_g - cold_g, LEAST_ICE_G))
