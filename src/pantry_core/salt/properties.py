"""How fast salt moves in meat."""

from dataclasses import dataclass, replace

from pantry_core.errors import within
from pantry_core.meat import Kind
from pantry_core.rules.rule import Mark, Rule

LEAST_C, MOST_C = 0.0, 15.0
"""Temperatures for which the model is used [°C]: meat freezes below, spoils above."""

BOILS_C = 100.0
"""A pot is no hotter [°C]."""

_LITERATURE = "published diffusivities of salt in muscle at 4 °C, loosely"


@dataclass(frozen=True, slots=True)
class Band:
    """A diffusivity at 4 °C and the band in which it lies [m²/s]."""

    usual: Rule
    low: Rule
    high: Rule


def _band(kind: str, usual: float, low: float, high: float) -> Band:
    def rule(name: str, value: float) -> Rule:
        rule_id = f"diffusivity-{kind}-{name}"
        return Rule(rule_id, value * 1e-10, "m²/s", _LITERATURE, Mark.MEMORY)

    return Band(rule("usual", usual), rule("low", low), rule("high", high))


RED_MEAT = _band("red-meat", 2.5, 1.5, 4.0)
POULTRY = _band("poultry", 2.5, 1.5, 4.5)
FISH = _band("fish", 2.0, 1.0, 3.5)
NITRITE = _band("nitrite", 2.5, 1.5, 4.0)


def band_of(kind: Kind, speed: float = 1.0) -> Band:
    """The band of diffusivity for a kind of meat; a vegetable takes that of red meat.

    Parameters: kind; speed, how fast salt goes in as a factor on it [-].
    """
    band = {"poultry": POULTRY, "fish": FISH}.get(kind, RED_MEAT)
    if speed == 1.0:
        return band
    return Band(
        *(replace(rule, value=speed * rule.value) for rule in (band.usual, band.low, band.high))
    )


def water_viscosity_mpa_s(temperature_c: float) -> float:
    """Viscosity of water.

    Parameters: temperature_c [°C], 0 to 100.
    Returns: dynamic viscosity [mPa·s].
    Raises: OutOfRange.
    Source: Kestin, Sokolov and Wakeham, J. Phys. Chem. Ref. Data 7 (1978) 941 (from memory; checked
    against CoolProp: above 40 °C it is up to 3 % too low).

    >>> round(water_viscosity_mpa_s(20.0), 3)
    1.002
    """
    below = 20.0 - within("temperature_c", temperature_c, 0.0, BOILS_C, "°C")
    bend = 1.2364 - 1.37e-3 * below + 5.7e-6 * below**2
    return float(1.002 * 10.0 ** (below / (temperature_c + 96.0) * bend))


def at_temperature(diffusivity_at_4_c: float, temperature_c: float) -> float:
    """Carry a diffusivity from 4 °C to another temperature, as T over the viscosity of water.

    Parameters: diffusivity_at_4_c [m²/s]; temperature_c [°C], 0 to 15.
    Returns: diffusivity [m²/s].
    Raises: OutOfRange.
    Source: Stokes-Einstein (derived).

    >>> at_temperature(2.5e-10, 4.0)
    2.5e-10
    """
    within("temperature_c", temperature_c, LEAST_C, MOST_C, "°C")
    return diffusivity_at_4_c * pace(temperature_c)


def pace(temperature_c: float) -> float:
    """How much faster salt moves than at 4 °C, cold or in a pot.

    Parameters: temperature_c [°C], 0 to 100.
    Returns: a factor on a diffusivity at 4 °C [-].
    Raises: OutOfRange.
    Source: Stokes-Einstein (derived): as T over the viscosity of water. For meat that is cooked
    meanwhile it is a guide, its band twice as wide.

    >>> pace(4.0)
    1.0
    """
    warmth = (temperature_c + 273.15) / 277.15
    return warmth * (water_viscosity_mpa_s(4.0) / water_viscosity_mpa_s(temperature_c))
