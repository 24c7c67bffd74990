"""How much a fire asks for until it is done, and how much to have ready beside it."""

from dataclasses import dataclass
from typing import Final

from pantry_core.errors import within
from pantry_core.rules.rule import Mark, Rule

RESERVE: Final = Rule("fuel-reserve", 0.25, "of what it asks for", "wind and rain", Mark.PRACTICE)
AN_HOUR: Final = {
    "smoker": Rule("fuel-smoker", 0.6, "kg of charcoal an hour", "a small smoker", Mark.PRACTICE),
    "fire": Rule("fuel-fire", 2.0, "kg of charcoal an hour", "coals under a spit", Mark.PRACTICE),
}
LEAST_H: Final = 0.5
"""What is done sooner is on the coals that are lit (our own choice)."""
STEP_G: Final = 500.0


@dataclass(frozen=True, slots=True)
class Fuel:
    """Charcoal until it is done, and in reserve [g]."""

    needed_g: float
    reserve_g: float


def fuel_for(place: str, hours: float) -> Fuel | None:
    """How much charcoal a fire asks for.

    Parameters: place, smoker or fire; hours until it is done, at the late end of its band [h].
    Returns: to half a kilo, upwards; None for another place, and for what is soon done.
    Raises: OutOfRange for hours below 0 or over 72.
    Source: common practice.

    >>> fuel_for("fire", 4.0)
    Fuel(needed_g=8000.0, reserve_g=2000.0)
    """
    within("hours", hours, 0.0, 72.0, "h")
    rule = AN_HOUR.get(place)
    if rule is None or hours < LEAST_H:
        return None
    needed_g = 1000.0 * rule.value * hours
    return Fuel(_up(needed_g), _up(RESERVE.value * needed_g))


def _up(grams: float) -> float:
    return STEP_G * -(-grams // STEP_G)
