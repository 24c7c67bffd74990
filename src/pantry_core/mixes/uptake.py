"""What the meat of a mix really comes to: by the days that are asked for, or when it is lifted."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from pantry_core.conduction.shells import Vector
from pantry_core.mixes.mix import Mix
from pantry_core.mixes.readiness import even_pct, stages
from pantry_core.mixes.request import WeighRequest
from pantry_core.salt.properties import LEAST_C, MOST_C
from pantry_core.salt.ready import BATHS
from pantry_core.salt.request import MOST_HOURS, Rest, SaltRequest
from pantry_core.salt.travel import End, ended, followed


@dataclass(frozen=True, slots=True)
class Uptake:
    """Salt in the mean when it comes out [%], and that in parts of what it would be when even."""

    mean_pct: float
    share: float


def uptake(request: WeighRequest, mix: Mix) -> Uptake:
    """What the meat takes up until it comes out.

    Parameters: request and its mix.
    Returns: of what must be lifted, and of smoked fish that is kept, by its days, where they are
    given and the model reaches; else of what must be lifted the target; else all of it, as when
    even. Nitrite moves as the salt does.
    Raises: nothing.
    Source: the model of `salt.travel`.
    """
    even = even_pct(request, mix)
    if even <= 0:
        return Uptake(0.0, 1.0)
    matters = request.is_lifted or request.meat.is_kept_smoked
    end = after_days(request, mix) if matters else None
    if end is not None:
        return Uptake(end.mean_pct, min(end.mean_pct / even, 1.0))
    if request.is_lifted:
        share = min(request.target_salt_pct / even, 1.0)
        return Uptake(share * even, share)
    return Uptake(even, 1.0)


def after_days(request: WeighRequest, mix: Mix, rest_h: float = 0.0) -> End | None:
    """The salt of the piece after the days that it is meant to lie.

    Parameters: request and its mix; rest_h, how long it rests afterwards, out of the cure [h].
    Returns: mean, heart and edge [%]; None without days, without salt, and where the model does not
    reach: below 0 °C or above 15 °C, or in a bath out of all proportion.
    """
    if request.method == "mixed-in":
        even = even_pct(request, mix)
        return None if request.days is None or mix.salt == 0 else End(even, even, even, even, even)
    way = None if request.days is None else way_through(request, mix, 24.0 * request.days)
    if way is not None and rest_h > 0.0:
        rest = Rest(kind="rest", hours=min(rest_h, MOST_HOURS))
        way = way.model_copy(update={"stages": (*way.stages, rest)})
    return None if way is None else ended(way)


def edge_over(request: WeighRequest, mix: Mix, hours: Sequence[float]) -> Vector | None:
    """The salt of the outer 5 mm at hours of the cure, the last of them the longest.

    Parameters: request and its mix; hours, ascending, above 0 [h].
    Returns: the average of the outer 5 mm at each of them [%]; None where `after_days` has none.
    """
    way = way_through(request, mix, hours[-1])
    if way is None:
        return None
    journey = followed(way)
    return np.interp(hours, journey.hours, journey.outer_pct)


def way_through(request: WeighRequest, mix: Mix, hours: float) -> SaltRequest | None:
    """What the piece goes through in so many hours; None where no model reaches."""
    if mix.salt == 0 or not LEAST_C <= request.temperature_c <= MOST_C:
        return None
    ratio = mix.liquid_water / (request.meat.water_g_g * request.meat.salted_g)
    in_bath = request.is_brine and mix.liquid_water > 0
    if in_bath and not BATHS[0] <= ratio <= BATHS[-1]:
        return None
    if request.method == "injection" and mix.pickle <= 0:
        return None
    return SaltRequest.model_construct(
        meat=request.meat,
        temperature_c=request.temperature_c,
        diffusivity_m2_s=None,
        start_pct=request.meat.own_salt_pct,
        stages=tuple(stages(request, mix, min(hours, MOST_HOURS), None)),
    )
