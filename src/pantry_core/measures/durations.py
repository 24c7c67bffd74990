"""Lengths of time as people write them."""

import re
from typing import Final

from pantry_core.measures.quantity import NotAQuantity, parse_number
from pantry_core.text import say

HOURS: Final = {
    "s": 1 / 3600, "sec": 1 / 3600, "second": 1 / 3600, "m": 1 / 60, "min": 1 / 60,
    "minute": 1 / 60, "h": 1.0, "hr": 1.0, "hour": 1.0, "d": 24.0, "day": 24.0, "week": 168.0,
}  # fmt: skip
"""Hours in each unit, by definition."""
_PART = re.compile(r"(?:and\b)?\s*([0-9½¼¾⅓⅔⅛][0-9.,/½¼¾⅓⅔⅛\s]*)([a-z]*)[\s,]*")


def parse_duration(text: str, bare: str = "h") -> float:
    """Read a length of time.

    Parameters: text, such as "15 min", "2½ h", "1 h 30", "2 days"; bare, the unit of a number
    without one.
    Returns: hours [h].
    Raises: NotAQuantity, with what is allowed.

    >>> parse_duration("15 min"), parse_duration("2½ h"), parse_duration("1 h 30 min")
    (0.25, 2.5, 1.5)
    >>> parse_duration("1 h 30"), parse_duration("2 days"), parse_duration("45", "min")
    (1.5, 48.0, 0.75)
    """
    tidy, total, at, smaller = text.strip().lower(), 0.0, 0, bare
    if not tidy:
        raise NotAQuantity("nothing is written; use 15 min or 2 h")
    while at < len(tidy):
        part = _PART.match(tidy, at)
        if part is None or part.end() == at:
            raise NotAQuantity(
                say("“{text}” is no length of time; use 15 min or 2 h", text=text.strip()[:40])
            )
        typed = part[2] or smaller
        unit = typed if typed in HOURS else typed.removesuffix("s")
        if unit not in HOURS:
            raise NotAQuantity(
                say("“{typed}” is no unit of time; use min, h or days", typed=typed[:20])
            )
        total += parse_number(part[1].strip()) * HOURS[unit]
        smaller = {"h": "min", "hr": "min", "hour": "min", "d": "h", "day": "h"}.get(unit, bare)
        at = part.end()
    return total
