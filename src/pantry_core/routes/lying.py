"""How long a piece lies in its cure and rests afterwards: by the model, a school, or the cook."""

from dataclasses import dataclass
from typing import Final

from pantry_core.errors import within
from pantry_core.routes.ways import Way

REST_H: Final = (12.0, 24.0, 36.0)
"""Shortest, usual and longest rest after the cure [h] (common practice)."""
LATE = 0.1
"""A piece that must come out on time may come out so much earlier or later (common practice)."""


@dataclass(frozen=True, slots=True)
class Lying:
    """How long the piece lies in the cure, shortest, usual and longest, and then rests [h].

    `longest_h` None: as long as the raw clock leaves.
    """

    least_h: float
    usual_h: float
    longest_h: float | None = None
    rest_h: tuple[float, float, float] = REST_H


MIXED_IN: Final = Lying(0.0, 1.0, None, (0.0, 0.0, 24.0))
"""Salt that is mixed into ground meat is in it at once: it waits for nothing (our choice)."""
HISTAMINE_H: Final = 21.0
"""So long at the most fish that forms histamine lies, trimmed and planned within a day [h]."""


def through(way: Way, wait_days: float, lift_h: float | None = None) -> Lying:
    """How long a piece lies that is to be salted through.

    Parameters: way; wait_days, by the cook's school or by the model [d]; lift_h, when it must come
    out to rest, where it must [h].
    Returns: the wait at least, or the window of a method that has one; one that is lifted on time
    lasts until then, and the rest takes what is left of the wait.
    Raises: OutOfRange for a wait over a year.
    Source: common practice.
    """
    wait_h = 24.0 * within("wait_days", wait_days, 0.0, 366.0, "d")
    if way.window_h is not None:
        least, usual, most = way.window_h
        return Lying(least, usual, most)
    if way.timing != "lift":
        return Lying(wait_h, wait_h)
    in_h = wait_h if lift_h is None else lift_h
    least = max(REST_H[0], wait_h - in_h)
    rest_h = (least, max(REST_H[1], least), max(REST_H[2], 1.5 * least))
    return Lying((1.0 - LATE) * in_h, in_h, (1.0 + LATE) * in_h, rest_h)


def kept_days(hours: float, rest_h: tuple[float, float, float]) -> Lying:
    """How long a piece lies by the cook's own word [h]: so long, a tenth more or less at the most.

    >>> kept_days(120.0, (0.0, 2.0, 24.0)).usual_h
    120.0
    """
    spare = max(LATE * hours, min(0.25, hours / 4.0))
    return Lying(hours - spare, hours, hours + spare, rest_h)
