"""Salt and nitrite on their way into the piece, by the hours of its steps."""

from collections.abc import Sequence

import numpy as np

from pantry_core.conduction.shells import Vector
from pantry_core.dish.curing import Settled
from pantry_core.dish.stays.laid import Laid
from pantry_core.history.stays import NOTHING, Held, Soaked
from pantry_core.mixes.protection import around_ppm
from pantry_core.mixes.readiness import even_pct
from pantry_core.mixes.uptake import way_through
from pantry_core.salt.request import MOST_HOURS, Rest, Soak, Stage
from pantry_core.salt.travel import Journey, followed

SOAKS_IN: float = 2.0
"""A soak takes so much water for each part of meat (common practice)."""


def lies_in_of(settled: Settled) -> str:
    """What of the mix lies around the piece in its cure."""
    request, way = settled.request, settled.way
    if way is None:
        return ""
    if way.group in ("Marinade", "Side"):
        return way.id
    if request.is_needle_alone:
        return "pickle by needle"
    return "brine" if request.is_brine else "salt"


def soaked(
    settled: Settled, curing: Laid | None, after: Sequence[Laid], even_ppm: float | None = None
) -> Soaked | None:
    """How salt and nitrite get in.

    Parameters: settled, its cure; curing, the step in the cure; after, the steps between it and the
    heat; even_ppm, nitrite when even, None: by the sheet [mg/kg].
    Returns: averages and least and outermost points over the hours; None without a cure, and where
    the model does not reach.
    Raises: OutOfRange.
    Source: the model of `salt.travel`; nitrite moves as the salt does.
    """
    request, mix = settled.request, settled.judged.mix
    if curing is None or curing.hours <= 0:
        return None
    if request.is_mixed_in:
        return _mixed_in(settled, curing, after, even_ppm)
    way = way_through(request, mix, curing.hours)
    if way is None:
        return None
    stages: list[Stage] = list(way.stages)
    stages.extend(_out_of_it(each, request.meat.mass_g) for each in after)
    journey = followed(way.model_copy(update={"stages": tuple(stages)}))
    even = even_pct(request, mix)
    ppm = around_ppm(settled.judged.nitrite) if even_ppm is None else even_ppm
    own_pct = request.meat.own_salt_pct
    share = np.clip((np.asarray(journey.mean_pct) - own_pct) / max(even - own_pct, 1e-9), 0.0, 1.0)
    return Soaked(
        hours=curing.from_h + np.asarray(journey.hours),
        salt_pct=np.asarray(journey.mean_pct),
        nitrite_ppm=ppm * share,
        even_pct=even,
        least_pct=_least(journey),
        edge_pct=np.asarray(journey.outer_pct),
        even_ppm=ppm,
    )


def _mixed_in(
    settled: Settled, curing: Laid, after: Sequence[Laid], even_ppm: float | None
) -> Soaked:
    """Salt that is mixed into ground meat: all of it, everywhere, at once."""
    even = even_pct(settled.request, settled.judged.mix)
    ppm = around_ppm(settled.judged.nitrite) if even_ppm is None else even_ppm
    hours = np.asarray([curing.from_h, after[-1].to_h if after else curing.to_h])
    pct = np.full(2, even)
    return Soaked(hours, pct, np.full(2, ppm), even, pct, pct, ppm)


def _out_of_it(laid: Laid, mass_g: float) -> Stage:
    hours = min(max(laid.hours, 1e-6), MOST_HOURS)
    if laid.step is not None and laid.step.id == "soak":
        return Soak(kind="soak", hours=hours, water_g=SOAKS_IN * mass_g, changes=0)
    return Rest(kind="rest", hours=hours)


def _least(journey: Journey) -> Vector:
    return np.asarray(np.minimum(journey.heart_pct, journey.layers_pct.min(axis=1)))


def held_at(soak: Soaked | None, hour: float) -> tuple[Held, Held]:
    """Salt [% of the meat] and nitrite [mg/kg] in the piece at an hour from its purchase [h]."""
    if soak is None or hour < float(soak.hours[0]):
        return NOTHING, NOTHING
    least, edge, mean = (
        float(np.interp(hour, soak.hours, values))
        for values in (soak.least_pct, soak.edge_pct, soak.salt_pct)
    )
    ppm_per_pct = soak.even_ppm / max(soak.even_pct, 1e-9)
    salt = Held(least, edge, mean)
    return salt, Held(min(ppm_per_pct * least, soak.even_ppm), ppm_per_pct * edge,
                      float(np.interp(hour, soak.hours, soak.nitrite_ppm)))  # fmt: skip
