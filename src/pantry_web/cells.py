"""Cells of a table that a spreadsheet opens."""

from typing import Any

FORMULA = ("=", "+", "-", "@", "\t", "\r")


def harmless(value: Any) -> Any:
    """A cell of a table; what a spreadsheet would take for a formula has an apostrophe first."""
    is_formula = isinstance(value, str) and value.startswith(FORMULA)
    return f"'{value}" if is_formula else value
