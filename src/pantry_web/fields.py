"""Form fields that read what cooks write."""

from datetime import datetime
from functools import lru_cache
from typing import Any
from zoneinfo import ZoneInfo

from django import forms
from django.core.exceptions import ValidationError
from django.utils import timezone
from django.utils.safestring import SafeString
from django.utils.translation import get_language, gettext

from pantry_core.measures.durations import parse_duration
from pantry_core.measures.quantity import NotAQuantity, parse_number, parse_quantity
from pantry_core.measures.temperature import fahrenheit, parse_temperature
from pantry_core.measures.units import Dimension
from pantry_core.meat import MOST_MEAT_G
from pantry_core.plan.instants import NotAnInstant, read_instant
from pantry_core.quantities import Between, Number
from pantry_core.recipes.found import NotARecipe, from_json_ld
from pantry_core.recipes.lengths import NotALength, length_said
from pantry_web.quantities import (
    BARE_UNITS,
    UNIT_CHOICES,
    length,
    mass,
    temperature,
    typed_duration,
    typed_mass,
)
from pantry_web.sentences import refusal, tell, translated

ASKED_BELOW_G = 20.0
"""Nobody prepares less meat (our own choice) [g]."""
LARGER = {"g": "kg"}
"""What somebody may mean who leaves out the unit."""
LONGEST_RECIPE = 8000
YEARS = 10
"""A year that anybody means lies no farther away."""


def years_around(now: datetime) -> tuple[int, int]:
    """The first and the last year that anybody means."""
    return now.year - YEARS, now.year + YEARS


class QuantityField(forms.CharField):
    """A mass [g], a length [mm] or an amount of water [g], typed in any unit.

    A bare number that comes to less than `asks_below` is asked about.

    `units` is set by the form: it decides what a bare number means and how limits are told;
    `cups` says whose cups, pints and gallons these are.
    """

    units = "metric"
    cups = ""
    asks_below = 0.0

    def __init__(
        self, dimension: Dimension, most: float, *, least: float = 0.0, **kwargs: Any
    ) -> None:
        super().__init__(**kwargs)
        self.dimension = dimension
        self.least, self.most = least, most
        self.widget.attrs |= {"autocomplete": "off", "spellcheck": "false", "inputmode": "decimal"}

    @property
    def unit(self) -> str:
        """The unit of a bare number."""
        return BARE_UNITS[self.units][self.dimension]

    @property
    def unit_choices(self) -> tuple[str, ...]:
        """The units that a press of its button goes through, for whoever has no letters."""
        return UNIT_CHOICES[self.units][self.dimension]

    def clean(self, value: Any) -> float | None:
        """The typed text in grams or millimetres.

        Raises: ValidationError with what is allowed.
        """
        text = super().clean(value)
        if not text.strip():
            return None
        try:
            found = parse_quantity(text, self.dimension, self.unit, self.cups)
        except NotAQuantity as error:
            raise ValidationError(refusal(error)) from None
        if found <= 0:
            raise ValidationError(gettext("Zero is too little; write a number above zero."))
        if found < self.asks_below and not any(sign.isalpha() for sign in text):
            raise ValidationError(self._question(text.strip()))
        if found < self.least:
            raise ValidationError(
                tell("That is too little; use {shown}.", shown=self.shown(self.least))
            )
        if found > self.most:
            raise ValidationError(
                tell("That is too much; {shown} is the most.", shown=self.shown(self.most))
            )
        return found

    def _question(self, number: str) -> str:
        """What is asked about a number without its unit that comes to next to nothing."""
        if self.unit not in LARGER:
            return tell(
                "{number} {unit} is next to nothing; write the weight with its unit.",
                number=number,
                unit=self.unit,
            )
        return tell(
            "Do you mean {number} {larger} or {number} {smaller}? Write the unit.",
            number=number,
            larger=LARGER[self.unit],
            smaller=self.unit,
        )

    def prepare_value(self, value: Any) -> Any:
        """Show a number in the cook's units, and text as it was typed."""
        if isinstance(value, int | float):
            return (
                typed_mass(value, self.units) if self.dimension != "length" else self.shown(value)
            )
        return value

    def shown(self, value: float) -> str:
        """A value in the cook's units."""
        return (length if self.dimension == "length" else mass)(value, self.units)

    def has_changed(self, initial: Any, data: Any) -> bool:
        """Whether the text differs from what was shown; the same text keeps the exact value."""
        return bool((self.prepare_value(initial) or "") != (data or "").strip())


class MeatField(QuantityField):
    """The mass of a piece [g].

    A number without its unit that comes to next to nothing is asked about.
    """

    asks_below = ASKED_BELOW_G

    def __init__(self, **kwargs: Any) -> None:
        super().__init__("mass", MOST_MEAT_G, **kwargs)


class NumberField(forms.CharField):
    """A plain number within a range, typed with comma, point or fraction."""

    def __init__(self, least: float, most: float, *, unit: Any = "", **kwargs: Any) -> None:
        super().__init__(**kwargs)
        self.least, self.most, self.unit = least, most, unit
        self.widget.attrs |= {"autocomplete": "off", "inputmode": "decimal"}

    def clean(self, value: Any) -> float | None:
        """The number.

        Raises: ValidationError with what is allowed.
        """
        text = super().clean(value).removesuffix("%").strip()
        if not text:
            return None
        below_zero = self.least < 0 and text.startswith(("-", "−"))
        try:
            found = -parse_number(text[1:]) if below_zero else parse_number(text)
        except NotAQuantity as error:
            raise ValidationError(refusal(error)) from None
        if not self.least <= found <= self.most:
            raise ValidationError(
                tell(
                    "{found} is out of range; use {range}.",
                    found=Number(found),
                    range=Between(Number(self.least), Number(self.most)),
                )
            )
        return found

    def prepare_value(self, value: Any) -> Any:
        """Show a number without idle zeros, and text as it was typed."""
        return f"{value:g}" if isinstance(value, int | float) else value

    def has_changed(self, initial: Any, data: Any) -> bool:
        """Whether the text differs from what was shown."""
        return bool((self.prepare_value(initial) or "") != (data or "").strip())


class TemperatureField(forms.CharField):
    """A temperature [°C], typed in either degrees; `units` is set by the form."""

    units = "metric"

    def __init__(self, least: float, most: float, **kwargs: Any) -> None:
        super().__init__(**kwargs)
        self.least, self.most = least, most
        self.widget.attrs |= {"autocomplete": "off", "inputmode": "decimal"}

    @property
    def unit(self) -> str:
        """The degrees of a bare number."""
        return "°F" if self.units == "imperial" else "°C"

    def clean(self, value: Any) -> float | None:
        """The temperature in degrees Celsius.

        Raises: ValidationError with what is allowed.
        """
        text = super().clean(value)
        if not text.strip():
            return None
        try:
            found = parse_temperature(text, "F" if self.units == "imperial" else "C")
        except NotAQuantity as error:
            raise ValidationError(refusal(error)) from None
        if not self.least <= found <= self.most:
            told, least, most = (
                temperature(each, self.units) for each in (found, self.least, self.most)
            )
            raise ValidationError(
                tell(
                    "{told} is out of range; use {least} to {most}.",
                    told=told,
                    least=least,
                    most=most,
                )
            )
        return found

    def prepare_value(self, value: Any) -> Any:
        """Show a temperature in the cook's degrees, and text as it was typed."""
        if not isinstance(value, int | float):
            return value
        if self.units != "imperial":
            return f"{value:g}"
        whole = f"{fahrenheit(value):.0f}"
        return whole if parse_temperature(whole, "F") == value else f"{fahrenheit(value):.1f}"

    def has_changed(self, initial: Any, data: Any) -> bool:
        """Whether the text differs from what was shown; the same text keeps the exact value."""
        return bool((self.prepare_value(initial) or "") != (data or "").strip())


class DurationField(forms.CharField):
    """A length of time, typed like 15 min, 2 h or 5 days; the value is in hours [h]."""

    def __init__(self, most_h: float, *, bare: str = "h", least_h: float = 0.0, **kwargs: Any):
        super().__init__(**kwargs)
        self.least_h, self.most_h, self.bare = least_h, most_h, bare
        self.widget.attrs |= {"autocomplete": "off"}

    @property
    def unit(self) -> str:
        """The unit of a bare number."""
        return {"d": "days"}.get(self.bare, self.bare)

    def clean(self, value: Any) -> float | None:
        """The length in hours.

        Raises: ValidationError with what is allowed.
        """
        text = super().clean(value).strip()
        if not text:
            return None
        hours = self._hours(text)
        if not self.least_h <= hours <= self.most_h:
            least, most = typed_duration(self.least_h, "h"), typed_duration(self.most_h, "d")
            raise ValidationError(
                tell("That is out of range; use {least} to {most}.", least=least, most=most)
            )
        return hours

    def _hours(self, text: str) -> float:
        """A number with its unit, or words: overnight, five days, 12 to 16 h [h]."""
        try:
            return parse_duration(text, self.bare)
        except NotAQuantity as error:
            try:
                return length_said(text).usual
            except NotALength:
                raise ValidationError(refusal(error)) from None

    def words(self, text: object) -> str | None:
        """The text where it says a length of time in words; None for a number, and for nothing."""
        said = text.strip() if isinstance(text, str) else ""
        try:
            parse_duration(said, self.bare)
        except NotAQuantity:
            return said or None
        return None

    def prepare_value(self, value: Any) -> Any:
        """Show hours as a cook would type them, and text as it was typed."""
        return typed_duration(value, self.bare) if isinstance(value, int | float) else value

    def has_changed(self, initial: Any, data: Any) -> bool:
        """Whether the text differs from what was shown."""
        return bool((self.prepare_value(initial) or "") != (data or "").strip())


class LongSelect(forms.Select):
    """A select of hundreds: rendered once for each value and language, and kept."""

    def render(
        self, name: str, value: Any, attrs: dict[str, Any] | None = None, renderer: Any = None
    ) -> SafeString:
        """The select as HTML; the renderer is always the one of the settings."""
        built = self.build_attrs(self.attrs, attrs)
        choices = tuple((key, str(label)) for key, label in self.choices)
        return _long_select(name, value, tuple(built.items()), choices, get_language())


@lru_cache(maxsize=64)
def _long_select(
    name: str, value: Any, attrs: tuple[tuple[str, Any], ...],
    choices: tuple[tuple[str, str], ...], _language: str | None,
) -> SafeString:  # fmt: skip
    """One template for all of the options instead of one for each."""
    widget = forms.Select(choices=choices)
    widget.template_name = "_select.html"
    return widget.render(name, value, dict(attrs))


class InstantField(forms.CharField):
    """A local date and time; `zone` is set by the form."""

    zone = ZoneInfo("UTC")
    widget = forms.DateTimeInput(attrs={"type": "datetime-local"}, format="%Y-%m-%dT%H:%M")

    def clean(self, value: Any) -> datetime | None:
        """The instant in UTC.

        Raises: ValidationError, for a time that the clocks skip as well.
        """
        text = super().clean(value)
        if not text:
            return None
        try:
            instant = read_instant(text, self.zone)
        except NotAnInstant as error:
            raise ValidationError(refusal(error)) from None
        first, last = years_around(timezone.now())
        if not first <= instant.year <= last:
            raise ValidationError(
                tell(
                    "This is far away; use a year from {first} to {last}.",
                    first=Number(first),
                    last=Number(last),
                )
            )
        return instant

    def prepare_value(self, value: Any) -> Any:
        """Show an instant as local time, and text as it was typed."""
        if isinstance(value, datetime):
            return f"{value.astimezone(self.zone):%Y-%m-%dT%H:%M}"
        return value


class RecipeTextField(forms.CharField):
    """A recipe as it is pasted, line by line; of a page or a file that holds one its lines."""

    widget = forms.Textarea
    markup = ("{", "[", "<")

    def to_python(self, value: Any) -> str:
        """The lines of the recipe, the name of one that was found in a page before them.

        Raises: ValidationError for markup without a recipe, and for more than a recipe has.
        """
        text: str = super().to_python(value) or ""
        if text.startswith(self.markup):
            try:
                recipe = from_json_ld(text.encode())
            except NotARecipe as error:
                raise ValidationError(translated(str(error))) from None
            return "\n".join(recipe.lines)
        if len(text) > LONGEST_RECIPE:
            raise ValidationError(
                tell(
                    "This is too long for a recipe: {length} characters; {most} are the most.",
                    length=Number(len(text)),
                    most=Number(LONGEST_RECIPE),
                )
            )
        return text
