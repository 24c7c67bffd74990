"""Sentences that remember what they are made of, so that another language can say them."""

import re
from collections.abc import Callable, Iterable, Mapping, Sequence
from datetime import date, datetime, time
from types import MappingProxyType
from typing import Annotated, Any, Self

from pydantic import (
    SerializationInfo,
    SerializerFunctionWrapHandler,
    ValidatorFunctionWrapHandler,
    WithJsonSchema,
    WrapSerializer,
    WrapValidator,
)

from pantry_core.quantities import KINDS, Between, Clock, Figure, Moment, Quantity, literal

WEEKDAY_NAMES = ("Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday")


_HOLE = re.compile(r"\{([^{}]*)\}")
SETTING = re.compile(r"\{(@[^{}]*)\}")
"""What an appliance is set to, as it is written into a pattern."""
Part = str | Figure
"""What stands in a hole: words, a sentence of its own, or a figure with its unit."""


def filled(pattern: str, figures: Mapping[str, object], show: Callable[[object], str] = str) -> str:
    """A pattern, in whatever language, with its figures in its holes.

    Parameters: pattern, its holes named, “{name:lower}” for a word that stands within a sentence,
    or figures themselves, as “{63 °C}”; figures by name; show, how each is said.
    Returns: the sentence.
    Raises: NotALiteral for a hole that is neither.

    >>> filled("The {cut:lower} is at {inside}, not at {4 °C}.", {"cut": "Loin", "inside": "63 °C"})
    'The loin is at 63 °C, not at 4 °C.'
    """

    def said(hole: re.Match[str]) -> str:
        name, _, spec = hole[1].partition(":")
        name, _, is_quoted = name.partition("!")
        if name not in figures:
            return show(literal(hole[1]))
        figure = figures[name]
        if is_quoted:  # these two as sentences were stored whose figures were bare
            return repr(figure)
        if spec and spec != "lower":
            return format(figure, spec)
        return show(figure).lower() if spec else show(figure)

    return _HOLE.sub(said, pattern) if "{" in pattern else pattern


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


def say(pattern: str, **figures: Part) -> Text:
    """A sentence from its pattern and its figures.

    Parameters: pattern, English with a named hole for each figure, or with the figure itself in
    it; figures, quantities, words or texts.
    Returns: the sentence.
    Raises: NotALiteral when a hole has no figure.

    >>> from pantry_core.quantities import Days
    >>> say("It needs {days} in {place} at {4 °C}.", days=Days(2), place="the fridge")
    'It needs 2 days in the fridge at 4 °C.'
    """
    return Text(pattern, figures)


def worded(text: str) -> str:
    """A text of a table, as a sentence where it has figures in it.

    >>> worded("Oven at {@180 °C}.")
    'Oven at 180 °C.'
    """
    return Text(text) if "{" in text and not isinstance(text, Text) else text


def joined(between: str, texts: Iterable[str]) -> Text:
    """Texts one after the other, each to be translated by itself; empty ones are left out.

    >>> from pantry_core.quantities import Days
    >>> joined(", ", [say("{length}", length=Days(2)), "", "salt"])
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


PATTERN, FIGURES = "$text", "$with"
"""How a sentence stands in JSON that keeps it whole."""
WHOLE: dict[str, str] = {"sentences": "whole"}
"""The context in which an answer is written so that its sentences can be said again."""


def packed(text: str) -> object:
    """A sentence as JSON data that keeps its pattern and its figures; other texts as they are.

    >>> from pantry_core.quantities import Days
    >>> packed(say("{inside} inside", inside=Days(2)))
    {'$text': '{inside} inside', '$with': {'inside': {'$days': [2, None]}}}
    """
    if not isinstance(text, Text):
        return text
    return {PATTERN: text.pattern, FIGURES: {k: _packed(v) for k, v in text.figures.items()}}


def unpacked(data: Mapping[str, Any]) -> Text:
    """A sentence from its JSON data, in every shape that it ever had.

    Older ones hold bare numbers and words.
    """
    return Text(data[PATTERN], {k: _unpacked(v) for k, v in data[FIGURES].items()})


def is_packed(data: object) -> bool:
    """Whether JSON data is a sentence that was kept whole."""
    return isinstance(data, dict) and data.keys() == {PATTERN, FIGURES}


_KINDS = {f"${name.lower()}": kind for name, kind in KINDS.items()}
_BETWEEN, _CLOCK, _MOMENT = "$between", "$clock", "$moment"


def _packed(figure: object) -> object:
    match figure:
        case Quantity():
            return {f"${type(figure).__name__.lower()}": [figure.value, figure.digits]}
        case Between():
            return {_BETWEEN: [_packed(figure.low), _packed(figure.high)]}
        case Clock():
            return {_CLOCK: figure.at.isoformat()}
        case Moment():
            return {_MOMENT: [figure.at.isoformat(), figure.form]}
        case str():
            return packed(figure)
    return figure


def _unpacked(data: Any) -> Any:
    if is_packed(data):
        return unpacked(data)
    if isinstance(data, dict) and len(data) == 1:
        ((tag, value),) = data.items()
        if tag in _KINDS:
            return _KINDS[tag](*value)
        if tag == _BETWEEN:
            return Between(*map(_unpacked, value))
        if tag == _CLOCK:
            is_time = "-" not in value[:5]
            return Clock((time if is_time else datetime).fromisoformat(value))
        if tag == _MOMENT:
            at, form = value
            return Moment((datetime if "T" in at else date).fromisoformat(at), form)
    return data


def _read(value: object, handler: ValidatorFunctionWrapHandler) -> object:
    if isinstance(value, Text):
        return value
    return unpacked(value) if is_packed(value) else handler(value)  # type: ignore[arg-type]


def _written(value: str, handler: SerializerFunctionWrapHandler, info: SerializationInfo) -> Any:
    return packed(value) if info.context == WHOLE else handler(value)


Sentence = Annotated[
    str, WrapValidator(_read), WrapSerializer(_written, return_type=Any),
    WithJsonSchema({"type": "string"}),
]  # fmt: skip
"""A field of an answer whose pattern and figures are kept when the answer is read again."""
