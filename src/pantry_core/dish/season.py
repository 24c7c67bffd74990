"""How long what is only seasoned lies in its cure, where nobody says."""

import numpy as np

from pantry_core.dish.piece import Prepared
from pantry_core.mixes.mix import mixed
from pantry_core.mixes.readiness import even_pct, stages
from pantry_core.mixes.request import WeighRequest
from pantry_core.mixes.weigh import judged_of
from pantry_core.routes.lying import HISTAMINE_H, LATE
from pantry_core.routes.ways import Way
from pantry_core.rules.constants import SEASONED_SHARE
from pantry_core.salt.request import SaltRequest
from pantry_core.salt.travel import followed

OVERNIGHT_H, PIECES_H, SLICES_H = (12.0, 15.0, 18.0), (2.0, 4.0, 6.0), (0.5, 1.0, 1.5)
"""What is seasoned in a timed brine: whole birds and roasts overnight, pieces, slices [h]
(common practice)."""
DRY_H = (12.0, 24.0, 72.0)
"""What is seasoned in a bag with its cure: roasts [h] (common practice, as of a dry brine)."""


def season_window(request: WeighRequest, piece: Prepared, way: Way) -> tuple[float, float, float]:
    """How long what is seasoned lies where nobody says.

    Parameters: request; its piece, prepared; way.
    Returns: shortest, usual, longest [h].
    Raises: OutOfRange.
    Source: common practice; of an even brine by the model of the salt.
    """
    if way.window_h is not None:
        least, usual, most = way.window_h
        if piece.meat.species == "mackerel":
            usual = min(usual, HISTAMINE_H)
        return least, usual, most
    if way.timing == "lift" and not way.heaped:
        return SLICES_H if piece.is_thin else PIECES_H if piece.is_small else OVERNIGHT_H
    if way.group == "Dry":
        return PIECES_H if piece.is_small else OVERNIGHT_H if way.heaped else DRY_H
    if way.group == "Needle":
        return OVERNIGHT_H
    judged = judged_of(request)
    caution_h = 24.0 * judged.raw.caution.value if judged.raw else 48.0
    hours = _until_the_mean_has_it(request, caution_h)
    return (1.0 - LATE) * hours, hours, (1.0 + LATE) * hours


def _until_the_mean_has_it(request: WeighRequest, most_h: float) -> float:
    """When the average has 70 % of its even value, at most so long [h]."""
    mix = mixed(request)
    even = even_pct(request, mix)
    if even <= 0 or mix.salt == 0 or not 0.0 <= request.temperature_c <= 15.0:
        return most_h
    journey = followed(
        SaltRequest.model_construct(
            meat=request.meat,
            temperature_c=request.temperature_c,
            diffusivity_m2_s=None,
            start_pct=request.meat.own_salt_pct,
            stages=tuple(stages(request, mix, most_h, None)),
        )
    )
    means = np.asarray(journey.mean_pct) / even
    if means[-1] <= SEASONED_SHARE.value:
        return most_h
    return float(np.interp(SEASONED_SHARE.value, means, np.asarray(journey.hours)))
