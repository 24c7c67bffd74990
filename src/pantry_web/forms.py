"""What the forms have in common."""

from typing import Any

from django import forms

from pantry_core.words import NotPlain, plain_line, plain_text
from pantry_web.fields import QuantityField


class PlainForm(forms.Form):
    """A form whose texts are plain: no control characters, a single line where a line is asked."""

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        for field in self.fields.values():
            if isinstance(field, forms.CharField):
                is_line = not isinstance(field.widget, forms.Textarea)
                field.validators = [*field.validators, _line if is_line else _text]


class KitchenForm(PlainForm):
    """A form that reads quantities in the units of a kitchen."""

    def __init__(self, *args: Any, units: str = "metric", **kwargs: Any) -> None:
        kwargs.setdefault("label_suffix", "")
        super().__init__(*args, **kwargs)
        for name, field in self.fields.items():
            field.widget.attrs["aria-describedby"] = f"{self[name].auto_id}-message"
            if isinstance(field, QuantityField):
                field.units = units

    def kept(self, name: str) -> Any:
        """The cleaned value, or the exact initial one when its text was left as shown."""
        if name in self.initial and name not in self.changed_data:
            return self.initial[name]
        return self.cleaned_data[name]


def _line(text: object) -> None:
    try:
        plain_line(text) if isinstance(text, str) else None
    except NotPlain as error:
        raise forms.ValidationError(f"{error}.") from None


def _text(text: object) -> None:
    try:
        plain_text(text) if isinstance(text, str) else None
    except NotPlain as error:
        raise forms.ValidationError(f"{error}.") from None
