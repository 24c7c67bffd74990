"""The hold that makes a lower temperature as safe, and the hours between cold and hot."""

from dataclasses import dataclass
from math import exp, log
from typing import Final

import numpy as np

from pantry_core.conduction.shells import Vector
from pantry_core.errors import within
from pantry_core.heat.cooling import COLD_C, HOT_C
from pantry_core.quantities import Celsius
from pantry_core.rules.rule import Mark, Rule
from pantry_core.text import say

_APPENDIX_A = "FSIS Appendix A, 6.5-log column"
WARM_FROM_C: Final = Rule("warming-from", 10.0, "°C", "FSIS Appendix A", Mark.MEMORY)
WARM_TO_C: Final = Rule("warming-to", 54.0, "°C", "FSIS Appendix A", Mark.MEMORY)
_TABLE: Final = (
    (54.4, 112.0), (55.0, 89.0), (55.6, 71.0), (56.1, 56.0), (56.7, 45.0), (57.2, 36.0),
    (57.8, 28.0), (58.4, 23.0), (58.9, 18.0), (59.5, 15.0), (60.0, 12.0), (60.6, 9.0),
    (61.1, 8.0), (61.7, 6.0), (62.2, 5.0), (62.8, 4.0),
)  # fmt: skip
_BIRDS: Final = (
    (60.0, 36.0), (62.8, 14.0), (65.6, 5.0), (68.3, 1.5), (71.1, 0.5), (73.9, 0.0),
)  # fmt: skip
_OPENED: Final = ((63.0, 3.0), (66.0, 1.0), (68.0, 17.0 / 60.0), (70.0, 0.0))


def _holds(name: str, rows: tuple[tuple[float, float], ...], source: str) -> tuple[Rule, ...]:
    """The rows of a table, each with its temperature [°C] and its minutes, as rules."""
    return tuple(
        Rule(f"{name}-at-{c:g}", minutes, say("min at {c}", c=Celsius(c)), source, Mark.MEMORY)
        for c, minutes in rows
    )


HOLDS: Final = _holds("hold", _TABLE, _APPENDIX_A)
NOT_INTACT_HOLDS: Final = _holds("not-intact", _OPENED, "FDA Food Code 3-401.11")
BIRD_HOLDS: Final = _holds("bird", _BIRDS, "FSIS Appendix A, poultry, rounded up")
_AT_C: Final = tuple(c for c, _ in (*_TABLE, *_OPENED))
_RULES: Final = (*HOLDS, *NOT_INTACT_HOLDS)
_BIRD_C: Final = tuple(c for c, _ in _BIRDS)
BIRD_LEAST_C: Final = _BIRD_C[0]
"""Below it no hold makes a bird as safe [°C]."""


@dataclass(frozen=True, slots=True)
class Hold:
    """Minutes at a temperature or above: those that make it as safe as 63 °C, and those held.

    `needed` is None below 54.4 °C: no hold makes that as safe.
    """

    needed: float | None
    held: float


def hold_needed_min(inside_c: float) -> float | None:
    """How long a temperature must be held to be as safe as 63 °C with its rest.

    Parameters: inside_c, in the thickest part [°C], 30 to 110.
    Returns: minutes, between the rows of the table on a scale of logarithms; 0 from 70 °C on; None
    below 54.4 °C, where the table ends.
    Raises: OutOfRange.
    Source: FSIS Appendix A, 6.5-log column; FDA Food Code 3-401.11 from 63 °C on (from memory).

    >>> hold_needed_min(60.0), hold_needed_min(52.0), hold_needed_min(74.0)
    (12.0, None, 0.0)
    """
    return _by_table(inside_c, _AT_C, _RULES)


def bird_hold_min(inside_c: float) -> float | None:
    """How long a bird must be held at a temperature to be as safe as at 74 °C.

    Parameters: inside_c, in the thickest part [°C], 30 to 110.
    Returns: minutes, between the rows of the table on a scale of logarithms; 0 from 73.9 °C on;
    None below 60 °C, where the table ends. Not for what is stuffed or ground.
    Raises: OutOfRange.
    Source: FSIS Appendix A, poultry, rounded up (from memory).

    >>> bird_hold_min(71.1), bird_hold_min(59.0), bird_hold_min(74.0)
    (0.5, None, 0.0)
    """
    return _by_table(inside_c, _BIRD_C, BIRD_HOLDS)


def _by_table(inside_c: float, at_c: tuple[float, ...], rules: tuple[Rule, ...]) -> float | None:
    within("inside_c", inside_c, 30.0, 110.0, "°C")
    if inside_c < at_c[0]:
        return None
    if inside_c >= at_c[-1]:
        return 0.0
    row = max(i for i, c in enumerate(at_c) if c <= inside_c)
    here, there = rules[row].value, rules[row + 1].value
    if inside_c == at_c[row] or there == 0.0:
        return here
    part = (inside_c - at_c[row]) / (at_c[row + 1] - at_c[row])
    return exp(log(here) + part * (log(there) - log(here)))


def held_min(hours: Vector, inside_c: Vector, at_c: float) -> float:
    """How long it was at a temperature or above.

    Parameters: hours [h] and inside_c [°C], equal in length, straight between; at_c [°C].
    Returns: minutes.
    Raises: nothing.

    >>> held_min(np.asarray([0.0, 1.0, 2.0]), np.asarray([50.0, 60.0, 50.0]), 55.0)
    60.0
    """
    return 60.0 * _time_above(hours, inside_c, at_c)


def danger_h(hours: Vector, inside_c: Vector) -> float:
    """How long it was neither cold nor hot.

    Parameters: hours [h] and inside_c of the slowest point [°C], equal in length.
    Returns: hours between 10 and 54 °C while it warmed, and between 57 and 5 while it cooled.
    Raises: nothing.
    Source: FSIS Appendix A; FDA Food Code 3-501.14 (from memory).

    >>> danger_h(np.asarray([0.0, 1.0, 2.0]), np.asarray([10.0, 54.0, 54.0]))
    1.0
    """
    total = 0.0
    for left, right, begin, end in zip(
        hours[:-1], hours[1:], inside_c[:-1], inside_c[1:], strict=True
    ):
        pair_h, pair_c = np.asarray([left, right]), np.asarray([begin, end])
        low, high = (
            (WARM_FROM_C.value, WARM_TO_C.value) if end >= begin else (COLD_C.value, HOT_C.value)
        )
        total += _time_above(pair_h, pair_c, low) - _time_above(pair_h, pair_c, high)
    return total


def time_between(hours: Vector, inside_c: Vector, low_c: float, high_c: float) -> float:
    """How long it was between two temperatures.

    Parameters: hours [h] and inside_c [°C], equal in length, straight between; low_c and high_c
    [°C].
    Returns: hours.
    Raises: nothing.

    >>> time_between(np.asarray([0.0, 1.0]), np.asarray([0.0, 100.0]), 10.0, 54.0)
    0.44
    """
    above = _time_above(hours, inside_c, low_c) - _time_above(hours, inside_c, high_c)
    return max(above, 0.0)


def warming_h(hours: Vector, read_c: Vector) -> float:
    """How long what warms has been between cold and hot, by readings that may still follow.

    Parameters: hours [h] and read_c [°C], equal in length.
    Returns: hours between 10 and 54 °C. What was read between them counts as such until the next
    reading: no later reading, from whatever place, makes the time shorter.
    Raises: nothing.
    Source: FSIS Appendix A (from memory).

    >>> warming_h(np.asarray([0.0, 1.0, 1.1]), np.asarray([10.0, 43.0, 70.0]))
    1.1
    """
    low, high = WARM_FROM_C.value, WARM_TO_C.value
    total = 0.0
    for i in range(len(hours) - 1):
        if low <= read_c[i] < high and read_c[i + 1] >= low:
            total += float(hours[i + 1] - hours[i])
        else:
            total += time_between(hours[i : i + 2], read_c[i : i + 2], low, high)
    return total


def _time_above(hours: Vector, inside_c: Vector, at_c: float) -> float:
    """Hours at or above a temperature, straight between the samples."""
    steps = np.diff(hours)
    low = np.minimum(inside_c[:-1], inside_c[1:])
    high = np.maximum(inside_c[:-1], inside_c[1:])
    rise = np.where(high > low, high - low, 1.0)
    part = np.where(high > low, np.clip((high - at_c) / rise, 0.0, 1.0), (low >= at_c) * 1.0)
    return float(steps @ part)
