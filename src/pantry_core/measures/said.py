"""Lengths of time as people say them."""

import math
from typing import Final

from pantry_core.quantities import HALVES as IN_HALVES
from pantry_core.quantities import Between, Days, Hours, Minutes
from pantry_core.text import say

HOURS_PER_DAY: Final = 24
SEVERAL, EXACT_H, HALVES = 3, 3, 10
"""From so many days on nobody counts hours, from so many hours on minutes, from so many of either
halves."""


def span(hours: float) -> str:
    """A length of time: one unit, in halves as soon as minutes do not matter.

    Parameters: hours [h], without its sign.
    Returns: minutes up to an hour, hours with their minutes up to three, half hours up to ten,
    hours up to a day; then 1½ days or 30 h, half days up to ten, and days.

    >>> span(0.75), span(1.25), span(2.5), span(30), span(60), span(25 * 24)
    ('45 min', '1 h 15 min', '2½ h', '30 h', '2½ days', '25 days')
    """
    hours = abs(hours)
    minutes = round(60 * hours)
    if minutes < 60:
        return say("{length}", length=Minutes(minutes))
    if minutes < 60 * EXACT_H and minutes % 30:
        whole, rest = divmod(minutes, 60)
        return say("{hours} {minutes}", hours=Hours(whole), minutes=Minutes(rest))
    if hours < HALVES:
        return say("{length}", length=Hours(hours, IN_HALVES))
    if round(hours) < HOURS_PER_DAY or (hours < SEVERAL * HOURS_PER_DAY and round(hours) % 12):
        return say("{length}", length=Hours(hours, 0))
    days = hours / HOURS_PER_DAY
    return say("{length}", length=Days(days, IN_HALVES if days < HALVES else 0))


def days_said(days: float) -> str:
    """Days [d] as people say them.

    >>> days_said(12.1), days_said(1.5)
    ('12 days', '1½ days')
    """
    return span(HOURS_PER_DAY * days)


def days_between(low: float, high: float) -> str:
    """A range of days [d], rounded outwards.

    >>> days_between(7.6, 20.1), days_between(0.3, 0.9)
    ('7 to 21 days', '7 to 22 h')
    """
    if high < 1:
        low, high = HOURS_PER_DAY * low, HOURS_PER_DAY * high
        return say("{range}", range=Between(Hours(math.floor(low)), Hours(math.ceil(high))))
    least = Days(math.floor(low)) if low >= 1 else Days(low, IN_HALVES)
    return say("{range}", range=Between(least, Days(math.ceil(high))))
