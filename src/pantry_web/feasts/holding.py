"""How a mix lies in its vessel, and what room it takes in the fridge."""

from dataclasses import dataclass

from pantry_core.routes.step import RouteStep
from pantry_core.routes.steps import CURING
from pantry_core.rules.constants import MEAT_DENSITY
from pantry_core.vessels.fit import FitAnswer
from pantry_core.vessels.fit import Vessel as CoreVessel
from pantry_web.feasts.mixing import Mixed
from pantry_web.pantry.models import Vessel
from pantry_web.pantry.vessels import bare_litres, core_vessel, fitted

COVERS_BY_ROUNDING = 1.001


@dataclass(frozen=True, slots=True)
class Held:
    """A mix in its vessel; `liquid_ml` of the pickle that covers it."""

    vessel: CoreVessel
    name: str
    answer: FitAnswer
    liquid_ml: float
    mass_g: float
    height_mm: float

    @property
    def more(self) -> float | None:
        """By how much the liquid would have to grow to cover, None where that does not help."""
        needs = self.answer.liquid_to_cover_ml
        if self.answer.covered or not self.liquid_ml or needs <= self.liquid_ml:
            return None
        return COVERS_BY_ROUNDING * needs / self.liquid_ml


def held(mixed: Mixed, vessel: Vessel | None) -> Held | None:
    """How a mix lies in a vessel; None without one."""
    found = core_vessel(vessel) if vessel else None
    if vessel is None or found is None:
        return None
    meat = mixed.request.meat
    liquid_ml = liquid_of(mixed)
    answer = fitted(found, meat.mass_g, meat.thickness_mm, liquid_ml)
    return Held(found, vessel.name, answer, liquid_ml, meat.mass_g, meat.thickness_mm)


def liquid_of(mixed: Mixed) -> float:
    """Liquid that lies around the piece [ml]; of a needle's pickle what is left of it."""
    pickle = mixed.sheet.pickle
    if pickle is None or mixed.request.is_needle_alone:
        return 0.0
    left_g = pickle.mass_g - (mixed.sheet.needle_g or 0.0)
    return max(left_g, 0.0) / (pickle.density_g_ml or 1.0)


def fridge_litres(step: RouteStep, mixed: Mixed, vessel: Vessel | None) -> float:
    """Room that a step takes in the fridge [l]; 1 for any other place, which counts pieces."""
    if step.place != "fridge":
        return 1.0
    meat = mixed.request.meat
    if step.kind in CURING or step.kind == "chill-brine":
        lies = held(mixed, vessel)
        if lies is not None:
            return round(lies.answer.fridge_litres, 1)
        if step.kind == "chill-brine":
            return round(liquid_of(mixed) / 1000.0, 1)
        return round((liquid_of(mixed) + 1.3 * meat.mass_g / MEAT_DENSITY.value) / 1000.0, 1)
    return round(bare_litres(meat.mass_g), 1)
