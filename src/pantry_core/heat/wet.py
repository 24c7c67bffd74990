"""A wet surface: what its water takes away, and the film that it makes of the air around it."""

from dataclasses import dataclass
from functools import lru_cache
from math import exp
from typing import Final

from pantry_core.errors import within
from pantry_core.rules.rule import Mark, Rule

ATMOSPHERE_KPA: Final = 101.325
BOILING_C: Final = 100.0
HOTTEST_WET_C: Final = 190.0
"""No surface with water in it is hotter [°C]."""
PSYCHROMETRIC: Final = Rule(
    "psychrometric", 0.066, "kPa/K", "wet-bulb coefficient of moving air at sea level", Mark.MEMORY
)
LATENT_J_KG: Final = Rule("latent-heat", 2.35e6, "J/kg", "water at 60 to 100 °C", Mark.MEMORY)


@dataclass(frozen=True, slots=True)
class Film:
    """What a surface feels: a temperature outside [°C] through a film [W/m²K].

    `air_c` and `air_film` are what it would feel if it were dry: the difference goes into its
    water.
    """

    outside_c: float
    film: float
    air_c: float
    air_film: float


def saturation_kpa(temperature_c: float) -> float:
    """Pressure of saturated steam.

    Parameters: temperature_c [°C], −30 to 200.
    Returns: pressure [kPa].
    Raises: OutOfRange.
    Source: Buck (1981) to 100 °C, over water, from memory; above it Antoine's equation with the
    constants of Stull (1947) for 99 to 374 °C, from memory.

    >>> round(saturation_kpa(60.0), 1)
    19.9
    """
    within("temperature_c", temperature_c, -30.0, 200.0, "°C")
    if temperature_c <= BOILING_C:
        t = temperature_c
        return 0.61121 * exp((18.678 - t / 234.5) * t / (257.14 + t))
    antoine: float = 10.0 ** (8.14019 - 1810.94 / (244.485 + temperature_c))
    return antoine * 0.133322


def vapour_kpa(air_c: float, humidity_pct: float) -> float:
    """Water vapour in air of a humidity.

    Parameters: air_c [°C], −30 to 600; humidity_pct, in parts of what the air can hold, above
    100 °C in parts of all of it [%].
    Returns: its pressure [kPa].
    Raises: OutOfRange.
    """
    within("humidity_pct", humidity_pct, 0.0, 100.0, "%")
    most = ATMOSPHERE_KPA if air_c >= BOILING_C else saturation_kpa(air_c)
    return humidity_pct / 100.0 * min(most, ATMOSPHERE_KPA)


@lru_cache(maxsize=4096)
def wet_film(air_c: float, film: float, humidity_pct: float, wetness: float) -> Film:
    """The film around a surface that is partly wet, made straight where it comes to rest.

    Parameters: air_c [°C]; film of the dry air [W/m²K]; humidity_pct; wetness, from 0 (dry) to 1.
    Returns: the temperature at which a surface takes no heat and gives none (of a wet one the wet
    bulb), and the film with what evaporates for each degree above it.
    Raises: OutOfRange.
    Source: h(T_air − T) = wetness·h/γ·(p_sat(T) − p_air), the psychrometric balance; its slope.

    >>> round(wet_film(110.0, 15.0, 25.0, 1.0).outside_c)
    68
    """
    within("wetness", wetness, 0.0, 1.0)
    if wetness == 0.0 or film == 0.0:
        return Film(air_c, film, air_c, film)
    from scipy.optimize import brentq  # noqa: PLC0415 - it takes 0.3 s to import

    vapour = vapour_kpa(air_c, humidity_pct)
    gamma = PSYCHROMETRIC.value

    def surplus(surface_c: float) -> float:
        lost = wetness * (saturation_kpa(surface_c) - vapour)
        return gamma * (air_c - surface_c) - lost

    top = air_c if air_c <= BOILING_C else min(air_c, HOTTEST_WET_C)
    rest_c = top if surplus(top) > 0.0 else float(brentq(surplus, -30.0, top, xtol=1e-9))
    step = 0.01
    slope = (saturation_kpa(rest_c) - saturation_kpa(rest_c - step)) / step
    return Film(rest_c, film * (1.0 + wetness * slope / gamma), air_c, film)
