"""Lengths of time as people say them: overnight, a day, five days, 12 to 16 h."""

import re
from dataclasses import dataclass
from typing import Final

from pantry_core.recipes.times import number_said
from pantry_core.recipes.words import NUMBER_WORDS, OVERNIGHT, TIME_UNITS
from pantry_core.text import say

MOST_H: Final = 365.0 * 24.0
_NIGHT_H: Final = (10.0, 13.0, 16.0)
"""Overnight, from some time in the evening until some time the next day (common practice) [h]."""
_DAY_SPARE_H: Final = 4.0
_DAYS_SPARE_H: Final = 12.0
_WEEKS_SPARE_H: Final = 24.0
_HOURS_SPARE: Final = 0.1
"""A day is 20 to 28 h, days are half a day more or less, weeks a day, hours a tenth (practice)."""
_NIGHTS: Final = re.compile(r"\s*nights?\b", re.IGNORECASE)
_MINUTES: Final = re.compile(r"\s*-?\s*min(?:ute)?s?\b\.?", re.IGNORECASE)
_AND: Final = re.compile(r"^\s*(?:,|and|und|et|y|e)?\s*", re.IGNORECASE)
_HALF_MORE: Final = re.compile(r"^\s*and a half\b", re.IGNORECASE)
_WORDS: Final = "|".join(sorted(map(re.escape, NUMBER_WORDS), key=len, reverse=True))
_NUMBER: Final = rf"\d{{1,4}}(?:[.,]\d+|\s*[½¼¾]|\s+[13]/[24])?|[½¼¾]|\b(?:{_WORDS})\b"
_LENGTH: Final = re.compile(
    rf"^\s*(?:for |about |some |ca\.? |circa )*(?P<low>{_NUMBER})"
    rf"(?:\s*(?:-|–|to|bis|or|à|a)\s*(?P<high>{_NUMBER}))?",
    re.IGNORECASE,
)


class NotALength(ValueError):
    """What was typed is no length of time; the message says what would be one."""


@dataclass(frozen=True, slots=True)
class LengthWindow:
    """A length of time and what people still call so: shortest, usual, longest [h]."""

    least: float
    usual: float
    most: float


_PHRASES: Final = (
    (OVERNIGHT, LengthWindow(*_NIGHT_H)),
    (
        re.compile(r"(?:over )?(?:the |a )?weekend", re.IGNORECASE),
        LengthWindow(48.0 - _DAYS_SPARE_H, 48.0, 48.0 + _DAYS_SPARE_H),
    ),
    (
        re.compile(r"(?:for )?a? ?fortnight", re.IGNORECASE),
        LengthWindow(336.0 - _WEEKS_SPARE_H, 336.0, 336.0 + _WEEKS_SPARE_H),
    ),
)


def length_said(text: str) -> LengthWindow:
    """Read a length of time as people say it.

    Parameters: text, in English, French, German, Spanish or Italian.
    Returns: its window [h].
    Raises: NotALength for what is none, is nothing, or is longer than a year.
    Source: common practice.

    >>> length_said("5 days")
    LengthWindow(least=108.0, usual=120.0, most=132.0)
    >>> length_said("overnight").usual, length_said("12 to 16 h").usual
    (13.0, 14.0)
    """
    window = _read(" ".join(text.split()))
    if window is None or not 0 < window.usual <= MOST_H:
        what = say(
            "“{text}” is no length of time; use something like 5 days, overnight or 12 to 16 h",
            text=text[:40],
        )
        raise NotALength(what)
    return window


def _read(text: str) -> LengthWindow | None:
    bare = text.strip(" .")
    for phrase, window in _PHRASES:
        if phrase.fullmatch(bare):
            return window
    head = _LENGTH.match(bare)
    return None if head is None else _counted(head, bare[head.end() :])


def _counted(head: re.Match[str], rest: str) -> LengthWindow | None:
    """So many of a unit, a range of them, and what is added to them."""
    low, unit = number_said(head["low"]), _unit(rest)
    high = low if head["high"] is None else number_said(head["high"])
    if low is None or high is None or unit is None or high < low:
        return None
    hours, end = unit
    left = rest[end:]
    if _HALF_MORE.match(left):
        low, high, left = low + 0.5, high + 0.5, _HALF_MORE.sub("", left)
    if high > low:
        return LengthWindow(low * hours, (low + high) / 2.0 * hours, high * hours)
    if _NIGHTS.match(rest):
        return LengthWindow(*(24.0 * (low - 1.0) + each for each in _NIGHT_H))
    added_h = 0.0
    if left:
        added = _read(_AND.sub("", left))
        if added is None:
            return None
        added_h = added.usual
    total_h = low * hours + added_h
    return _around(total_h, _spare_h(hours, low, total_h))


def _unit(rest: str) -> tuple[float, int] | None:
    """The hours of the unit that a text begins with, and where it ends."""
    for pattern, hours in ((_NIGHTS, 24.0), (_MINUTES, 1.0 / 60.0)):
        unit = pattern.match(rest)
        if unit:
            return hours, unit.end()
    for pattern, days in TIME_UNITS:
        unit = pattern.match(rest)
        if unit:
            return 24.0 * days, unit.end()
    return None


def _spare_h(unit_h: float, count: float, total_h: float) -> float:
    if unit_h >= 7 * 24.0:
        return _WEEKS_SPARE_H
    if unit_h == 24.0 and count > 1.0:
        return _DAYS_SPARE_H
    if unit_h == 24.0 and count == 1.0:
        return _DAY_SPARE_H
    return _HOURS_SPARE * total_h


def _around(hours: float, spare_h: float) -> LengthWindow:
    return LengthWindow(hours - spare_h, hours, hours + spare_h)
