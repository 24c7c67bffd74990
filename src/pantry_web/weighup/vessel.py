"""Whether a mix fits its vessel, said before the brine is made."""

from dataclasses import dataclass

from pantry_core.dish.cover import covering
from pantry_core.dish.room import fitted
from pantry_core.dish.work import Worked
from pantry_core.mixes.result import WeighOut
from pantry_core.vessels.fit import FitAnswer
from pantry_web.drawings.vessel import VesselPicture, vessel_picture
from pantry_web.pantry.models import Vessel
from pantry_web.pantry.vessels import core_vessel


@dataclass(frozen=True, slots=True)
class InVessel:
    """A mix in its vessel, drawn; `covering` is the sheet for so much liquid that it is covered."""

    name: str
    answer: FitAnswer
    picture: VesselPicture | None
    covering: WeighOut | None


def in_vessel(found: Worked, vessel: Vessel | None) -> InVessel | None:
    """How a mix lies in a vessel, and what would cover it; None without a vessel."""
    chosen = core_vessel(vessel) if vessel else None
    if vessel is None or chosen is None:
        return None
    meat = found.settled.request.meat
    lies = fitted(found.settled.judged, chosen)
    picture = vessel_picture(chosen, lies, meat.mass_g, meat.thickness_mm)
    return InVessel(vessel.name, lies, picture, covering(found.settled, chosen))
