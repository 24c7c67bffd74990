"""How a mix lies in its vessel, and what room it takes in the fridge."""

from dataclasses import dataclass

from pantry_core.dish import room
from pantry_core.routes.step import RouteStep
from pantry_core.routes.steps import CURING
from pantry_core.vessels.fit import FitAnswer
from pantry_core.vessels.fit import Vessel as CoreVessel
from pantry_web.feasts.mixing import Mixed
from pantry_web.pantry.models import Vessel
from pantry_web.pantry.vessels import core_vessel, fitted

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
    liquid_ml = room.liquid_ml(mixed.judged)
    answer = fitted(found, meat.mass_g, meat.thickness_mm, liquid_ml)
    return Held(found, vessel.name, answer, liquid_ml, meat.mass_g, meat.thickness_mm)


def fridge_litres(step: RouteStep, mixed: Mixed, vessel: Vessel | None) -> float:
    """Room that a step takes in the fridge [l]; 1 for any other place, which counts pieces."""
    if step.place != "fridge":
        return 1.0
    found = core_vessel(vessel) if vessel else None
    return room.fridge_litres(mixed.judged, step.kind, found, is_in_cure=step.kind in CURING)
