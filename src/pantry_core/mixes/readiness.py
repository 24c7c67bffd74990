"""When the piece of a weigh-out is ready, by the model of the salt."""

from pantry_core.errors import OutOfRange
from pantry_core.mixes.mix import Mix, mixed
from pantry_core.mixes.request import WeighRequest
from pantry_core.mixes.result import Ready
from pantry_core.rules.constants import SATURATION
from pantry_core.salt.properties import LEAST_C, MOST_C
from pantry_core.salt.ready import COOKED, EVEN, RAW_FISH, Supply, Wait, wait
from pantry_core.salt.request import SATURATED_G_G, Brine, Dry, Needle, Rest, Stage
from pantry_core.salt.timed import LiftWait, lift_fraction, lift_wait, needle_wait


def readiness(request: WeighRequest, mix: Mix) -> Ready | None:
    """How long the piece takes.

    Parameters: request and its mix.
    Returns: days until the least salty point has 70 % of its even value (85 % for fish eaten raw),
    with the band of the diffusivity, and until it has 85 %; for a strong brine and a heaped cure
    the hour to lift and the days until, after the rest, the least salty point has that share of the
    mean. None where no salt is aimed at, for what only seasons, for what is ground, into
    which the salt is mixed, where the model does not reach
    (below 0 °C or above 15 °C, a bath out of all proportion), where the salt is more than the juice
    dissolves, and where the brine is too weak to bring the mean to the target.
    Raises: nothing for a request that could be made.
    Source: rule by common practice on Fick's second law (see `salt.ready`, `salt.timed`).
    """
    if request.target_salt_pct == 0 or request.seasons or request.is_mixed_in:
        return None
    if not LEAST_C <= request.temperature_c <= MOST_C:
        return None
    raw_fish = request.meat.kind == "fish" and request.meat.will_be == "raw"
    share = (RAW_FISH if raw_fish else COOKED).value
    try:
        if request.is_lifted:
            return _lifted(request, mix, share)
        ready, even = (_wait(request, mix, each) for each in (share, EVEN.value))
    except OutOfRange:
        return None
    if ready is None or even is None:
        return None
    return Ready(ready.days, even.days, ready.days_low, ready.days_high)


def wait_of(request: WeighRequest) -> Ready | None:
    """How long the salt takes to the heart, whatever the raw clock and the purpose say.

    Parameters, errors and source as in `readiness`.
    """
    through = request.model_copy(update={"purpose": None})
    return readiness(through, mixed(through))


def stages(request: WeighRequest, mix: Mix, hours: float, lift_h: float | None) -> list[Stage]:
    """The mix as stages of the salt's way, so many hours long in all, resting after the lift."""
    in_h = min(hours, lift_h) if lift_h else hours
    found: list[Stage] = []
    water_g, salt_g = mix.liquid_water, mix.salt
    if request.method == "injection":
        part = _needle_part(request, mix)
        salt_pct = min(100.0 * salt_g / mix.pickle, 100.0 * SATURATION.value)
        found.append(Needle(kind="needle", share=request.injection_share, salt_pct=salt_pct))
        water_g, salt_g = (1.0 - part) * water_g, (1.0 - part) * salt_g
    if request.is_needle_alone:
        found.append(Rest(kind="rest", hours=in_h))
    elif request.is_brine and water_g > 0:
        found.append(Brine(kind="brine", hours=in_h, water_g=water_g, salt_g=salt_g))
    else:
        found.append(Dry(kind="dry", hours=in_h, salt_g=salt_g))
    if hours > in_h:
        found.append(Rest(kind="rest", hours=hours - in_h))
    return found


def even_pct(request: WeighRequest, mix: Mix) -> float:
    """Salt of the meat as it was, when all is even, a needle's swelling counted [%].

    Of a heap what the juice dissolves counts.
    """
    meat_g, water_g = request.meat.salted_g, request.meat.water_g_g * request.meat.salted_g
    swollen_g = water_g
    if request.method == "injection":
        swollen_g += _needle_part(request, mix) * mix.liquid_water
    outside_g = 0.0 if request.is_needle_alone else mix.liquid_water - (swollen_g - water_g)
    if request.method == "mixed-in":
        outside_g = 0.0
    concentration = (mix.salt + request.meat.own_salt_g) / (outside_g + swollen_g)
    if request.heaped:
        concentration = min(concentration, SATURATED_G_G)
    return 100.0 * concentration * swollen_g / meat_g


def _needle_part(request: WeighRequest, mix: Mix) -> float:
    """What of the pickle goes in by needle [g/g]."""
    if mix.pickle <= 0:
        return 0.0
    return min(request.injection_share * request.meat.salted_g / mix.pickle, 1.0)


def _lifted(request: WeighRequest, mix: Mix, share: float) -> Ready | None:
    meat = request.meat
    water_in_meat_g = meat.water_g_g * meat.salted_g
    bath = even_pct = None
    if not request.heaped:
        bath = mix.liquid_water / water_in_meat_g
        all_salt_g = mix.salt + meat.own_salt_g
        even_pct = 100.0 * all_salt_g / (mix.liquid_water + water_in_meat_g) * meat.water_g_g

    def found(least: float) -> LiftWait | None:
        own = meat.own_salt_pct
        rest_pct = None if even_pct is None else even_pct - own
        fraction = lift_fraction(meat, request.target_salt_pct - own, rest_pct)
        return lift_wait(meat, bath, fraction, least, request.temperature_c)

    ready, even = found(share), found(EVEN.value)
    if ready is None or even is None:
        return None
    days = ready.wait
    return Ready(days.days, even.wait.days, days.days_low, days.days_high, ready.lift_h)


def _wait(request: WeighRequest, mix: Mix, share: float) -> Wait | None:
    meat = request.meat
    water_in_meat_g = meat.water_g_g * meat.salted_g
    if request.method == "injection":
        part = _needle_part(request, mix)
        if mix.water_short > 0 or (request.cover and part >= 1.0):
            return None
        swollen_g = water_in_meat_g + part * mix.liquid_water
        bath = 0.0 if request.is_needle_alone else (1.0 - part) * mix.liquid_water / swollen_g
        return needle_wait(meat, bath, part, share, request.temperature_c)
    if request.is_brine and mix.liquid_water > 0:
        supply: Supply = "bath"
        ratio = mix.liquid_water / water_in_meat_g
    else:
        supply = "dry"
        ratio = mix.salt / water_in_meat_g / SATURATED_G_G
    return wait(meat, supply, ratio, share, request.temperature_c)
