"""How strong a salt solution is."""

from math import exp

from pantry_core.errors import within
from pantry_core.rules.constants import SATURATION

DENSITY_LEAST_C, DENSITY_MOST_C = 0.0, 40.0


def salometer_degrees(salt_g: float, water_g: float) -> float:
    """Salometer reading of salt in water; 100 degrees is saturated at 15.6 °C.

    Parameters: salt_g [g], 0 or more; water_g [g], above 0.
    Returns: degrees; plain arithmetic, above 100 where it cannot dissolve.
    Raises: OutOfRange for a negative salt or water that is not above zero.
    Source: the salometer scale, 26.4 g of salt per 100 g of saturated brine (from memory).

    >>> round(salometer_degrees(26.4, 73.6))
    100
    """
    return 100.0 * _share(salt_g, water_g) / SATURATION.value


def dissolves(salt_g: float, water_g: float) -> bool:
    """Whether all of the salt can dissolve: its share of salt and water is 0.264 at most.

    Parameters and errors as in `salometer_degrees`.

    >>> dissolves(20, 80), dissolves(30, 70)
    (True, False)
    """
    return _share(salt_g, water_g) <= SATURATION.value


def brine_density_g_ml(salt_share: float, temperature_c: float) -> float:
    """Density of a sodium chloride solution.

    Parameters: salt_share [g salt per g of solution], 0 to 0.264; temperature_c [°C], 0 to 40.
    Returns: density [g/ml].
    Raises: OutOfRange outside these ranges; nothing is extrapolated.
    Source: Laliberté and Cooper, J. Chem. Eng. Data 49 (2004) 1141, coefficients for sodium
    chloride and the water density given there (from memory; agrees with the CRC Handbook at 20 °C
    within 0.001).

    >>> round(brine_density_g_ml(0.10, 20.0), 3)
    1.071
    """
    within("salt_share", salt_share, 0.0, SATURATION.value)
    t = within("temperature_c", temperature_c, DENSITY_LEAST_C, DENSITY_MOST_C, "°C")
    water = (
        ((((-2.8054253e-10 * t + 1.0556302e-7) * t - 4.6170461e-5) * t - 0.0079870401) * t
         + 16.945176) * t + 999.83952
    ) / (1.0 + 0.01687985 * t)  # fmt: skip
    apparent = (
        (-0.00433 * salt_share + 0.06471)
        * exp(1e-6 * (t + 3315.6) ** 2)
        / (salt_share + 1.01660 + 0.014624 * t)
    )
    return 1.0 / ((1.0 - salt_share) / water + salt_share / apparent) / 1000.0


def _share(salt_g: float, water_g: float) -> float:
    within("salt_g", salt_g, 0.0, 1e9, "g")
    within("water_g", water_g, 1e-9, 1e9, "g")
    return salt_g / (salt_g + water_g)
