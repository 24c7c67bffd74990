"""Errors that the core raises by itself."""


class OutOfRange(ValueError):
    """A value lies outside the range in which a formula or a limit holds."""

    def __init__(self, name: str, value: float, allowed: str) -> None:
        super().__init__(f"{name} is {value:g}; use {allowed}")
        self.name = name
        self.value = value
        self.allowed = allowed


def within(name: str, value: float, low: float, high: float, unit: str = "") -> float:
    """Return value when low <= value <= high, else raise OutOfRange (NaN always raises).

    >>> within("share", 0.1, 0, 0.3)
    0.1
    """
    if not low <= value <= high:
        raise OutOfRange(name, value, f"{low:g} to {high:g}{' ' + unit if unit else ''}")
    return value
