"""The one place where the core's sentences become those of the page: its language, its units."""

from collections.abc import Callable, Mapping, Sequence
from datetime import datetime
from functools import lru_cache
from typing import Any, Final

from django.core.serializers.json import DjangoJSONEncoder
from django.db import models
from django.utils import dateformat
from django.utils.translation import get_language, gettext

from pantry_core.quantities import Between, Clock, Moment, MomentForm, NotALiteral, Quantity
from pantry_core.text import Part, Text, filled, is_packed, packed, say, unpacked
from pantry_web.clock_face import hour
from pantry_web.quantities import measured

OURS = "$"
"""How a sentence stands in JSON begins so. A key of somebody's own that begins like it gets one
sign more, so that nothing that was brought in can pass for a sentence and be filled in."""
AT_FIRST = {"pattern", "figures"}
"""The keys of a sentence as it was stored at first, with bare numbers for figures."""
MOST_REMEMBERED = 8192
"""So many texts are not looked up again."""


def said(text: str | None, units: str = "metric") -> str:
    """A text of the core in the language of the page and the units of the kitchen.

    Parameters: text, a sentence with its figures, or a word of the core's tables; units, of the
    kitchen.
    """
    return _said(text, get_language(), units) if text else ""


def speaker(units: str) -> Callable[[str | None], str]:
    """`said`, bound to units and to the language of the page: for pages of very many texts."""
    language = get_language()
    return lambda text: _said(text, language, units) if text else ""


def translated(text: str) -> str:
    """A text of the core in the language of the page; what no catalogue has stays as it is."""
    return said(text)


def _said(text: str, language: str | None, units: str) -> str:
    """The one place where pattern, language and units come together."""

    def show(part: object) -> str:
        if isinstance(part, str):
            return _said(part, language, units)
        if isinstance(part, Moment):
            return _said(_moment(part), language, units)
        if isinstance(part, (Quantity, Between, Clock)):
            return _said(measured(part, units), language, units)
        return str(part)

    if isinstance(text, Text):
        return filled(_pattern(text.pattern, language), text.figures, show)
    looked_up = _looked_up(text, language) if text else text
    if "{" not in looked_up:
        return looked_up
    try:
        return filled(looked_up, {}, show)
    except NotALiteral:  # somebody's own words
        return looked_up


_DAYS: Final[dict[MomentForm, str]] = {
    "weekday": "l", "day": "l j F", "weekday-day": "D j", "short-day": "D j M", "date": "j F Y",
    "weekday-hour": "D", "day-hour": "D j M", "long-day-hour": "l j F",
}  # fmt: skip
"""The day of each form as Django says it, in the language of the page."""


def _moment(figure: Moment) -> str:
    at, form = figure.at, figure.form
    day = dateformat.format(at, _DAYS[form])
    if not isinstance(at, datetime) or not form.endswith("hour"):
        return day
    pattern = "{day} {hour}" if form == "weekday-hour" else "{day}, {hour}"
    return say(pattern, day=day, hour=hour(at))


def tell(pattern: str, **figures: Part) -> str:
    """A sentence of the web's own with its figures, in the language of the page.

    Parameters: as of `say`; texts among the figures are translated as well.
    """
    return translated(say(pattern, **figures))


def refusal(error: Exception) -> str:
    """What an error of the core says, as a sentence to stand beside a field."""
    return sentence_of(str(error))


def sentence_of(clause: str) -> str:
    """A clause of the core as a sentence in the language of the page."""
    told = translated(clause)
    return f"{told[:1].upper()}{told[1:]}."


@lru_cache(maxsize=MOST_REMEMBERED)
def _looked_up(text: str, language: str | None) -> str:
    """A text in the language that is spoken, which is named so that each is remembered."""
    return gettext(text)


@lru_cache(maxsize=MOST_REMEMBERED)
def _pattern(pattern: str, language: str | None) -> str:
    """A pattern in the language that is spoken; one without a word stays as it is."""
    return gettext(pattern) if any(sign.isalpha() for sign in _outside_holes(pattern)) else pattern


def _outside_holes(pattern: str) -> str:
    kept, depth = [], 0
    for sign in pattern:
        depth += sign == "{"
        if not depth:
            kept.append(sign)
        depth -= sign == "}"
    return "".join(kept)


class SentencesField(models.JSONField):
    """JSON whose sentences keep their patterns, so that each reader gets their own language.

    Sentences are read in every shape in which they were ever stored.
    """

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        kwargs["encoder"] = DjangoJSONEncoder
        super().__init__(*args, **kwargs)

    def get_prep_value(self, value: Any) -> Any:
        """The value with its sentences as pattern and figures."""
        return super().get_prep_value(_packed(value))

    def from_db_value(self, value: Any, expression: Any, connection: Any) -> Any:
        """The value with its sentences made again."""
        return _unpacked(super().from_db_value(value, expression, connection))


def _packed(value: Any) -> Any:
    if isinstance(value, Text):
        return packed(value)
    if isinstance(value, Mapping):
        return {
            f"{OURS}{key}" if str(key).startswith(OURS) else key: _packed(each)
            for key, each in value.items()
        }
    if isinstance(value, Sequence) and not isinstance(value, str):
        return [_packed(each) for each in value]
    return value


def _unpacked(value: Any) -> Any:
    if is_packed(value):
        return unpacked(value)
    if isinstance(value, dict):
        made = {key.removeprefix(OURS): _unpacked(each) for key, each in value.items()}
        return _sentence_of_the_first_shape(made) if value.keys() == AT_FIRST else made
    if isinstance(value, list):
        return [_unpacked(each) for each in value]
    return value


def _sentence_of_the_first_shape(made: dict[str, Any]) -> Any:
    pattern, figures = made["pattern"], made["figures"]
    if not isinstance(pattern, str) or not isinstance(figures, dict):
        return made
    try:
        return Text(pattern, figures)
    except ValueError:  # a hole that nothing fills; NotALiteral is one
        return pattern
