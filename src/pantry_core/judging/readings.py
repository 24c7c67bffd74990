"""What was read at the heat: the coolest spot counts, and a hold at less is as safe."""

from collections.abc import Sequence
from typing import Final

from pantry_core.heat.doneness import BIRD_LEAST_C, bird_hold_min, hold_needed_min
from pantry_core.heat.forecast import Reading
from pantry_core.rules.inside import NOT_INTACT, OPENED_LEAST
from pantry_core.rules.rule import Mark, Rule

JUST_AS_HOT: Final = 0.05
"""A reading that is shown as the goal has reached it [°C]."""
ANOTHER_SPOT_C: Final = 0.5
"""What is read so much cooler at the heat is another spot (our choice) [°C]."""
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


def held_as_safe_min(inside_c: float, *, is_bird: bool) -> float | None:
    """How long a bird, or what is not intact, is held at less to be as safe [min].

    Parameters: inside_c [°C]; is_bird, whether the table for birds holds.
    Returns: minutes; None where no hold makes it as safe.
    Raises: OutOfRange. Source: as of the tables of `heat.doneness`.
    """
    if is_bird:
        return bird_hold_min(inside_c) if inside_c >= BIRD_LEAST_C else None
    return hold_needed_min(inside_c) if inside_c >= OPENED_LEAST.value else None


def is_held(
    readings: Sequence[Reading],
    safe_c: float | None,
    *,
    is_bird: bool = False,
    cools: bool = False,
) -> bool:
    """Whether a lower temperature was held as long as makes it as safe.

    Parameters: readings, in order [h, °C]; safe_c, what the piece needs at once [°C]; is_bird,
    whether the table for birds holds; cools, whether it has left the heat.
    Returns: whether two of them show it, of a bird and of what is not intact; never for what needs
    another temperature. A lower reading at the heat is of a cooler spot, of which those before it
    say nothing.
    Raises: OutOfRange.
    Source: FDA Food Code 3-401.11; FSIS Appendix A, poultry (from memory).
    """
    if not is_bird and safe_c != NOT_INTACT.value:
        return False
    for i, first in enumerate(readings):
        coolest = first.inside_c
        for last in readings[i + 1 :]:
            if last.inside_c < coolest - ANOTHER_SPOT_C and not cools:
                break
            coolest = min(coolest, last.inside_c)
            needed = held_as_safe_min(coolest, is_bird=is_bird)
            if needed is not None and 60.0 * (last.at_h - first.at_h) >= needed:
                return True
    return False
