"""The figures of sentences, each with what it measures: how it is said is decided at the edge.

A sentence of the core holds quantities, never bare numbers. Documents on the command line say them
in metric units and in English, as `str` does here; a page says them in the units and the language
of whoever reads it.
"""

import re
from collections.abc import Callable
from dataclasses import dataclass
from datetime import date, datetime, time
from typing import ClassVar, Final, Literal

HALVES: Final = -2
"""Instead of a number of decimals: to the half, as people say it."""


def halves(value: float) -> str:
    """A number to the half.

    >>> halves(2.6), halves(0.5), halves(0.1)
    ('2½', '½', '0')
    """
    whole, half = divmod(round(2 * value), 2)
    return f"{whole or ''}{'½' if half else ''}" or "0"


@dataclass(frozen=True, slots=True)
class Quantity:
    """A figure with its unit; `digits` are the decimals that it is known to, None: all it has."""

    value: float
    digits: int | None = None

    unit: ClassVar[str] = ""

    def number(self) -> str:
        """The figure without its unit.

        >>> Grams(15.44, 1).number(), Celsius(63.0).number(), Hours(2.5, HALVES).number()
        ('15.4', '63', '2½')
        """
        if self.digits == HALVES:
            return halves(self.value)
        said = f"{self.value:g}" if self.digits is None else f"{self.value:.{self.digits}f}"
        return said.replace("-", "−")

    def __str__(self) -> str:
        """The figure in metric units and in English.

        >>> str(Celsius(63.0)), str(Percent(2.25, 1)), str(Number(3))
        ('63 °C', '2.2 %', '3')
        """
        return f"{self.number()} {self.unit}".rstrip()


class Number(Quantity):
    """A figure without a unit."""

    __slots__ = ()


class Celsius(Quantity):
    """A temperature [°C]."""

    __slots__ = ()
    unit = "°C"


class Setting(Celsius):
    """What an oven or a smoker is set to [°C]: its own scale has whole steps."""

    __slots__ = ()


class Rise(Quantity):
    """A difference of temperatures [K], said in degrees."""

    __slots__ = ()
    unit = "°C"


class Grams(Quantity):
    """A mass [g]."""

    __slots__ = ()
    unit = "g"


class CuringSalt(Grams):
    """A mass of curing salt, or of nitrite [g]: in grams in every kitchen."""

    __slots__ = ()


class Division(Grams):
    """The smallest step of a scale [g]: as it stands on the scale."""

    __slots__ = ()


class Kilograms(Quantity):
    """A mass of what is bought by the sack [kg]."""

    __slots__ = ()
    unit = "kg"


class Millimetres(Quantity):
    """A length [mm]."""

    __slots__ = ()
    unit = "mm"


class Centimetres(Quantity):
    """A length [cm]."""

    __slots__ = ()
    unit = "cm"


class Millilitres(Quantity):
    """A volume [ml]."""

    __slots__ = ()
    unit = "ml"


class Litres(Quantity):
    """The room of a place [l], said as its owner gave it: here in litres."""

    __slots__ = ()
    unit = "l"


class Quarts(Litres):
    """The room of a place [l], said in quarts."""

    __slots__ = ()


class CubicFeet(Litres):
    """The room of a place [l], said in cubic feet."""

    __slots__ = ()


class Percent(Quantity):
    """A share [%]."""

    __slots__ = ()
    unit = "%"


class Ppm(Quantity):
    """A share by mass [mg/kg]."""

    __slots__ = ()
    unit = "ppm"


class Seconds(Quantity):
    """A length of time by the clock [s]."""

    __slots__ = ()
    unit = "s"


class Minutes(Quantity):
    """A length of time by the clock [min]."""

    __slots__ = ()
    unit = "min"


class Hours(Quantity):
    """A length of time that a limit or a count has [h]; what a plan comes to is said by `span`."""

    __slots__ = ()
    unit = "h"


class Days(Quantity):
    """A length of time that a limit or a count has [d]."""

    __slots__ = ()

    @property
    def unit(self) -> str:  # type: ignore[override]
        """One day, several days."""
        return "day" if self.number() == "1" else "days"


@dataclass(frozen=True, slots=True)
class Between:
    """A range of two quantities of one kind."""

    low: Quantity
    high: Quantity

    def __str__(self) -> str:
        """The range in metric units and in English.

        >>> str(Between(Celsius(10), Celsius(54)))
        '10 to 54 °C'
        """
        return f"{self.low.number()} to {self.high}"


@dataclass(frozen=True, slots=True)
class Clock:
    """A time of day, of an instant or as it stands in a table of hours."""

    at: datetime | time

    def __str__(self) -> str:
        """The hour in English.

        >>> str(Clock(time(7, 5)))
        '07:05'
        """
        return f"{self.at:%H:%M}"


MomentForm = Literal[
    "weekday",
    "day",
    "weekday-day",
    "short-day",
    "date",
    "weekday-hour",
    "day-hour",
    "long-day-hour",
]
"""How much of a moment a sentence says."""
_IN_ENGLISH: Final[dict[MomentForm, str]] = {
    "weekday": "%A", "day": "%A %-d %B", "weekday-day": "%a %-d", "short-day": "%a %-d %b",
    "date": "%-d %B %Y", "weekday-hour": "%a %H:%M", "day-hour": "%a %-d %b, %H:%M",
    "long-day-hour": "%A %-d %B, %H:%M",
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class Moment:
    """A local day, or a local moment with its hour, and how much of it is said."""

    at: date
    form: MomentForm = "day"

    def __str__(self) -> str:
        """The day, with the hour where the form has it, in English.

        >>> str(Moment(date(2027, 3, 20))), str(Moment(datetime(2027, 3, 18, 18, 30), "day-hour"))
        ('Saturday 20 March', 'Thu 18 Mar, 18:30')
        """
        return f"{self.at:{_IN_ENGLISH[self.form]}}"


Figure = Quantity | Between | Clock | Moment
"""Whatever a sentence may hold besides words."""

KINDS: Final[dict[str, type[Quantity]]] = {
    kind.__name__: kind
    for kind in (
        Number, Celsius, Setting, Rise, Grams, CuringSalt, Division, Kilograms, Millimetres,
        Centimetres, Millilitres, Litres, Quarts, CubicFeet, Percent, Ppm, Seconds, Minutes, Hours,
        Days,
    )
}  # fmt: skip
"""The kinds of quantities by their names, as they are stored."""

_NUMBER = r"[-−]?\d+(?:\.\d+)?"
_LITERAL = re.compile(
    rf"(?P<kind>@|by )?(?P<low>{_NUMBER})(?: to (?P<high>{_NUMBER}))? (?P<unit>°C|g|kg|mm|cm|ml)"
)
_OF_UNIT: Final[dict[str, Callable[[float], Quantity]]] = {
    "°C": Celsius, "g": Grams, "kg": Kilograms, "mm": Millimetres, "cm": Centimetres,
    "ml": Millilitres,
}  # fmt: skip
_OF_WORD: Final[dict[str, Callable[[float], Quantity]]] = {"@": Setting, "by ": Rise}


class NotALiteral(ValueError):
    """A hole of a sentence is neither a name nor a figure with its unit."""


def literal(text: str) -> Figure:
    """A figure as it is written into a pattern: “63 °C”, “57 to 21 °C”, “@180 °C”, “by 3 °C”.

    Parameters: text; with “@” before it what an appliance is set to, with “by” a difference.
    Returns: the quantity, or the range.
    Raises: NotALiteral.

    >>> literal("−20 °C"), str(literal("57 to 21 °C")), literal("@180 °C")
    (Celsius(value=-20.0, digits=None), '57 to 21 °C', Setting(value=180.0, digits=None))
    """
    found = _LITERAL.fullmatch(text)
    if found is None:
        raise NotALiteral(text)
    kind = _OF_WORD.get(found["kind"] or "", _OF_UNIT[found["unit"]])
    low, high = (
        None if number is None else kind(float(number.replace("−", "-")))
        for number in (found["low"], found["high"])
    )
    assert low is not None  # noqa: S101 - the pattern has it
    return low if high is None else Between(low, high)
