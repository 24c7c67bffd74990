"""Whether a mix fits its vessel, said before the brine is made."""

from dataclasses import dataclass, replace

from pantry_core.vessels.fit import FitAnswer
from pantry_web.drawings.vessel import VesselPicture, vessel_picture
from pantry_web.feasts.holding import held
from pantry_web.feasts.mixing import House, Mix, Mixed, work_out
from pantry_web.pantry.models import Vessel

MOST_TRIES = 5
"""Salt grows with the water less than in proportion, so covering is tried a few times."""


@dataclass(frozen=True, slots=True)
class InVessel:
    """A mix in its vessel, drawn; `covering` is the sheet for so much liquid that it is covered."""

    name: str
    answer: FitAnswer
    picture: VesselPicture | None
    covering: Mixed | None


def in_vessel(mix: Mix, mixed: Mixed, house: House, vessel: Vessel | None) -> InVessel | None:
    """How a mix lies in a vessel, and what would cover it; None without a vessel."""
    lies = held(mixed, vessel)
    if lies is None:
        return None
    covering, grown = None, lies
    for _ in range(MOST_TRIES):
        if grown.more is None or not mix.water_g:
            break
        mix = replace(mix, water_g=grown.more * mix.water_g)
        covering = work_out(mix, house)
        grown = held(covering, vessel) or grown
    picture = vessel_picture(lies.vessel, lies.answer, lies.mass_g, lies.height_mm)
    return InVessel(lies.name, lies.answer, picture, covering)
