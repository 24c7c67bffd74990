"""What the forms have in common."""

from typing import Any

from django import forms
from django.utils.translation import gettext_lazy as _

from pantry_core.words import NotPlain, plain_line, plain_text
from pantry_web.fields import DurationField, QuantityField, TemperatureField
from pantry_web.sentences import refusal


class PlainForm(forms.Form):
    """A form whose texts are plain: no control characters, a single line where a line is asked."""

    ids = "id_%s"
    """The ids of its fields: others where several forms stand on one page."""

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        kwargs.setdefault("auto_id", self.ids)
        super().__init__(*args, **kwargs)
        for field in self.fields.values():
            if isinstance(field, forms.CharField):
                is_line = not isinstance(field.widget, forms.Textarea)
                field.validators = [*field.validators, _line if is_line else _text]

    def add_error(self, field: str | None, error: Any) -> None:
        """Refuse something; the first field that is wrong has the focus when the page is there."""
        super().add_error(field, error)
        first = next((name for name in self.fields if name in self.errors), None)
        for name, each in self.fields.items():
            each.widget.attrs.pop("autofocus", None)
            if name == first:
                each.widget.attrs["autofocus"] = True


class FileForm(PlainForm):
    """A file of a size that is no attack; `cleaned_data["document"]` is its bytes."""

    most_bytes = 0
    too_big: Any = ""
    document = forms.FileField(label=_("The file"), label_suffix="")

    def clean_document(self) -> bytes:
        """What is in it."""
        upload = self.cleaned_data["document"]
        if upload.size > self.most_bytes:
            raise forms.ValidationError(self.too_big)
        text: bytes = upload.read()
        return text


class KitchenForm(PlainForm):
    """A form that reads quantities in the units of a kitchen."""

    def __init__(self, *args: Any, units: str = "metric", cups: str = "", **kwargs: Any) -> None:
        kwargs.setdefault("label_suffix", "")
        super().__init__(*args, **kwargs)
        self.kitchen_units = units
        for name, field in self.fields.items():
            if not field.widget.is_hidden:
                field.widget.attrs["aria-describedby"] = f"{self[name].auto_id}-message"
            if isinstance(field, QuantityField | TemperatureField):
                field.units = units
            if isinstance(field, QuantityField):
                field.cups = cups

    def kept(self, name: str) -> Any:
        """The cleaned value, or the exact initial one when its text was left as shown."""
        if name in self.initial and name not in self.changed_data:
            return self.initial[name]
        return self.cleaned_data[name]

    def words_of(self, name: str) -> str | None:
        """A length of time that was typed in words; None for a number, and for nothing."""
        field = self.fields[name]
        return field.words(self[name].value()) if isinstance(field, DurationField) else None


def _line(text: object) -> None:
    try:
        plain_line(text) if isinstance(text, str) else None
    except NotPlain as error:
        raise forms.ValidationError(refusal(error)) from None


def _text(text: object) -> None:
    try:
        plain_text(text) if isinstance(text, str) else None
    except NotPlain as error:
        raise forms.ValidationError(refusal(error)) from None
