"""What the meat of a mix really comes to: by the days that are asked for, or when it is lifted."""

from dataclasses import dataclass

from pantry_core.mixes.mix import Mix
from pantry_core.mixes.readiness import even_pct, stages
from pantry_core.mixes.request import WeighRequest
from pantry_core.salt.properties import LEAST_C, MOST_C
from pantry_core.salt.ready import BATHS
from pantry_core.salt.request import MOST_HOURS, SaltRequest
from pantry_core.salt.travel import End, ended


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


def after_days(request: WeighRequest, mix: Mix) -> End | None:
    """The salt of the piece after the days that it is meant to lie.

    Returns: mean, heart and edge [%]; None without days, without salt, and where the model does not
    reach: below 0 °C or above 15 °C, or in a bath out of all proportion.
    """
    if request.days is None or mix.salt == 0:
        return None
    ratio = mix.liquid_water / (request.meat.water_g_g * request.meat.salted_g)
    in_bath = request.is_brine and mix.liquid_water > 0
    if not LEAST_C <= request.temperature_c <= MOST_C:
        return None
    if in_bath and not BATHS[0] <= ratio <= BATHS[-1]:
        return None
    if request.method == "injection" and mix.pickle <= 0:
        return None
    hours = min(24.0 * request.days, MOST_HOURS)
    return ended(
        SaltRequest.model_construct(
            meat=request.meat,
            temperature_c=request.temperature_c,
            diffusivity_m2_s=None,
            start_pct=request.meat.own_salt_pct,
            stages=tuple(stages(request, mix, hours, None)),
        )
    )
