"""Whether the heart will be pink: nitrite on its way, and used up as it goes."""

from dataclasses import dataclass
from typing import Literal

from pantry_core.errors import within
from pantry_core.mixes.mix import Mix, mixed
from pantry_core.mixes.readiness import even_pct, readiness, stages
from pantry_core.mixes.request import WeighRequest
from pantry_core.mixes.result import WeighOut
from pantry_core.rules.rule import Mark, Rule
from pantry_core.salt.properties import NITRITE, at_temperature
from pantry_core.salt.request import SaltRequest
from pantry_core.salt.travel import ended

_LOOSE = "literature on cured colour, loosely"
PINK_PPM = Rule("pink", 40.0, "mg/kg", _LOOSE, Mark.MEMORY)
SHORT_LIFE_D = Rule("nitrite-half-life-short", 3.0, "d", _LOOSE, Mark.MEMORY)
LONG_LIFE_D = Rule("nitrite-half-life-long", 15.0, "d", _LOOSE, Mark.MEMORY)

Colour = Literal["pink", "likely", "grey"]


@dataclass(frozen=True, slots=True)
class Heart:
    """Nitrite at the heart between the slow and the fast end of what is known [mg/kg]."""

    low_ppm: float
    high_ppm: float
    colour: Colour


def heart_colour(request: WeighRequest, sheet: WeighOut, days: float) -> Heart | None:
    """Nitrite at the heart after so many days, and what colour to expect there.

    Parameters: request and its sheet; days in the cure, above 0 and at most 120.
    Returns: nitrite left [mg/kg]; pink when even the low end reaches 40 mg/kg, grey when not even
    the high end does. None without curing salt and where the model does not reach.
    Raises: OutOfRange.
    Source: nitrite moves like salt and is used up with a half-life of 3 to 15 days (from memory,
    loose); decay that is the same everywhere leaves the profile as it is (derived).
    """
    within("days", days, 1e-6, 120.0, "d")
    mix, governing = mixed(request), sheet.nitrite.governing_ppm
    ready = sheet.ready or readiness(request, mix)
    if not mix.nitrite or governing is None or ready is None:
        return None
    low, high = (
        _share_at_heart(request, mix, days, diffusivity.value, ready.lift_h)
        * governing
        * 0.5 ** (days / half_life.value)
        for diffusivity, half_life in ((NITRITE.low, SHORT_LIFE_D), (NITRITE.high, LONG_LIFE_D))
    )
    colour: Colour = "likely"
    if low >= PINK_PPM.value:
        colour = "pink"
    elif high < PINK_PPM.value:
        colour = "grey"
    return Heart(low, high, colour)


def _share_at_heart(
    request: WeighRequest, mix: Mix, days: float, diffusivity: float, lift_h: float | None
) -> float:
    """What the heart has in parts of what it will have when all is even."""
    end = ended(
        SaltRequest(
            meat=request.meat,
            diffusivity_m2_s=at_temperature(diffusivity, request.temperature_c),
            stages=tuple(stages(request, mix, 24.0 * days, lift_h)),
        )
    )
    return end.heart_pct / even_pct(request, mix)
