"""What can be written down on a round."""

from typing import Any

from django import forms
from django.utils.translation import gettext
from django.utils.translation import gettext_lazy as _

from pantry_web.feasts.models import Event
from pantry_web.fields import MeatField, TemperatureField
from pantry_web.forms import KitchenForm


class NoteForm(KitchenForm):
    """A weight, a temperature, a taste, a touch, a note: any of them."""

    mass = MeatField(label=_("Weight now"), required=False)
    temperature = TemperatureField(-40, 150, label=_("Temperature read"), required=False)
    taste = forms.ChoiceField(
        choices=[
            ("", _("not tasted")),
            *((value, label.lower()) for value, label in Event.Taste.choices),
        ],
        label=_("A taste; of raw meat, fried"),
        required=False,
    )
    touch = forms.ChoiceField(
        choices=[("", _("not tried")), *Event.Touch.choices], label=_("By touch"), required=False
    )
    note = forms.CharField(max_length=500, label=_("Note"), required=False)

    def clean(self) -> dict[str, Any]:
        """Something must be written."""
        names = ("mass", "temperature", "taste", "touch", "note")
        if not self.errors and not any(
            self.cleaned_data.get(name) not in (None, "") for name in names
        ):
            self.add_error(
                "note", gettext("Write something down first: a weight, a reading or a word.")
            )
        return self.cleaned_data
