"""From a request to a weigh-out sheet: the masses first, then every figure from the masses."""

from dataclasses import dataclass

from pantry_core.errors import OutOfRange
from pantry_core.mixes.cautions import cautions
from pantry_core.mixes.nitrite import (
    dry_ppm,
    even_ppm,
    judge,
    nitrite_case,
    pickup_ppm,
)
from pantry_core.mixes.readiness import readiness
from pantry_core.mixes.request import WeighRequest
from pantry_core.mixes.result import Line, Nitrate, Nitrite, Pickle, Salt, WeighOut
from pantry_core.mixes.strength import brine_density_g_ml, salometer_degrees
from pantry_core.rules.constants import NITRITE_IN_CURE_1
from pantry_core.rules.profiles import PROFILES


@dataclass(frozen=True, slots=True)
class Mix:
    """Masses for the scale [g]; `salt_too_much`: what curing salt brings over the target."""

    water: float
    plain_salt: float
    curing_salt: float
    sugar: float
    salt_too_much: float

    @property
    def nitrite(self) -> float:
        """Sodium nitrite [g]."""
        return self.curing_salt * NITRITE_IN_CURE_1.value

    @property
    def salt(self) -> float:
        """All sodium chloride, that of the curing salt included [g]."""
        return self.plain_salt + self.curing_salt - self.nitrite

    @property
    def pickle(self) -> float:
        """All of the liquid with what is dissolved in it [g]."""
        return self.water + self.plain_salt + self.curing_salt + self.sugar


def weigh(request: WeighRequest) -> WeighOut:
    """Work out what to weigh, how salty it gets, and its nitrite against the limit.

    Parameters: request; its fields carry their units and ranges, checked when it was made.
    Returns: the sheet; masses [g], shares [%], nitrite [mg/kg], times [d], not rounded. Going over
    a limit, and salt that does not dissolve, are notices of level stop.
    Raises: nothing for a request that could be made.
    Source: even brine and dry cure by mass balance (derived); counts of FSIS Directive 7620.3
    (from memory); time by the model of the salt's way.

    >>> from pantry_core.meat import Meat
    >>> sheet = weigh(WeighRequest(
    ...     profile="us", method="dry-cure", target_salt_pct=2.5, cure={"name": "cure-1"},
    ...     meat=Meat(kind="pork", mass_g=1000.0, thickness_mm=50.8, shape="slab")))
    >>> [(line.name, round(line.grams, 2)) for line in sheet.lines]
    [('salt', 22.75), ('curing-salt', 2.4)]
    """
    mix = mixed(request)
    lines = [Line("salt", mix.plain_salt)]
    if request.is_brine:
        lines.insert(0, Line("water", mix.water))
    if request.cure is not None:
        lines.append(Line("curing-salt", mix.curing_salt))
    if mix.sugar > 0:
        lines.append(Line("sugar", mix.sugar))
    pickle = _pickle(request, mix) if request.is_brine else None
    salt = _salt(request, mix)
    nitrite = _nitrite(request, mix)
    ready = readiness(request, mix.salt)
    nitrate_limit = PROFILES[request.profile].nitrate_brine if request.is_brine else None
    return WeighOut(
        lines=tuple(lines),
        pickle=pickle,
        salt=salt,
        nitrite=nitrite,
        nitrate=Nitrate(0.0, nitrate_limit.value if nitrate_limit else None, "none"),
        needle_g=None,
        ready=ready,
        notices=cautions(request, mix.salt, mix.salt_too_much, lines, salt, nitrite, pickle, ready),
    )


def mixed(request: WeighRequest) -> Mix:
    """Masses for a request, solved so that target and ingoing nitrite are met together.

    Parameters: request, as for `weigh`.
    Returns: the masses [g].
    Raises: nothing for a request that could be made.
    Source: mass balance (derived). With p the asked-for share of nitrite and n that of the curing
    salt, cure · n = p · (meat + water + all salt + sugar + cure · n), for the nitrite itself is
    part of the pickle; in a dry cure cure · n = p · meat.
    """
    meat_g = request.meat.salted_g
    water = request.water_g if request.is_brine and request.water_g is not None else 0.0
    salt = request.target_salt_pct / 100.0 * (meat_g + water)
    sugar = request.sugar_pct / 100.0 * (meat_g + water)
    curing_salt = 0.0
    nitrite_share = NITRITE_IN_CURE_1.value
    if request.cure is not None:
        asked = request.cure.ingoing_ppm * 1e-6
        if request.is_brine:
            curing_salt = (
                asked * (meat_g + water + salt + sugar) / (nitrite_share - asked * nitrite_share)
            )
        else:
            curing_salt = asked * meat_g / nitrite_share
    plain = salt - curing_salt * (1.0 - nitrite_share)
    return Mix(water, max(plain, 0.0), curing_salt, sugar, max(-plain, 0.0))


def _pickle(request: WeighRequest, mix: Mix) -> Pickle:
    try:
        density = brine_density_g_ml(mix.salt / (mix.salt + mix.water), request.temperature_c)
    except OutOfRange:
        density = None
    return Pickle(
        mass_g=mix.pickle,
        salt_pct=100.0 * mix.salt / mix.pickle,
        salometer_deg=salometer_degrees(mix.salt, mix.water),
        density_g_ml=density,
    )


def _salt(request: WeighRequest, mix: Mix) -> Salt:
    meat = request.meat
    concentration = mix.salt / (mix.water + meat.water_g_g * meat.salted_g)
    return Salt(
        target_pct=request.target_salt_pct,
        in_meat_pct=100.0 * concentration * meat.water_g_g,
        water_phase_pct=100.0 * concentration / (1.0 + concentration),
    )


def _nitrite(request: WeighRequest, mix: Mix) -> Nitrite:
    meat = request.meat
    limits = PROFILES[request.profile].nitrite[nitrite_case(meat, is_brine=request.is_brine)]
    even = pickup = dry = None
    if request.is_brine:
        even = governing = even_ppm(mix.nitrite, meat.salted_g, mix.pickle)
        pickup = pickup_ppm(mix.nitrite, mix.pickle)
    else:
        dry = governing = dry_ppm(mix.nitrite, meat.salted_g)
    return Nitrite(
        even_ppm=even,
        pickup_ppm=pickup,
        needle_ppm=None,
        dry_ppm=dry,
        limit_ppm=limits.most.value,
        verdict=judge(governing, limits),
    )
