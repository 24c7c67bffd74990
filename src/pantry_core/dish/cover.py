"""What a mix would be with so much liquid that its piece is covered."""

from typing import Final

from pantry_core.dish.curing import Settled
from pantry_core.dish.room import more_to_cover
from pantry_core.mixes.result import WeighOut
from pantry_core.mixes.weigh import judged_of, sheet_of
from pantry_core.vessels.fit import Vessel

MOST_TRIES: Final = 5
"""Salt grows with the water less than in proportion, so covering is tried a few times."""


def covering(settled: Settled, vessel: Vessel) -> WeighOut | None:
    """The sheet with so much water that the piece is covered in a vessel.

    Parameters: settled; vessel.
    Returns: the sheet; None where it is covered already, where water does not help, and with a
    recipe, which only a proposal changes.
    Raises: pydantic.ValidationError for more water than `weigh` takes.
    Source: `vessels.fit`.
    """
    if settled.written is not None:
        return None
    judged, is_changed = settled.judged, False
    for _ in range(MOST_TRIES):
        more, water_g = more_to_cover(judged, vessel), judged.request.water_g
        if more is None or not water_g:
            break
        judged = judged_of(judged.request.model_copy(update={"water_g": more * water_g}))
        is_changed = True
    return sheet_of(judged) if is_changed else None
