"""Adding a device, and saying what its channels are in."""

from collections.abc import Sequence
from typing import Any

from django import forms
from django.utils.translation import gettext
from django.utils.translation import gettext_lazy as _

from pantry_web.devices.models import Channel
from pantry_web.feasts.models import Dish
from pantry_web.fields import TemperatureField
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
