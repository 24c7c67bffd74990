"""Smoking: how long a piece is between cold and hot, and how warm the smoke must be."""

from collections.abc import Iterator

from pantry_core.errors import within
from pantry_core.measures.said import span
from pantry_core.notice import Level, Notice, notice
from pantry_core.quantities import Celsius, Hours
from pantry_core.rules.smoke import UNCURED_AIR_C, UNCURED_WARMING_H, WARMING_H
from pantry_core.text import say


def judge_smoke(
    warming_h: float, air_c: float, *, is_cured: bool, is_intact: bool
) -> Iterator[Notice]:
    """Judge the smoking of meat or poultry; at a limit it still passes.

    Parameters: warming_h, the time from 10 to 54 °C [h]; air_c, the smoker's air at its lowest
    [°C]; is_cured, whether it has enough nitrite; is_intact, whether nothing has taken its outside
    to its inside.
    Returns: a stop for what is neither cured nor intact beyond six hours; a caution beyond six
    hours, beyond four for what is neither, and for air below 107 °C on uncured meat.
    Raises: OutOfRange.
    Source: FSIS Appendix A; USDA (from memory); four hours by common practice.

    >>> [each.level for each in judge_smoke(6.5, 110.0, is_cured=False, is_intact=False)]
    ['stop']
    >>> [each.level for each in judge_smoke(6.5, 60.0, is_cured=True, is_intact=True)]
    ['caution']
    """
    hours = within("warming_h", warming_h, 0.0, 24.0 * 30, "h")
    is_risky = not is_cured and not is_intact
    limit = UNCURED_WARMING_H if is_risky and hours <= WARMING_H.value else WARMING_H
    if hours > limit.value:
        text = say(
            "About {hours} between 10 and {54 °C}; {limit} are the most. A smaller or "
            "flatter piece, or hotter smoke, is through sooner.",
            hours=span(hours),
            limit=Hours(limit.value),
        )
        level: Level = "stop" if is_risky and limit is WARMING_H else "caution"
        yield notice(level, "smoke-slow", text, limit)
    if not is_cured and air_c < UNCURED_AIR_C.value:
        text = say(
            "The smoker's air is at {air_c}; meat without curing salt wants "
            "{uncured_air_c} or above.",
            air_c=Celsius(air_c),
            uncured_air_c=Celsius(UNCURED_AIR_C.value),
        )
        yield notice("caution", "smoke-cool", text, UNCURED_AIR_C)
