"""Named days between two dates: public holidays of a country, and feasts that move with Easter."""

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import date, timedelta
from functools import cache, lru_cache
from importlib.resources import files
from typing import Literal

import holidays
from dateutil.easter import EASTER_ORTHODOX, EASTER_WESTERN, easter

LANGUAGE = "en_US"
"""Names of holidays are asked for in this language, never in whatever the machine speaks."""

MOVABLE: tuple[tuple[str, int], ...] = (
    ("Shrove Tuesday", -47), ("Ash Wednesday", -46), ("Mothering Sunday", -21),
    ("Palm Sunday", -7), ("Good Friday", -2), ("Easter Sunday", 0), ("Easter Monday", 1),
    ("Ascension Day", 39), ("Whit Sunday", 49), ("Trinity Sunday", 56), ("Corpus Christi", 60),
)  # fmt: skip
"""Feasts that move with Easter, and by how many days they lie after it (calendar of the West)."""


@dataclass(frozen=True, slots=True)
class NamedDay:
    """A day with a name, and why it has one."""

    day: date
    name: str
    kind: Literal["public", "movable", "own"]


def countries() -> dict[str, str]:
    """Countries whose public holidays are known: name by code, in the order of their names.

    Source: the table of country codes of the time zone database.
    """
    known = set(holidays.list_supported_countries(include_aliases=False))
    named = {code: name for code, name in _country_names().items() if code in known}
    return dict(sorted(named.items(), key=lambda each: each[1]))


def named_days(country: str, begin: date, end: date) -> list[NamedDay]:
    """Named days from begin to end, both included, in order.

    Parameters: country, a code of `countries()`, or "" for none; begin and end.
    Returns: each name once a day; public holidays before movable feasts.
    Raises: NotImplementedError for a country that is not known.
    Source: the package holidays; Easter by dateutil.
    """
    found = [*_public(country, begin, end), *_moving(begin, end)]
    seen: set[tuple[date, str]] = set()
    days = []
    for each in sorted(found, key=lambda day: (day.day, day.kind != "public")):
        key = (each.day, each.name.lower())
        if key not in seen:
            seen.add(key)
            days.append(each)
    return days


@lru_cache(maxsize=256)
def public_holidays(country: str, begin: date, end: date) -> tuple[date, ...]:
    """The public holidays of a country, in order.

    Parameters, errors and source as of `named_days`.
    """
    return tuple(sorted({each.day for each in _public(country, begin, end)}))


def _public(country: str, begin: date, end: date) -> Iterator[NamedDay]:
    if not country:
        return
    years = range(begin.year, end.year + 1)
    for day, names in holidays.country_holidays(country, years=years, language=LANGUAGE).items():
        if begin <= day <= end:
            for name in names.split("; "):
                yield NamedDay(day, name, "public")


def _moving(begin: date, end: date) -> Iterator[NamedDay]:
    for year in range(begin.year - 1, end.year + 2):
        western = easter(year, EASTER_WESTERN)
        yield from _within(western, MOVABLE, begin, end)
        orthodox = (("Orthodox Easter Sunday", 0),)
        yield from _within(easter(year, EASTER_ORTHODOX), orthodox, begin, end)


def _within(
    sunday: date, offsets: tuple[tuple[str, int], ...], begin: date, end: date
) -> Iterator[NamedDay]:
    for name, days in offsets:
        day = sunday + timedelta(days=days)
        if begin <= day <= end:
            yield NamedDay(day, name, "movable")


@cache
def _country_names() -> dict[str, str]:
    text = files("tzdata").joinpath("zoneinfo/iso3166.tab").read_text(encoding="utf-8")
    lines = (line.split("\t") for line in text.splitlines() if not line.startswith("#"))
    return {code: name for code, name, *_ in lines}
