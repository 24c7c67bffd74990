"""What the forms have in common."""

from typing import Any

from django import forms

from pantry_web.fields import QuantityField


class KitchenForm(forms.Form):
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
