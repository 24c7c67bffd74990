"""From a request to a weigh-out sheet: the masses first, then every figure from the masses."""

from pantry_core.errors import OutOfRange
from pantry_core.mixes.cautions import cautions
from pantry_core.mixes.counting import count_nitrate, count_nitrite, limits_for
from pantry_core.mixes.mix import Mix, mixed
from pantry_core.mixes.readiness import readiness
from pantry_core.mixes.request import WeighRequest
from pantry_core.mixes.result import Line, Nitrite, Pickle, Salt, WeighOut
from pantry_core.mixes.strength import brine_density_g_ml, salometer_degrees
from pantry_core.salt.request import SATURATED_G_G


def weigh(request: WeighRequest) -> WeighOut:
    """Work out what to weigh, how salty it gets, and its nitrite against the limit.

    Parameters: request; its fields carry their units and ranges, checked when it was made.
    Returns: the sheet; masses [g], shares [%], nitrite [mg/kg], times [d], not rounded. Going over
    a limit, and salt that does not dissolve, are notices of level stop.
    Raises: nothing for a request that could be made.
    Source: mass balance (derived); counts of FSIS Directive 7620.3 (from memory); time by the
    model of the salt's way.

    >>> from pantry_core.meat import Meat
    >>> sheet = weigh(WeighRequest(
    ...     profile="us", method="dry-cure", target_salt_pct=2.5, cure={"name": "cure-1"},
    ...     meat=Meat(kind="pork", mass_g=1000.0, thickness_mm=50.8, shape="slab")))
    >>> [(line.name, round(line.grams, 2)) for line in sheet.lines]
    [('salt', 22.75), ('curing-salt', 2.4)]
    """
    mix = mixed(request)
    is_wet = request.is_brine or request.is_needle_alone
    lines = _lines(request, mix)
    pickle = pickle_of(mix, request.temperature_c) if is_wet else None
    salt = salt_of(request, mix)
    nitrite = _nitrite(request, mix)
    ready = readiness(request, mix)
    meat_g = request.meat.salted_g
    return WeighOut(
        lines=lines,
        pickle=pickle,
        salt=salt,
        nitrite=nitrite,
        nitrate=count_nitrate(
            request.profile, request.cure, mix.nitrate,
            meat_g + mix.pickle if request.is_brine else meat_g, is_brine=is_wet,
        ),
        needle_g=request.injection_share * meat_g if request.method == "injection" else None,
        ready=ready,
        notices=cautions(request, mix, lines, salt, nitrite, pickle, ready),
    )  # fmt: skip


def pickle_of(mix: Mix, temperature_c: float) -> Pickle:
    """All of the liquid of a mix, at a temperature [°C]."""
    water_g = mix.liquid_water
    degrees = salometer_degrees(mix.salt, water_g) if water_g > 0 else None
    density = None
    if water_g > 0:
        try:
            density = brine_density_g_ml(mix.salt / (mix.salt + water_g), temperature_c)
        except OutOfRange:
            density = None
    salt_pct = 100.0 * mix.salt / mix.pickle if mix.pickle > 0 else 0.0
    return Pickle(mix.pickle, salt_pct, degrees, density)


def salt_of(request: WeighRequest, mix: Mix) -> Salt:
    """How salty the piece is when all is even; of salt that cannot dissolve, what can [%]."""
    meat = request.meat
    concentration = mix.salt / (mix.liquid_water + meat.water_g_g * meat.salted_g)
    if request.heaped:
        concentration = min(concentration, SATURATED_G_G)
    return Salt(
        target_pct=request.target_salt_pct,
        in_meat_pct=100.0 * concentration * meat.water_g_g,
        water_phase_pct=100.0 * concentration / (1.0 + concentration),
    )


def _lines(request: WeighRequest, mix: Mix) -> tuple[Line, ...]:
    lines = [Line("salt", mix.plain_salt)]
    if mix.water > 0:
        lines.insert(0, Line("water", mix.water))
    if request.cure is not None and request.cure.sizing_share:
        lines.append(Line("curing-salt", mix.curing_salt))
    if mix.sugar > 0:
        lines.append(Line("sugar", mix.sugar))
    return (*lines, *(Line(each.name, each.mass_g) for each in mix.sauces))


def _nitrite(request: WeighRequest, mix: Mix) -> Nitrite:
    cure = request.cure
    is_wet = request.is_brine or request.is_needle_alone
    return count_nitrite(
        limits_for(request.profile, request.meat, is_brine=is_wet),
        nitrite_g=mix.nitrite,
        meat_g=request.meat.salted_g,
        pickle_g=mix.pickle,
        is_brine=request.is_brine,
        needle=request.injection_share if request.method == "injection" else None,
        is_unknown=cure is not None and cure.nitrite_share is None,
    )
