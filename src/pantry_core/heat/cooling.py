"""Cooling stocks and brines in two stages."""

from dataclasses import dataclass
from typing import Literal

from pantry_core.errors import within
from pantry_core.rules.rule import Mark, Rule

_FOOD_CODE = "FDA Food Code 3-501.14"
HOT_C = Rule("cooling-from", 57.0, "°C", _FOOD_CODE, Mark.MEMORY)
WARM_C = Rule("cooling-first-stage", 21.0, "°C", _FOOD_CODE, Mark.MEMORY)
COLD_C = Rule("cooling-second-stage", 5.0, "°C", _FOOD_CODE, Mark.MEMORY)
FIRST_H = Rule("cooling-first-hours", 2.0, "h", _FOOD_CODE, Mark.MEMORY)
ALL_H = Rule("cooling-all-hours", 6.0, "h", _FOOD_CODE, Mark.MEMORY)

Verdict = Literal["on-time", "cold", "too-slow"]


@dataclass(frozen=True, slots=True)
class Cooling:
    """Where a cooling pot stands: hours that are left to the next goal [h], and the goal [°C]."""

    verdict: Verdict
    goal_c: float | None
    left_h: float | None


def cooling(since_h: float, temperature_c: float) -> Cooling:
    """Judge a pot that is cooling.

    Parameters: since_h, hours since it was at 57 °C [h], 0 to 100; temperature_c now [°C], −5 to
    110.
    Returns: whether it is cold, still on time, or too slow: then it is brought back to 74 °C, once,
    or thrown away.
    Raises: OutOfRange.
    Source: FDA Food Code 3-501.14 (from memory): 57 to 21 °C within 2 h, to 5 °C within 6 h in all.

    >>> cooling(1.5, 30.0).left_h, cooling(3.0, 30.0).verdict, cooling(5.0, 4.0).verdict
    (0.5, 'too-slow', 'cold')
    """
    within("since_h", since_h, 0.0, 100.0, "h")
    within("temperature_c", temperature_c, -5.0, 110.0, "°C")
    if temperature_c <= COLD_C.value:
        return Cooling("cold" if since_h <= ALL_H.value else "too-slow", None, None)
    goal, within_h = (WARM_C, FIRST_H) if temperature_c > WARM_C.value else (COLD_C, ALL_H)
    left_h = within_h.value - since_h
    if left_h < 0:
        return Cooling("too-slow", None, None)
    return Cooling("on-time", goal.value, left_h)
