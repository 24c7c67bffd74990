"""The salt of a piece from what happened: when it went in, how cold it was, when it came out."""

from collections.abc import Sequence
from dataclasses import dataclass

from pantry_core.errors import within
from pantry_core.salt.properties import LEAST_C, MOST_C, at_temperature


@dataclass(frozen=True, slots=True)
class Reading:
    """A temperature from an hour after the piece went in, until the next reading [h, °C]."""

    after_h: float
    temperature_c: float


def hours_at_4_c(hours: float, readings: Sequence[Reading]) -> float:
    """How long the same way would have taken at 4 °C.

    Parameters: hours since the piece went in, 0 to a year; readings in order; before the first it
    was 4 °C. A reading outside 0 to 15 °C counts as the nearer end: frozen meat stands still, and
    meat that warm is past saving.
    Returns: hours at 4 °C [h].
    Raises: OutOfRange.
    Source: diffusivity as T over the viscosity of water (derived).

    >>> hours_at_4_c(24.0, [])
    24.0
    >>> 26 < hours_at_4_c(24.0, [Reading(12.0, 10.0)]) < 27
    True
    """
    within("hours", hours, 0.0, 24.0 * 366, "h")
    total, since, pace = 0.0, 0.0, 1.0
    for reading in readings:
        until = min(max(reading.after_h, since), hours)
        total += (until - since) * pace
        clipped = min(max(reading.temperature_c, LEAST_C), MOST_C)
        since, pace = until, at_temperature(1.0, clipped)
    return total + (hours - since) * pace
