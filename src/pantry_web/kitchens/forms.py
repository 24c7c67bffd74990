"""Forms of the house."""

from datetime import datetime, time
from typing import TYPE_CHECKING, Any
from zoneinfo import ZoneInfo, available_timezones

from django import forms
from django.contrib.auth.forms import UserCreationForm

from pantry_core.days.named import countries
from pantry_web.fields import InstantField, LongSelect, NumberField
from pantry_web.forms import KitchenForm
from pantry_web.kitchens.models import Cook, Kitchen

_REGIONS = (
    "Africa", "America", "Antarctica", "Arctic", "Asia", "Atlantic", "Australia", "Europe",
    "Indian", "Pacific", "UTC",
)  # fmt: skip
ZONES = [(name, name) for name in sorted(available_timezones()) if name.startswith(_REGIONS)]


if TYPE_CHECKING:
    _CookForm = UserCreationForm[Cook]
else:
    _CookForm = UserCreationForm


class FirstStartForm(_CookForm):
    """The first cook, who owns the kitchen."""

    kitchen_name = forms.CharField(max_length=80, label="Name of your kitchen")
    time_zone = forms.ChoiceField(
        choices=ZONES, initial="Europe/London", label="Time zone", widget=LongSelect
    )

    class Meta:
        model = Cook
        fields = ("username",)


class HouseForm(KitchenForm):
    """What the house is like."""

    name = forms.CharField(max_length=80, label="Name")
    time_zone = forms.ChoiceField(choices=ZONES, label="Time zone", widget=LongSelect)
    units = forms.ChoiceField(choices=Kitchen.Units.choices, label="Show amounts in")
    profile = forms.ChoiceField(choices=Kitchen.Profile.choices, label="Limits to keep")
    cups = forms.ChoiceField(choices=Kitchen.Cups.choices, label="Cups and spoons are")
    wake = forms.TimeField(label="Up at", widget=forms.TimeInput({"type": "time"}, "%H:%M"))
    sleep = forms.TimeField(label="In bed at", widget=forms.TimeInput({"type": "time"}, "%H:%M"))
    cooks = NumberField(1, 20, label="Cooks")
    country = forms.ChoiceField(
        choices=lambda: [("", "none"), *countries().items()], required=False,
        label="Public holidays of", widget=LongSelect,
    )  # fmt: skip

    def clean_cooks(self) -> int:
        """A whole number of cooks."""
        cooks: float = self.cleaned_data["cooks"]
        if cooks != int(cooks):
            raise forms.ValidationError("A whole number would do.")
        return int(cooks)

    def clean(self) -> dict[str, Any]:
        """Bed comes after getting up on the same day."""
        wake: time | None = self.cleaned_data.get("wake")
        sleep: time | None = self.cleaned_data.get("sleep")
        if wake and sleep and sleep <= wake:
            self.add_error("sleep", "This must be later than getting up, on the same day.")
        return self.cleaned_data


class ZonedForm(KitchenForm):
    """A form whose local times are those of a zone."""

    def __init__(self, *args: Any, zone: str, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        for field in self.fields.values():
            if isinstance(field, InstantField):
                field.zone = ZoneInfo(zone)


class AbsenceForm(ZonedForm):
    """A time in which nobody is at home."""

    begins = InstantField(label="Away from")
    ends = InstantField(label="until")

    def clean(self) -> dict[str, Any]:
        """Coming home is after leaving."""
        begins: datetime | None = self.cleaned_data.get("begins")
        ends: datetime | None = self.cleaned_data.get("ends")
        if begins and ends and ends <= begins:
            self.add_error("ends", "Coming home is after leaving.")
        return self.cleaned_data


class ClockForm(ZonedForm):
    """Where the demo clock stands."""

    stands_at = InstantField(label="The demo clock stands at")
