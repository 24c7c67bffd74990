"""Showing amounts in the cook's units; rounding happens here and nowhere before."""

from datetime import timedelta

from pantry_core.measures.units import GRAMS, MILLIMETRES

HOURS_PER_DAY = 24
SEVERAL = 3
"""From so many days on nobody counts hours."""
THIN_SPACE = "\u202f"

BARE_UNITS = {
    "metric": {"mass": "g", "length": "mm", "water": "g"},
    "imperial": {"mass": "lb", "length": "in", "water": "lb"},
}
"""The unit of a number typed without one, by the kitchen's units."""


def mass_parts(grams: float, units: str) -> list[tuple[str, str]]:
    """A mass as (number, unit) pairs: 15.4 g, 2 400 g, or 7 lb 2.25 oz."""
    if units == "imperial":
        ounces = round(grams / GRAMS["oz"], 2)
        pounds, rest = divmod(ounces, 16)
        parts = [(f"{pounds:.0f}", "lb")] if pounds else []
        if rest or not parts:
            parts.append((_plain(rest, 2), "oz"))
        return parts
    return [(_grouped(grams, _decimals(grams)), "g")]


def mass(grams: float, units: str) -> str:
    """A mass in one text."""
    return " ".join(f"{number} {unit}" for number, unit in mass_parts(grams, units))


def typed_mass(grams: float, units: str) -> str:
    """A mass as a cook would type it into a field."""
    if units == "imperial":
        return mass(grams, units)
    return f"{_plain(grams, 2)} g"


def length(millimetres: float, units: str) -> str:
    """A thickness: 50 mm, or 2.25 in."""
    if units == "imperial":
        return f"{_plain(millimetres / MILLIMETRES['in'], 2)} in"
    return f"{_plain(millimetres, 2)} mm"


def span(hours: float) -> str:
    """A length of time in whole words: 13 d 19 h, 2 h 30 min, 20 min."""
    minutes = round(abs(hours) * 60)
    if minutes >= 24 * 60:
        whole_hours = round(minutes / 60)
        parts = [(whole_hours // 24, "d"), (whole_hours % 24, "h")]
    else:
        parts = [(minutes // 60, "h"), (minutes % 60, "min")]
    return " ".join(f"{count} {unit}" for count, unit in parts if count) or "0 min"


def days_in_words(days: float) -> str:
    """Days as people say them: 15 h, 30 h, 1½ days, 5 days, from ten on whole ones."""
    hours = HOURS_PER_DAY * days
    if days < 1.0:
        return span(hours)
    if days < SEVERAL and round(hours) % 12:
        return f"{hours:.0f} h"
    halves = round(2 * days) / 2 if days < 10 else float(round(days))
    whole, half = int(halves), "½" if halves % 1 else ""
    return f"{whole}{half} day{'' if halves == 1 else 's'}"


def typed_duration(hours: float, bare: str) -> str:
    """A length of time as a cook would type it into a field: 15 min, 2.5 h, 5 days."""
    minutes = round(60 * hours, 3)
    if bare == "d" and minutes >= 24 * 60:
        days = _plain(minutes / 60 / 24, 3)
        return f"{days} day" if days == "1" else f"{days} days"
    if minutes < 60:
        return f"{_plain(minutes, 1)} min"
    return f"{_plain(minutes / 60, 3)} h"


def hours_of(length_of_time: timedelta) -> float:
    """Hours in a timedelta [h]."""
    return length_of_time.total_seconds() / 3600


def _decimals(grams: float) -> int:
    return 2 if grams < 9.995 else 1 if grams < 99.95 else 0


def _grouped(value: float, decimals: int) -> str:
    return f"{value:,.{decimals}f}".replace(",", THIN_SPACE)


def _plain(value: float, decimals: int) -> str:
    return f"{value:.{decimals}f}".rstrip("0").rstrip(".") if decimals else f"{value:.0f}"
