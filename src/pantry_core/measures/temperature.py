"""Temperatures as people write them."""

import re
from typing import Final, Literal

from pantry_core.measures.quantity import NotAQuantity, parse_number
from pantry_core.text import say

Degrees = Literal["C", "F"]

_TYPED = re.compile(r"(?P<sign>[-−]?)(?P<number>[^°a-z]+?)\s*°?\s*(?P<unit>[a-z]*)")
_NAMES: Final = {"c": "C", "celsius": "C", "f": "F", "fahrenheit": "F"}


def fahrenheit(celsius: float) -> float:
    """Degrees Fahrenheit.

    Parameters: celsius [°C].
    Returns: [°F].
    Source: by definition.

    >>> fahrenheit(100.0)
    212.0
    """
    return celsius * 9 / 5 + 32


def parse_temperature(text: str, bare: Degrees = "C") -> float:
    """Read a temperature.

    Parameters: text, such as "63", "145 F", "4 °C", "-18"; bare, the degrees of a number without.
    Returns: [°C]; of degrees Fahrenheit to the half degree, as limits that are whole in both are.
    Raises: NotAQuantity, with what is allowed.

    >>> parse_temperature("145 F"), parse_temperature("-18"), parse_temperature("4 °C")
    (63.0, -18.0, 4.0)
    """
    found = _TYPED.fullmatch(text.strip().lower())
    if found is None or (found["unit"] and found["unit"] not in _NAMES):
        raise NotAQuantity(
            say("“{text}” is no temperature; use {63 °C} or 145 °F", text=text.strip()[:30])
        )
    value = parse_number(found["number"]) * (-1 if found["sign"] else 1)
    if _NAMES.get(found["unit"], bare) == "F":
        return round(2 * (value - 32) * 5 / 9) / 2
    return value
