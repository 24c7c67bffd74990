"""Showing amounts in the cook's units; rounding happens here and nowhere before."""

from collections.abc import Callable
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Final
from zoneinfo import ZoneInfo

from pantry_core.measures.said import HALVES
from pantry_core.measures.temperature import fahrenheit
from pantry_core.measures.units import GRAMS, MILLILITRES, MILLIMETRES
from pantry_core.quantities import (
    Between,
    Celsius,
    Centimetres,
    Clock,
    CubicFeet,
    Grams,
    Kilograms,
    Litres,
    Millilitres,
    Millimetres,
    Moment,
    Quantity,
    Quarts,
    Rise,
    Setting,
    halves,
)
from pantry_core.text import Text, say
from pantry_web import clock_face

OZ_PER_LB = 16
LEAST_OZ = 0.01
PINCH_TBSP = 0.2
"""Less than so much of a spoon is a pinch [tbsp]."""
SHOP_STEP_G = 50.0
THIN_SPACE = "\u202f"

EIGHTHS = ("", "⅛", "¼", "⅜", "½", "⅝", "¾", "⅞")

BARE_UNITS = {
    "metric": {"mass": "g", "length": "mm", "water": "g"},
    "imperial": {"mass": "lb", "length": "in", "water": "lb"},
}
"""The unit of a number typed without one, by the kitchen's units."""
UNIT_CHOICES = {
    "metric": {"mass": ("g", "kg"), "length": ("mm", "cm"), "water": ("ml", "l", "g")},
    "imperial": {"mass": ("lb", "oz"), "length": ("in",), "water": ("qt", "cups", "lb", "oz")},
}
"""The units that a thumb chooses from, the larger of two that follow each other first."""


MOST_OFF = 0.02
"""A fraction of an ounce stands for what it differs from by so much at the most (our choice)."""


def mass_parts(grams: float, units: str) -> list[tuple[str, str]]:
    """A mass as (number, unit) pairs: 15.4 g, 2 400 g, or 7 lb 2¼ oz, 1½ oz, 0.54 oz.

    From a pound on ounces have quarters; below they have the fraction that is near enough, else two
    decimals. What is lighter than a hundredth of an ounce stays in grams.
    """
    if units != "imperial":
        return [(_grouped(grams, _decimals(grams)), "g")]
    ounces = grams / GRAMS["oz"]
    if round(4 * ounces) >= 4 * OZ_PER_LB:
        pounds, rest = divmod(round(4 * ounces), 4 * OZ_PER_LB)
        return [(str(pounds), "lb"), *([(_with_fraction(rest, 4), "oz")] if rest else [])]
    for parts in (4, 8):
        marks = round(parts * ounces)
        if marks and abs(marks / parts - ounces) <= MOST_OFF * ounces:
            return [(_with_fraction(marks, parts), "oz")]
    if 0.0 < ounces < LEAST_OZ:
        return [(_grouped(grams, _decimals(grams)), "g")]
    return [(_plain(ounces, 2), "oz")]


@dataclass(frozen=True, slots=True)
class LineMass:
    """The mass of a line of a mix, as (number, unit) pairs; of curing salt in ounces beside."""

    parts: list[tuple[str, str]]
    beside: str = ""


def line_mass(name: str, grams: float, units: str) -> LineMass:
    """The mass of a line as it is weighed out.

    Parameters: name of the line; grams; units of the kitchen. Curing salt is weighed in grams in
    every kitchen; sugar, which nobody has to weigh finely, in quarters of an ounce.

    >>> line_mass("curing-salt", 4.49, "imperial")
    LineMass(parts=[('4.49', 'g')], beside='0.16 oz')
    >>> line_mass("sugar", 40.0, "imperial").parts
    [('1½', 'oz')]
    """
    if units == "imperial" and name == "curing-salt":
        beside = f"{_plain(grams / GRAMS['oz'], 2)} oz"
        return LineMass(mass_parts(grams, "metric"), beside)
    quarters = round(4 * grams / GRAMS["oz"])
    if units == "imperial" and name == "sugar" and 0 < quarters < 4 * OZ_PER_LB:
        return LineMass([(_with_fraction(quarters, 4), "oz")])
    return LineMass(mass_parts(grams, units))


def _with_fraction(marks: int, parts: int) -> str:
    """So many quarters or eighths as a whole number with its fraction."""
    whole, rest = divmod(marks, parts)
    return f"{whole or ''}{EIGHTHS[rest * 8 // parts]}"


def mass(grams: float, units: str) -> str:
    """A mass in one text."""
    return " ".join(f"{number} {unit}" for number, unit in mass_parts(grams, units))


def roughly(grams: float, units: str) -> str:
    """A mass as one asks for it in a shop: to 50 g, or to a quarter of a pound; never nothing.

    >>> roughly(1937.0, "imperial"), roughly(430.0, "metric"), roughly(20.0, "metric")
    ('4¼ lb', '450 g', '20.0 g')
    """
    if units == "imperial":
        whole, quarters = divmod(round(4 * grams / GRAMS["lb"]), 4)
        if whole or quarters:
            return f"{whole or ''}{('', '¼', '½', '¾')[quarters]} lb"
        return mass(grams, units)
    rounded = SHOP_STEP_G * round(grams / SHOP_STEP_G)
    return mass(rounded or grams, units)


def typed_mass(grams: float, units: str) -> str:
    """A mass as a cook would type it into a field."""
    if units == "imperial":
        return mass(grams, units)
    return f"{_plain(grams, 2)} g"


def length(millimetres: float, units: str) -> str:
    """A thickness: 50 mm, or 2¼ in, to the eighth."""
    if units == "imperial":
        whole, eighths = divmod(round(8 * millimetres / MILLIMETRES["in"]), 8)
        return f"{whole or ''}{EIGHTHS[eighths]} in" if whole or eighths else "0 in"
    return f"{_plain(millimetres, 0 if millimetres >= 10 else 1)} mm"


def spoons(count: float) -> str:
    """A number of spoons or cups: quarters below two, halves below five, then whole ones."""
    if count < PINCH_TBSP:
        return say("a pinch")
    step = 4 if count < 2 else 2 if count < 5 else 1
    whole, part = divmod(round(count * step), step)
    fraction = {0.25: "¼", 0.5: "½", 0.75: "¾"}.get(part / step, "")
    return f"{whole or ''}{fraction}" if whole or fraction else "¼"


def at(moment: datetime, zone: str) -> str:
    """A moment as Thu 18 Mar, 19:12 in a zone."""
    return say("{moment}", moment=Moment(moment.astimezone(ZoneInfo(zone)), "day-hour"))


def temperature(celsius: float, units: str) -> str:
    """A temperature in the kitchen's degrees, to the degree, or to half a degree Celsius."""
    if units == "imperial":
        return f"{round(fahrenheit(celsius))} °F"
    return f"{_plain(round(2 * celsius) / 2, 1)} °C"


def degrees_risen(celsius: float, units: str) -> str:
    """A rise or a fall, with its sign, in whole degrees of the kitchen.

    >>> degrees_risen(6.2, "metric"), degrees_risen(-5.0, "imperial")
    ('+6 °C', '-9 °F')
    """
    return f"{1.8 * celsius:+.0f} °F" if units == "imperial" else f"{celsius:+.0f} °C"


def five(moment: datetime, zone: str) -> str:
    """The time of day in a zone, to five minutes, as a forecast says it."""
    return clock_face.hour(to_five(moment).astimezone(ZoneInfo(zone)))


def kilos(grams: float, units: str) -> str:
    """What is bought by the sack.

    >>> kilos(2500.0, "metric"), kilos(2000.0, "imperial")
    ('2.5 kg', '4½ lb')
    """
    return roughly(grams, units) if units == "imperial" else f"{_plain(grams / 1000.0, 1)} kg"


def to_five(moment: datetime) -> datetime:
    """A moment to five minutes, as a forecast is told.

    >>> to_five(datetime(2027, 3, 22, 13, 18)).minute
    20
    """
    five = timedelta(minutes=5)
    midnight = moment.replace(hour=0, minute=0, second=0, microsecond=0)
    return midnight + round((moment - midnight) / five) * five


def volume(millilitres: float, units: str) -> str:
    """A volume in the kitchen's units: 850 ml or 2.4 l, 3½ cups or 2½ qt; without its sign."""
    amount = abs(millilitres)
    if units == "imperial":
        quarts = amount / MILLILITRES["us quart"]
        cups = amount / MILLILITRES["us cup"]
        if quarts >= 1:
            return f"{halves(quarts) if quarts < HALVES else f'{quarts:.0f}'} qt"
        cups_said = spoons(cups)
        if cups <= 1:
            return say("{cups} cup", cups=cups_said)
        return say("{cups} cups", cups=cups_said)
    litres = amount / 1000
    return f"{amount:.0f} ml" if amount < 995 else f"{_plain(litres, 1 if litres < 10 else 0)} l"


DEFAULT_ROOM_UNIT = {"metric": "l", "imperial": "qt"}
CUBIC_FEET_FROM = 10.0
"""So many cubic feet are told whole."""


def room(litres: float, unit: str) -> str:
    """The room of a fridge in the unit in which its owner told it: l, qt or cu ft.

    >>> room(62.3, "cu ft"), room(59.6, "qt"), room(60.0, "l")
    ('2.2 cu ft', '63 qt', '60 l')
    """
    if unit == "cu ft":
        feet = 1000.0 * litres / MILLILITRES["cu ft"]
        return f"{_plain(feet, 1 if feet < CUBIC_FEET_FROM else 0)} cu ft"
    return volume(1000.0 * litres, "imperial" if unit == "qt" else "metric")


OVEN_MARKS_F, LOW_MARKS_F, OVEN_FROM_F = 25, 5, 300
"""The marks of an oven are so far apart from 300 °F on; what is low is set more finely (common
practice)."""


def measured(figure: Quantity | Between | Clock, units: str) -> str:
    """A figure of a sentence in the kitchen's units.

    Parameters: figure; units.
    Returns: the figure with its unit, to be translated like any other text.

    >>> measured(Between(Celsius(57.0), Celsius(21.0)), "imperial"), measured(Rise(5.0), "imperial")
    ('135 to 70 °F', '9 °F')
    >>> measured(Setting(180.0), "imperial")
    '350 °F'
    """
    if isinstance(figure, Clock):
        return clock_face.hour(figure.at)
    if isinstance(figure, Litres):
        return room(figure.value, _ROOM_UNITS[type(figure)])
    if isinstance(figure, Between):
        low, high = _parts(figure.low, units), _parts(figure.high, units)
        first = low[0] if low[1] == high[1] else _joined(*low)
        return say("{low} to {high}", low=first, high=_joined(*high))
    return _joined(*_parts(figure, units))


_ROOM_UNITS: Final[dict[type[Quantity], str]] = {Litres: "l", Quarts: "qt", CubicFeet: "cu ft"}


def _in_fahrenheit(celsius: float) -> str:
    return f"{round(fahrenheit(celsius))}".replace("-", "−")


def _marked(celsius: float) -> str:
    exact = fahrenheit(celsius)
    apart = OVEN_MARKS_F if exact >= OVEN_FROM_F else LOW_MARKS_F
    return f"{apart * round(exact / apart)}"


_IN_POUNDS: Final[dict[type[Quantity], Callable[[float], tuple[str, str]]]] = {
    Setting: lambda celsius: (_marked(celsius), "°F"),
    Celsius: lambda celsius: (_in_fahrenheit(celsius), "°F"),
    Rise: lambda kelvin: (_plain(1.8 * kelvin, 0), "°F"),
    Grams: lambda grams: (mass(grams, "imperial"), ""),
    Kilograms: lambda kilograms: (roughly(1000.0 * kilograms, "imperial"), ""),
    Millimetres: lambda millimetres: (length(millimetres, "imperial"), ""),
    Centimetres: lambda centimetres: (length(10.0 * centimetres, "imperial"), ""),
    Millilitres: lambda millilitres: (volume(millilitres, "imperial"), ""),
}
"""What a kitchen in pounds says otherwise; curing salt and the steps of a scale stay in grams."""


def _parts(figure: Quantity, units: str) -> tuple[str, str]:
    """A figure and its unit; the unit is empty where the figure says it.

    A temperature that is told to a tenth is told so in both degrees.
    """
    if units == "imperial" and isinstance(figure, Celsius) and figure.digits:
        return f"{fahrenheit(figure.value):.{figure.digits}f}".replace("-", "−"), "°F"
    if units == "imperial" and type(figure) in _IN_POUNDS:
        return _IN_POUNDS[type(figure)](figure.value)
    return figure.number(), figure.unit


_WITH_UNIT = {
    "ppm": say("{number} ppm", number="").pattern, "s": say("{number} s", number="").pattern,
    "min": say("{number} min", number="").pattern, "h": say("{number} h", number="").pattern,
    "day": say("{number} day", number="").pattern, "days": say("{number} days", number="").pattern,
}  # fmt: skip
"""Units that another language says otherwise."""


def _joined(number: str, unit: str) -> str:
    if unit in _WITH_UNIT:
        return Text(_WITH_UNIT[unit], {"number": number})
    return f"{number} {unit}" if unit else number


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
    if 0.0 < grams < 0.005:
        return 3
    return 2 if 0.0 < grams < 9.995 else 1 if 0.0 < grams < 99.95 else 0


def _grouped(value: float, decimals: int) -> str:
    return f"{value:,.{decimals}f}".replace(",", THIN_SPACE)


def _plain(value: float, decimals: int) -> str:
    return f"{value:.{decimals}f}".rstrip("0").rstrip(".") if decimals else f"{value:.0f}"
