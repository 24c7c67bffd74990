"""Adding a device, and saying what its channels are in."""

from collections.abc import Sequence
from typing import Any

from django import forms
from django.utils.translation import gettext
from django.utils.translation import gettext_lazy as _

from pantry_core.errors import OutOfRange
from pantry_core.heat.thermometer import HIGHEST_M, LOWEST_M, checked
from pantry_web.devices.models import Channel
from pantry_web.feasts.models import Dish
from pantry_web.fields import NumberField, TemperatureField
from pantry_web.forms import KitchenForm

OF_A_DISH = (Channel.What.MEAT, Channel.What.FIRE)


class DeviceForm(KitchenForm):
    """A device by its name."""

    name = forms.CharField(max_length=60, label=_("Name"))


class ChannelForm(KitchenForm):
    """What a channel is in, of which dish, and between what a fire is wanted."""

    what = forms.ChoiceField(choices=Channel.What.choices, label=_("Where it is"))
    dish = forms.ChoiceField(label=_("Dish"), required=False)
    low = TemperatureField(-40, 450, label=_("Wanted from"), required=False)
    high = TemperatureField(-40, 450, label=_("to"), required=False)

    def __init__(self, *args: Any, dishes: Sequence[Dish], **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.dishes = {str(each.pk): each for each in dishes}
        field = self.fields["dish"]
        if isinstance(field, forms.ChoiceField):
            field.choices = [
                ("", gettext("none")),
                *((key, each.name) for key, each in self.dishes.items()),
            ]

    def clean(self) -> dict[str, Any]:
        """A probe in the meat is of a dish, and a band has its lower end first."""
        typed = self.cleaned_data
        if typed.get("what") in OF_A_DISH and not typed.get("dish"):
            self.add_error("dish", gettext("Of which dish is it?"))
        low, high = typed.get("low"), typed.get("high")
        if low is not None and high is not None and low >= high:
            self.add_error("high", gettext("That is not above the lower end."))
        return typed


M_PER_FOOT = 0.3048


class ThermometerForm(KitchenForm):
    """What a thermometer shows in ice and in boiling water, so high above the sea."""

    wire = forms.ChoiceField(label=_("Thermometer"), required=False)
    name = forms.CharField(max_length=60, label=_("Its name, if it is no device"), required=False)
    ice = TemperatureField(-15, 15, label=_("In crushed ice and water"))
    boiling = TemperatureField(60, 120, label=_("In boiling water"))
    height = NumberField(LOWEST_M, HIGHEST_M, label=_("Height above the sea"), unit="m")

    def __init__(
        self, *args: Any, wires: Sequence[Channel], height_m: float, units: str, **kwargs: Any
    ) -> None:
        super().__init__(*args, units=units, **kwargs)
        self.wires = {str(each.pk): each for each in wires}
        wire, height = self.fields["wire"], self.fields["height"]
        if isinstance(wire, forms.ChoiceField):
            named = (
                (key, f"{each}, {each.get_what_display()}") for key, each in self.wires.items()
            )
            wire.choices = [*named, ("", gettext("another one"))]
        self.metres = M_PER_FOOT if units == "imperial" else 1.0
        if isinstance(height, NumberField) and units == "imperial":
            height.unit = "ft"
            height.least, height.most = LOWEST_M / M_PER_FOOT, round(HIGHEST_M / M_PER_FOOT)
        height.initial = round(height_m / self.metres)

    def clean(self) -> dict[str, Any]:
        """Another one has a name, and both readings are of ice and of boiling water."""
        typed = self.cleaned_data
        if not typed.get("wire") and not typed.get("name"):
            self.add_error("name", gettext("What do you call it?"))
        if {"ice", "boiling", "height"} <= typed.keys():
            try:
                checked(typed["ice"], typed["boiling"], typed["height"] * self.metres)
            except OutOfRange:
                self.add_error(
                    "boiling", gettext("Water does not boil near that at this height; look again.")
                )
        return typed

    @property
    def shown(self) -> dict[str, Any]:
        """What is kept of it."""
        typed = self.cleaned_data
        channel = self.wires.get(typed["wire"])
        return {
            "channel": channel, "name": str(channel) if channel else typed["name"],
            "ice_c": typed["ice"], "boiling_c": typed["boiling"],
            "height_m": typed["height"] * self.metres,
        }  # fmt: skip
