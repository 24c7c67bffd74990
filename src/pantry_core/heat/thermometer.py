"""A thermometer checked in ice and in boiling water, by the height above the sea."""

from dataclasses import dataclass
from typing import Final, Literal

from pantry_core.errors import within
from pantry_core.heat.wet import ATMOSPHERE_KPA, saturation_kpa
from pantry_core.quantities import Rise
from pantry_core.rules.rule import Mark, Rule
from pantry_core.text import Text, say

Verdict = Literal["right", "off", "broken"]

RIGHT_C: Final = Rule(
    "thermometer-right", 1.0, "°C either way", "USDA, kitchen thermometers", Mark.MEMORY
)
BROKEN_C: Final = Rule(
    "thermometer-broken", 5.0, "°C either way", "what is further off is not put right",
    Mark.PRACTICE,
)  # fmt: skip
LOWEST_M, HIGHEST_M = -500.0, 6000.0


def boiling_c(height_m: float) -> float:
    """Where water boils.

    Parameters: height_m above the sea [m], −500 to 6000.
    Returns: the temperature in the standard atmosphere [°C].
    Raises: OutOfRange.
    Source: ICAO standard atmosphere (from memory); the pressure of steam of `heat.wet`.

    >>> round(boiling_c(0.0), 1), round(boiling_c(1500.0), 1)
    (100.0, 95.0)
    """
    within("height_m", height_m, LOWEST_M, HIGHEST_M, "m")
    pressure = ATMOSPHERE_KPA * (1.0 - 2.25577e-5 * height_m) ** 5.25588
    from scipy.optimize import brentq  # noqa: PLC0415 - it takes 0.3 s to import

    return float(brentq(lambda c: saturation_kpa(c) - pressure, 60.0, 110.0, xtol=1e-6))


@dataclass(frozen=True, slots=True)
class Checked:
    """How far a thermometer is off in ice and in boiling water [°C], and what water boils at."""

    off_ice_c: float
    off_boiling_c: float
    boiling_c: float
    verdict: Verdict

    @property
    def said(self) -> Text:
        """What it is good for, as a sentence."""
        if self.verdict == "right":
            return say("It is right within {right_c}.", right_c=Rise(RIGHT_C.value))
        if self.verdict == "off":
            return say("It is off, and put right from now on.")
        return say(
            "It is off by more than {broken_c}: go by another one.",
            broken_c=Rise(BROKEN_C.value),
        )

    def put_right(self, celsius: float) -> float:
        """A reading put right, straight between ice and boiling water; as it is where it is right.

        Parameters: celsius that was read [°C].
        """
        if self.verdict != "off":
            return celsius
        shown = self.boiling_c + self.off_boiling_c - self.off_ice_c
        return (celsius - self.off_ice_c) * self.boiling_c / shown


def checked(ice_c: float, boiling_read_c: float, height_m: float) -> Checked:
    """Check a thermometer by what it shows in ice and in boiling water.

    Parameters: ice_c and boiling_read_c that it shows [°C]; height_m above the sea [m].
    Returns: how far it is off, and whether it is right, can be put right, or is broken.
    Raises: OutOfRange for readings that are of no ice and no boiling water.
    Source: USDA, kitchen thermometers: 0 °C in crushed ice, and boiling water by the height (from
    memory).

    >>> told = checked(1.0, 97.0, 0.0)
    >>> told.verdict, round(told.put_right(49.0), 1)
    ('off', 50.0)
    """
    within("ice_c", ice_c, -15.0, 15.0, "°C")
    boils_c = boiling_c(height_m)
    within("boiling_read_c", boiling_read_c, boils_c - 15.0, boils_c + 15.0, "°C")
    off = ice_c, boiling_read_c - boils_c
    worst = max(abs(each) for each in off)
    verdict: Verdict = "right" if worst <= RIGHT_C.value else "off"
    return Checked(*off, boils_c, "broken" if worst > BROKEN_C.value else verdict)
