"""Readings of several spots: the coolest counts, for that is where it is least done."""

from collections.abc import Sequence

from pantry_core.heat.forecast import Reading
from pantry_core.rules.rule import Mark, Rule

SPOTS_MIN = Rule("spots-within", 10.0, "min", "readings of one look around", Mark.PRACTICE)
SPOT_RISES_MOST = Rule(
    "spot-rises-most", 2.0, "°C a minute", "no spot of a piece warms faster", Mark.PRACTICE
)


def coolest_spot(readings: Sequence[Reading]) -> float | None:
    """What counts of what was read at the heat: the last, or a cooler spot just before it.

    Parameters: readings, in order [h, °C].
    Returns: the lowest of the last and of those within ten minutes before it that are cooler than
    one spot could have been [°C]; None without readings.
    Source: common practice.

    >>> coolest_spot([Reading(1.0, 66.0), Reading(1.03, 76.0)])
    66.0
    >>> coolest_spot([Reading(1.0, 70.0), Reading(1.1, 74.0)])
    74.0
    """
    if not readings:
        return None
    last = readings[-1]
    counting = [last.inside_c]
    for each in readings[:-1]:
        apart_min = 60.0 * (last.at_h - each.at_h)
        rise_c = last.inside_c - each.inside_c
        if apart_min <= SPOTS_MIN.value and rise_c > SPOT_RISES_MOST.value * apart_min:
            counting.append(each.inside_c)
    return min(counting)
