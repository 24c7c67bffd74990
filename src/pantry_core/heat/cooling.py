"""Cooling what was hot: stocks, brines, roasts, and whole cured pieces."""

from dataclasses import dataclass
from typing import Literal

from pantry_core.errors import within
from pantry_core.rules.rule import Mark, Rule

_FOOD_CODE = "FDA Food Code 3-501.14"
_APPENDIX_B = "FSIS Appendix B, cured whole pieces"
HOT_C = Rule("cooling-from", 57.0, "°C", _FOOD_CODE, Mark.MEMORY)
WARM_C = Rule("cooling-first-stage", 21.0, "°C", _FOOD_CODE, Mark.MEMORY)
COLD_C = Rule("cooling-second-stage", 5.0, "°C", _FOOD_CODE, Mark.MEMORY)
FIRST_H = Rule("cooling-first-hours", 2.0, "h", _FOOD_CODE, Mark.MEMORY)
ALL_H = Rule("cooling-all-hours", 6.0, "h", _FOOD_CODE, Mark.MEMORY)
CURED_HOT_C = Rule("cooling-cured-from", 54.0, "°C", _APPENDIX_B, Mark.MEMORY)
CURED_WARM_C = Rule("cooling-cured-first-stage", 27.0, "°C", _APPENDIX_B, Mark.MEMORY)
CURED_COLD_C = Rule("cooling-cured-second-stage", 7.0, "°C", _APPENDIX_B, Mark.MEMORY)
CURED_FIRST_H = Rule("cooling-cured-first-hours", 5.0, "h", _APPENDIX_B, Mark.MEMORY)
CURED_ALL_H = Rule("cooling-cured-all-hours", 15.0, "h", _APPENDIX_B, Mark.MEMORY)
CURED_PPM = Rule("cooling-cured-nitrite", 100.0, "mg/kg", _APPENDIX_B, Mark.MEMORY)

Verdict = Literal["on-time", "cold", "reheat", "discard"]


@dataclass(frozen=True, slots=True)
class Cooling:
    """Where a cooling pot stands: hours that are left to the next goal [h], and the goal [°C]."""

    verdict: Verdict
    goal_c: float | None
    left_h: float | None


def cooling(
    since_h: float, temperature_c: float, *, is_cured: bool = False, is_reheated: bool = False
) -> Cooling:
    """Judge what is cooling.

    Parameters: since_h, hours since it was at 57 °C, a cured piece at 54 [h], 0 to 100;
    temperature_c now [°C], −5 to 110; is_cured, whether it is a whole piece with at least 100 ppm
    of nitrite; is_reheated, whether it was brought back to 74 °C once.
    Returns: whether it is cold, still on time, to be brought back to 74 °C at once, which is done
    once and begins the cooling anew, or to be discarded: past the hours in all heat undoes no
    toxins.
    Raises: OutOfRange.
    Source: FDA Food Code 3-501.14: 57 to 21 °C within 2 h, to 5 °C within 6 h in all; FSIS Appendix
    B: 54 to 27 °C within 5 h, to 7 °C within 10 more (from memory).

    >>> cooling(1.5, 30.0).left_h, cooling(3.0, 30.0).verdict, cooling(5.0, 4.0).verdict
    (0.5, 'reheat', 'cold')
    >>> cooling(6.5, 30.0).verdict, cooling(6.5, 20.0, is_cured=True).verdict
    ('discard', 'on-time')
    """
    within("since_h", since_h, 0.0, 100.0, "h")
    within("temperature_c", temperature_c, -5.0, 110.0, "°C")
    warm, cold, first, whole = (
        (CURED_WARM_C, CURED_COLD_C, CURED_FIRST_H, CURED_ALL_H)
        if is_cured
        else (WARM_C, COLD_C, FIRST_H, ALL_H)
    )
    if since_h > whole.value:
        return Cooling("discard", None, None)
    if temperature_c <= cold.value:
        return Cooling("cold", None, None)
    if temperature_c <= warm.value:
        return Cooling("on-time", cold.value, whole.value - since_h)
    if since_h <= first.value:
        return Cooling("on-time", warm.value, first.value - since_h)
    return Cooling("discard" if is_cured or is_reheated else "reheat", None, None)
