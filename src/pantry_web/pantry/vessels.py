"""From a stored vessel to the core's, and a piece laid into it."""

from pydantic import ValidationError

from pantry_core.vessels.fit import FitAnswer, FitMeat, FitRequest, fit
from pantry_core.vessels.fit import Vessel as CoreVessel
from pantry_web.pantry.models import Vessel

MEASURES = ("length_mm", "width_mm", "diameter_mm", "top_mm", "bottom_mm", "depth_mm", "litres")


def core_vessel(vessel: Vessel) -> CoreVessel | None:
    """A stored vessel as the core's document; None where a measure is lacking."""
    measures = {name: getattr(vessel, name) for name in MEASURES}
    try:
        return CoreVessel.model_validate(
            measures | {"material": vessel.material, "shape": vessel.shape}
        )
    except ValidationError:
        return None


def fitted(vessel: CoreVessel, mass_g: float, height_mm: float, liquid_ml: float) -> FitAnswer:
    """Lay a piece into a vessel: mass [g], height [mm], liquid [ml]."""
    return fit(
        FitRequest(
            meat=FitMeat(mass_g=mass_g, height_mm=height_mm), vessel=vessel, liquid_ml=liquid_ml
        )
    )
