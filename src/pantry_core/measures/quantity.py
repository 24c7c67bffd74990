"""Reading a quantity as people write it: "7 lb 2 oz", "3.2kg", "2 1/4 in", "1½ l", "3 180 g"."""

import math
import re
import unicodedata
from fractions import Fraction

from pantry_core.measures.units import (
    BASE_UNIT,
    FACTORS,
    OWN_UNITS,
    SINGULAR,
    SPELLINGS,
    TWO_MEANINGS,
    Dimension,
)
from pantry_core.quantities import Number
from pantry_core.text import say

LONGEST = 60
OUNCES_IN_A_POUND = 16
"""Longer text than this is no quantity [characters]."""

FRACTION_SLASH = "\u2044"

_NUMBER = re.compile(
    r"""\s*(?:
        (?P<whole>\d{1,9})\s+(?P<mixed>\d{1,4}/\d{1,4})       # 2 1/4
      | (?P<fraction>\d{1,4}/\d{1,4})                          # 1/2
      | (?P<grouped>\d{1,3}(?:[ \u00a0\u202f]\d{3})+(?:[.,]\d+)?)(?!\d)  # 3 180
      | (?P<plain>\d{1,12}(?:[.,]\d{0,20})?|[.,]\d{1,20})         # 3, 3.2, 3,2, .5
    )""",
    re.VERBOSE,
)
_UNIT = re.compile(r"""\s*(#|["″”]|(?:(?:us|imp|imperial|metric|cubic|cu\.?)\s+)?[a-z]+)\.?""")


class NotAQuantity(ValueError):
    """The text cannot be read; the message says what is allowed."""


def parse_number(text: str) -> float:
    """Read one number: whole, with comma or point, grouped by spaces, or with a fraction.

    Parameters: text, at most 60 characters.
    Returns: the number [-].
    Raises: NotAQuantity for anything else, a number with two meanings included.

    >>> parse_number("2 1/4"), parse_number("1½"), parse_number("3 180"), parse_number("2,5")
    (2.25, 1.5, 3180.0, 2.5)
    """
    tidy = _tidied(text)
    match = _NUMBER.fullmatch(tidy)
    if match is None:
        raise NotAQuantity(
            say("“{text}” is not a number; write it like 2, 2.5 or 2½", text=text.strip()[:LONGEST])
        )
    return _number(match)


def leading_number(text: str) -> tuple[float, str] | None:
    """The number that a text begins with, and the rest of the text.

    Parameters: text.
    Returns: number [-] and rest, None where it begins with none.
    Raises: NotAQuantity for a number with two meanings, or a fraction of nothing.

    >>> leading_number("1½ tbsp salt"), leading_number("2 1/2 cups")
    ((1.5, ' tbsp salt'), (2.5, ' cups'))
    """
    tidy = "".join(_spelt_out(sign) for sign in text)
    match = _NUMBER.match(tidy)
    return (_number(match), tidy[match.end() :]) if match else None


def parse_quantity(text: str, dimension: Dimension, bare_unit: str, cups: str = "") -> float:
    """Read a quantity with its unit; a bare number is taken in `bare_unit`.

    Parameters: text, at most 60 characters; dimension "mass", "length" or "water" (a mass or a
    volume of water); bare_unit, one of the units of that dimension; cups, whose cups, pints and
    gallons these are where the text does not say: us, metric, australian or imperial.
    Returns: grams for mass and water, millimetres for length.
    Raises: NotAQuantity; the message names the text and what is allowed.

    >>> round(parse_quantity("7 lb 2 oz", "mass", "g"), 2)
    3231.85
    >>> round(parse_quantity("4 lb 10", "mass", "g"), 2)
    2097.86
    >>> parse_quantity("2 1/4 in", "length", "mm")
    57.15
    >>> parse_quantity("1½ l", "water", "g"), parse_quantity("5 cups", "water", "g", "metric")
    (1500.0, 1250.0)
    """
    tidy = _tidied(text)
    factors = FACTORS[dimension]
    example = "3.2 kg or 7 lb 2 oz" if dimension == "mass" else "50 mm or 2 1/4 in"
    if dimension == "water":
        example = "3 l or 3000 g"
    total, position, last_factor, parts = 0.0, 0, math.inf, 0
    while position < len(tidy):
        number = _NUMBER.match(tidy, position)
        if number is None:
            raise NotAQuantity(
                say(
                    "“{text}” cannot be read; write it like {example}",
                    text=text.strip(),
                    example=example,
                )
            )
        unit = _UNIT.match(tidy, number.end())
        position = unit.end() if unit else number.end()
        is_last = not tidy[position:].strip()
        follows_pounds = parts == 1 and last_factor == factors.get("lb")
        written = unit.group(1) if unit else bare_unit
        if unit is None and is_last and follows_pounds and _number(number) < OUNCES_IN_A_POUND:
            written = "oz"
        elif unit is None and (parts or not is_last):
            raise NotAQuantity(
                say(
                    "“{text}” lacks a unit; write it like {example}",
                    text=text.strip(),
                    example=example,
                )
            )
        name = _unit_name(written, dimension, example, cups)
        if factors[name] >= last_factor:
            raise NotAQuantity(
                say(
                    "“{text}” names its units out of order; write {example}",
                    text=text.strip(),
                    example=example,
                )
            )
        last_factor = factors[name]
        total += _number(number) * last_factor
        parts += 1
        position += len(tidy[position:]) - len(tidy[position:].lstrip())
    return total


def _tidied(text: str) -> str:
    if len(text) > LONGEST:
        raise NotAQuantity(
            say(
                "this is too long for a quantity; {longest} characters are enough",
                longest=Number(LONGEST),
            )
        )
    tidy = "".join(_spelt_out(sign) for sign in text).strip().lower()
    if not tidy:
        raise NotAQuantity("this is empty; a number is needed")
    if tidy.startswith(("-", "−", "\u2013")):
        raise NotAQuantity(
            say("“{text}” is below zero; write a number above zero", text=text.strip())
        )
    return tidy


def _spelt_out(sign: str) -> str:
    plain = unicodedata.normalize("NFKC", sign)
    return f" {plain.replace(FRACTION_SLASH, '/')}" if FRACTION_SLASH in plain else sign


def _number(match: re.Match[str]) -> float:
    whole, mixed, fraction = match["whole"], match["mixed"], match["fraction"]
    if mixed or fraction:
        return float(Fraction(whole or 0) + _fraction(mixed or fraction))
    if match["grouped"]:
        return float(re.sub(r"[ \u00a0\u202f]", "", match["grouped"]).replace(",", "."))
    plain = match["plain"]
    before, comma, after = plain.partition(",")
    if comma and len(after) == 3 and before.strip("0"):
        raise NotAQuantity(
            say(
                "“{plain}” can mean {before}{after} or {before}.{after}; write the one you mean",
                plain=plain,
                before=before,
                after=after,
            )
        )
    return float(plain.replace(",", "."))


def _fraction(text: str) -> Fraction:
    above, below = text.split("/")
    if int(below) == 0:
        raise NotAQuantity(say("“{text}” divides by zero; write a fraction like 1/4", text=text))
    return Fraction(int(above), int(below))


def _unit_name(written: str, dimension: Dimension, example: str, cups: str) -> str:
    written = " ".join(written.split())
    if dimension == "water":
        written = OWN_UNITS.get(cups, {}).get(SINGULAR.get(written, written), written)
    name = SPELLINGS.get(written, written)
    if name in FACTORS[dimension]:
        return name
    if dimension == "water" and written in TWO_MEANINGS:
        raise NotAQuantity(
            say(
                "“{written}” has two sizes; write {two_meanings}",
                written=written,
                two_meanings=TWO_MEANINGS[written],
            )
        )
    wanted = {"mass": "weight", "length": "length", "water": "amount of water"}[dimension]
    raise NotAQuantity(
        say(
            "“{written}” is no unit of {wanted}; write it like {example}",
            written=written,
            wanted=wanted,
            example=example,
        )
    )


__all__ = ["BASE_UNIT", "NotAQuantity", "leading_number", "parse_number", "parse_quantity"]
