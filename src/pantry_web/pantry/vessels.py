"""From a stored vessel to the core's, and a piece laid into it."""

from pydantic import ValidationError

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
