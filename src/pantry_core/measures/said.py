"""Lengths of time as people say them."""

import math
from typing import Final

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
        return say("{minutes} min", minutes=minutes)
    if minutes < 60 * EXACT_H and minutes % 30:
        return say("{hours} h {minutes} min", hours=minutes // 60, minutes=minutes % 60)
    if hours < HALVES:
        return say("{hours} h", hours=halves(hours))
    if round(hours) < HOURS_PER_DAY or (hours < SEVERAL * HOURS_PER_DAY and round(hours) % 12):
        return say("{hours} h", hours=f"{hours:.0f}")
    days = hours / HOURS_PER_DAY
    text = halves(days) if days < HALVES else f"{days:.0f}"
    return say("{days} day", days=text) if text == "1" else say("{days} days", days=text)


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
        return say("{low} to {high} h", low=math.floor(low), high=math.ceil(high))
    return say("{low} to {high} days", low=math.floor(low) or halves(low), high=math.ceil(high))


def halves(value: float) -> str:
    """A number to the half.

    >>> halves(2.6), halves(0.5), halves(0.1)
    ('2½', '½', '0')
    """
    whole, half = divmod(round(2 * value), 2)
    return f"{whole or ''}{'½' if half else ''}" or "0"
