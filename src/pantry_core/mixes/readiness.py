"""When the piece of a weigh-out is ready, by the model of the salt."""

from pantry_core.errors import OutOfRange
from pantry_core.mixes.request import WeighRequest
from pantry_core.mixes.result import Ready
from pantry_core.salt.properties import LEAST_C, MOST_C
from pantry_core.salt.ready import COOKED, EVEN, RAW_FISH, Supply, Wait, wait
from pantry_core.salt.request import SATURATED_G_G, Brine, Dry, Stage


def readiness(request: WeighRequest, salt_g: float) -> Ready | None:
    """How long the piece takes.

    Parameters: request; salt_g, all sodium chloride of the mix [g].
    Returns: days until the least salty point has 70 % of its even value (85 % for fish eaten raw),
    with the band of the diffusivity, and until it has 85 %; None where no salt is aimed at, where
    the model does not reach (below 0 °C or above 15 °C, a bath out of all proportion) and where the
    salt is more than the juice dissolves.
    Raises: nothing for a request that could be made.
    Source: rule by common practice on Fick's second law (see `salt.ready`).
    """
    if request.target_salt_pct == 0 or not LEAST_C <= request.temperature_c <= MOST_C:
        return None
    raw_fish = request.meat.kind == "fish" and request.meat.will_be == "raw"
    ready = _wait(request, salt_g, (RAW_FISH if raw_fish else COOKED).value)
    even = _wait(request, salt_g, EVEN.value)
    if ready is None or even is None:
        return None
    return Ready(ready.days, even.days, ready.days_low, ready.days_high)


def stage(request: WeighRequest, salt_g: float, hours: float) -> Stage:
    """The mix as a stage of the salt's way, so many hours long."""
    if request.is_brine and request.water_g is not None:
        return Brine(kind="brine", hours=hours, water_g=request.water_g, salt_g=salt_g)
    return Dry(kind="dry", hours=hours, salt_g=salt_g)


def _wait(request: WeighRequest, salt_g: float, share: float) -> Wait | None:
    meat = request.meat
    water_in_meat_g = meat.water_g_g * meat.salted_g
    supply: Supply = "bath" if request.is_brine else "dry"
    if request.is_brine:
        ratio = (request.water_g or 0.0) / water_in_meat_g
    else:
        ratio = salt_g / water_in_meat_g / SATURATED_G_G
    try:
        return wait(meat, supply, ratio, share, request.temperature_c)
    except OutOfRange:
        return None
