"""Sentences that remember what they are made of, so that another language can say them."""

from collections.abc import Iterable, Mapping, Sequence
from datetime import date
from string import Formatter
from types import MappingProxyType
from typing import Annotated, Any, Self

from pydantic import ValidatorFunctionWrapHandler, WrapValidator

WEEKDAY_NAMES = ("Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday")
_MONTHS = (
    "January", "February", "March", "April", "May", "June", "July", "August", "September",
    "October", "November", "December",
)  # fmt: skip


class _Holes(Formatter):
    """As str.format, and “{name:lower}” for a word that stands within a sentence."""

    def format_field(self, value: Any, format_spec: str) -> str:
        if format_spec == "lower":
            return str(value).lower()
        return str(super().format_field(value, format_spec))


_HOLES = _Holes()


def filled(pattern: str, figures: Mapping[str, object]) -> str:
    """A pattern, in whatever language, with its figures in its holes.

    >>> filled("The {cut:lower} is at {c:g} °C.", {"cut": "Loin", "c": 63.0})
    'The loin is at 63 °C.'
    """
    if ":lower}" in pattern:
        return _HOLES.vformat(pattern, (), figures)
    return pattern.format_map(figures)


class Text(str):
    """English for the command line, with the pattern and the figures that it came from.

    The pattern is what is translated; a figure is a number, a word or a text of its own.
    """

    __slots__ = ("figures", "pattern")

    pattern: str
    figures: Mapping[str, object]

    def __new__(cls, pattern: str, figures: Mapping[str, object] = MappingProxyType({})) -> Self:
        """The English, made at once, so that it is a string like any other."""
        made = super().__new__(cls, filled(pattern, figures))
        made.pattern = pattern
        made.figures = figures
        return made

    def __str__(self) -> str:
        """Itself: an error that is asked for its words must not lose the pattern."""
        return self

    def __reduce__(self) -> tuple[type[Self], tuple[str, dict[str, object]]]:
        """By pattern and figures, for pickles and copies."""
        return type(self), (self.pattern, dict(self.figures))


def say(pattern: str, **figures: object) -> Text:
    """A sentence from its pattern and its figures.

    Parameters: pattern, English with a named hole for each figure, as of str.format; figures,
    numbers, words or texts.
    Returns: the sentence.
    Raises: KeyError when a hole has no figure.

    >>> say("It wants {days:g} days in {place}.", days=2.0, place="the fridge")
    'It wants 2 days in the fridge.'
    """
    return Text(pattern, figures)


def joined(between: str, texts: Iterable[str]) -> Text:
    """Texts one after the other, each to be translated by itself; empty ones are left out.

    >>> joined(", ", [say("{n} days", n=2), "", "salt"])
    '2 days, salt'
    """
    figures = {f"part{number}": each for number, each in enumerate(filter(None, texts))}
    return Text(between.join(f"{{{name}}}" for name in figures), figures)


def listed(names: Sequence[str]) -> str:
    """Names with “and” before the last.

    >>> listed(["salt", "sugar", "bay"]), listed(["salt"])
    ('salt, sugar and bay', 'salt')
    """
    if len(names) < 2:
        return joined("", names)
    return say("{names} and {last}", names=joined(", ", names[:-1]), last=names[-1])


def either(names: Sequence[str]) -> str:
    """Names with “or” before the last.

    >>> either(["roast", "braise", "grill"])
    'roast, braise or grill'
    """
    if len(names) < 2:
        return joined("", names)
    return say("{names} or {last}", names=joined(", ", names[:-1]), last=names[-1])


def weekday_of(day: date) -> str:
    """The name of a day of the week.

    >>> weekday_of(date(2027, 3, 20))
    'Saturday'
    """
    return WEEKDAY_NAMES[day.weekday()]


def day_of(day: date) -> Text:
    """A day as people say it.

    >>> day_of(date(2027, 3, 20))
    'Saturday 20 March'
    """
    return say(
        "{weekday} {day} {month}",
        weekday=weekday_of(day), day=day.day, month=_MONTHS[day.month - 1],
    )  # fmt: skip


def _as_it_is(value: object, handler: ValidatorFunctionWrapHandler) -> object:
    return value if isinstance(value, Text) else handler(value)


Sentence = Annotated[str, WrapValidator(_as_it_is)]
"""A field of an answer whose pattern and figures are kept when the answer is read again."""
